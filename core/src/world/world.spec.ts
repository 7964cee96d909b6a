import { describe, expect, it } from 'vitest';
import { demandsOf, type Acts, type Body } from './acts.js';
import { FACTS, HOME, strayFacts } from './facts.js';
import { faultsAtEnd, minutesToCool, pass, startWorld, step } from './world.js';

const washer: Body = { kind: 'front-load-washer', features: { filterAccess: 'front-left' } };
const behind: Body = { kind: 'front-load-washer', features: { filterAccess: 'behind' } };
const dryer: Body = { kind: 'vented-dryer', features: {} };
const laws = (acts: Acts, facts = {}, body = washer, litres = 1) => {
  const start = startWorld(litres);
  return step({ ...start, facts: { ...start.facts, ...facts } }, acts, body).faults.map(
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

  it('out of an open tap, and out of whatever is open while a programme runs', () => {
    expect(laws({ at: 'valve', does: { tap: 'open' } }, { fillHose: 'off', tap: 'shut' })).toEqual([
      'flood',
    ]);
    for (const open of [{ filter: 'out' }, { drainHose: 'bucket' }, { trap: 'off' }]) {
      expect(laws({ at: 'outside', runs: 'rinse' }, open)).toContain('flood');
    }
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
    const { world } = step(startWorld(), soak, washer);
    expect(step(world, rinse, washer).faults.map(({ law }) => law)).toEqual(['soaking touched']);
    const waited = step(world, { ...rinse, waits: true }, washer);
    expect(waited.faults).toEqual([]);
    expect(waited.world.clock).toBeGreaterThanOrEqual(15);
    const back: Acts = { at: 'outside', does: { filter: 'in' }, touches: 'filter', waits: true };
    expect(step(world, back, washer).faults.map(({ law }) => law)).toEqual(['put back unrinsed']);
    const wet = step(startWorld(), { at: 'apart', touches: 'screen', wets: 'screen' }, dryer);
    const home: Acts = { at: 'slot', does: { screen: 'in' }, touches: 'screen' };
    expect(step(wet.world, home, dryer).faults.map(({ law }) => law)).toEqual(['put back wet']);
  });

  it('takes two for a stack, a tower and a tipped machine, and nobody for a full one', () => {
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
