import { airFromDuty, type AirFromWatts } from '../loads/air/air-from-duty.js';
import { findCycles } from '../loads/cycles/cycles.js';
import { heaterDuty } from '../loads/cycles/duty.js';
import { toldLoad } from '../loads/cycles/told.js';
import { signalsOf, type Signal } from '../loads/drift/signal.js';
import type { MeteredLoad } from '../loads/drift/watched.js';
import { PowerSeries } from '../loads/log/power-series.js';
import { dryerWatts } from '../loads/stand-in/dryer.js';
import {
  programme,
  wattsIn,
  type StandIn,
  type WasherState,
} from '../loads/stand-in/programmes.js';
import { isWasher, hasDuct, type MachineKind } from '../model/vocabulary.js';
import { SLOW_FILL } from '../measure/water/fill-flow.js';
import { physicsNow, type PracticeCase } from './case.js';
import { between, chancesFor, offBy } from './chance.js';
import type { PracticeState } from './state.js';
import { PRACTICE_LOAD } from './physics.js';

/*
 * The plug that stands in for a meter, in a practice machine: a load each other day for two months, the first of them
 * while all was well, and what the real reading of a meter makes of them.
 */

/** Samples, s; loads while it was well, and since; ms between two. */
const EVERY = 5;
const WELL = 24;
const SINCE = 16;
const APART = 2 * 86_400_000;
const FROM = Date.parse('2026-01-05T08:00:00Z');
const STANDBY = 1;
const NOISE = 0.02;
/** So many seconds of standby before and after. */
const RESTS = 600;

/** What a meter tells of a practice machine. */
export interface PracticeMeter {
  /** The last load, W in even steps of a minute. */
  watts: readonly number[];
  /** Minutes of each load, the oldest first. */
  minutes: readonly number[];
  /** By the heater of the last load; m³/s. */
  air?: AirFromWatts;
  duty?: number;
  signals: readonly Signal[];
}

/** How it is while so much of what is wrong has come, 0 to 1. */
type Load = (come: number, random: () => number) => number[];

/** Plugs a meter in and lets it stand: what its loads tell. */
export function meterOf(game: PracticeCase, state: Pick<PracticeState, 'left'>): PracticeMeter {
  const { machine } = game;
  const load = loadOf(game, state);
  const random = chancesFor(game.seed, 'meter');
  const series = new PowerSeries(1000 * EVERY);
  let last: number[] = [];
  for (let i = 0; i < WELL + SINCE; i++) {
    const come = i < WELL ? 0 : Math.min(1, (i - WELL + 1) / 4);
    const rest = Array.from({ length: RESTS / EVERY }, () => STANDBY);
    last = load(come, random);
    [...rest, ...last, ...rest].forEach((watts, k) => {
      series.add(
        FROM + i * APART + 1000 * EVERY * k,
        Math.max(0, watts * (1 + NOISE * (random() - 0.5))),
      );
    });
  }
  series.end();
  const loads = findCycles(series.stretches(), series.bin).map((cycle, i): MeteredLoad => {
    const { from, ...told } = toldLoad(cycle);
    return { id: String(i), from: Date.parse(from), to: Date.parse(told.to), cycle: told };
  });
  const heated = hasDuct(machine.kind) ? heaterDuty(last, 1000 * EVERY) : undefined;
  return {
    watts: byMinute(last),
    minutes: loads.map(({ from, to }) => Math.round((to - from) / 60_000)),
    ...(heated ? { duty: heated.duty, air: airFromDuty(heated, PRACTICE_LOAD.room) } : {}),
    signals: signalsOf({ id: 'practice', kind: machine.kind }, loads, () => [], 'UTC').now,
  };
}

const PER_MINUTE = 60 / EVERY;
const byMinute = (watts: readonly number[]): number[] =>
  Array.from({ length: Math.ceil(watts.length / PER_MINUTE) }, (_, i) => {
    const part = watts.slice(i * PER_MINUTE, (i + 1) * PER_MINUTE);
    return part.reduce((sum, one) => sum + one, 0) / part.length;
  });

const DRIES: Partial<Record<MachineKind, StandIn>> = {
  'condenser-dryer': 'condenser',
  'heat-pump-dryer': 'heat-pump',
};

function loadOf(game: PracticeCase, { left }: Pick<PracticeState, 'left'>): Load {
  const { kind } = game.machine;
  const now = physicsNow(game, left);
  if (now.air && (kind !== 'tower' || now.air.flow < 0.9 * game.clean.air!.flow)) {
    const [well, closed] = [game.clean.air!.flow, now.air.flow];
    return (come, random) => {
      const dryer = {
        ...{ flow: well + come * (closed - well), heater: PRACTICE_LOAD.heater, motor: 210 },
        ...{ room: PRACTICE_LOAD.room, limit: 135, hysteresis: 20, leak: 0.05, loss: 9, box: 2500 },
        ...{ reach: 0.85, water: PRACTICE_LOAD.dry * PRACTICE_LOAD.moisture * offBy(random, 0.06) },
      };
      return dryerWatts(dryer).filter((_, i) => i % EVERY === 0);
    };
  }
  if (!isWasher(kind)) return (_come, random) => sampled(DRIES[kind]!, random);
  const heater = between(chancesFor(game.seed, 'heater'), [1750, 2250]);
  const slow = now.fill !== undefined && now.fill < SLOW_FILL;
  const stands = now.drain?.share === 0;
  const causes = left.map((i) => game.trouble.causes[i]!.id);
  return (come, random) =>
    sampled('cotton', random, {
      heater,
      filling: slow ? 1 + come * (SLOW_FILL / now.fill! - 0.5) : 1,
      blocked: stands && come >= 1,
      ...(causes.includes('scale') ? { on: 1 - 0.5 * come } : {}),
      ...(causes.includes('off-level') || causes.includes('load-unbalanced')
        ? { tries: come >= 1 ? 3 : 0 }
        : {}),
    });
}

function sampled(kind: StandIn, random: () => number, state?: WasherState): number[] {
  return programme(kind, random, state).flatMap((phase) =>
    Array.from({ length: Math.round(phase.seconds / EVERY) }, (_, i) => wattsIn(phase, i * EVERY)),
  );
}
