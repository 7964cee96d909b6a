import { dayOf, type History, type Machine, type SignalFigure } from '@needlecase/core';
import { signalsOf, type PastSignal, type Signal } from '@needlecase/core/loads/drift/signal';
import { endedBy } from '@needlecase/core/loads/drift/watched';
import { toldSignal, type ToldSignal } from '@needlecase/core/views/signals';
import type { Store } from '../store/store.js';
import { knownOf } from './cases.js';

const YEAR = 366 * 86_400_000;
/** What is told of a year rests on that year and the one before: what goes with the season is known from it. */
const YEARS = 2 * YEAR;

/** What a machine's meter told. */
export interface Told {
  now: ToldSignal[];
  all: PastSignal[];
  /** Loads that are missing until anything can be told. */
  short: number;
}

/** What the meters' figures tell, worked out anew where a machine's record changed. */
export class Signals {
  readonly #known = new WeakMap<History, Told>();
  /** By what stays the same while loads are only tapped: a meter tells nothing new then. */
  readonly #seen = new WeakMap<History['openings'], ReturnType<typeof signalsOf>>();

  constructor(private readonly store: Store) {}

  /** What holds now, of those of the machines that have a meter. @param zone of the house */
  of(machines: readonly Machine[], zone: string): ToldSignal[] {
    const metered = new Set(this.store.meterDays.machines());
    return machines
      .filter(({ id }) => metered.has(id))
      .flatMap((machine) => this.told(machine, zone).now);
  }

  /** All that a machine's meter told within a year. */
  told(machine: Machine, zone: string): Told {
    const [history] = this.store.entries.histories([machine]);
    const known = this.#known.get(history!);
    if (known) return known;
    const seen = this.#seen.get(history!.openings) ?? this.#signals(machine, history!, zone);
    this.#seen.set(history!.openings, seen);
    const { now, all, short } = seen;
    const since = dayOf(Date.now() - YEAR, zone);
    const told = {
      short,
      all: all.filter(({ day, until }) => (until ?? day) >= since || until === undefined),
      now: now.map((signal) => this.#whole(machine, signal)),
    };
    this.#known.set(history!, told);
    return told;
  }

  #signals(machine: Machine, history: History, zone: string) {
    const loads = this.store.entries
      .loadsBetween(machine.id, Date.now() - YEARS, Date.now())
      .flatMap(({ id, at, cycle, revisedBy }) =>
        cycle && !revisedBy ? [{ id, from: Date.parse(at), to: Date.parse(cycle.to), cycle }] : [],
      );
    const anew = (figure: SignalFigure): number[] => [
      ...history.proofs
        .filter(({ task, result }) => result === 'good' && endedBy(figure, task))
        .map(({ at }) => at),
      ...history.explained
        .filter((known) => known.figure === undefined || known.figure === figure)
        .map(({ at }) => at),
    ];
    return signalsOf(machine, loads, anew, zone);
  }

  #whole(machine: Machine, signal: Signal): ToldSignal {
    const { situation, said } = knownOf(this.store, machine);
    return toldSignal(signal, situation, said);
  }
}
