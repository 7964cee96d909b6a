import { sayFinding } from '../trouble/diagnosis/diagnosis.js';
import { stagesOf } from '../trouble/data/stages.js';
import { isWasher } from '../model/vocabulary.js';
import { effectsOf, SIGNS, type Sign } from '../world/acts.js';
import { strayFacts, type Fact, type Facts } from '../world/facts.js';
import { isFull, step } from '../world/world.js';
import { SUMP } from '../world/water.js';
import { advise, SOMEBODY_ELSE } from '../trouble/diagnosis/advice.js';
import { CALL_OUT, caught, deedsOf, MOP, outcomeNow, stepsOfFix, type Done } from './actions.js';
import { drawCase, physicsNow, showsNow, type PracticeCase, type PracticeGame } from './case.js';
import { saysOf, takeFigure } from './figures-taken.js';
import {
  answered,
  beliefOf,
  ENDS,
  startState,
  type Happened,
  type PracticeEnd,
  type PracticeState,
} from './state.js';
import { LEFT_OPEN, LEFT_SO, STOPPED } from './words.js';

/** Minutes that a hint costs. */
export const HINT = 5;
/** L that a load sends through what was left open. */
const GUSH = 15;

/** Plays a game from its beginning: the same acts give the same again. @throws RangeError for a case that cannot be */
export function replay(game: PracticeGame): { game: PracticeCase; state: PracticeState } {
  const drawn = drawCase(game);
  const state = game.acts.reduce((now, act) => perform(drawn, now, act), startState(drawn));
  return { game: drawn, state };
}

/**
 * Does something. What is not known, or cannot be done now, changes nothing.
 * @param act id of an action, `hint`, `work:` with a cause and the steps that were left out, or `end:` with how
 */
export function perform(game: PracticeCase, state: PracticeState, act: string): PracticeState {
  if (state.end) return state;
  if (act === 'hint') return hinted(game, state);
  if (act.startsWith('end:')) return ended(game, state, act.slice(4));
  if (act.startsWith('work:')) return worked(game, state, act);
  const one = deedsOf(game, state).find(({ id }) => id === act);
  if (!one) return state;
  const outcome = outcomeNow(game, state, one);
  switch (outcome.is) {
    case 'not yet':
      return state;
    case 'stopped':
      return tell(
        { ...state, stopped: [...state.stopped, outcome.law] },
        { act, is: 'stopped', say: STOPPED[outcome.law]!.say, minutes: 0, mess: 0 },
      );
    case 'done':
      return done(game, spilt(state, one, outcome.spilled, outcome.world), one);
  }
}

const tell = (state: PracticeState, happened: Happened): PracticeState => ({
  ...state,
  happened: [...state.happened, happened],
});

const LITRES = 10;
const rounded = (litres: number): number => Math.round(litres * LITRES) / LITRES;

/** The time that it takes, and what ran on the floor, which is mopped up. */
function spilt(
  state: PracticeState,
  { id, minutes, waits = 0, money = 0 }: Pick<Done, 'id' | 'minutes' | 'waits' | 'money'>,
  spilled: number,
  world: PracticeState['world'],
): PracticeState {
  const mess = rounded(spilled - caught(spilled, state.tray));
  const mop = Math.round(MOP * mess);
  const next = {
    ...state,
    world,
    minutes: state.minutes + minutes + mop,
    waiting: state.waiting + waits,
    mess: rounded(state.mess + mess),
    money: state.money + money,
  };
  if (mess <= 0) return next;
  return tell(next, {
    act: id,
    is: 'spilled',
    say: `${mess} L ran on the floor: what stands above an opening runs out of it. ${mop} min with the mop.`,
    minutes: mop,
    mess,
  });
}

