import { stepPrice, weeksAtHome } from './path.js';
import { PRICES, type Plan, type Problem } from './problem.js';

/** What a plan costs, part by part, minutes. */
export interface PlanCost {
  /** At work: tasks, set-ups, going there. */
  work: number;
  /** Being late within what may be, and out of season. */
  waiting: number;
  /** Rules that gave way. */
  broken: number;
  total: number;
}

/** A rule that gave way, and where. */
export type GaveWay =
  | { rule: 'safety' | 'late' | 'early'; chore: number; week: number; weeks: number }
  | { rule: 'away' | 'after'; chore: number; week: number }
  | { rule: 'minutes'; place: number; week: number; over: number };

/** What is done at one place in one week. */
export interface WeekAtPlace {
  week: number;
  place: number;
  chores: number[];
  setups: number[];
  /** Of tasks and set-ups. */
  minutes: number;
}

/** The visits of a plan, in order. */
export function visitsOf({ chores, setups }: Problem, plan: Plan): WeekAtPlace[] {
  const visits = new Map<string, WeekAtPlace>();
  plan.forEach((weeks, chore) => {
    const { place } = chores[chore]!;
    for (const week of weeks) {
      const key = `${week}/${place}`;
      let visit = visits.get(key);
      if (!visit) visits.set(key, (visit = { week, place, chores: [], setups: [], minutes: 0 }));
      visit.chores.push(chore);
    }
  });
  for (const visit of visits.values()) {
    visit.setups = [...new Set(visit.chores.flatMap((chore) => chores[chore]!.setups))];
    visit.minutes =
      visit.chores.reduce((sum, chore) => sum + chores[chore]!.minutes, 0) +
      visit.setups.reduce((sum, setup) => sum + setups[setup]!.minutes, 0);
  }
  return [...visits.values()].sort((a, b) => a.week - b.week || a.place - b.place);
}

/**
 * What a plan costs, reckoned from the plan alone and by nothing that made it.
 * @returns with it, which rules gave way
 */
export function costOf(problem: Problem, plan: Plan): PlanCost & { gaveWay: GaveWay[] } {
  const { weeks, away, chores, places, limit = Infinity } = problem;
  const home = weeksAtHome(away);
  const gaveWay: GaveWay[] = [];
  const visits = visitsOf(problem, plan);
  let waiting = 0;
  let broken = 0;
  plan.forEach((times, index) => {
    const chore = chores[index]!;
    const ends = [...times, weeks];
    ends.forEach((week, i) => {
      const from = i === 0 ? -1 : ends[i - 1]!;
      const price = stepPrice(chore, weeks, home, from, week);
      const passed = from < 0 ? week : chore.byLoads ? home[week]! - home[from]! : week - from;
      const bound = from < 0 ? chore.first : chore.gap;
      const late = passed - bound.to;
      const early = week === weeks ? 0 : bound.from - passed;
      const may = chore.safety ? 0 : chore.late.length;
      if (late > may) {
        gaveWay.push({
          rule: chore.safety ? 'safety' : 'late',
          chore: index,
          week,
          weeks: late - may,
        });
      }
      if (early > 0) gaveWay.push({ rule: 'early', chore: index, week, weeks: early });
      if (late > may || early > 0) broken += price;
      else waiting += price;
      if (week === weeks) return;
      waiting += chore.season?.[week] ?? 0;
      if (away[week]) {
        broken += PRICES.away;
        gaveWay.push({ rule: 'away', chore: index, week });
      }
    });
  });
  chores.forEach(({ follows = [] }, chore) => {
    for (const week of new Set(follows.flatMap((leader) => plan[leader]!))) {
      if (plan[chore]!.includes(week)) continue;
      broken += PRICES.after;
      gaveWay.push({ rule: 'after', chore, week });
    }
  });
  let work = 0;
  for (const { week, place, minutes, chores: done } of visits) {
    work += minutes + places[place]!.minutes;
    const over = overBy(minutes, done.length, limit);
    if (over === 0) continue;
    broken += over * PRICES.over;
    gaveWay.push({ rule: 'minutes', place, week, over });
  }
  return { work, waiting, broken, total: work + waiting + broken, gaveWay };
}

/** Minutes over the limit; one task alone has a visit of its own, however long it is. */
export const overBy = (minutes: number, tasks: number, limit: number): number =>
  tasks > 1 ? Math.max(0, minutes - limit) : 0;
