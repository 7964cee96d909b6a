import { describe, expect, it } from 'vitest';
import { demandsOf, type Acts, type Body } from './acts.js';
import { FACTS, HOME, strayFacts } from './facts.js';
import type { Doing } from './products.js';
import { HEIGHT, isDoorLocked, litresAbove, SUMP } from './water.js';
import { faultsAtEnd, minutesToCool, pass, startWorld, step } from './world.js';

const washer: Body = { kind: 'front-load-washer', features: { filterAccess: 'front-left' } };
const behind: Body = { kind: 'front-load-washer', features: { filterAccess: 'behind' } };
const dryer: Body = { kind: 'vented-dryer', features: {} };
const laws = (acts: Acts, facts = {}, body = washer, litres = 1) => {
  const start = startWorld(litres);
  return step({ ...start, facts: { ...start.facts, ...facts } }, { acts }, body).faults.map(
    ({ law }) => law,
  );
};

describe('heat leaves', () => {
  it('a full drum of 20 L takes between three and eight hours from 60 °C to 43 °C', () => {
    // Common practice.
    const full = startWorld(20, 60);
    expect(pass(full, 3 * 60, true).celsius).toBeGreaterThan(43);
    expect(pass(full, 8 * 60, true).celsius).toBeLessThan(43);
  });

  it('an empty dryer is cool to the hand after some thirty minutes', () => {
    expect(minutesToCool(startWorld(0, 65), false)).toBeGreaterThan(15);
    expect(minutesToCool(startWorld(0, 65), false)).toBeLessThan(45);
    expect(minutesToCool(startWorld(0, 38), false)).toBe(0);
  });
});

describe('water runs by gravity', () => {
  it('out of a filter that is opened, as much as stands there', () => {
    const out: Acts = { at: 'filter', does: { filter: 'out' } };
    const ready = { flap: 'open', power: 'off', cool: 'yes' };
    expect(laws(out, ready, washer, 0)).toEqual([]);
    expect(laws(out, ready, washer, 1)).toEqual(['flood']);
  });

  it('out of a drain hose held low, more than a bucket holds where the drum is full', () => {
    const low: Acts = { at: 'pipe', does: { drainHose: 'bucket' } };
    expect(laws(low, {}, washer, 1)).toEqual([]);
    expect(laws(low, {}, washer, 40)).toEqual(['flood']);
  });

  it('only what stands above the end: level against height, by the tub’s geometry', () => {
    // A segment of a lying cylinder, R 0.26 m and 0.35 m deep: 17.8 L at 15 cm (worked example).
    const litres = SUMP + 17.8;
    expect(litresAbove(litres, HEIGHT.drum + 0.15, 'front-load-washer')).toBeCloseTo(0, 1);
    expect(litresAbove(litres, HEIGHT.drum, 'front-load-washer')).toBeCloseTo(17.8, 6);
    expect(litresAbove(litres, HEIGHT.filter, 'front-load-washer')).toBe(litres);
    expect(litresAbove(litres, 0.75, 'front-load-washer')).toBe(0);
    // Upright, 15 cm of the same drum: π R² h.
    expect(litresAbove(40, HEIGHT.drum + 0.15, 'top-load-washer')).toBeCloseTo(
      40 - SUMP - Math.PI * 0.26 ** 2 * 150,
      6,
    );
  });

  it('out of a trap that is undone with the hose in it, where the drum stands higher', () => {
    const undo: Acts = { at: 'pipe', does: { trap: 'off' } };
    expect(laws(undo, {}, washer, 10)).toEqual([]);
    expect(laws(undo, {}, washer, 40)).toEqual(['flood']);
    expect(laws(undo, { drainHose: 'bucket' }, washer, 40)).toEqual([]);
  });

  it('not through a door: it stays locked while water stands above its sill', () => {
    expect(isDoorLocked(SUMP + 5, 'front-load-washer')).toBe(false);
    expect(isDoorLocked(SUMP + 18, 'front-load-washer')).toBe(true);
    expect(isDoorLocked(SUMP + 40, 'top-load-washer')).toBe(false);
  });

  it('out of an open tap, and out of whatever is open while a programme runs', () => {
    expect(laws({ at: 'valve', does: { tap: 'open' } }, { fillHose: 'off', tap: 'shut' })).toEqual([
      'flood',
    ]);
    for (const open of [{ filter: 'out' }, { drainHose: 'bucket' }, { trap: 'off' }]) {
      expect(laws({ at: 'outside', runs: 'rinse' }, open)).toContain('flood');
    }
  });
});

