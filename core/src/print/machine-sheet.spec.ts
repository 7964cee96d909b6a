import { describe, expect, it } from 'vitest';
import type { Entry } from '../model/schemas.js';
import { stateOf } from '../care/house/machine-state.js';
import { gather } from '../care/record/history.js';
import { household, machine } from '../model/testing.js';
import { Usage } from '../care/record/load-counts.js';
import { MACHINE_KINDS } from '../model/vocabulary.js';
import { chartsView } from '../views/charts.js';
import { lifeView } from '../views/life.js';
import { FOR_WHOM, FOR_WHOM_IDS } from './for-whom.js';
import { machineSheet, type MachineSheetAsk } from './machine-sheet.js';

const NOW = Date.parse('2026-06-15T10:00:00Z');
const house = household({ hardness: 250 });
const washer = machine('front-load-washer', {
  name: 'Cellar washer',
  features: { filterAccess: 'front-left' },
});
const { taps: _taps, ...past } = gather([
  {
    entryId: 'c1',
    kind: 'chemical',
    at: NOW,
    day: '2026-06-15',
    product: 'mould-bleach',
    actives: ['hypochlorite'],
  },
  {
    entryId: 'p1',
    kind: 'proof',
    at: NOW,
    day: '2026-06-15',
    task: 'pump-filter',
    step: 'drips',
    result: 'bad',
  },
]);

const entry = (change: Partial<Entry>): Entry => ({
  id: washer.id,
  machineId: washer.id,
  kind: 'done',
  at: '2026-06-14T10:00:00Z',
  author: 'household',
  source: 'run',
  zone: 'Europe/Vienna',
  recordedAt: '2026-06-14T10:00:00Z',
  ...change,
});

const sheetOf = (
  entries: readonly Entry[],
  ask: MachineSheetAsk = {},
  told: Parameters<typeof machineSheet>[0]['told'] = [],
  of = washer,
  home = house,
) => {
  const usage = new Usage([], 5);
  const history = { ...past, usage };
  const inOrder = [...entries].reverse();
  return machineSheet(
    {
      ...{ machine: of, household: home, entries, told, cases: [], now: NOW },
      state: stateOf(of, history, home, NOW),
      life: lifeView({
        machine: of,
        household: home,
        history,
        entries: inOrder,
        metered: [],
        now: NOW,
      }),
      charts: chartsView({ machine: of, entries: inOrder, cases: [], usage, units: 'metric' }),
    },
    ask,
  );
};