/** What comes of it beside the machine: what is found, what is right now. */
function done(game: PracticeCase, state: PracticeState, one: Done): PracticeState {
  const { id: act, minutes, is } = one;
  const told = (kind: Happened['is'], say: string): Happened => ({
    act,
    is: kind,
    say,
    minutes,
    mess: 0,
  });
  switch (is.a) {
    case 'set-up': {
      const tray = is.setup.id === 'flap-open' ? !is.made : state.tray;
      return tell({ ...sniffed(state), tray }, told('done', `${one.back ?? one.say}.`));
    }
    case 'draining':
      return tell({ ...state, tray: true }, told('done', 'The water is out.'));
    case 'look': {
      const answer = showsNow(game, state.left).get(is.check.id) ? 'yes' : 'no';
      return tell(
        {
          ...state,
          answers: answered(state.answers, is.check.id, answer),
          made: state.made | stagesOf(is.check),
        },
        told('found', `${is.check.ask} ${answer === 'yes' ? 'Yes.' : 'No.'}`),
      );
    }
    case 'figure': {
      const figure = takeFigure(game, state, is.measure.id);
      const says = Object.entries(saysOf(game, state, is.measure.id));
      const answers = says.reduce((all, [id, answer]) => answered(all, id, answer), state.answers);
      const known = game.trouble.evidence(answers).map(([id]) => id);
      const kept = Object.fromEntries(Object.entries(answers).filter(([id]) => known.includes(id)));
      return tell(
        { ...state, figures: [...state.figures, figure], answers: kept },
        told('figure', figure.say),
      );
    }
    case 'fix':
      return tell(
        putRight(state, is.cause, game),
        told('done', game.trouble.causes[is.cause]!.fix.say),
      );
    case 'try':
      return run(game, state, one);
    case 'ready':
      return tell(sniffed({ ...state, tray: false }), told('done', 'All is back as it is used.'));
  }
}

/** Whoever opens a gas valve smells at it; what was moved since is smelt at where it stands. */
function sniffed(state: PracticeState): PracticeState {
  const { facts } = state.world;
  if (facts.gas === 'shut' || facts.gasTight === 'yes' || facts.place === 'out') return state;
  return { ...state, world: { ...state.world, facts: { ...facts, gasTight: 'yes' } } };
}

function putRight(state: PracticeState, cause: number, game: PracticeCase): PracticeState {
  const { fix } = game.trouble.causes[cause]!;
  return {
    ...state,
    fixed: state.fixed.includes(cause) ? state.fixed : [...state.fixed, cause],
    left: state.left.filter((one) => one !== cause),
    made: state.made | stagesOf(fix),
    proved: false,
  };
}

const WATERTIGHT: readonly Fact[] = ['filter', 'thinHose', 'drainHose', 'trap', 'fillHose'];
const isOpen = (facts: Facts): Fact | undefined =>
  WATERTIGHT.find((fact) =>
    fact === 'thinHose' ? facts.thinHose === 'open' : strayFacts(facts).includes(fact),
  );
const WASHER_SIGNS: readonly Sign[] = ['filter', 'cap', 'inlet', 'drain'];
const DRYER_SIGNS: readonly Sign[] = ['duct', 'gas'];

/** Runs it: what was left open runs out, what can be seen is seen, what is still wrong shows. */
function run(game: PracticeCase, state: PracticeState, one: Done): PracticeState {
  const { machine, hidden } = game;
  const washer = isWasher(machine.kind);
  const open = washer ? isOpen(state.world.facts) : undefined;
  if (open) {
    const flooded = spilt(state, { id: one.id, minutes: 0 }, GUSH, state.world);
    return tell(flooded, {
      act: one.id,
      is: 'proof',
      say: LEFT_SO[open] ?? LEFT_OPEN,
      minutes: 0,
      mess: 0,
    });
  }
  const ran = {
    ...state.world.facts,
    ...(washer ? { water: 'run' as const } : { air: 'run' as const }),
  };
  const seen = (washer ? WASHER_SIGNS : DRYER_SIGNS).filter((sign) =>
    Object.entries(SIGNS[sign].needs(machine)).every(([fact, values]) =>
      (values as readonly string[]).includes(ran[fact as Fact]),
    ),
  );
  const facts = seen.reduce<Facts>((all, sign) => ({ ...all, ...SIGNS[sign].does }), ran);
  const shows = showsNow(game, state.left);
  const still = Object.keys(hidden.reported).filter((id) => state.left.length > 0 && shows.get(id));
  const stands = washer && physicsNow(game, state.left).drain?.share === 0;
  const world = {
    ...state.world,
    facts: { ...facts, cool: 'unknown' as const },
    litres: washer ? (stands ? SUMP + GUSH : SUMP) : state.world.litres,
  };
  const right = still.length === 0;
  return tell(
    { ...state, world, proved: right, failed: right ? state.failed : [...state.fixed] },
    {
      act: one.id,
      is: 'proof',
      say: right
        ? 'It runs as it should.'
        : `It is not over: ${sayFinding(still[0]!).toLowerCase()}.`,
      minutes: one.minutes,
      mess: 0,
    },
  );
}

