import { randomLcg } from 'd3-random';
import { findCycles } from '@needlecase/core/loads/cycles/cycles';
import { toldLoad } from '@needlecase/core/loads/cycles/told';
import { PowerSeries } from '@needlecase/core/loads/log/power-series';
import { programme, wattsIn, type StandIn } from '@needlecase/core/loads/stand-in/programmes';
import type { MeterImport } from '@needlecase/core';

const SEED = 0.314;
const EVERY = 10_000;
const SECOND = 1000;
const STANDBY = 1.4;
const DAY = 86_400_000;

/** What a plug would have told of loads that ended a little before they were tapped. */
export interface PlugTold {
  loads: MeterImport['loads'];
  /** Whole watts of each minute, by the number of the day since 1970. */
  days: { day: string; minutes: Uint16Array }[];
}

/** @param taps UTC milliseconds, rising @param kind what was run */
export function plugOf(taps: readonly number[], kind: StandIn): PlugTold {
  const random = randomLcg(SEED);
  const series = new PowerSeries(EVERY);
  let at = (taps[0] ?? 0) - DAY / 4;
  const read = (watts: number): void => {
    series.add(at, Math.max(0, watts + (random() - 0.5)));
    at += EVERY;
  };
  for (const tap of taps) {
    const phases = programme(kind, random);
    const length = SECOND * phases.reduce((sum, { seconds }) => sum + seconds, 0);
    const begins = tap - length - SECOND * (300 + 900 * random());
    // The one before still ran: this load went unmetered.
    if (begins < at + DAY / 48) continue;
    while (at < begins) read(STANDBY);
    let from = at;
    for (const phase of phases) {
      const until = from + SECOND * phase.seconds;
      while (at < until) read(wattsIn(phase, (at - from) / SECOND));
      from = until;
    }
  }
  for (const until = at + DAY / 24; at < until;) read(STANDBY);
  series.end();
  return {
    loads: findCycles(series.stretches(), series.bin).map(toldLoad),
    days: series.days.map((day) => ({
      day: new Date(day * DAY).toISOString().slice(0, 10),
      minutes: series.minutesOf(day),
    })),
  };
}
