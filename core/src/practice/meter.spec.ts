import { describe, expect, it } from 'vitest';
import { drawCase } from './case.js';
import { meterOf } from './meter.js';
import { startState } from './state.js';

const begin = (kind: 'vented-dryer' | 'front-load-washer', seed: number, level: 'one' | 'full') =>
  drawCase({ seed, level, machine: { name: 'M', kind, features: {} } });

describe('the plug in a practice machine', () => {
  it('signals a dryer whose way closed, reads its air by the heater, and no signal where all is right', () => {
    let [closed, told, near] = [0, 0, 0];
    for (let seed = 1; seed <= 14; seed++) {
      const game = begin('vented-dryer', seed, 'one');
      const share = game.physics.air!.flow / game.clean.air!.flow;
      if (share > 0.5) continue;
      closed++;
      const { signals, air } = meterOf(game, startState(game));
      told += Number(signals.some(({ figure }) => figure === 'drying'));
      if (air && 'flow' in air)
        near += Number(Math.abs(Math.log(air.flow / game.physics.air!.flow)) < 0.3);
      expect(meterOf(game, { left: [] }).signals).toEqual([]);
    }
    expect(closed).toBeGreaterThan(3);
    expect(told / closed).toBeGreaterThan(0.8);
    expect(near / closed).toBeGreaterThan(0.8);
  });

  it('tells of a washer that ends with its pump running, with a load of every day', () => {
    const game = begin('front-load-washer', 3, 'full');
    const { signals, watts, minutes } = meterOf(game, startState(game));
    expect(signals.map(({ figure }) => figure)).toContain('drain');
    expect(minutes.length).toBeGreaterThan(35);
    expect(watts.every((one) => one >= 0 && Number.isFinite(one))).toBe(true);
    expect(meterOf(game, startState(game))).toEqual(meterOf(game, startState(game)));
  });
});
