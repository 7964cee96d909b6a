import type { EntryKind, Machine } from '@needlecase/core';
import { chartsView, type ChartsView } from '@needlecase/core/views/charts';
import { lifeView, type LifeView } from '@needlecase/core/views/life';
import type { Store } from '../store/store.js';
import { householdOf } from './household.js';

/** What is drawn of a machine's record beside its loads. */
const CHARTED: readonly EntryKind[] = ['reading', 'done', 'opened', 'replaced'];
/** What is told of a machine's parts. */
const OF_A_LIFE: readonly EntryKind[] = ['replaced', 'called'];

/** A machine's figures along time. */
export function chartsOf(store: Store, machine: Machine): ChartsView {
  const { units } = householdOf(store);
  const [history] = store.entries.histories([machine]);
  const told = store.entries.inOrder({ machine: machine.id, kinds: CHARTED });
  const metered = store.entries.inOrder({ machine: machine.id, kinds: ['load'], metered: true });
  const cases = store.cases.list().filter(({ machineId }) => machineId === machine.id);
  const ground = { machine, cases, units, usage: history!.usage };
  return chartsView({ ...ground, entries: [...told, ...metered] });
}

/** A machine along its life. @param now UTC instant, milliseconds */
export function lifeOf(store: Store, machine: Machine, now: number): LifeView {
  const household = householdOf(store);
  const [history] = store.entries.histories([machine]);
  const of = { machine: machine.id };
  const entries = store.entries.inOrder({ ...of, kinds: OF_A_LIFE });
  const metered = store.entries.inOrder({ ...of, kinds: ['load'], metered: true });
  return lifeView({ machine, household, history: history!, entries, metered, now });
}
