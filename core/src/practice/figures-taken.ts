import { drainTest } from '../measure/water/drain-test.js';
import { fillFlow, SLOW_FILL } from '../measure/water/fill-flow.js';
import { hoodAirByBag } from '../measure/air/hood-air.js';
import { heightOfLitres } from '../measure/water/tub.js';
import { tubWater } from '../measure/water/tub-water.js';
import { hasDuct, isWasher } from '../model/vocabulary.js';
import { CM, figure } from '../units/wording.js';
import { SUMP } from '../world/water.js';
import { physicsNow, type PracticeCase } from './case.js';
import { chancesFor, offBy } from './chance.js';
import type { MeasureId, PracticeState, TakenFigure } from './state.js';
import type { Amount } from '../units/quantity.js';

/*
 * Figures taken in practice. What the hand reads comes from how the machine is, by the instruments' own models, and is
 * off by as much as a hand is; what it means is the instruments' own answer to it.
 */

/** Spread of the natural logarithm of a figure taken by hand: some 6 to 8 %, as for readings of a visit. */
export const SPREADS: Record<MeasureId, number> = {
  tub: 0.03,
  drain: 0.07,
  bucket: 0.07,
  fill: 0.06,
  air: 0.08,
  drying: 0.06,
};

/** Litres poured in for a drain test, and those that a bucket takes; the bag at the hood. */
const POURED = 0.015;
const BUCKET = 0.01;
const BAG = 0.113;
/** Seconds that the fill hose runs into a bucket. */
const FILLED_FOR = 10;
/** Seconds, and minutes, after which one stops counting. */
const GIVES_UP = 300;
const STAYS_WET = 180;

/** What can be measured on a machine, its minutes, and the symptoms or looks that it answers. */
export interface PracticeMeasure {
  id: MeasureId;
  say: string;
  minutes: number;
  /** Minutes in which it runs by itself. */
  waits?: number;
  /** The instrument, by its path. */
  instrument: string;
  fits: (game: PracticeCase) => boolean;
}

export const PRACTICE_MEASURES: readonly PracticeMeasure[] = [
  {
    id: 'tub',
    say: 'How high the water stands',
    minutes: 1,
    instrument: 'tub-water',
    fits: ({ start }) => start.litres > SUMP,
  },
  {
    id: 'drain',
    say: 'Pour 15 L in, time the drain',
    minutes: 6,
    instrument: 'drain-test',
    fits: ({ machine }) => isWasher(machine.kind),
  },
  {
    id: 'bucket',
    say: 'Drain into a bucket, timed',
    minutes: 8,
    instrument: 'drain-test',
    fits: ({ machine }) => isWasher(machine.kind),
  },
  {
    id: 'fill',
    say: 'What the fill hose gives',
    minutes: 12,
    instrument: 'fill-flow',
    fits: ({ machine }) => isWasher(machine.kind),
  },
  {
    id: 'air',
    say: 'Air at the hood, by a bag',
    minutes: 6,
    instrument: 'hood-air',
    fits: ({ machine }) => hasDuct(machine.kind),
  },
  {
    id: 'drying',
    say: 'Time a load until it is dry',
    minutes: 4,
    waits: 60,
    instrument: 'drying-test',
    fits: ({ machine }) => hasDuct(machine.kind),
  },
];

/** A figure as it really is, SI: metres, seconds, m³/s. */
export function trueFigure(game: PracticeCase, state: PracticeState, id: MeasureId): number {
  const { drain, fill = 0, air } = physicsNow(game, state.left);
  switch (id) {
    case 'tub':
      return heightOfLitres(Math.max(0, state.world.litres - SUMP));
    case 'drain':
      return drain ? POURED / (drain.clean * Math.min(drain.share, drain.pipe)) : Infinity;
    case 'bucket':
      return drain ? BUCKET / (drain.clean * drain.share) : Infinity;
    case 'fill':
      return fill;
    case 'air':
      return air?.flow ?? 0;
    case 'drying':
      return 60 * (air?.minutes ?? Infinity);
  }
}

/** Takes a figure by hand. */
export function takeFigure(game: PracticeCase, state: PracticeState, id: MeasureId): TakenFigure {
  const before = state.figures.filter(({ what }) => what === id).length;
  const off = offBy(chancesFor(game.seed, `figure ${id} ${before}`), SPREADS[id]);
  const value = trueFigure(game, state, id) * off;
  return { what: id, value, say: sayFigure(game, id, value), given: givenBy(id, value) };
}

const amount = (value: number, unit: string): Amount => ({ value, unit });

const tenths = (value: number): number => Math.round(10 * value) / 10;

