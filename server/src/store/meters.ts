import { and, asc, desc, eq, gte, lt, sql } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import type { Sample } from '@needlecase/core/loads/live/samples';
import type { MeterDraft } from '@needlecase/core/model/meters';
import type { Db } from '../db/open.js';
import { meters, meterSamples } from '../db/tables.js';
import { defined } from './defined.js';

/** A meter as it is kept: its password with it, which is told to nobody. */
export interface KeptMeter extends MeterDraft {
  id: string;
  version: number;
}

/** Meters that speak as they go on, and what they said in the last days. */
export class LiveMeterStore {
  readonly #addOne;

  constructor(private readonly db: Db) {
    const given = sql.placeholder;
    this.#addOne = db
      .insert(meterSamples)
      .values({
        ...{ meterId: given('meterId'), at: given('at') },
        ...{ watts: given('watts'), wattHours: given('wattHours') },
      })
      .onConflictDoNothing()
      .prepare();
  }

  list(): KeptMeter[] {
    return this.db.select().from(meters).orderBy(asc(meters.name)).all().map(toMeter);
  }

  get(id: string): KeptMeter | undefined {
    const row = this.db.select().from(meters).where(eq(meters.id, id)).get();
    return row && toMeter(row);
  }

  create({ id = randomUUID(), ...draft }: MeterDraft): KeptMeter {
    this.db
      .insert(meters)
      .values({ id, version: 1, ...draft })
      .run();
    return this.get(id)!;
  }

  replace(id: string, version: number, draft: MeterDraft): KeptMeter {
    const { name, machineId, dryerId = null, mqtt = null } = draft;
    this.db
      .update(meters)
      .set({ ...{ name, machineId, dryerId, mqtt }, version: version + 1 })
      .where(eq(meters.id, id))
      .run();
    return this.get(id)!;
  }

  remove(id: string): void {
    this.db.delete(meterSamples).where(eq(meterSamples.meterId, id)).run();
    this.db.delete(meters).where(eq(meters.id, id)).run();
  }

  /** Keeps samples; @returns those of an instant that nothing was told of before */
  addSamples(meterId: string, samples: readonly Sample[]): Sample[] {
    return samples.filter(({ at, watts = null, wattHours = null }) => {
      return this.#addOne.run({ meterId, at, watts, wattHours }).changes > 0;
    });
  }

  /** What was said from an instant on, UTC milliseconds, a page at a time. */
  *samplesSince(meterId: string, from: number, page = 20_000): Generator<Sample[]> {
    for (let next = from; ;) {
      const rows = this.db
        .select({
          at: meterSamples.at,
          watts: meterSamples.watts,
          wattHours: meterSamples.wattHours,
        })
        .from(meterSamples)
        .where(and(eq(meterSamples.meterId, meterId), gte(meterSamples.at, next)))
        .orderBy(asc(meterSamples.at))
        .limit(page)
        .all();
      if (rows.length) yield rows.map((row) => defined(row));
      if (rows.length < page) return;
      next = rows.at(-1)!.at + 1;
    }
  }

  newest(meterId: string): Sample | undefined {
    const row = this.db
      .select({ at: meterSamples.at, watts: meterSamples.watts, wattHours: meterSamples.wattHours })
      .from(meterSamples)
      .where(eq(meterSamples.meterId, meterId))
      .orderBy(desc(meterSamples.at))
      .limit(1)
      .get();
    return row && defined(row);
  }

  /** Lets go what was said before an instant, UTC milliseconds; all of it before Infinity. */
  forget(meterId: string, before: number): void {
    this.db
      .delete(meterSamples)
      .where(
        and(
          eq(meterSamples.meterId, meterId),
          lt(meterSamples.at, Math.min(before, Number.MAX_SAFE_INTEGER)),
        ),
      )
      .run();
  }
}

const toMeter = (row: typeof meters.$inferSelect): KeptMeter => defined(row);
