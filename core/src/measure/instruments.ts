import type { InstrumentInput, INSTRUMENT_INPUTS } from '../model/instruments.js';
import { toOwn } from '../units/quantity.js';
import { drumModel } from './air/drum-input.js';
import { dryingTest } from './air/drying-test.js';
import { exhaustAir } from './air/exhaust-air.js';
import { hoodAirByBag, hoodAirBySpeed } from './air/hood-air.js';
import { lintScreen } from './air/lint-screen.js';
import { moistureSensor } from './air/moisture-sensor.js';
import { ventRunOf } from './air/vent-input.js';
import { ventRun } from './air/vent-run.js';
import { improvements } from './air/improvements.js';
import { runningCost } from './cost.js';
import { dose } from './mix/dose.js';
import { vinegarAndSoda } from './mix/vinegar-soda.js';
import { drainTest } from './water/drain-test.js';
import { fillFlow } from './water/fill-flow.js';
import { level } from './water/level.js';
import { scaleGrown } from './water/scale.js';
import { standpipe } from './water/standpipe.js';
import { tubWater } from './water/tub-water.js';

/** An instrument as the API reaches it: figures with units in, a result with its working out. */
export interface InstrumentEntry {
  name: string;
  title: string;
  input: keyof typeof INSTRUMENT_INPUTS;
  /** @throws MeasureProblem */
  work: (input: unknown) => object;
}

const entry = <N extends keyof typeof INSTRUMENT_INPUTS>(
  name: string,
  title: string,
  input: N,
  work: (input: InstrumentInput<N>) => object,
): InstrumentEntry => ({
  name,
  title,
  input,
  work: (given) => work(given as InstrumentInput<N>),
});

/** Every instrument. Results are in the core's own units: m, m³/s, Pa, kg, s, °C. */
export const INSTRUMENTS: readonly InstrumentEntry[] = [
  entry('vent-run', 'Vent run: air, pressure and code length', 'VentRunInput', (input) => {
    const run = ventRunOf(input);
    return {
      ...ventRun(run),
      whatIf: improvements(run).map(({ id, say, run: changed }) => ({
        id,
        say,
        flow: ventRun(changed).flow,
      })),
    };
  }),
  entry('hood-air', 'Air at the hood', 'HoodAirInput', ({ best, bag, seconds, speed, area }) => {
    const ownBest = best && toOwn(best, 'flow');
    return bag || seconds
      ? hoodAirByBag({ bag, seconds }, ownBest)
      : hoodAirBySpeed({ speed, area }, ownBest);
  }),
  entry('exhaust-air', 'Water in the exhaust', 'ExhaustAirInput', exhaustAir),
  entry('drying-test', 'Drying test', 'DryingTestInput', ({ spin, ...figures }) =>
    dryingTest(figures, spin),
  ),
  entry('drum-model', 'Drum model', 'DrumModelInput', drumModel),
  entry('lint-screen', 'Water on the lint screen', 'LintScreenInput', ({ film, ...figures }) =>
    lintScreen(figures, film),
  ),
  entry('moisture-sensor', 'Moisture sensor', 'MoistureSensorInput', moistureSensor),
  entry('running-cost', 'Running cost', 'RunningCostInput', ({ price, loadsPerWeek, ...figures }) =>
    runningCost(figures, { price, loadsPerWeek }),
  ),
  entry('tub-water', 'Water in the tub', 'TubWaterInput', ({ lying, ...figures }) =>
    tubWater(figures, lying),
  ),
  entry('drain-test', 'Drain test', 'DrainTestInput', drainTest),
  entry('fill-flow', 'Fill flow', 'FillFlowInput', fillFlow),
  entry('standpipe', 'Standpipe and hose', 'StandpipeInput', ({ code, ...figures }) =>
    standpipe(figures, code),
  ),
  entry('vinegar-soda', 'Vinegar and soda', 'VinegarSodaInput', vinegarAndSoda),
  entry('dose', 'Detergent dose', 'DoseInput', ({ load, hardness, ...question }) =>
    dose({ load, hardness }, question),
  ),
  entry('scale', 'Scale', 'ScaleInput', ({ temperature, ...figures }) =>
    scaleGrown(figures, temperature),
  ),
  entry('level', 'Level', 'LevelInput', ({ thread, ...figures }) => level(figures, thread)),
];
