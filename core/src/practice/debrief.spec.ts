import { describe, expect, it } from 'vitest';
import { holds, procedureOf, tasksOf } from '../care/catalogue/lookup.js';
import { MACHINE_KINDS } from '../model/vocabulary.js';
import { playAs } from './bots.js';
import { drawCase, isPlayable, type PracticeMachine } from './case.js';
import { debriefOf, parOf, taskToAsk } from './debrief.js';
import { guideOf } from './guide.js';
import { perform } from './game.js';
import { LEVELS } from './levels.js';
import { ABOUTS, questionAbout, questionOf, visitQuestions } from './questions.js';
import { startState } from './state.js';

const machineOf = (kind: PracticeMachine['kind']): PracticeMachine => ({
  name: 'M',
  kind,
  features: {},
});
const front = {
  ...machineOf('front-load-washer'),
  features: { filterAccess: 'front-left', drainDownHose: 'yes' },
} as const;

describe('the debrief', () => {
  it('names what was wrong, a practised hand’s way, and what the evidence meant', () => {
    const begun = { seed: 3, level: 'full', machine: front } as const;
    const { acts } = playAs('fixed', begun);
    const debrief = debriefOf({ ...begun, acts });
    expect(debrief.wrong).toHaveLength(1);
    expect(debrief.practised.minutes).toBe(parOf(drawCase(begun)));
    expect(debrief.path.length).toBeGreaterThan(3);
    expect(debrief.meant.map(({ means }) => means).join(' ')).toMatch(/times likelier/);
    expect(debrief.questions.map(({ about }) => about)).toEqual([...ABOUTS]);
  });

  it('tells where a cheaper look stood, and nothing where the adviser was followed', () => {
    let turns = 0;
    for (let seed = 1; seed <= 6; seed++) {
      const begun = { seed, level: 'any', machine: front } as const;
      const best = debriefOf({ ...begun, acts: playAs('practised', begun).acts });
      expect(best.turns).toEqual([]);
      const listed = debriefOf({ ...begun, acts: playAs('fixed', begun).acts });
      for (const { saves, instead, yours } of listed.turns) {
        expect(saves).toBeGreaterThanOrEqual(1);
        expect(instead).not.toBe(yours);
      }
      turns += listed.turns.length;
    }
    expect(turns).toBeGreaterThan(1);
  });

  it('does not call mended what is not, nor scold for calling somebody', () => {
    const begun = { seed: 3, level: 'full', machine: front } as const;
    expect(debriefOf({ ...begun, acts: ['end:done'] }).verdict).toContain('still there');
    expect(debriefOf({ ...begun, acts: ['end:rest'] }).verdict).toContain('still there');
    expect(debriefOf({ ...begun, acts: ['end:call'] }).verdict).toContain('You called somebody');
  });

  it('has a task to ask about on every machine and level', () => {
    for (const kind of MACHINE_KINDS) {
      for (const level of LEVELS.filter((one) => isPlayable(one, machineOf(kind)))) {
        for (const seed of [1, 2, 3]) {
          const machine = machineOf(kind);
          const task = taskToAsk(drawCase({ seed, level: level.id, machine }));
          expect(tasksOf(machine).map(({ id }) => id)).toContain(task);
          expect(visitQuestions(machine, task, seed).length).toBeGreaterThanOrEqual(4);
        }
      }
    }
  });
});

describe('the five questions', () => {
  const all = MACHINE_KINDS.flatMap((kind) =>
    tasksOf(machineOf(kind)).map(({ id }) => ({ kind, task: id, machine: machineOf(kind) })),
  );
  it.each(all)('$kind, $task: one right answer among others that are not', ({ machine, task }) => {
    const own = procedureOf(machine, task);
    for (const about of ABOUTS) {
      const asked = questionAbout(machine, task, about, 9);
      if (!asked) continue;
      expect(new Set(asked.options).size).toBe(asked.options.length);
      expect(asked.options.length).toBeGreaterThanOrEqual(2);
      expect(asked.options[asked.right]).toBeTruthy();
      expect(questionOf(asked.id, machine)).toEqual({ task, about });
      const wrong = asked.options.filter((_, i) => i !== asked.right);
      if (about === 'proof') {
        const proofs = own.proof.filter(({ when }) => holds(when, machine)).map((one) => one.do);
        for (const one of wrong) expect(proofs).not.toContain(one);
      }
      if (about === 'fetch') {
        const fetched = own.fetch
          .filter(({ when }) => holds(when, machine))
          .map(({ what }) => what);
        for (const one of wrong) expect(fetched).not.toContain(one);
      }
    }
  });

  it('are of a machine that the household has, too', () => {
    const own = { ...front, id: '0c6a4b52-3d0f-4c0e-9d5f-2f3f0a3f7b11' };
    expect(visitQuestions(own, 'pump-filter', 4)).toEqual(visitQuestions(front, 'pump-filter', 4));
  });

  it('knows no question of another machine, or of a task that there is not', () => {
    expect(questionOf('tower/pump-filter/proof', front)).toBeUndefined();
    expect(questionOf('front-load-washer/nothing/proof', front)).toBeUndefined();
    expect(questionOf('front-load-washer/pump-filter/colour', front)).toBeUndefined();
  });
});

describe('the guided case', () => {
  it('leads to the end, dry and unhurt, on every front loader and however the filter is reached', () => {
    for (const drainDownHose of ['yes', 'no', 'unknown'] as const) {
      for (const filterAccess of ['front-left', 'front-right', 'unknown', 'lower-front'] as const) {
        for (let seed = 1; seed <= 6; seed++) {
          const machine = { ...front, features: { drainDownHose, filterAccess } };
          const game = drawCase({ seed, level: 'first', machine });
          let state = startState(game);
          let acts = 0;
          for (let next = guideOf(game, state); next; next = guideOf(game, state)) {
            expect(next.why.length).toBeGreaterThan(10);
            const after = perform(game, state, next.act);
            expect(after, next.act).not.toBe(state);
            state = after;
            if (++acts > 40) break;
          }
          expect(state.end).toBe('done');
          expect(state.left).toEqual([]);
          expect([state.mess, state.stopped, state.leftSo]).toEqual([0, [], []]);
        }
      }
    }
  });
});
