import type { House } from '../care/schedule/year.js';
import { Usage } from '../care/record/load-counts.js';
import { household, machine } from '../model/testing.js';
import { MACHINE_KINDS } from '../model/vocabulary.js';

/** A house of many machines that nobody has opened yet, four to a place. @param now instant, milliseconds */
export function manyMachines(count: number, now = Date.parse('2026-11-27T10:00:00Z')): House {
  const machines = Array.from({ length: count }, (_, i) =>
    machine(MACHINE_KINDS[i % MACHINE_KINDS.length]!, {
      id: `m${i}`,
      place: `Place ${Math.floor(i / 4)}`,
    }),
  );
  return {
    household: household({ zone: 'Europe/Vienna' }),
    machines,
    histories: machines.map((_, i) => ({
      openings: new Map(),
      readings: new Map(),
      usage: new Usage([], 3 + (i % 5)),
    })) as unknown as House['histories'],
    now,
  };
}
