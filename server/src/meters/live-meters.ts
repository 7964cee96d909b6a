import type { Machine } from '@needlecase/core';
import type { Cycle } from '@needlecase/core/loads/cycles/cycles';
import { toldLoad } from '@needlecase/core/loads/cycles/told';
import { isDrying, LiveLog } from '@needlecase/core/loads/live/live-log';
import type { Sample } from '@needlecase/core/loads/live/samples';
import type { SamplesKept } from '@needlecase/core/model/meters';
import { AUTHOR } from '../access/caller.js';
import type { KeptMeter } from '../store/meters.js';
import type { Store } from '../store/store.js';
import { waysFor } from '../work/meter-by-hand.js';
import { keepLoads, tellsMore } from '../work/meter.js';

const DAY = 86_400_000;
/** How often loads and days are read out of what was said, ms. */
const READS_EVERY = 30_000;
/** Who has said nothing for so long is silent, ms. */
const SILENT = 5 * 60_000;
/** Minutes that are shown of what a meter said last. */
const LATELY = 60;
/** Open screens are told of what a meter says so often at most, ms. */
const TELLS_EVERY = 1000;

/** Meters that speak as they go on: each sample is on the disk before it is thanked for. */
export class LiveMeters {
  readonly #logs = new Map<string, LiveLog>();
  readonly #heard = new Map<string, number>();
  readonly #toTell = new Map<string, NodeJS.Timeout>();
  readonly #told = new Map<string, number>();
  /** Meters that said something since they were read last. */
  readonly #spoke = new Set<string>();
  #reading: NodeJS.Timeout | undefined;

  constructor(
    private readonly store: Store,
    private readonly now: () => number = Date.now,
    private readonly failed: (error: unknown) => void = () => {},
  ) {}

  start(): void {
    // What was said before a stop is read as well.
    for (const { id } of this.store.meters.list()) this.#spoke.add(id);
    this.#reading = setInterval(() => this.readAll(), READS_EVERY);
    this.#reading.unref();
  }

  stop(): void {
    clearInterval(this.#reading);
    for (const timer of this.#toTell.values()) clearTimeout(timer);
    this.#toTell.clear();
  }

  /**
   * Keeps samples of a meter.
   * @throws 503 while nothing can be written
   */
  take(meter: KeptMeter, samples: readonly Sample[]): SamplesKept {
    const log = this.#logOf(meter.id);
    const fresh = this.store.writeBeside(() => this.store.meters.addSamples(meter.id, samples));
    log.take(fresh);
    this.#heard.set(meter.id, this.now());
    if (fresh.length) this.#spoke.add(meter.id);
    this.#tell(meter.id);
    return { kept: fresh.length, known: samples.length - fresh.length };
  }

  /** The load that runs on a meter now, if one does. */
  running(meterId: string): Cycle | undefined {
    // What was said a while ago tells nothing of now.
    const heard = this.heard(meterId);
    if (heard === undefined || heard < this.now() - SILENT) return undefined;
    return this.#logOf(meterId).running();
  }

  /** When something came from a meter last, UTC milliseconds; by what it said where that was before a start. */
  heard(meterId: string): number | undefined {
    return this.#heard.get(meterId) ?? this.store.meters.newest(meterId)?.at;
  }

  /** Whole watts of each of the last minutes, W; null where nothing was said. */
  lately(meterId: string): (number | null)[] {
    return this.#logOf(meterId).lately(LATELY);
  }

  newest(meterId: string): Sample | undefined {
    return this.#logs.get(meterId)?.newest ?? this.store.meters.newest(meterId);
  }

  readAll(): void {
    for (const meter of this.store.meters.list()) {
      if (!this.#spoke.has(meter.id)) continue;
      try {
        this.read(meter);
      } catch (error) {
        // It is read again the next time.
        this.failed(error);
      }
    }
  }

  /** Keeps the loads that are over, and the days; what was kept before is passed over. */
  read(meter: KeptMeter): void {
    const log = this.#logOf(meter.id);
    const zone = this.store.household.get()?.zone;
    if (zone === undefined) return;
    const machine = this.store.machines.get(meter.machineId);
    const dryer = meter.dryerId === undefined ? undefined : this.store.machines.get(meter.dryerId);
    if (!machine) return;
    const ways = waysFor(this.store, machine);
    const loads = log.loads(this.now(), ways);
    const dried = dryer ? loads.filter((load) => isDrying(log.middleOf(load))) : [];
    const days = log.days();
    this.store.writeBeside(() => {
      for (const { day, minutes } of days) {
        this.store.meterDays.keep(machine.id, dayName(day), minutes);
        if (dryer) this.store.meterDays.keep(dryer.id, dayName(day), minutes);
      }
    });
    const washed = loads.filter((load) => !dried.includes(load));
    this.#keep(machine, washed, zone);
    if (dryer) this.#keep(dryer, dried, zone);
    log.daysKept();
    // What was read is let go; what may still become a load stays.
    this.store.writeBeside(() => this.store.meters.forget(meter.id, log.since));
    log.forget();
    if (!log.unsettled(this.now())) this.#spoke.delete(meter.id);
  }

  #keep(machine: Machine, loads: readonly Cycle[], zone: string): void {
    const { store } = this;
    const told = loads.map(toldLoad);
    if (!tellsMore(store, machine, told)) return;
    store.write(() => {
      keepLoads(store, machine, told, { zone, author: AUTHOR });
      store.changed({ topic: 'entries', id: machine.id });
    });
  }

  /** A meter is gone, or belongs elsewhere now. */
  forget(meterId: string): void {
    this.#logs.delete(meterId);
    this.#spoke.delete(meterId);
  }

  /** What was said and is not read yet, and the last days, read back where it is not at hand. */
  #logOf(meterId: string): LiveLog {
    const there = this.#logs.get(meterId);
    if (there) return there;
    const log = new LiveLog();
    for (const page of this.store.meters.samplesSince(meterId, 0)) log.take(page);
    this.#logs.set(meterId, log);
    return log;
  }

  #tell(id: string): void {
    const wait = (this.#told.get(id) ?? -Infinity) + TELLS_EVERY - this.now();
    if (wait > 0) {
      // Told at the end of the pause: what was said last in it is not to wait for the next word.
      if (this.#toTell.has(id)) return;
      const tell = (): void => {
        this.#toTell.delete(id);
        this.#told.set(id, this.now());
        this.store.tell({ topic: 'meters', id });
      };
      this.#toTell.set(id, setTimeout(tell, Math.min(wait, TELLS_EVERY)).unref());
      return;
    }
    this.#told.set(id, this.now());
    this.store.tell({ topic: 'meters', id });
  }
}

/** @param day its number since 1970 */
const dayName = (day: number): string => new Date(day * DAY).toISOString().slice(0, 10);
