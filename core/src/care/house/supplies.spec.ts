import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Supply } from '../../model/schemas.js';
import { MS_PER_DAY } from '../../units/calendar.js';
import { taskById, tasksOf } from '../catalogue/lookup.js';
import { gather, type Fact, type History } from '../record/history.js';
import { costOf, pictured, shortFor, stocks, supplyStates, type StockEvent } from './supplies.js';
import { household, machine } from '../../model/testing.js';
import { SUPPLIES } from '../catalogue/data/supplies.js';
import { usesOf, usuallyUsed } from '../catalogue/uses.js';
import { MACHINE_KINDS } from '../../model/vocabulary.js';
import { Usage } from '../record/load-counts.js';
import type { House } from '../schedule/year.js';

const NOW = Date.parse('2026-06-15T10:00:00Z');
const at = (daysAgo: number) => NOW - daysAgo * MS_PER_DAY;
const washer = machine('front-load-washer', { features: { dispenser: 'drawer' } });

const supply = (item: string, change: Partial<Supply> = {}): Supply => ({
  id: `00000000-0000-4000-8000-0000000000${item.length}`,
  version: 1,
  item,
  name: item,
  unit: 'ml',
  pack: 500,
  ...change,
});

/** Everything was done so many days ago, some of it longer ago. */
function houseWith(days: number, but: Record<string, number> = {}): House {
  const facts = tasksOf(washer).map(({ id }): Fact => {
    const when = at(but[id] ?? days);
    const day = new Date(when).toISOString().slice(0, 10);
    return { entryId: id, kind: 'done', at: when, day, task: id };
  });
  const { taps, ...past } = gather(facts);
  const history: History = { ...past, usage: new Usage(taps, 5) };
  return {
    household: household({ hardness: 250 }),
    machines: [washer],
    histories: [history],
    now: NOW,
  };
}

describe('what a task uses', () => {
  it('is read from its fetch list, with how often it is needed at all', () => {
    expect(usesOf(taskById('pump-filter'), washer)).toEqual([
      { supply: 'dish-soap', amount: 10, share: 1, expected: 10 },
      { supply: 'vinegar', amount: 250, share: 0.3, expected: 75 },
    ]);
    expect(usuallyUsed(usesOf(taskById('pump-filter'), washer))).toEqual([
      { supply: 'dish-soap', amount: 10 },
    ]);
  });
});

describe('stocks', () => {
  const counted: StockEvent = { at: at(100), kind: 'stock', supply: 'dish-soap', value: 300 };
  const filter = (daysAgo: number, used?: StockEvent['used']): StockEvent => ({
    at: at(daysAgo),
    kind: 'done',
    machineId: washer.id,
    task: 'pump-filter',
    ...(used ? { used } : {}),
  });
  const soap = (...events: StockEvent[]) => stocks(events, [washer]).get('dish-soap');

  it('are what was counted last, with what was bought and less what was used since', () => {
    expect(soap(counted)).toBe(300);
    expect(soap(counted, filter(50))).toBe(290);
    expect(soap(counted, filter(50), { ...counted, at: at(20), kind: 'bought', value: 500 })).toBe(
      790,
    );
    expect(soap(counted, filter(50), { ...counted, at: at(20), value: 120 })).toBe(120);
    expect(soap(filter(150), counted)).toBe(300);
  });

  it('take the person’s word for what was used over the usual amounts', () => {
    expect(soap(counted, filter(50, []))).toBe(300);
    expect(soap(counted, filter(50, [{ supply: 'dish-soap', amount: 42 }]))).toBe(258);
  });

  it('are not known for what was never counted or bought, and never below nothing', () => {
    expect(soap(filter(50))).toBeUndefined();
    expect(soap({ ...counted, value: 4 }, filter(50))).toBe(0);
  });

  it('do not depend on the order in which events are given', () => {
    const events = [
      counted,
      filter(80),
      filter(60),
      { ...counted, at: at(40), value: 90 },
      filter(5),
    ];
    fc.assert(
      fc.property(fc.shuffledSubarray(events, { minLength: 5 }), (shuffled) => {
        expect(soap(...shuffled)).toBe(80);
      }),
    );
  });

  it('forget work of a machine or a task that is no longer there', () => {
    const gone = { ...filter(50), machineId: 'gone' };
    expect(soap(counted, gone, { ...filter(40), task: 'own-gone' })).toBe(300);
  });
});

