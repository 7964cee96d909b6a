import { isWasher, tasksOf, type Machine } from '@needlecase/core';
import { airReadings } from '@needlecase/core/loads/air/air-readings';
import { createHash } from 'node:crypto';
import type { Store } from '../store/store.js';

const YEAR = 366 * 86_400_000;

/** Whether the watts of a machine tell its air: it blows it out, and heats it by electricity. */
const tellsAir = ({ kind, features }: Machine): boolean =>
  !isWasher(kind) && kind === 'vented-dryer' && features.energy !== 'gas';

/**
 * Keeps what a dryer's watts tell of its air as readings, once each: a duct is believed to be as fouled as they say.
 * @returns the entries that came in
 */
export function keepAir(
  store: Store,
  machine: Machine,
  origin: { zone: string; author: string },
): string[] {
  if (!tellsAir(machine)) return [];
  const now = Date.now();
  const loads = store.entries.loadsBetween(machine.id, now - YEAR, now).flatMap((entry) => {
    const { duty, heater } = entry.cycle ?? {};
    if (entry.revisedBy || duty === undefined || heater === undefined) return [];
    return [{ id: entry.id, at: Date.parse(entry.at), duty, heater }];
  });
  const [history] = store.entries.histories([machine]);
  const measured = tasksOf(machine).filter(({ measures }) =>
    measures?.some(({ quantity }) => quantity === 'meter-air'),
  );
  const cleans = measured.flatMap(({ id }) =>
    (history!.openings.get(id)?.list ?? []).flatMap(({ at, cleaned }) => (cleaned ? at : [])),
  );
  return airReadings(loads, cleans).flatMap(({ of, at, seconds, atMost }) => {
    const id = idOf(of);
    if (store.entries.get(id)) return [];
    store.entries.add(
      {
        ...{ id, kind: 'reading', machineId: machine.id, at: new Date(at).toISOString() },
        ...{ quantity: 'meter-air', value: seconds, unit: 's', source: 'meter' },
        note: `Out of ${of.length} loads${atMost ? ', at most: its heater was never cut' : ''}.`,
      },
      origin,
    );
    return [id];
  });
}

/** The same loads give the same reading. */
function idOf(loads: readonly string[]): string {
  const hex = createHash('sha256')
    .update(`meter-air ${loads.join(' ')}`)
    .digest('hex');
  const variant = ((parseInt(hex[16]!, 16) & 3) | 8).toString(16);
  return [
    hex.slice(0, 8),
    hex.slice(8, 12),
    `8${hex.slice(13, 16)}`,
    `${variant}${hex.slice(17, 20)}`,
    hex.slice(20, 32),
  ].join('-');
}
