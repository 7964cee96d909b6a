import { caseLook, dayOf, type CaseLook, type CaseRecord } from '@needlecase/core';
import type { Store } from '../store/store.js';
import { knownOf } from './cases.js';
import { householdOf } from './household.js';

/** What to look at next in a case: worked out anew when something was told in it, or the machine's own or the day change. */
export class CaseLooks {
  #last: { key: string; look: CaseLook | undefined } | undefined;

  constructor(private readonly store: Store) {}

  readonly of = (record: CaseRecord): CaseLook | undefined => {
    const machine = this.store.machines.get(record.machineId);
    if (!machine) return undefined;
    const today = dayOf(Date.now(), householdOf(this.store).zone);
    const key = [record.id, record.events.length, machine.version, today].join(' ');
    if (this.#last?.key !== key) {
      this.#last = { key, look: caseLook(record, knownOf(this.store, machine)) };
    }
    return this.#last.look;
  };
}
