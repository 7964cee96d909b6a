import { describe, expect, it } from 'vitest';
import { CODE_CLASSES, MACHINE_KINDS } from '../../model/vocabulary.js';
import { symptomsOf } from './diagnosis.js';
import { stopsToAsk } from './stop-signs.js';
import { stopsOf } from '../data/stops.js';

describe('stop questions', () => {
  it('belong to every symptom of every kind, few enough to be read at a glance', () => {
    for (const kind of MACHINE_KINDS) {
      const own = stopsOf(kind).map(({ id }) => id);
      for (const { id } of symptomsOf(kind)) {
        const answers = { [id]: 'yes' } as const;
        const asked = stopsToAsk({ kind, features: {} }, { answers, codes: [], asked: [] });
        const ids = asked.map((rule) => rule.id);
        expect(ids.length, `${kind}: ${id}`).toBeGreaterThan(0);
        expect(ids.length, `${kind}: ${id}`).toBeLessThanOrEqual(8);
        expect(own).toEqual(expect.arrayContaining(ids));
        const again = stopsToAsk({ kind, features: {} }, { answers, codes: [], asked: ids });
        expect(again, `${kind}: ${id}, asked twice`).toEqual([]);
      }
    }
  });

  it('come with a code as well, but with a reminder', () => {
    for (const about of CODE_CLASSES) {
      const codes = [{ class: about }];
      const asked = MACHINE_KINDS.flatMap((kind) =>
        stopsToAsk({ kind, features: {} }, { answers: {}, codes, asked: [] }),
      );
      expect(asked.length > 0, about).toBe(about !== 'reminder');
    }
  });

  it('ask about gas only where something may burn it', () => {
    const told = { answers: { 'long-drying': 'yes' }, codes: [], asked: [] } as const;
    const ids = (energy?: 'gas' | 'electric') =>
      stopsToAsk({ kind: 'vented-dryer', features: energy ? { energy } : {} }, told).map(
        ({ id }) => id,
      );
    expect(ids('gas')).toContain('carbon-monoxide');
    expect(ids()).toContain('carbon-monoxide');
    expect(ids('electric')).not.toContain('carbon-monoxide');
    expect(ids('electric')).toContain('smoke');
  });

  it('do not come with what was denied or is not known', () => {
    const answers = { 'wont-drain': 'no', 'pool-front': 'unknown' } as const;
    const machine = { kind: 'front-load-washer', features: {} } as const;
    expect(stopsToAsk(machine, { answers, codes: [], asked: [] })).toEqual([]);
  });
});
