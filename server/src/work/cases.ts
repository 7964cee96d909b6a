import {
  caseState,
  completed,
  entriesOfCase,
  lastFigures,
  proofsGiven,
  situationOf,
  withFigures,
  type CaseNews,
  type CaseRecord,
  type Machine,
} from '@needlecase/core';
import type { Origin } from '../store/entries.js';
import type { Store } from '../store/store.js';
import { householdOf } from './household.js';

/** Adds to a case what is not in it yet, and to the log what follows from it. */
export function addToCase(
  store: Store,
  news: CaseNews,
  machine: Machine,
  { zone, author }: Pick<Origin, 'zone' | 'author'>,
): CaseRecord {
  const known = store.cases.get(news.id);
  if (!known) store.cases.open(news.id, machine.id);
  const record: CaseRecord = known ?? { id: news.id, machineId: machine.id, events: [] };
  let logged = false;
  const now = () => {
    const [history] = store.entries.histories([machine]);
    return withFigures(
      caseState(record),
      machine.kind,
      lastFigures(history!),
      proofsGiven(machine, history!),
    );
  };
  for (const event of news.events) {
    if (store.cases.caseOf(event.id) !== undefined) continue;
    store.cases.add(record.id, event);
    record.events.push(event);
    for (const draft of entriesOfCase(event, now(), record, machine)) {
      if (store.entries.get(draft.id!)) continue;
      store.entries.add(completed(draft, machine), { zone, author });
      logged = true;
    }
  }
  store.changed({ topic: 'cases', id: record.id });
  if (logged) store.changed({ topic: 'entries', id: machine.id });
  return record;
}

/** What the household's records say of a machine in trouble, its vent runs among them. */
export function knownOf(store: Store, machine: Machine): ReturnType<typeof situationOf> {
  const [history] = store.entries.histories([machine]);
  const runs = store.ventRuns.list().filter(({ machineId }) => machineId === machine.id);
  return situationOf(
    machine,
    householdOf(store),
    history!,
    Date.now(),
    runs.map(({ run }) => run),
  );
}