describe('a machine’s record to hand over', () => {
  const sheet = sheetOf([
    entry({ task: 'pump-filter', grade: 3, found: [{ what: 'coin', count: 2 }], trays: 4 }),
    entry({ kind: 'load', count: 1 }),
    entry({ task: 'gasket-wipe' }),
    entry({ kind: 'code', code: 'HEM18', note: 'twice' }),
  ]);
  const rows = (heading: string) => sheet.sections.find((one) => one.heading === heading)!.rows;

  it('says how the machine is built, and what is not known of it', () => {
    expect(sheet.title).toBe('Cellar washer');
    expect(sheet.facts).toContainEqual({ name: 'Pump filter', value: 'Flap at the bottom left' });
    expect(sheet.facts).toContainEqual({ name: 'Drain-down hose', value: 'not known' });
    expect(sheet.facts).toContainEqual({ name: 'Water hardness', value: '250 mg/L as CaCO3' });
  });

  it('tells what is open first: what did not hold, what was not rinsed out', () => {
    expect(rows('Open').map(([what]) => what)).toEqual(['Did not hold', 'Not rinsed out']);
    expect(rows('Open')[1]![1]).toContain('mould remover with chlorine');
  });

  it('tells what its meter told, where it told anything', () => {
    expect(sheet.sections.map(({ heading }) => heading)).not.toContain('What its meter told');
    const range = {
      ...{ seen: 'x', figure: 'drying' as const },
      change: { percent: 20, low: 15, high: 25 },
    };
    const { sections } = sheetOf([], {}, [
      { ...range, day: '2026-03-01', until: '2026-04-01' },
      { ...range, day: '2026-05-01' },
    ]);
    const told = sections.find(({ heading }) => heading === 'What its meter told')!.rows;
    expect(told[0]![0]).toMatch(/1 March.* to 1 April/);
    expect(told[1]).toEqual([
      expect.stringContaining('Since 1 May'),
      'Drying took 20 % longer for the same energy (15 to 25 %)',
    ]);
  });

  it('lists what was done, found and read, without the loads', () => {
    expect(rows('What was done, found and read').map(([, ...rest]) => rest)).toEqual([
      ['Clean the pump filter', 'heavy; 2 × coin; 4 trays of water'],
      ['Code on the display: HEM18', 'twice'],
    ]);
    expect(rows('Care').length).toBe(
      stateOf(washer, { ...past, usage: new Usage([], 5) }, house, NOW).dues.length,
    );
  });

  it('is of the days that were asked for', () => {
    const at = (day: string) => entry({ task: 'pump-filter', at: `${day}T10:00:00Z` });
    const all = [at('2026-06-14'), at('2026-03-01'), at('2025-03-01')];
    const days = (ask: MachineSheetAsk) =>
      sheetOf(all, ask).sections.find(({ heading }) => heading.startsWith('What was done'))!.rows
        .length;
    expect(days({})).toBe(3);
    expect(days({ from: '2026-01-01' })).toBe(2);
    expect(days({ from: '2026-01-01', to: '2026-03-01' })).toBe(1);
    expect(sheetOf(all, { from: '2026-01-01' }).lead).toContain('from 1 January');
  });

  it('says that there is more than is printed', () => {
    const many = Array.from({ length: 450 }, (_, i) => entry({ kind: 'code', code: `A${i}` }));
    const { sections } = sheetOf(many);
    expect(sections.at(-1)!.none).toContain('50 older entries');
  });

  it('draws what was read three times and more, with what was done meanwhile', () => {
    const read = (day: number, value: number) =>
      entry({
        ...{ kind: 'reading', quantity: 'drain-time', unit: 's', value },
        at: `2026-05-${String(day).padStart(2, '0')}T10:00:00Z`,
      });
    const entries = [
      read(20, 60),
      entry({ task: 'pump-filter', at: '2026-05-15T10:00:00Z' }),
      read(10, 90),
      read(1, 80),
    ];
    const chartsOf = (some: readonly Entry[]) =>
      sheetOf(some, { whom: 'technician' }).sections.flatMap(({ charts = [] }) => charts);
    const [chart] = chartsOf(entries);
    expect(chart).toMatchObject({ thread: 'water', unit: 's' });
    expect(chart!.points.map(({ value }) => value)).toEqual([80, 90, 60]);
    expect(chart!.marks.map(({ kind }) => kind)).toEqual(['cleaned']);
    expect(chartsOf(entries.slice(0, 3))).toEqual([]);
  });

  it.each(MACHINE_KINDS.flatMap((kind) => FOR_WHOM_IDS.map((whom) => [kind, whom] as const)))(
    'of a %s for %s tells what is theirs to know, and nothing else',
    (kind, whom) => {
      const private_ = {
        places: { stopValve: 'Behind the barrel' },
        numbers: { emergency: '0155-55' },
      };
      const home = household({ ...private_, currency: 'EUR' });
      const of = machine(kind, { identity: { boughtOn: '2020-01-01', price: 777 } });
      const part = kind === 'front-load-washer' ? 'door-gasket' : 'screen-mesh';
      const entries = [
        entry({ kind: 'called', note: 'Aunt was cross', cost: { amount: 333, currency: 'EUR' } }),
        entry({
          kind: 'replaced',
          station: 'gasket',
          part,
          note: 'Aunt was cross',
          cost: { amount: 333, currency: 'EUR' },
        }),
        entry({ kind: 'note', note: 'Aunt was cross' }),
      ];
      const text = JSON.stringify(sheetOf(entries, { whom }, [], of, home));
      const { money, house: own, notes } = FOR_WHOM[whom];
      expect(/777|333/.test(text)).toBe(money);
      expect(/Behind the barrel|0155-55/.test(text)).toBe(own);
      expect(text.includes('Aunt was cross')).toBe(notes);
      expect(text).not.toMatch(/undefined|NaN|\[object/);
    },
  );
});