describe('supplyStates', () => {
  const events = (value: number): StockEvent[] => [
    { at: at(1), kind: 'stock', supply: 'citric-acid', value },
  ];
  const acid = supply('citric-acid', { unit: 'g' });

  it('tells the uses left, and puts it on the list before the visit that would run out', () => {
    // Descaling is due every 33 loads in hard water, the next in about a week.
    const house = houseWith(3, { descale: 40 });
    const [state] = supplyStates([acid], events(350), house);
    expect(state!.uses).toEqual([
      { task: 'descale', name: 'Descale', amount: 100, share: 1, times: 3 },
    ]);
    expect(state!.buy).toBe('later');
    expect(state!.runsOut!.on > '2026-08-01').toBe(true);
    const [low] = supplyStates([acid], events(40), house);
    expect(low!.buy).toBe('now');
    expect(low!.runsOut).toMatchObject({ task: 'descale', on: '2026-06-21' });
  });

  it('lasts a year where it does', () => {
    expect(supplyStates([acid], events(5000), houseWith(3))[0]).toMatchObject({ buy: 'no' });
    expect(supplyStates([acid], events(5000), houseWith(3))[0]).not.toHaveProperty('runsOut');
  });

  it('uses more in a year the more is washed', () => {
    const busy = houseWith(3);
    const idle = { ...busy, histories: [{ ...busy.histories[0]!, usage: new Usage([], 1) }] };
    const full = { ...busy, histories: [{ ...busy.histories[0]!, usage: new Usage([], 20) }] };
    const perYear = (house: House) => supplyStates([supply('dish-soap')], [], house)[0]!.perYear;
    expect(perYear(full)).toBeGreaterThan(perYear(idle));
    expect(perYear(idle)).toBeGreaterThan(0);
  });

  it('keeps what no task uses as it is, and asks nobody to buy what was put away', () => {
    const part = supply('gasket', { unit: 'pieces' });
    expect(supplyStates([part], [], houseWith(3))[0]).toMatchObject({ uses: [], buy: 'no' });
    const away = { ...acid, putAway: true };
    expect(supplyStates([away], events(0), houseWith(3, { descale: 90 }))[0]!.buy).toBe('no');
  });
});

describe('shortFor', () => {
  const visit = { tasks: [{ machineId: washer.id, task: 'descale' }] } as Parameters<
    typeof shortFor
  >[0];

  it('names what a visit always needs and is not enough of', () => {
    const acid = supply('citric-acid', { unit: 'g' });
    const left = (value: number): StockEvent[] => [
      { at: at(1), kind: 'stock', supply: 'citric-acid', value },
    ];
    expect(shortFor(visit, [acid], left(60), [washer])).toEqual([
      {
        ...{ item: 'citric-acid', name: 'citric-acid', unit: 'g', needed: 100, left: 60 },
        said: '60 g, 4 spoonfuls left; this visit takes 100 g, 7 spoonfuls',
      },
    ]);
    expect(shortFor(visit, [acid], left(100), [washer])).toEqual([]);
    expect(shortFor(visit, [], left(0), [washer])).toEqual([]);
    expect(shortFor(visit, [acid], [], [washer])).toEqual([]);
  });
});

describe('pictured', () => {
  it.each([
    ['foil-tape', 0.2, 'pieces', 'a strip of tape'],
    ['sealing-washer', 2, 'pieces', '2 pieces'],
    ['fill-hose', 1, 'pieces', '1 piece'],
    ['dish-soap', 10, 'ml', '10 ml, a spoonful'],
    ['vinegar', 250, 'ml', '250 ml, a cup'],
    ['machine-cleaner', 100, 'ml', '100 ml, half a cup'],
    ['citric-acid', 100, 'g', '100 g, 7 spoonfuls'],
  ] as const)('says %s %d %s as “%s”', (item, amount, unit, said) => {
    expect(pictured(item, amount, unit)).toBe(said);
  });

  it('has a word for every piece of which a task takes a part', () => {
    for (const one of MACHINE_KINDS.map((kind) => machine(kind))) {
      for (const { supply, amount } of tasksOf(one).flatMap((task) => usesOf(task, one))) {
        const { unit } = SUPPLIES.find(({ id }) => id === supply)!;
        expect(pictured(supply, amount, unit), supply).not.toBe('part of one');
      }
    }
  });
});

describe('costOf', () => {
  it('reckons by the pack, and counts what has no price', () => {
    const kept = [supply('vinegar', { pack: 1000, price: 2 }), supply('dish-soap')];
    const year = { supplies: { vinegar: 750, 'dish-soap': 100, alcohol: 5 } };
    expect(costOf(year, kept)).toEqual({ money: 1.5, unpriced: 2 });
  });
});
