import { isWasher, stationById, taskById, type History, type Machine } from '@needlecase/core';
import { slowDrying, type Signal } from '@needlecase/core/loads/drift/signal';
import type { Store } from '../store/store.js';

const YEAR = 366 * 86_400_000;

/** What the meters' figures tell, worked out anew where a machine's record changed. */
export class Signals {
  readonly #known = new WeakMap<History, Signal | undefined>();

  constructor(private readonly store: Store) {}

  /** Of those of the machines that have a meter. @param zone of the house */
  of(machines: readonly Machine[], zone: string): Signal[] {
    const metered = new Set(this.store.meterDays.machines());
    const dryers = machines.filter(({ id, kind }) => metered.has(id) && !isWasher(kind));
    const histories = this.store.entries.histories(dryers);
    return dryers.flatMap((machine, i) => this.#of(machine, histories[i]!, zone) ?? []);
  }

  #of(machine: Machine, history: History, zone: string): Signal | undefined {
    if (this.#known.has(history)) return this.#known.get(history);
    const loads = this.store.entries
      .loadsBetween(machine.id, Date.now() - YEAR, Date.now())
      .flatMap(({ id, at, cycle, revisedBy }) =>
        cycle && !revisedBy
          ? [{ id, from: Date.parse(at), to: Date.parse(cycle.to), ...figuresOf(cycle) }]
          : [],
      );
    const cleans = history.proofs
      .filter(({ task, result }) => result === 'good' && isOfAir(task))
      .map(({ at }) => at);
    const signal = slowDrying(machine.id, loads, cleans, zone);
    this.#known.set(history, signal);
    return signal;
  }
}

const figuresOf = ({ wattHours, unread }: { wattHours: number; unread: number }) => ({
  wattHours,
  unread,
});

/** A clean of what the dryer's air goes through. */
function isOfAir(task: string): boolean {
  try {
    return stationById(taskById(task).station).line === 'air';
  } catch {
    return false;
  }
}
