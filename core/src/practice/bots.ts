import { advise } from '../trouble/diagnosis/advice.js';
import { DECIDES } from '../trouble/data/types.js';
import { isWasher } from '../model/vocabulary.js';
import { HOME } from '../world/facts.js';
import { SUMP } from '../world/water.js';
import { deedsOf, outcomeNow, type Done } from './actions.js';
import { drawCase, type PracticeCase, type PracticeGame } from './case.js';
import { perform, unproved } from './game.js';
import { beliefOf, startState, type PracticeState } from './state.js';

/*
 * Hands that play a case: the practised hand follows the adviser and prepares first, the fixed hand goes through the
 * looks in the order of a list, and the careless hand prepares nothing.
 */

export const HANDS = ['practised', 'fixed', 'careless'] as const;
export type Hand = (typeof HANDS)[number];

/** A case that was played to its end. */
export interface Played {
  game: PracticeCase;
  state: PracticeState;
  acts: string[];
}

const MOST_ACTS = 120;

/** Plays a case as some hand would. */
export const playAs = (hand: Hand, begun: Omit<PracticeGame, 'acts'>): Played =>
  playOn(hand, drawCase(begun));

/** Plays a case on from where it stands. */
export function playOn(
  hand: Hand,
  game: PracticeCase,
  from: PracticeState = startState(game),
): Played {
  const player = new Player(game, from, hand === 'careless');
  const order = hand === 'practised' ? undefined : fixedOrder(game);
  while (!player.state.end && player.acts.length < MOST_ACTS) {
    const before = player.acts.length;
    const next = order ? order(player.state, player.barred) : advised(game, player.state);
    player.goOn(player.barred.has(next) ? 'end:rest' : next);
    if (player.acts.length === before) break;
  }
  if (!player.state.end) player.do('end:call');
  return { game, state: player.state, acts: player.acts };
}

/** What is to be done next, by the adviser: the id of an action. */
export function advised(game: PracticeCase, state: PracticeState): string {
  const { trouble } = game;
  const failed = [...state.failed];
  const { next } = advise(trouble, beliefOf(game, state), state.answers, failed);
  if (!next) return 'end:rest';
  return 'fix' in next ? `fix:${next.fix.cause.id}` : `look:${next.check.check.id}`;
}

/** Every look in the order of the list; what one of them decides is put right at once. */
function fixedOrder(
  game: PracticeCase,
): (state: PracticeState, barred: ReadonlySet<string>) => string {
  const { causes, checks } = game.trouble;
  return (state, barred) => {
    const can = new Set(deedsOf(game, state).map(({ id }) => id));
    const open = (id: string) => can.has(id) && !barred.has(id);
    for (const { id } of checks) {
      if (state.answers[id] === undefined && open(`look:${id}`)) return `look:${id}`;
      if (state.answers[id] !== 'yes') continue;
      const found = causes.find(
        (cause, i) =>
          (cause.makes[id] === DECIDES || cause.makes[id] === 'nearly always') &&
          !state.fixed.includes(i) &&
          open(`fix:${cause.id}`),
      );
      if (found) return `fix:${found.id}`;
    }
    return 'end:rest';
  };
}

class Player {
  readonly acts: string[] = [];
  /** What cannot be done here. */
  readonly barred = new Set<string>();

  constructor(
    readonly game: PracticeCase,
    public state: PracticeState,
    readonly careless: boolean,
  ) {}

  do(act: string): void {
    this.acts.push(act);
    this.state = perform(this.game, this.state, act);
  }

  /** Does what is next, with what has to be so before it, and proves what was put right. */
  goOn(next: string): void {
    if (unproved(this.state)) return this.prove();
    if (next.startsWith('end:')) {
      this.do(this.state.left.length > 0 ? 'end:call' : 'end:rest');
      return;
    }
    this.carefully(next);
    // What was not done cannot be done here.
    if (!this.#isDone(next)) this.barred.add(next);
  }

  prove(): void {
    const { facts } = this.state.world;
    // A drip shows only where it can be seen; the careless do not care.
    if (!this.careless && isWasher(this.game.machine.kind)) {
      const unseen = facts.filterTight === 'no' || facts.capTight === 'no';
      if (unseen && facts.flap === 'shut') this.carefully('prep:flap-open');
      if (facts.inletTight === 'no' && facts.place === 'home') this.carefully('prep:pulled-out');
    }
    this.carefully('prove:try');
    if (!this.state.proved) {
      const last = this.state.happened.at(-1);
      if (last?.act !== 'prove:try') this.do('end:call');
      return;
    }
    if (!this.careless) this.do('prove:ready');
    this.do('end:done');
  }

  /** Does something, after what it needs; the careless see to that only once they were stopped. */
  carefully(id: string, depth = 0): void {
    for (let turn = 0; turn < 6; turn++) {
      const one = this.#deed(id);
      if (!one) return;
      const wants = this.#wants(one);
      if (!wants) break;
      if (wants === id || depth > 4) break;
      if (this.careless && this.#stops(one)) this.do(id);
      this.carefully(wants, depth + 1);
    }
    this.do(id);
  }

  #deed(id: string): Done | undefined {
    return deedsOf(this.game, this.state).find((one) => one.id === id);
  }

  #isDone(id: string): boolean {
    const [kind, what = ''] = id.split(':');
    if (kind === 'look') return this.state.answers[what] !== undefined;
    return this.state.fixed.some((i) => this.game.trouble.causes[i]!.id === what);
  }

  #stops(one: Done): boolean {
    return outcomeNow(this.game, this.state, one).is === 'stopped';
  }

  /** What has to be done before something; nothing where it can be done as things are. */
  #wants(one: Done): string | undefined {
    const outcome = outcomeNow(this.game, this.state, one);
    const { facts, litres } = this.state.world;
    if (outcome.is === 'stopped') {
      const before = { 'live parts': 'unplugged', 'hot parts': 'cold', gas: 'gas-off' } as const;
      return `prep:${before[outcome.law as keyof typeof before] ?? 'let-out'}`;
    }
    if (outcome.is === 'not yet') {
      const { fact, values } = outcome.wants;
      const made = { power: 'unplugged', tap: 'water-off', gas: 'gas-off', cool: 'cold' } as const;
      if (fact in made) return `prep:${made[fact as keyof typeof made]}`;
      if (fact === 'place') return 'prep:pulled-out';
      if (fact === 'flap') return 'prep:flap-open';
      return values[0] === HOME[fact] ? 'prove:ready' : undefined;
    }
    if (outcome.spilled > 0 && !this.careless) {
      return facts.tap === 'open' && litres <= SUMP ? 'prep:water-off' : 'prep:let-out';
    }
    return undefined;
  }
}
