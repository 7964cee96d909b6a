import { duesOf, sayDay, taskOf } from '@needlecase/core';
import { digestOf } from '@needlecase/core/print/digest';
import { houseOrigin, type Reach } from '../access/reach.js';
import { calendarOf } from '../calendar/serve.js';
import type { News } from '../mail/postman.js';
import type { Store } from '../store/store.js';
import { houseOf } from './household.js';
import type { PlanAnswer } from './plan-answer.js';

/** What there is to tell in a letter: what keeps people safe and is due, and the visits ahead. */
export const newsOf =
  (store: Store, plan: PlanAnswer, reach: () => Reach): (() => Promise<News>) =>
  async () => {
    const view = await plan.house();
    const { household, machines, histories, now } = houseOf(store);
    const overdue = machines.flatMap((machine, i) =>
      duesOf(machine, histories[i]!, household, now)
        .filter(({ safety, status }) => safety && status === 'due')
        .map(({ task, on }) => {
          const { name } = taskOf(machine, task);
          return `${name}, ${machine.name}${on ? `: since ${sayDay(on, view.start)}` : ''}`;
        }),
    );
    const { port } = reach();
    const address = houseOrigin(reach()) ?? `http://localhost:${port}`;
    const next = view.visits.find(({ done, skipped }) => !done && skipped === undefined);
    return {
      urgent: overdue.length > 0,
      address,
      letter: (stop) => digestOf({ view, overdue, address, stop }),
      ...(next
        ? { next: calendarOf(store, view, address, { evening: true, begins: true }, next.id) }
        : {}),
    };
  };
