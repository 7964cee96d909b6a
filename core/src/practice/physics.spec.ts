import { describe, expect, it } from 'vitest';
import { dryLoad } from '../measure/air/drum.js';
import { hoodAirByBag } from '../measure/air/hood-air.js';
import { ventRun } from '../measure/air/vent-run.js';
import { drainTest } from '../measure/water/drain-test.js';
import { fillFlow } from '../measure/water/fill-flow.js';
import { tubWater } from '../measure/water/tub-water.js';
import { heightOfLitres } from '../measure/water/tub.js';
import { SUMP } from '../world/water.js';
import { drawCase, physicsNow, type PracticeMachine } from './case.js';
import { saysOf, SPREADS, takeFigure, trueFigure } from './figures-taken.js';
import { CLEAN_AIR, PRACTICE_LOAD, SLOW_SIGNS } from './physics.js';
import { startState, type MeasureId } from './state.js';

/*
 * What is checked against: the instruments themselves, as they answer to the hidden state. Their own checks name the
 * published sources.
 */
const begin = (kind: PracticeMachine['kind'], level: 'full' | 'one' | 'any', seed: number) => {
  const game = drawCase({ seed, level, machine: { name: 'A machine', kind, features: {} } });
  return { game, state: startState(game) };
};
const SEEDS = Array.from({ length: 60 }, (_, i) => i + 1);
const amount = (value: number, unit: string) => ({ value, unit });

describe('figures of a practice machine', () => {
  it('drains as the drain test says of its hidden flow', () => {
    let slow = 0;
    for (const seed of SEEDS) {
      const { game, state } = begin('front-load-washer', 'one', seed);
      const { clean, share, pipe } = game.physics.drain!;
      const seconds = trueFigure(game, state, 'drain');
      if (seconds === Infinity) continue;
      const answer = drainTest({
        litres: amount(15, 'L'),
        seconds: amount(seconds, 's'),
        clean: amount(clean, 'm³/s'),
      });
      expect(answer.share).toBeCloseTo(Math.min(share, pipe), 6);
      // What was told as slow is slow by the instrument, and the other way round.
      const told = SLOW_SIGNS.some((id) => game.hidden.reported[id] === 'yes');
      expect(answer.verdict === 'clean-now').toBe(told);
      expect(saysOf(game, state, 'drain')['drains-slowly']).toBe(told ? 'yes' : 'no');
      slow += Number(told);
    }
    expect(slow).toBeGreaterThan(5);
  });

  it('tells pipe from machine by the bucket, as the drain test does', () => {
    for (const seed of SEEDS) {
      const { game, state } = begin('front-load-washer', 'one', seed);
      const { clean } = game.physics.drain!;
      const [seconds, bucket] = [
        trueFigure(game, state, 'drain'),
        trueFigure(game, state, 'bucket'),
      ];
      if (seconds === Infinity) continue;
      const { where } = drainTest({
        ...{ litres: amount(15, 'L'), seconds: amount(seconds, 's'), clean: amount(clean, 'm³/s') },
        ...{ bucketLitres: amount(10, 'L'), bucketSeconds: amount(bucket, 's') },
        // The end is held as high as in its pipe.
        bucketAt: amount(0.8, 'm'),
      });
      const trap = saysOf(game, state, 'bucket')['into-bucket'] === 'yes';
      expect(where === 'pipe' || where === 'both').toBe(trap);
    }
  });

  it('holds as many litres as the height at its glass says', () => {
    for (const seed of SEEDS.slice(0, 20)) {
      const { game, state } = begin('front-load-washer', 'full', seed);
      const height = trueFigure(game, state, 'tub');
      const { litres } = tubWater({
        height: amount(height, 'm'),
        radius: amount(0.26, 'm'),
        depth: amount(0.35, 'm'),
      });
      expect(litres).toBeCloseTo(game.start.litres - SUMP, 1);
      expect(heightOfLitres(litres)).toBeCloseTo(height, 4);
    }
  });

  it('fills as the bucket at its hose says', () => {
    for (const seed of SEEDS) {
      const { game, state } = begin('front-load-washer', 'any', seed);
      const flow = trueFigure(game, state, 'fill');
      const { slow } = fillFlow({ volume: amount(flow * 10, 'm³'), seconds: amount(10, 's') });
      expect(slow).toBe(saysOf(game, state, 'fill')['flow-bucket'] === 'yes');
    }
  });

  it('blows and dries as the vent run and the drum model say of its run', () => {
    const weak: boolean[] = [];
    for (const seed of SEEDS.slice(0, 30)) {
      const { game, state } = begin('vented-dryer', 'one', seed);
      const { run, load, minutes } = game.physics.air!;
      const flow = trueFigure(game, state, 'air');
      expect(flow).toBe(ventRun(run).flow);
      expect(trueFigure(game, state, 'drying')).toBeCloseTo(
        60 * dryLoad({ ...load, flow }).minutes,
      );
      const { ofBest = 1 } = hoodAirByBag(
        { bag: amount(113, 'L'), seconds: amount(0.113 / flow, 's') },
        { best: CLEAN_AIR.flow },
      );
      expect(ofBest).toBeCloseTo(flow / CLEAN_AIR.flow);
      expect(minutes).toBeGreaterThanOrEqual(
        dryLoad({ ...PRACTICE_LOAD, flow: CLEAN_AIR.flow }).minutes,
      );
      weak.push(saysOf(game, state, 'air')['weak-air'] === 'yes');
    }
    expect(new Set(weak).size).toBe(2);
  });

  it.each(['drain', 'fill', 'bucket'] as const)(
    'of %s is taken by hand with the spread that it is said to have, and none of it is biased',
    (id: MeasureId) => {
      const off = Array.from({ length: 400 }, (_, i) => {
        const { game, state } = begin('front-load-washer', 'one', i + 1);
        const really = trueFigure(game, state, id);
        return really === Infinity ? [] : [Math.log(takeFigure(game, state, id).value / really)];
      }).flat();
      const mean = off.reduce((sum, one) => sum + one, 0) / off.length;
      const spread = Math.sqrt(off.reduce((sum, one) => sum + (one - mean) ** 2, 0) / off.length);
      expect(Math.abs(mean)).toBeLessThan((3 * SPREADS[id]) / Math.sqrt(off.length));
      expect(spread / SPREADS[id]).toBeGreaterThan(0.88);
      expect(spread / SPREADS[id]).toBeLessThan(1.12);
    },
  );

  it('runs as clean once all is right, and is measured anew each time', () => {
    const { game, state } = begin('front-load-washer', 'full', 4);
    const right = { ...state, left: [] };
    expect(physicsNow(game, []).drain!.share).toBeGreaterThan(0.85);
    const first = takeFigure(game, right, 'drain');
    const second = takeFigure(game, { ...right, figures: [first] }, 'drain');
    expect(second.value).not.toBe(first.value);
    expect(first.say).toContain('It drains as it should.');
    expect(takeFigure(game, state, 'drain').say).toContain('nothing runs');
  });
});
