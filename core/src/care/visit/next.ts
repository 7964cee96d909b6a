import type { Machine } from '../../model/schemas.js';
import { daysBetween, type Day } from '../../units/calendar.js';
import { minutesOfVisit, naturally, planVisit, type FetchItem } from './plan.js';
import { withoutCovered } from '../catalogue/set-ups.js';
import { byUrgency } from '../schedule/dues.js';
import type { DueSummary } from '../schedule/summary.js';

/** A visit proposed: everything at one place that is worth doing in one go. */
export interface ProposedVisit {
  place: string;
  machineIds: string[];
  tasks: DueSummary[];
  fetch: FetchItem[];
  minutes: { hands: number; waiting: number };
  /** Tasks at this place that did not fit into the minutes at work. */
  later: number;
  /** When it has to be done by; absent where its tasks are only not known yet. */
  on?: Day;
}

/** Minutes at work that a proposed visit may take, where the household does not say. */
export const VISIT_MINUTES = 60;

/** What is not known yet has no date to go by: a dryer's way of the air comes before a washer's hoses. */
const inNaturalOrder = (a: DueSummary, b: DueSummary): number =>
  a.status === 'unknown' ? naturally({ id: a.task }, { id: b.task }) : 0;

/** What comes due within this of the visit is done along. */
const ALONG_DAYS = 14;

/**
 * The next visit worth making: at the place of the most urgent task, what is due there, then what
 * comes due within two weeks, then what is not known yet, as far as the minutes at work reach. The
 * most urgent task is always in it. What shares a set-up with it costs less and so fits in sooner.
 * Undefined where nothing can be due.
 */
export function nextVisit(
  machines: readonly Machine[],
  states: readonly { dues: readonly DueSummary[] }[],
  today: Day,
  minutesAtWork = VISIT_MINUTES,
): ProposedVisit | undefined {
  const all = states.flatMap(({ dues }) => dues).filter(({ professional }) => !professional);
  const inOrder = (a: DueSummary, b: DueSummary) => byUrgency(a, b) || inNaturalOrder(a, b);
  const first = all
    .filter(({ on, status }) => on !== undefined || status === 'unknown')
    .reduce<DueSummary | undefined>(
      (least, one) => (least && inOrder(least, one) <= 0 ? least : one),
      undefined,
    );
  if (!first) return undefined;
  const places = new Map(machines.map(({ id, place }) => [id, place]));
  const place = places.get(first.machineId)!;
  const from = first.on && first.on > today ? first.on : today;
  const there = all.filter(({ machineId }) => places.get(machineId) === place).sort(inOrder);
  const wanted = [
    ...there.filter(({ on }) => on !== undefined && daysBetween(from, on) <= ALONG_DAYS),
    ...there.filter(({ status }) => status === 'unknown'),
  ];
  const chosen = [first];
  for (const one of wanted) {
    if (chosen.includes(one)) continue;
    const { hands } = minutesOfVisit(withoutCovered([...chosen, one]), machines);
    if (hands <= minutesAtWork) chosen.push(one);
  }
  const tasks = withoutCovered(chosen).sort(byUrgency);
  const { fetch, minutes } = planVisit(tasks, machines);
  const dates = tasks.flatMap(({ on }) => on ?? []).sort();
  return {
    place,
    machineIds: [...new Set(tasks.map(({ machineId }) => machineId))],
    tasks,
    fetch,
    minutes,
    later: wanted.length + (wanted.includes(first) ? 0 : 1) - chosen.length,
    ...(dates[0] ? { on: dates[0] } : {}),
  };
}
