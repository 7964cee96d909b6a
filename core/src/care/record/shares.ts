import type { Entry, Machine } from '../../model/schemas.js';
import { knowsTask, taskOf } from '../catalogue/lookup.js';

/** What one author did. */
export interface Share {
  /** As the entries name them. */
  author: string;
  /** At work, by the catalogue, without set-ups and waiting: no stopwatch was held. */
  minutes: number;
  tasks: number;
}

/**
 * How the work was shared: minutes at work and tasks of each author, the one with most minutes first. Tasks that a
 * machine no longer has count without minutes.
 *
 * @param done entries of tasks done
 * @example sharesOf(entries, machines) // [{ author: 'p1', minutes: 45, tasks: 3 }, …]
 */
export function sharesOf(
  done: readonly Pick<Entry, 'author' | 'machineId' | 'task'>[],
  machines: readonly Machine[],
): Share[] {
  const byAuthor = new Map<string, Share>();
  for (const { author, machineId, task } of done) {
    const machine = machines.find(({ id }) => id === machineId);
    const known =
      task !== undefined && machine && knowsTask(machine, task) ? taskOf(machine, task) : undefined;
    const share = byAuthor.get(author) ?? { author, minutes: 0, tasks: 0 };
    byAuthor.set(author, {
      ...share,
      minutes: share.minutes + (known?.minutes.hands ?? 0),
      tasks: share.tasks + 1,
    });
  }
  return [...byAuthor.values()].sort((a, b) => b.minutes - a.minutes);
}
