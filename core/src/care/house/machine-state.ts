import type { Household, Machine } from '../../model/schemas.js';
import { dayOf } from '../../units/calendar.js';
import { stationsOf } from '../catalogue/lookup.js';
import type { Station } from '../catalogue/types.js';
import { chemicalsOf, type Chemicals } from '../visit/products.js';
import type { DueStatus } from '../schedule/due.js';
import { sayState } from '../schedule/explain.js';
import type { Fouling } from '../fouling/belief.js';
import type { History } from '../record/history.js';
import { ageNotices, type AgeNotice } from './life.js';
import { openProofs, type ProofQuestion } from '../visit/proofs.js';
import { duesOf, byUrgency } from '../schedule/dues.js';
import { dueSummary, type DueSummary } from '../schedule/summary.js';

/** A station's gauge on the line drawing. */
export interface StationState {
  id: string;
  name: string;
  line: Station['line'];
  /** `none`: nothing is scheduled here. */
  status: DueStatus | 'none';
  /** A few words on the state, for labels and screen readers. */
  said: string;
  fouling?: Fouling;
}

export interface MachineState {
  machineId: string;
  stations: StationState[];
  dues: DueSummary[];
  /** Cleaning products that were not rinsed out yet. */
  chemicals: Chemicals;
  /** Proofs to be asked for, or that did not hold. */
  proofs: ProofQuestion[];
  /** Parts that are due by their age, a warranty that ends. */
  age: AgeNotice[];
}

/** A machine's line with the state of every station, and what is due on it. */
export function stateOf(
  machine: Machine,
  history: History,
  household: Household,
  now: number,
): MachineState {
  const today = dayOf(now, household.zone);
  const dues = duesOf(machine, history, household, now);
  const stations = stationsOf(machine).map((station): StationState => {
    const { id, name, line } = station;
    const all = dues.filter((one) => one.station === id).sort(byUrgency);
    const own = all.filter(({ status }) => status !== 'habit');
    const first = own[0];
    if (!first) {
      const said = all.length ? 'with each load' : 'nothing scheduled';
      return { id, name, line, status: 'none', said };
    }
    const foulest = own
      .flatMap(({ fouling }) => fouling ?? [])
      .sort((a, b) => b.median - a.median)[0];
    return {
      id,
      name,
      line,
      status: first.status,
      said: sayState(first, machine, today),
      ...(foulest ? { fouling: foulest } : {}),
    };
  });
  return {
    machineId: machine.id,
    stations,
    dues: dues
      .filter(({ status }) => status !== 'habit')
      .sort(byUrgency)
      .map((one) => dueSummary(machine, one, today)),
    chemicals: chemicalsOf(machine, history),
    proofs: openProofs(machine, history, now),
    age: ageNotices(machine, history.replaced, today),
  };
}