describe('cleaning products meet where they lie together', () => {
  const mould: Doing = {
    acts: { at: 'apart', soaks: { part: 'inserts', minutes: 10 } },
    brings: { products: ['mould-bleach'] },
  };
  const vinegar: Doing = {
    acts: { at: 'apart', soaks: { part: 'filter', minutes: 15 } },
    brings: { products: ['vinegar'] },
  };
  const rinsed: Doing = {
    acts: { at: 'apart', touches: 'inserts', waits: true, clears: true },
    rinses: 'station',
  };
  const lawsOf = (...doings: readonly Doing[]) => {
    let world = startWorld();
    return doings.flatMap((one) => {
      const next = step(world, one, washer);
      world = next.world;
      return next.faults.map(({ law }) => law);
    });
  };

  it('at the sink, while one works and after, until its part is rinsed', () => {
    // Chlorine bleach and vinegar give chlorine gas: the warning on the labels.
    expect(lawsOf(mould, vinegar)).toEqual(['products meet']);
    expect(lawsOf(mould, { acts: { at: 'outside', runs: 'rinse' } }, vinegar)).toEqual([
      'products meet',
    ]);
    expect(lawsOf(mould, rinsed, vinegar)).toEqual([]);
  });

  it('in the machine, until a programme with water has run', () => {
    const bleach: Doing = { acts: { at: 'drum' }, brings: { products: ['bleach'] } };
    const acid: Doing = { acts: { at: 'drum' }, brings: { products: ['citric-acid'] } };
    expect(lawsOf(bleach, acid)).toEqual(['products meet']);
    expect(lawsOf(bleach, { acts: { at: 'outside', runs: 'rinse' } }, acid)).toEqual([]);
    expect(lawsOf(bleach, vinegar)).toEqual([]);
    const back: Doing = { acts: { at: 'drawer', does: { inserts: 'in' }, touches: 'inserts' } };
    expect(lawsOf({ ...mould, acts: { at: 'apart', touches: 'inserts' } }, back, acid)).toEqual([
      'products meet',
    ]);
  });

  it('is told with what it gives, and works for its minutes', () => {
    const { world } = step(startWorld(), mould, washer);
    expect(world.products).toEqual([
      { product: 'mould-bleach', place: 'sink', part: 'inserts', since: 1, until: 11 },
    ]);
    expect(step(world, vinegar, washer).faults[0]!.what).toContain('chlorine gas');
    expect(step(world, vinegar, washer, []).faults).toEqual([]);
  });
});

describe('the laws of a step', () => {
  it('no hand near what moves or is hot, nor where nobody reaches', () => {
    const hand: Acts = { at: 'filter' };
    expect(laws(hand)).toEqual(['live parts', 'hot parts', 'out of reach']);
    expect(laws(hand, { power: 'off', cool: 'yes', flap: 'open' })).toEqual([]);
    expect(laws(hand, { power: 'off', cool: 'yes', flap: 'open' }, behind)).toEqual([
      'out of reach',
    ]);
  });

  it('a sign is looked for while it can be seen, and what the step itself does counts', () => {
    const drips: Acts = { at: 'filter', proves: ['filter'] };
    expect(laws(drips, { flap: 'open' })).toEqual(['sign not visible']);
    expect(laws(drips, { flap: 'open', water: 'run' })).toEqual([]);
    expect(laws({ ...drips, does: { water: 'poured' } }, { flap: 'open' })).toEqual([]);
  });

  it('no heat before the leak look, and no gas dryer with its duct off', () => {
    expect(laws({ at: 'outside', runs: 'hot' }, { filterTight: 'no' })).toEqual([
      'leak look before heat',
    ]);
    expect(laws({ at: 'outside', runs: 'air' }, { duct: 'off' }, dryer)).toEqual(['gas']);
  });

  it('nothing that soaks or is wet is touched or put back before its time', () => {
    const soak: Acts = { at: 'apart', soaks: { part: 'filter', minutes: 15 } };
    const rinse: Acts = { at: 'apart', touches: 'filter', clears: true };
    const { world } = step(startWorld(), { acts: soak }, washer);
    expect(step(world, { acts: rinse }, washer).faults.map(({ law }) => law)).toEqual([
      'soaking touched',
    ]);
    const waited = step(world, { acts: { ...rinse, waits: true } }, washer);
    expect(waited.faults).toEqual([]);
    expect(waited.world.clock).toBeGreaterThanOrEqual(15);
    const back: Acts = { at: 'outside', does: { filter: 'in' }, touches: 'filter', waits: true };
    expect(step(world, { acts: back }, washer).faults.map(({ law }) => law)).toEqual([
      'put back unrinsed',
    ]);
    const wet = step(
      startWorld(),
      { acts: { at: 'apart', touches: 'screen', wets: 'screen' } },
      dryer,
    );
    const home: Acts = { at: 'slot', does: { screen: 'in' }, touches: 'screen' };
    expect(step(wet.world, { acts: home }, dryer).faults.map(({ law }) => law)).toEqual([
      'put back wet',
    ]);
  });

  it('takes two for a stack and a tower, and nobody for a full one', () => {
    const out: Acts = { at: 'outside', does: { place: 'out' } };
    const stack: Body = { ...washer, features: { stacked: 'below' } };
    expect(laws(out, {}, stack)).toEqual(['too heavy alone']);
    expect(laws({ ...out, people: 2 }, {}, stack)).toEqual([]);
    expect(laws(out, {}, { kind: 'tower', features: {} })).toEqual(['too heavy alone']);
    expect(laws({ ...out, people: 2 }, {}, stack, 40)).toEqual(['too heavy alone']);
  });
});

describe('what is as it was', () => {
  it('starts at home, and names what was not put back or not looked at', () => {
    expect(strayFacts(HOME)).toEqual([]);
    for (const [fact, [home]] of Object.entries(FACTS)) expect(HOME).toHaveProperty(fact, home);
    const world = startWorld();
    const left = { ...world, facts: { ...HOME, tap: 'shut', filterTight: 'no' } as const };
    expect(faultsAtEnd(left).map(({ law }) => law)).toEqual(['left undone', 'left unproved']);
  });

  it('asks nothing of a step at the table', () => {
    expect(demandsOf({ at: 'apart' }, washer)).toEqual([]);
  });
});
