import { inOneGo } from '../units/steps.js';
import { describe, expect, it } from 'vitest';
import { tasksOf } from '../care/catalogue/lookup.js';
import { gather, type Fact, type History } from '../care/record/history.js';
import { Usage } from '../care/record/load-counts.js';
import type { House } from '../care/schedule/year.js';
import type { CaseRecord, Machine, Supply } from '../model/schemas.js';
import { household, machine } from '../model/testing.js';
import { MACHINE_KINDS, SCHOOLS } from '../model/vocabulary.js';
import { causesOf } from '../trouble/diagnosis/priors.js';
import { symptomsOf } from '../trouble/diagnosis/diagnosis.js';
import { STOP_RULES } from '../trouble/data/stops.js';
import { MS_PER_DAY } from '../units/calendar.js';
import { benchView, type Kept } from './bench.js';
import { schoolsView, suppliesView } from './house.js';
import { machineView, movedBetween } from './machine.js';
import { lookedFix, symptomsAt, troubleStart, troubleView } from './trouble.js';

const NOW = Date.parse('2026-06-15T10:00:00Z');
const home = household({ hardness: 250, visitMinutes: 60 });
const dayAt = (at: number) => new Date(at).toISOString().slice(0, 10);
const every = MACHINE_KINDS.map((kind, i) =>
  machine(kind, { id: `00000000-0000-4000-8000-00000000000${i + 1}`, name: kind }),
);

/** Every task of a machine done so many days ago, after a load each hour before that. */
function historyOf(one: Machine, days: number, more: Fact[] = []): History {
  const facts = tasksOf(one).map(({ id }): Fact => {
    const at = NOW - days * MS_PER_DAY;
    return { entryId: id, kind: 'done', at, day: dayAt(at), task: id };
  });
  const { taps, ...past } = gather([...facts, ...more]);
  return { ...past, usage: new Usage(taps, one.loadsPerWeek) };
}
const houseAfter = (days: number): House => ({
  household: home,
  machines: every,
  histories: every.map((one) => historyOf(one, days)),
  now: NOW,
});
const nothing: Kept = { visits: [], cases: [], supplies: [], stockEvents: () => [] };
const supply = (item: string, more: Partial<Supply> = {}): Supply => ({
  id: `id-of-${item}`,
  version: 1,
  item,
  name: item,
  unit: 'ml',
  pack: 500,
  ...more,
});

describe('the bench of a house', () => {
  it('has a state for every machine, whatever it holds', () => {
    for (const days of [1, 30, 400]) {
      const view = benchView(houseAfter(days), nothing);
      expect(view.machines.map(({ kind }) => kind)).toEqual([...MACHINE_KINDS]);
      expect(view.states).toHaveLength(every.length);
      expect(view.today).toBe('2026-06-15');
      expect(view.loads.map(({ machineId }) => machineId)).toEqual(every.map(({ id }) => id));
    }
    const empty = benchView({ household: home, machines: [], histories: [], now: NOW }, nothing);
    expect(empty).toMatchObject({ machines: [], states: [], loads: [], short: [] });
    expect(empty.visit).toBeUndefined();
  });

  it('proposes a visit for today once work is overdue, and a later one after all was done', () => {
    const after = (days: number) => benchView(houseAfter(days), nothing);
    expect(after(400).visit!.on! <= after(400).today).toBe(true);
    expect(after(0).visit!.on! > after(0).today).toBe(true);
    for (const { tasks, minutes } of [after(0).visit!, after(400).visit!]) {
      expect(tasks.length).toBeGreaterThan(0);
      expect(minutes.hands).toBeLessThanOrEqual(home.visitMinutes!);
    }
  });

  it('counts the loads of today and of the last seven days, and no older ones', () => {
    const [washer] = every;
    const load = (hoursAgo: number): Fact => {
      const at = NOW - hoursAgo * 3_600_000;
      return { entryId: `load-${hoursAgo}`, kind: 'load', at, day: dayAt(at) };
    };
    const house: House = {
      household: home,
      machines: [washer!],
      histories: [historyOf(washer!, 10, [1, 5, 30, 100, 24 * 20].map(load))],
      now: NOW,
    };
    expect(benchView(house, nothing).loads).toEqual([
      { machineId: washer!.id, today: 2, week: 4, days: [0, 0, 1, 0, 0, 1, 2] },
    ]);
  });

  it('shows open cases and not closed ones', () => {
    const open: CaseRecord = {
      id: 'open',
      machineId: every[0]!.id,
      events: [
        {
          id: '00000000-0000-4000-8000-0000000000a1',
          at: '2026-06-14T10:00:00Z',
          kind: 'answer',
          finding: 'drains-slowly',
          answer: 'yes',
        },
      ],
    };
    const closed: CaseRecord = {
      ...open,
      id: 'closed',
      events: [
        ...open.events,
        {
          id: '00000000-0000-4000-8000-0000000000a2',
          at: '2026-06-14T11:00:00Z',
          kind: 'close',
          ending: 'fixed',
        },
      ],
    };
    const { cases } = benchView(houseAfter(30), { ...nothing, cases: [open, closed] });
    expect(cases.map(({ id }) => id)).toEqual(['open']);
  });

  it('asks for nothing at a machine that is no longer in the house', () => {
    const told = {
      id: '00000000-0000-4000-8000-0000000000a3',
      at: '2026-06-14T10:00:00Z',
      kind: 'answer' as const,
      finding: 'drains-slowly',
      answer: 'yes' as const,
    };
    const gone: CaseRecord = { id: 'gone', machineId: 'retired', events: [told] };
    const { cases } = benchView(houseAfter(30), { ...nothing, cases: [gone] });
    expect(cases).toEqual([]);
  });

  it('asks for the stock’s events only where a supply is kept', () => {
    let asked = 0;
    const stockEvents = () => {
      asked += 1;
      return [];
    };
    benchView(houseAfter(400), { ...nothing, stockEvents });
    expect(asked).toBe(0);
    const { short } = benchView(houseAfter(400), {
      ...nothing,
      supplies: [supply('vinegar')],
      stockEvents,
    });
    expect(asked).toBe(1);
    // Never counted: how much is left is not known, and nothing is said to run out.
    expect(short.every(({ left }) => left !== undefined)).toBe(true);
  });
});

