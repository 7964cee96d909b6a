import {
  dayOf,
  machineDay,
  nextVisit,
  openProofs,
  type House,
  type MachineDay,
} from '@needlecase/core';
import type { Store } from '../store/store.js';

interface Known {
  /** The versions and the day it is of. */
  key: string;
  /** The very record it was worked out from. */
  history: Parameters<typeof machineDay>[1];
  day: MachineDay;
}

/**
 * What follows from each machine's record on a day: kept until its entries, its own or the household's settings,
 * or the day change. May be dropped at any time.
 */
export class MachineDays {
  readonly #known = new Map<string, Known>();

  constructor(private readonly store: Store) {}

  readonly of: typeof machineDay = (machine, history, household, now) => {
    const key = `${machine.version} ${household.id} ${household.version} ${dayOf(now, household.zone)}`;
    let known = this.#known.get(machine.id);
    if (known?.key !== key || known.history !== history) {
      known = { key, history, day: machineDay(machine, history, household, now) };
      this.#known.set(machine.id, known);
    }
    const { state, habits } = known.day;
    // What is asked for is due after hours, not days.
    return { state: { ...state, proofs: openProofs(machine, history, now) }, habits };
  };

  /** How much of each machine is due. */
  due({ machines, histories, household, now }: House): number[] {
    const tail = `${household.id} ${household.version} ${dayOf(now, household.zone)}`;
    return machines.map((machine, i) => {
      const known = this.#known.get(machine.id);
      const isSame = known?.history === histories[i] && known?.key === `${machine.version} ${tail}`;
      const { state } = isSame ? known.day : this.of(machine, histories[i]!, household, now);
      return state.dues.filter(({ status }) => status === 'due').length;
    });
  }

  /** The last visit that was proposed, and what for. */
  #visit: { asked: unknown[]; visit: ReturnType<typeof nextVisit> } | undefined;

  readonly next: typeof nextVisit = (machines, states, today, minutes, begun = []) => {
    const under = begun.map(({ machineId, task }) => `${machineId}/${task}`);
    const asked = [today, minutes, ...under, ...machines, ...states.map(({ dues }) => dues)];
    const same =
      this.#visit?.asked.length === asked.length &&
      asked.every((one, i) => one === this.#visit!.asked[i]);
    if (!same) this.#visit = { asked, visit: nextVisit(machines, states, today, minutes, begun) };
    return this.#visit!.visit;
  };

  /**
   * Reads the machines' records that are not at hand, those with the newest entries first, and leaves time for
   * others in between.
   */
  async warm(): Promise<void> {
    const household = this.store.household.get();
    if (!household) return;
    const machines = this.store.machines.list();
    const cold = this.store.entries.cold(machines.map(({ id }) => id));
    if (cold.length === 0) return;
    const byId = new Map(machines.map((machine) => [machine.id, machine]));
    let since = performance.now();
    for (const id of cold) {
      const machine = byId.get(id)!;
      const [history] = this.store.entries.histories([machine]);
      this.of(machine, history!, household, Date.now());
      if (performance.now() - since < SLICE_MS) continue;
      await new Promise(setImmediate);
      since = performance.now();
    }
  }
}

/** So long nobody else is answered, ms. */
const SLICE_MS = 20;
