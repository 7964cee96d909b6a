import type { Machine, VisitTask } from '../../model/schemas.js';
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
  /** What is due here and did not fit into the minutes at work. */
  waits: WaitingTask[];
  /** Tasks not due yet, or not known, at this place that did not fit into the minutes at work. */
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

/** Something due at the place of a visit that is not in it, and why. */
export interface WaitingTask extends DueSummary {
  /** Minutes at work by itself. */
  minutes: number;
  because: string;
}

/**
 * The next visit worth making: at the place of the most urgent task, what is due there, then what
 * comes due within two weeks, then what is not known yet, as far as the minutes at work reach. The
 * most urgent task is always in it. What shares a set-up with it costs less and so fits in sooner.
 * What is due is never left out for what is not: where it has to wait, that is told with its reason.
 * Undefined where nothing can be due.
 * @param minutesAtWork at most, minutes
 * @param begun tasks of visits under way: they are not proposed again
 */
export function nextVisit(
  machines: readonly Machine[],
  states: readonly { dues: readonly DueSummary[] }[],
  today: Day,
  minutesAtWork = VISIT_MINUTES,
  begun: readonly VisitTask[] = [],
): ProposedVisit | undefined {
  const isBegun = new Set(begun.map(({ machineId, task }) => `${machineId}/${task}`));
  const all = states
    .flatMap(({ dues }) => dues)
    .filter((one) => !one.professional && !isBegun.has(`${one.machineId}/${one.task}`));
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
  const near = there.filter(({ on }) => on !== undefined && daysBetween(from, on) <= ALONG_DAYS);
  const wanted = [
    ...near.filter(({ status }) => status === 'due'),
    ...near.filter(({ status }) => status !== 'due'),
    ...there.filter(({ status }) => status === 'unknown'),
  ];
  const chosen = [first];
  const handsOf = (tasks: readonly DueSummary[]) =>
    minutesOfVisit(withoutCovered(tasks), machines).hands;
  const waits: WaitingTask[] = [];
  for (const one of wanted) {
    if (chosen.includes(one)) continue;
    const hands = handsOf([...chosen, one]);
    if (hands <= minutesAtWork) chosen.push(one);
    else if (one.status === 'due') {
      waits.push({ ...one, minutes: handsOf([one]), because: whyNot(hands, minutesAtWork) });
    }
  }
  const tasks = withoutCovered(chosen).sort(byUrgency);
  const { fetch, minutes } = planVisit(tasks, machines);
  const dates = tasks.flatMap(({ on }) => on ?? []).sort();
  const later = wanted.length + (wanted.includes(first) ? 0 : 1) - chosen.length - waits.length;
  return {
    place,
    machineIds: [...new Set(tasks.map(({ machineId }) => machineId))],
    tasks,
    fetch,
    minutes,
    waits,
    later,
    ...(dates[0] ? { on: dates[0] } : {}),
  };
}

const whyNot = (hands: number, limit: number): string =>
  `with it ${Math.round(hands)} min, more than your ${limit}`;
