import type { Machine } from '../../../model/schemas.js';
import { tasksOf } from '../lookup.js';
import type { Task } from '../types.js';

/** How long ago somebody remembers something, and what is taken for it, days. */
export const REMEMBERED = {
  month: { say: 'This month', days: 15 },
  year: { say: 'This year', days: 180 },
  longer: { say: 'Longer ago', days: 540 },
} as const;
export type Remembered = keyof typeof REMEMBERED;

/** What matters most when nothing is noted yet, what can hurt somebody first. */
const ASKED = [
  'duct-run',
  'lint-screen-wash',
  'heat-exchanger',
  'fine-filter',
  'screen-well',
  'pump-filter',
  'gasket-folds',
  'dispenser',
  'drum-clean',
  'softener-cup',
];
const MOST = 4;

/** The few tasks of a machine whose last time is asked at the first start. */
export function tasksToRemember(machine: Pick<Machine, 'kind' | 'features'>): Task[] {
  const own = new Map(tasksOf(machine).map((task) => [task.id, task]));
  return ASKED.flatMap((id) => own.get(id) ?? []).slice(0, MOST);
}