/** What a hand types into the instrument. */
function givenBy(id: MeasureId, value: number): Record<string, Amount> {
  const ended = value <= GIVES_UP;
  switch (id) {
    case 'tub':
      return { height: amount(tenths(100 * value), 'cm') };
    case 'drain':
      return ended
        ? { litres: amount(1000 * POURED, 'L'), seconds: amount(tenths(value), 's') }
        : {};
    case 'bucket':
      return ended
        ? { bucketLitres: amount(1000 * BUCKET, 'L'), bucketSeconds: amount(tenths(value), 's') }
        : {};
    case 'fill':
      return {
        volume: amount(tenths(1000 * value * FILLED_FOR), 'L'),
        seconds: amount(FILLED_FOR, 's'),
      };
    case 'air':
      return { bag: amount(1000 * BAG, 'L'), seconds: amount(tenths(BAG / value), 's') };
    case 'drying':
      return {};
  }
}

function sayFigure(game: PracticeCase, id: MeasureId, value: number): string {
  const clean = game.clean.drain?.clean;
  switch (id) {
    case 'tub': {
      const { litres, buckets } = tubWater(
        { height: amount(value, 'm'), radius: amount(0.26, 'm'), depth: amount(0.35, 'm') },
        game.machine.kind !== 'top-load-washer',
      );
      return `The water stands ${figure(value, 'length', CM)} high: ${figure(litres / 1000, 'volume')}, ${buckets} buckets.`;
    }
    case 'drain': {
      if (value > GIVES_UP) return 'After five minutes it is not empty: nothing runs, or hardly.';
      const answer = drainTest({
        litres: amount(POURED, 'm³'),
        seconds: amount(value, 's'),
        clean: amount(clean!, 'm³/s'),
      });
      return `15 L in ${figure(value, 'time')}. ${answer.advice}`;
    }
    case 'bucket': {
      if (value > GIVES_UP) return 'Into the bucket, too, nothing runs, or hardly.';
      return `Into a bucket, 10 L in ${figure(value, 'time')}: ${Math.round((100 * BUCKET) / value / clean!)} % of its own clean flow.`;
    }
    case 'fill': {
      const answer = fillFlow({
        volume: amount(value * FILLED_FOR, 'm³'),
        seconds: amount(FILLED_FOR, 's'),
      });
      return `${figure(value * FILLED_FOR, 'volume')} in ten seconds. ${answer.advice}`;
    }
    case 'air': {
      const seconds = BAG / value;
      const { verdict, ofBest = 1 } = hoodAirByBag(
        { bag: amount(BAG, 'm³'), seconds: amount(seconds, 's') },
        { best: game.clean.air?.flow, heater: game.physics.air?.load.heater },
      );
      return `The bag is taut in ${seconds.toFixed(1)} s: ${figure(value, 'flow')}, ${verdict}, ${Math.round(100 * ofBest)} % of its own best.`;
    }
    case 'drying':
      return value > STAYS_WET * 60
        ? 'After three hours it is still wet.'
        : `Dry after ${Math.round(value / 60)} min; clean, it takes ${Math.round(game.clean.air!.minutes)}.`;
  }
}

/** Shares of the clean flow below which it drains slowly, and the air is weak; so many times as long is long. */
const SLOW = 0.7;
const WEAK = 0.7;
const LONG = 1.4;
/** Into a bucket it runs so much better: the pipe holds it back. As in the instrument. */
const PIPE_HOLDS = 1.25;

/** What a figure says of symptoms and looks, by its instrument’s bounds. */
export function saysOf(
  game: PracticeCase,
  { left }: Pick<PracticeState, 'left'>,
  id: MeasureId,
): Record<string, 'yes' | 'no'> {
  const { drain, fill = 0, air } = physicsNow(game, left);
  const { clean } = game;
  const said = (is: boolean): 'yes' | 'no' => (is ? 'yes' : 'no');
  switch (id) {
    case 'tub':
      return {};
    case 'drain': {
      const share = Math.min(drain!.share, drain!.pipe);
      return { 'wont-drain': said(share === 0), 'drains-slowly': said(share < SLOW) };
    }
    case 'bucket':
      return { 'into-bucket': said(drain!.share > PIPE_HOLDS * drain!.pipe) };
    case 'fill':
      return { 'flow-bucket': said(fill < SLOW_FILL) };
    case 'air':
      return { 'weak-air': said(air!.flow < WEAK * clean.air!.flow) };
    case 'drying':
      return { 'long-drying': said(air!.minutes > LONG * clean.air!.minutes) };
  }
}
