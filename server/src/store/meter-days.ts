import { and, eq, exists, gte, lte, max, min, sql } from 'drizzle-orm';
import { deflateRawSync, inflateRawSync } from 'node:zlib';
import { MINUTES_A_DAY, UNREAD } from '@needlecase/core/loads/log/power-series';
import type { Db } from '../db/open.js';
import { machines, meterDays } from '../db/tables.js';

const BYTES = 2 * MINUTES_A_DAY;

/** A day's minutes out of their packing; nothing where it is no such day. */
export function unpacked(packed: Uint8Array): Uint16Array | undefined {
  try {
    const bytes = inflateRawSync(packed, { maxOutputLength: BYTES + 1 });
    if (bytes.length !== BYTES) return undefined;
    return Uint16Array.from({ length: MINUTES_A_DAY }, (_, i) => bytes.readUInt16LE(2 * i));
  } catch {
    return undefined;
  }
}

const packed = (minutes: Uint16Array): Buffer => {
  const bytes = Buffer.alloc(BYTES);
  minutes.forEach((watts, i) => bytes.writeUInt16LE(watts, 2 * i));
  return deflateRawSync(bytes);
};

/** What meters read, a day of UTC at a time. */
export class MeterDayStore {
  constructor(private readonly db: Db) {}

  /** Keeps what was read of a day; of a minute that was read before, the later reading. */
  keep(machineId: string, day: string, minutes: Uint16Array): void {
    const before = this.get(machineId, day);
    const both = before
      ? minutes.map((watts, i) => (watts === UNREAD ? before[i]! : watts))
      : minutes;
    const row = { machineId, day, minutes: packed(both) };
    this.db
      .insert(meterDays)
      .values(row)
      .onConflictDoUpdate({
        target: [meterDays.machineId, meterDays.day],
        set: { minutes: row.minutes },
      })
      .run();
  }

  get(machineId: string, day: string): Uint16Array | undefined {
    const row = this.db
      .select({ minutes: meterDays.minutes })
      .from(meterDays)
      .where(and(eq(meterDays.machineId, machineId), eq(meterDays.day, day)))
      .get();
    return row && unpacked(row.minutes);
  }

  /** The days from one to another, those that there are. */
  between(machineId: string, from: string, to: string): Map<string, Uint16Array> {
    const rows = this.db
      .select({ day: meterDays.day, minutes: meterDays.minutes })
      .from(meterDays)
      .where(
        and(eq(meterDays.machineId, machineId), gte(meterDays.day, from), lte(meterDays.day, to)),
      )
      .all();
    return new Map(rows.map(({ day, minutes }) => [day, unpacked(minutes)!]));
  }

  /** Machines of which there is a day. */
  machines(): string[] {
    return this.db
      .select({ id: machines.id })
      .from(machines)
      .where(
        exists(
          this.db
            .select({ one: sql`1` })
            .from(meterDays)
            .where(eq(meterDays.machineId, machines.id)),
        ),
      )
      .all()
      .map(({ id }) => id);
  }

  /** The first and the last day of a machine. */
  ends(machineId: string): { first: string; last: string } | undefined {
    const { first, last } = this.db
      .select({ first: min(meterDays.day), last: max(meterDays.day) })
      .from(meterDays)
      .where(eq(meterDays.machineId, machineId))
      .get()!;
    return first !== null && last !== null ? { first, last } : undefined;
  }
}
