/** What a wash tells besides its energy, as far as the meter speaks often enough to show it. */
export interface WashFigures {
  /** Minutes from its start until its heater came on: it never does before there is water enough. */
  toHeat?: number;
  /** Minutes that heating took for each kWh that it took: longer where the heater is held off again and again. */
  perKwh?: number;
  /** How often it spun up, or tried to. */
  spins?: number;
  /** Minutes that the pump had run by itself when it ended so. */
  pumped?: number;
}

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
/** A meter that speaks more seldom shows no spin and no pump by themselves, ms. */
const FINE = 10_000;
/** Heat that comes later is not the first one, ms: a soak was before it. */
const FIRST_HEAT = 30 * MINUTE;
/** Heat that goes on after so long is of the same heating, ms: a thermostat, or a limiter, held it off. */
const HELD_OFF = 4 * MINUTE;
/** Heating that takes less tells nothing, kWh. */
const LEAST_HEAT = 0.1;
/**
 * A spin takes so much at least, W, for so long, ms. Common practice. A drum that goes to and fro every quarter of a
 * minute looks to a meter that speaks every ten seconds as if it turned for half a minute.
 */
const SPINS = 125;
const LEAST_SPIN = 40_000;
/** A pump by itself takes at most so much, W, and is done in less than so long, ms. Common practice. */
const PUMP = 60;
const PUMPS = 3 * MINUTE;

/**
 * What the watts of a wash tell.
 * @param watts of each bin of the load, W; NaN where nothing was read @param bin its length, ms
 * @param heats from how many watts on it heats; infinite where it never does
 * @param off at how many watts it is off
 */
export function washFigures(
  watts: Float32Array,
  bin: number,
  heats: number,
  off: number,
): WashFigures {
  const heating = heatingOf(watts, bin, heats);
  const pumped = bin <= FINE ? pumpedAtEnd(watts, bin, off) : 0;
  return {
    ...(heating?.first !== undefined ? { toHeat: heating.first / MINUTE } : {}),
    ...(heating?.perKwh !== undefined ? { perKwh: heating.perKwh } : {}),
    ...(bin <= FINE ? { spins: spinsIn(watts, bin, heats) } : {}),
    ...(pumped >= PUMPS ? { pumped: pumped / MINUTE } : {}),
  };
}

function heatingOf(
  watts: Float32Array,
  bin: number,
  heats: number,
): { first?: number; perKwh?: number } | undefined {
  let [span, energy, from, last] = [0, 0, -1, -1];
  let first = -1;
  const close = (): void => {
    if (from < 0) return;
    span += (last - from) * bin;
    for (let i = from; i < last; i++) if (!Number.isNaN(watts[i]!)) energy += watts[i]! * bin;
  };
  for (let i = 0; i < watts.length; i++) {
    if (!(watts[i]! >= heats)) continue;
    if (first < 0) first = i;
    if (from < 0 || (i - last) * bin > HELD_OFF) {
      close();
      from = i;
    }
    last = i + 1;
  }
  if (first < 0) return undefined;
  close();
  const kWh = energy / HOUR / 1000;
  return {
    ...(first * bin <= FIRST_HEAT ? { first: first * bin } : {}),
    ...(kWh >= LEAST_HEAT ? { perKwh: span / MINUTE / kWh } : {}),
  };
}

function spinsIn(watts: Float32Array, bin: number, heats: number): number {
  let [spins, run] = [0, 0];
  for (let i = 0; i <= watts.length; i++) {
    const value = watts[i] ?? NaN;
    if (value >= SPINS && value < heats) run++;
    else {
      if (run * bin >= LEAST_SPIN) spins++;
      run = 0;
    }
  }
  return spins;
}

/** How long nothing but the pump had run at the end, ms. */
function pumpedAtEnd(watts: Float32Array, bin: number, off: number): number {
  let from = watts.length;
  while (from > 0 && watts[from - 1]! >= off && watts[from - 1]! <= PUMP) from--;
  return (watts.length - from) * bin;
}
