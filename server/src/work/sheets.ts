import {
  caseSheet,
  caseState,
  entryKindsWhere,
  machineSheet,
  situationIn,
  stateOf,
  troubleView,
  visitSheet,
  type Sheet,
} from '@needlecase/core';
import type { SheetQuery } from '@needlecase/core/model/planned';
import { notFound } from '../http/problem.js';
import { printSheet } from '../pdf/print.js';
import type { Store } from '../store/store.js';
import { knownOf } from './cases.js';
import { chartsOf, lifeOf } from './machine-record.js';
import { householdOf, machineOf } from './household.js';
import { Signals } from './signals.js';

/** A sheet as it is handed out. */
export interface Printed {
  pdf: Uint8Array;
  fileName: string;
}

async function print(store: Store, sheet: Sheet): Promise<Printed> {
  const pictures = sheet.photos.flatMap(({ id, said }) => {
    const picture = store.photos.picture(id);
    return picture ? [{ picture, said }] : [];
  });
  const name = sheet.title.replaceAll(/[^\p{L}\p{N}]+/gu, '-').toLowerCase();
  return { pdf: await printSheet(sheet, pictures), fileName: `${name}.pdf` };
}

/** A machine's record, for whom and of which days. @throws 404 */
export function printMachine(
  store: Store,
  id: string,
  now: number,
  { for: whom, from, to, photos = true }: SheetQuery = {},
): Promise<Printed> {
  const machine = machineOf(store, id);
  const household = householdOf(store);
  const [history] = store.entries.histories([machine]);
  const state = stateOf(machine, history!, household, now);
  const told = new Signals(store).told(machine, household.zone).all;
  const cases = store.cases.list().filter(({ machineId }) => machineId === id);
  const sheet = machineSheet(
    {
      ...{ machine, household, state, cases, told, now },
      entries: [...store.entries.inOrder({ machine: id, kinds: TELLING })].reverse(),
      life: lifeOf(store, machine, now),
      charts: chartsOf(store, machine),
    },
    { ...(whom === undefined ? {} : { whom }), from, to },
  );
  return print(store, photos ? sheet : { ...sheet, photos: [] });
}

const TELLING = entryKindsWhere(({ telling }) => telling);

/** A case of trouble. @throws 404 */
export function printCase(store: Store, id: string, now: number): Promise<Printed> {
  const record = store.cases.get(id);
  if (!record) throw notFound('case');
  const machine = machineOf(store, record.machineId);
  const household = householdOf(store);
  const { situation, said } = knownOf(store, machine);
  const state = caseState(record);
  const view = troubleView(situationIn(situation, state), state.answers, [], said);
  return print(store, caseSheet(record, machine, household, view, now));
}

/** A visit: what came of it, or its steps. @throws 404 */
export function printVisit(store: Store, id: string, now: number): Promise<Printed> {
  const visit = store.visits.get(id);
  if (!visit) throw notFound('visit');
  const entries = store.entries.ofVisit(visit.id);
  return print(store, visitSheet(visit, store.machines.list(), householdOf(store), entries, now));
}