/** The steps of a repair’s task, done one by one; some were left out. */
function worked(game: PracticeCase, state: PracticeState, act: string): PracticeState {
  const [, id = '', out = ''] = act.split(':');
  const cause = game.trouble.causes.findIndex((one) => one.id === id);
  const { fix } = game.trouble.causes[cause] ?? {};
  if (!fix?.task || fix.who !== 'you') return state;
  const leftOut = new Set(out.split(',').filter(Boolean));
  let now = state;
  let hurt = false;
  let cleaned = false;
  for (const one of stepsOfFix(game, fix.task)) {
    const { acts, later, id: stepId } = one.step;
    if (later || leftOut.has(stepId)) continue;
    if (acts.stopsIfFull && isFull(now.world)) {
      return tell(now, {
        act,
        is: 'stopped',
        say: STOPPED['too heavy alone']!.say,
        minutes: 1,
        mess: 0,
      });
    }
    const next = step(now.world, { acts }, game.machine, []);
    const stop = next.faults.find(({ law }) => STOPPED[law] && law !== 'too heavy alone');
    if (stop) {
      hurt = true;
      now = tell(
        { ...now, stopped: [...now.stopped, stop.law] },
        {
          act,
          is: 'stopped',
          say: `${one.step.do} ${STOPPED[stop.law]!.say}`,
          minutes: 0,
          mess: 0,
        },
      );
      break;
    }
    const facts = { ...next.world.facts, ...effectsOf(acts) };
    const stands = acts.runs && physicsNow(game, now.left).drain?.share === 0 && !cleaned;
    const litres = acts.drains ? 0 : stands ? SUMP + GUSH : next.world.litres;
    const spilled = next.world.floor - now.world.floor;
    now = spilt(now, { id: act, minutes: 0 }, spilled, { ...next.world, facts, litres });
    cleaned ||= acts.cleans === true;
  }
  const minutes = fix.minutes;
  now = { ...now, minutes: now.minutes + (hurt ? 2 : minutes) };
  if (hurt) return now;
  return tell(putRight(now, cause, game), { act, is: 'done', say: fix.say, minutes, mess: 0 });
}

function hinted(game: PracticeCase, state: PracticeState): PracticeState {
  return tell(
    { ...state, minutes: state.minutes + HINT, hints: state.hints + 1 },
    { act: 'hint', is: 'hint', say: adviceNow(game, state), minutes: HINT, mess: 0 },
  );
}

/** What a practised hand would do next, in a sentence. */
export function adviceNow(game: PracticeCase, state: PracticeState): string {
  if (state.proved) return 'It runs as it should: leave it ready.';
  if (unproved(state)) {
    return 'Something was put right: run it, and see whether it is gone.';
  }
  const { next } = advise(game.trouble, beliefOf(game, state), state.answers, [...state.failed]);
  if (!next) return 'Nothing more is worth its minutes: let it rest, and watch the next load.';
  return 'fix' in next ? next.fix.cause.fix.say : `${next.check.check.ask} ${next.check.check.how}`;
}

/** Whether something was put right since it was last run. */
export const unproved = ({ fixed, failed, proved }: PracticeState): boolean =>
  !proved && fixed.length > failed.length;

function ended(game: PracticeCase, state: PracticeState, how: string): PracticeState {
  const end = ENDS.find((one) => one === how) satisfies PracticeEnd | undefined;
  if (!end) return state;
  const leftSo = strayFacts(state.world.facts);
  const call = end === 'call';
  return tell(
    {
      ...state,
      end,
      leftSo,
      minutes: state.minutes + (call ? SOMEBODY_ELSE : 0),
      money: state.money + (call ? CALL_OUT : 0),
    },
    {
      act: `end:${end}`,
      is: 'end',
      say: END_WORDS[end],
      minutes: call ? SOMEBODY_ELSE : 0,
      mess: 0,
    },
  );
}

const END_WORDS: Record<PracticeEnd, string> = {
  done: 'You said: it is mended.',
  rest: 'You let it rest.',
  call: 'You called somebody.',
};
