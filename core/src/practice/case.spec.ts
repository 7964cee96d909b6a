import { describe, expect, it } from 'vitest';
import { MACHINE_KINDS } from '../model/vocabulary.js';
import { drawCase, isPlayable, showsNow, type PracticeMachine } from './case.js';
import { LEVELS } from './levels.js';

export const machineOf = (kind: PracticeMachine['kind']): PracticeMachine => ({
  name: 'A machine',
  kind,
  features: {},
});
const ALL = MACHINE_KINDS.flatMap((kind) =>
  LEVELS.filter((level) => isPlayable(level, machineOf(kind))).map((level) => ({ kind, level })),
);
const SEEDS = [1, 2, 3, 77, 4_000_000_000];

describe('cases of practice', () => {
  it('can be drawn on every kind of machine, and every level on a front loader', () => {
    for (const kind of MACHINE_KINDS) expect(ALL.some((one) => one.kind === kind)).toBe(true);
    const front = ALL.filter(({ kind }) => kind === 'front-load-washer');
    expect(front.map(({ level }) => level.id)).toEqual(LEVELS.map(({ id }) => id));
  });

  it.each(ALL)(
    '$kind, $level.id: what is wrong is what shows, the same seed is the same case',
    ({ kind, level }) => {
      for (const seed of SEEDS) {
        const begun = { seed, level: level.id, machine: machineOf(kind) };
        const { hidden, trouble, physics, start } = drawCase(begun);
        expect(drawCase(begun)).toMatchObject({ hidden, physics, start });
        expect(Object.keys(hidden.reported).length).toBeGreaterThan(0);
        expect(hidden.wrong).toEqual(hidden.present);
        expect(level.faults[hidden.present.length]).toBeGreaterThan(0);
        if (level.symptom) expect(hidden.reported[level.symptom]).toBe('yes');
        for (const i of hidden.present) {
          const { id, fouling } = trouble.causes[i]!;
          if (level.causes) expect(level.causes).toContain(id);
          const known = fouling && trouble.situation.fouling?.[fouling];
          // A record that misleads says of what is wrong that it is clean.
          if (level.misleads && fouling) expect(known).toBeLessThan(0.5);
        }
      }
    },
  );

  it('draws another case for another seed', () => {
    const begun = (seed: number) => ({ seed, level: 'any' as const, machine: machineOf('tower') });
    const cases = [1, 2, 3, 4, 5, 6].map((seed) =>
      JSON.stringify([...drawCase(begun(seed)).hidden.shows]),
    );
    expect(new Set(cases).size).toBe(6);
  });

  it('shows no more of what was put right, and all of what is left', () => {
    const game = drawCase({ seed: 5, level: 'two', machine: machineOf('vented-dryer') });
    const [first, second] = game.hidden.wrong;
    expect([...showsNow(game, []).values()].some(Boolean)).toBe(false);
    const after = showsNow(game, [second!]);
    const marked = game.trouble.causes.map((_, i) => i === second);
    for (const [id, shows] of after) {
      expect(shows).toBe(game.hidden.shows.get(id) === true && game.trouble.tellsOf(id, marked));
    }
    expect(showsNow(game, [first!, second!])).toBe(game.hidden.shows);
  });

  it('says which machine cannot have a level', () => {
    const begun = { seed: 1, level: 'full' as const, machine: machineOf('heat-pump-dryer') };
    expect(() => drawCase(begun)).toThrow(/no trouble for "Full of water"/);
    expect(() => drawCase({ ...begun, level: 'hardest' as never })).toThrow(/no level/);
  });
});