describe('a machine’s view', () => {
  it.each(every)('of a $kind gives each task with its reasons', (one) => {
    for (const days of [0, 40, 500]) {
      const view = machineView(one, historyOf(one, days), home, NOW);
      expect(view.tasks.length).toBeGreaterThan(0);
      for (const { loads, why } of view.tasks) {
        expect(loads === undefined || Number.isFinite(loads)).toBe(true);
        expect(JSON.stringify(why)).not.toMatch(/undefined|NaN/);
      }
      expect(movedBetween(view, view)).toEqual([]);
    }
  });

  it.each(every)('of a $kind tells which dates something moved, from and to', (one) => {
    const before = machineView(one, historyOf(one, 500), home, NOW);
    const after = machineView(one, historyOf(one, 0), home, NOW);
    const moved = movedBetween(before, after);
    expect(moved.length).toBeGreaterThan(0);
    for (const { from, to, why, task } of moved) {
      expect(from).not.toBe(to);
      expect(task.length * why.length).toBeGreaterThan(0);
    }
    // And back again, the same dates the other way round.
    const pairs = movedBetween(after, before).map(({ from, to }) => `${to} <- ${from}`);
    expect(pairs.sort()).toEqual(moved.map(({ from, to }) => `${from} <- ${to}`).sort());
  });
});

describe('the house’s year and its supplies', () => {
  it('shows every school side by side, with what it would cost', () => {
    const { schools } = schoolsView(houseAfter(30), [supply('vinegar', { price: 3 })]);
    expect(schools.map(({ school }) => school)).toEqual([...SCHOOLS]);
    expect(JSON.stringify(schools)).not.toMatch(/null/);
  });

  it('lists each supply once, a counted one with what is left', () => {
    const supplies = [supply('vinegar'), supply('dish-soap')];
    const counted = { at: NOW - MS_PER_DAY, kind: 'stock', supply: 'vinegar', value: 400 } as const;
    const view = inOneGo(suppliesView(houseAfter(30), supplies, [counted]));
    expect(view.supplies.map((one) => one.supply.item).sort()).toEqual(['dish-soap', 'vinegar']);
    const left = Object.fromEntries(view.supplies.map((one) => [one.supply.item, one.left]));
    expect(left['vinegar']).toBe(400);
  });
});

describe('what the trouble engine says across a border', () => {
  it.each(MACHINE_KINDS)('of a %s: what can be told, and each stop rule first', (kind) => {
    const { symptoms, stops } = troubleStart(kind);
    expect(symptoms.map(({ id }) => id)).toEqual(symptomsOf(kind).map(({ id }) => id));
    expect(stops).toHaveLength(STOP_RULES.filter(({ kinds }) => kinds.includes(kind)).length);
    for (const { id } of stops) {
      const view = troubleView({ kind, features: {} }, {}, [id]);
      expect(view.stops.map((stop) => stop.id)).toEqual([id]);
      expect([view.suspects, view.checks, view.fixes]).toEqual([[], [], []]);
      expect(view.next).toBeUndefined();
    }
  });

  it.each(MACHINE_KINDS)('of a %s: chances are chances, the likeliest first', (kind) => {
    for (const { id } of symptomsOf(kind)) {
      const view = troubleView({ kind, features: {} }, { [id]: 'yes' });
      const chances = view.suspects.map(({ chance }) => chance);
      expect(chances).toEqual([...chances].sort((a, b) => b - a));
      for (const chance of [...chances, view.other, ...Object.values(view.lines)]) {
        expect(chance, `${kind}, ${id}`).toBeGreaterThanOrEqual(0);
        expect(chance, `${kind}, ${id}`).toBeLessThanOrEqual(1 + 1e-12);
      }
      expect(view.checks.every(({ minutes, cost }) => cost >= minutes)).toBe(true);
      expect(view.checks.length).toBeLessThanOrEqual(6);
    }
  });

  it.each(MACHINE_KINDS)('of a %s: an answer is the same, asked a second time', (kind) => {
    const [first] = symptomsOf(kind);
    const ask = () => troubleView({ kind, features: {} }, { [first!.id]: 'yes' });
    expect(ask()).toEqual(ask());
  });

  it.each(MACHINE_KINDS)('of a %s: each station’s symptoms are made by something there', (kind) => {
    const build = { kind, features: {} };
    for (const cause of causesOf(build)) {
      const here = symptomsAt(build, cause.station);
      const own = symptomsOf(kind).filter(({ id }) => cause.makes[id] !== undefined);
      for (const { id } of own) expect(here).toContain(id);
      expect(lookedFix(cause.id)).toMatchObject({ cause: cause.id, chance: 1 });
    }
    expect(symptomsAt(build, 'no-such-station')).toEqual([]);
  });
});
