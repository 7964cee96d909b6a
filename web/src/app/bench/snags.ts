import type { BenchView } from '@needlecase/core';

type Signals = BenchView['signals'];

/** What the meter of a machine noticed, by the station that it most likely comes from. */
export function snagsOf(signals: Signals, machineId: string): ReadonlyMap<string, string> {
  const own = (signals ?? []).filter((signal) => signal.machineId === machineId);
  return new Map(
    own.flatMap((signal) =>
      signal.likely[0] ? [[signal.likely[0].station, `by the meter, ${signal.said}`]] : [],
    ),
  );
}
