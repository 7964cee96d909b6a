import {
  meanOf,
  programme,
  tailOf,
  wattsIn,
  type Phase,
  type StandIn,
  type WasherState,
} from './programmes.js';

/** A load that was run, as whoever ran it knows it. UTC milliseconds. */
export interface RunLoad {
  kind: StandIn;
  from: number;
  /** When its motor or heater first turned on: before, valves alone are open. */
  moves: number;
  to: number;
  wattHours: number;
}

export interface StandInLog {
  samples: { at: number; watts: number }[];
  loads: RunLoad[];
}

export interface StandInOptions {
  kinds: readonly StandIn[];
  loads: number;
  /** UTC instant of the first, ms. */
  from: number;
  /** Seconds between two samples. */
  every: number;
  /** Standard deviation of the meter's noise, W. */
  noise: number;
  /** It tumbles on against creases. */
  tails?: boolean;
  /** Share of the loads that come right after one another, with a few minutes to change them. */
  backToBack?: number;
  random: () => number;
  /** Hours between two loads, beyond an hour and a half, at most. */
  apart?: number;
  /** How a washer is at a load, counted from 0. */
  state?: (load: number) => WasherState;
}

const normal = (random: () => number): number =>
  Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());

/** The log of a meter on a machine that runs so many loads, and the loads. */
export function standInLog(options: StandInOptions): StandInLog {
  const { random, every, noise, kinds, tails = false, backToBack = 0, apart = 14 } = options;
  const standby = 0.4 + 1.6 * random();
  const samples: StandInLog['samples'] = [];
  const loads: RunLoad[] = [];
  let at = options.from;
  const step = 1000 * every;
  const read = (watts: number): void => {
    samples.push({ at, watts: Math.max(0, watts + noise * normal(random)) });
    at += step;
  };
  const rests = (seconds: number): void => {
    for (const until = at + 1000 * seconds; at < until;) read(standby);
  };
  // A phase that begins between two samples is met by the next one.
  const runs = (phases: readonly Phase[]): number => {
    let begun = at;
    let energy = 0;
    for (const phase of phases) {
      const until = begun + 1000 * phase.seconds;
      energy += meanOf(phase) * phase.seconds;
      while (at < until) read(wattsIn(phase, (at - begun) / 1000));
      begun = until;
    }
    return energy / 3600;
  };
  rests(1800 + 5400 * random());
  for (let i = 0; i < options.loads; i++) {
    const kind = kinds[Math.floor(random() * kinds.length)]!;
    const from = at;
    const phases = programme(kind, random, options.state?.(i));
    const wattHours = runs(phases);
    const filling = phases.findIndex(({ does }) => does !== 'drain' && does !== 'fill');
    const fills = phases.slice(0, filling).reduce((sum, { seconds }) => sum + seconds, 0);
    loads.push({ kind, from, moves: from + 1000 * fills, to: at, wattHours });
    const soon = random() < backToBack;
    if (soon) rests(150 + 400 * random());
    else {
      if (tails) runs(tailOf(random));
      rests(3600 * (1.5 + apart * random()));
    }
  }
  return { samples, loads };
}
