import { randomLcg } from 'd3-random';
import { describe, expect, it } from 'vitest';
import { standInLog } from '../stand-in/log.js';
import type { StandIn } from '../stand-in/programmes.js';
import { isDrying, LiveLog } from './live-log.js';
import { readSample, sampleOf, type Sample } from './samples.js';

const FROM = Date.parse('2026-03-02T06:00:00Z');
const HOUR = 3_600_000;

function logOf(seed: number, kinds: readonly StandIn[] = ['cotton', 'cold', 'hot'], every = 5) {
  const random = randomLcg(seed);
  return standInLog({ kinds, every, noise: 1, random, loads: 4, from: FROM });
}

/** As it comes in: a piece at a time, each within itself in any order. */
function inPieces(samples: readonly Sample[], random: () => number): Sample[][] {
  const pieces: Sample[][] = [];
  for (let at = 0; at < samples.length;) {
    const length = 1 + Math.floor(400 * random());
    const piece = samples.slice(at, at + length);
    pieces.push(
      piece
        .map((one) => ({ one, by: random() }))
        .sort((a, b) => a.by - b.by)
        .map(({ one }) => one),
    );
    at += length;
  }
  return pieces;
}

describe('a meter that speaks as it goes on', () => {
  it('tells each load once it is over, whatever the order of what it says', () => {
    for (let i = 1; i <= 8; i++) {
      const { samples, loads } = logOf(i / 9);
      const log = new LiveLog();
      for (const [k, piece] of inPieces(samples, randomLcg(i / 11)).entries()) {
        log.take(piece);
        log.forget();
        if (k % 6) continue;
        const now = log.newest!.at;
        for (const { until } of log.loads(now)) expect(until).toBeLessThan(now - 19 * 60_000);
      }
      const end = samples.at(-1)!.at;
      const near = loads.filter(({ from }) => from > end - 48 * HOUR);
      const told = log.loads(end).filter(({ from }) => from > end - 48 * HOUR - 60_000);
      expect(told).toHaveLength(near.length);
      told.forEach(({ from, wattHours }, k) => {
        expect(Math.abs(from - near[k]!.from)).toBeLessThan(60_000 + 30_000);
        expect(wattHours / near[k]!.wattHours).toBeCloseTo(1, 0);
      });
    }
  });

  it('says what runs, and nothing once it rests', () => {
    const { samples, loads } = logOf(0.3, ['cotton']);
    const [load] = loads;
    const log = new LiveLog();
    log.take(samples.filter(({ at }) => at < (load!.from + load!.to) / 2));
    expect(log.running()!.from).toBeCloseTo(load!.from, -5);
    expect(log.unsettled(log.newest!.at)).toBe(true);
    const lately = log.lately(60);
    expect(lately).toHaveLength(60);
    expect(lately.at(-2)).toBeGreaterThan(3);
    log.take(samples.filter(({ at }) => at >= (load!.from + load!.to) / 2 && at < load!.to + HOUR));
    expect(log.running()).toBeUndefined();
    expect(log.unsettled(log.newest!.at)).toBe(false);
  });

  it('that falls silent in a load has told what there was of it after two hours', () => {
    const { samples, loads } = logOf(0.4, ['cotton']);
    const log = new LiveLog();
    log.take(samples.filter(({ at }) => at < loads[0]!.to - 60_000));
    const { at } = log.newest!;
    expect(log.loads(at + HOUR)).toEqual([]);
    expect(log.loads(at + 3 * HOUR)).toHaveLength(1);
  });

  it('on the socket of a washer and a dryer tells them apart', () => {
    const right: boolean[] = [];
    for (const kind of [
      'cotton',
      'hot',
      'cold',
      'quick',
      'vented',
      'condenser',
      'heat-pump',
    ] as const) {
      for (const seed of [0.1, 0.2, 0.7]) {
        const { samples } = logOf(seed, [kind]);
        const log = new LiveLog();
        log.take(samples);
        const dries = ['vented', 'condenser', 'heat-pump'].includes(kind);
        for (const load of log.loads(samples.at(-1)!.at))
          right.push(isDrying(log.middleOf(load)) === dries);
      }
    }
    expect(right.length).toBeGreaterThan(60);
    expect(right.filter((one) => !one)).toEqual([]);
  });
});

describe('a sample', () => {
  const NOW = Date.parse('2026-03-02T12:00:00Z');
  const at = '2026-03-02T11:00:00+01:00';

  it('has its instant as text with a zone, seconds or milliseconds', () => {
    const is = Date.parse(at);
    for (const given of [at, is, is / 1000]) {
      expect(readSample({ at: given, watts: 5 }, NOW)).toEqual({ sample: { at: is, watts: 5 } });
    }
  });

  it.each([
    ['at', { watts: 5 }],
    ['at', { at: '2026-03-02T11:00:00', watts: 5 }],
    ['at', { at: 'now', watts: 5 }],
    ['at', { at: '2026-03-02T12:11:00Z', watts: 5 }],
    ['at', { at: '1999-03-02T12:11:00Z', watts: 5 }],
    ['watts', { at }],
    ['watts', { at, watts: 5, wattHours: 5 }],
    ['watts', { at, watts: '5' }],
    ['watts', { at, watts: -1 }],
    ['watts', { at, watts: 25_001 }],
    ['watts', { at, watts: Infinity }],
    ['wattHours', { at, wattHours: 1e10 }],
    ['at', null],
    ['at', [1, 2]],
    ['at', 'W'],
  ])('that cannot be is told by its field: %s', (field, given) => {
    expect(readSample(given, NOW)).toMatchObject({ problem: { field } });
  });

  it('is in watts, whatever its unit', () => {
    expect(sampleOf(1.5, 'kW', NOW, NOW)).toEqual({ sample: { at: NOW, watts: 1500 } });
    expect(sampleOf(12.5, 'kWh', NOW, NOW)).toEqual({ sample: { at: NOW, wattHours: 12_500 } });
  });
});
