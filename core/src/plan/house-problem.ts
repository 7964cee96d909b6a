import { setUpById, setUpIdsOf, taskOf } from '../care/catalogue/lookup.js';
import type { Task } from '../care/catalogue/types.js';
import { due, type Due, type DueQuestion } from '../care/schedule/due.js';
import { questionsOf } from '../care/schedule/dues.js';
import { withoutSchools } from '../care/schedule/rules.js';
import type { House } from '../care/schedule/year.js';
import type { Machine } from '../model/schemas.js';
import type { SchoolId } from '../model/vocabulary.js';
import { dayOf, plusDays, type Day } from '../units/calendar.js';
import { inOneGo } from '../units/steps.js';
import type { Chore, Shared } from './problem.js';
import { rhythmAtWill, rhythmInForce, type Rhythm } from './rhythm.js';
import { riskOf } from './risk.js';
import type { AheadProblem, ChoreOf, Risk } from './ahead.js';
import { PlanWeeks, WEEK, type Away } from './weeks.js';

/** Fetching things, going there and washing one's hands, minutes. */
export const WAY = 10;
/** Work in its season is so much dearer out of it, minutes. */
const OUT_OF_SEASON = 5;
/** The years ahead are planned by the week: so many. */
export const WEEKS = 52;

/** What a household wants of its plan. */
export interface PlanWishes {
  weeks?: number;
  /** At work in one visit, at most, minutes. */
  limit?: number;
  /** On which somebody can work: 1 Monday to 7 Sunday. */
  weekdays?: readonly number[];
  away?: readonly Away[];
  /** Days on which nobody can, though somebody is at home. */
  closed?: readonly Day[];
  /** Minutes that each visit takes besides. */
  way?: number;
  /** As if the household chose this school and laid down nothing but its own figures. */
  school?: SchoolId;
  /** Gaps are chosen freely, by what they risk: see `atPace`. */
  atWill?: boolean;
  /** Tasks that are left out for once. */
  skipped?: readonly Skip[];
}

/** A task that is left out for once. */
export interface Skip {
  machineId: string;
  task: string;
  day: Day;
}

/**
 * What a house asks of a year, as a problem to plan: its tasks with their windows, and what they share.
 * Minutes and weeks.
 */
export const houseProblem = (house: House, wishes: PlanWishes = {}): AheadProblem =>
  inOneGo(problemSteps(house, wishes));

/** The same, a machine a step: who works it out leaves time for others in between. */
export function* problemSteps(
  house: House,
  wishes: PlanWishes = {},
): Generator<undefined, AheadProblem> {
  const { limit, weekdays = [1, 2, 3, 4, 5, 6, 7], away = [], closed = [] } = wishes;
  const { way = WAY } = wishes;
  const start = dayOf(house.now, house.household.zone);
  const calendar = new PlanWeeks(start, wishes.weeks ?? WEEKS, weekdays, away, closed);
  const places = new Numbered();
  const setups = new Numbered();
  const chores: Chore[] = [];
  const of: ChoreOf[] = [];
  const asIf = wishes.school ? { ...house.household, school: wishes.school } : house.household;
  for (const [i, machine] of house.machines.entries()) {
    const history = house.histories[i]!;
    const { perWeek } = history.usage.weeklyRate(house.now);
    const own: Chore[] = [];
    const asked: Known[] = [];
    for (const one of questionsOf(machine, history, house.household, house.now)) {
      // What can hurt somebody keeps its dates whatever is looked at.
      const question =
        (wishes.school || wishes.atWill) && !one.task.safety
          ? { ...one, household: asIf, machine: plain(one.machine, one.task) }
          : one;
      const known = due(question);
      const skipped = latestSkip(wishes.skipped ?? [], machine.id, question.task.id, start);
      const rhythm = (wishes.atWill ? rhythmAtWill : rhythmInForce)({
        ...{ question, known, perWeek, weeks: calendar, skipped },
      });
      const task = taskOf(machine, known.task);
      // Work of somebody trained is told, and never planned as a visit.
      if (!rhythm || task.professional) continue;
      const risk = riskOf(
        believed(one, house.household),
        { perWeek, weeks: calendar, skipped },
        calendar.count,
      );
      own.push({
        id: `${machine.id}/${task.id}`,
        place: places.of(machine.place, way),
        minutes: task.minutes.hands,
        setups: setUpIdsOf(task, machine).map((id) =>
          setups.of(`${machine.id}/${id}`, setUpById(id).minutes),
        ),
        safety: task.safety,
        first: rhythm.first,
        gap: rhythm.gap,
        late: latePrices(rhythm, risk),
        byLoads: rhythm.byLoads,
        ...(wishes.atWill ? {} : seasonOf(known, start, calendar.count)),
      });
      asked.push({ task, known });
      of.push({
        machineId: machine.id,
        task: task.id,
        risk: told(risk),
        driver: task.driver,
        perWeek,
        free: rhythm.free,
      });
    }
    const follows = followsOf(asked, machine, chores.length);
    chores.push(...own.map((chore, k) => following(chore, follows[k]!)));
    yield;
  }
  return {
    weeks: calendar.count,
    chores,
    ...{ setups: setups.all, places: places.all, start, weekdays, spans: away, closed, of },
    away: calendar.days.map((day) => day === undefined),
    ...(limit === undefined ? {} : { limit }),
  };
}

/** What several chores share, by the numbers that they name it with. */
class Numbered {
  readonly all: Shared[] = [];
  readonly #known = new Map<string, number>();

  of(id: string, minutes: number): number {
    const known = this.#known.get(id) ?? this.all.push({ id, minutes }) - 1;
    this.#known.set(id, known);
    return known;
  }
}

/** Chances are told to a hundred-thousandth: nobody believes them closer, and all of it is sent. */
const CLOSE = 100_000;
const told = ({ after, first, stake }: Risk): Risk => {
  const rounded = (chances: readonly number[]) =>
    chances.map((one) => Math.round(one * CLOSE) / CLOSE);
  return { after: rounded(after), first: rounded(first), stake };
};

/** A machine as if nothing were laid down for a task but its own figure, and that it is switched off. */
function plain(machine: DueQuestion['machine'], task: Task): DueQuestion['machine'] {
  const { off, changed } = machine.rules?.[task.id] ?? {};
  const own = withoutSchools(machine, task).rules?.[task.id];
  const rule = { ...own, ...(off ? { off } : {}), ...(changed ? { changed } : {}) };
  return { features: machine.features, habits: machine.habits, rules: { [task.id]: rule } };
}

/** What is asked of a station's belief: whatever rhythm is looked at, it fouls as it does. */
const believed = (question: DueQuestion, household: House['household']): DueQuestion => ({
  ...question,
  household: { ...household, school: 'steady' },
  machine: plain(question.machine, question.task),
});

const latestSkip = (skipped: readonly Skip[], machineId: string, task: string, start: Day) =>
  skipped
    .filter((one) => one.machineId === machineId && one.task === task && one.day < start)
    .map(({ day }) => day)
    .sort()
    .at(-1);

interface Known {
  task: Task;
  known: Due;
}

/**
 * What follows what on a machine: the filter after the drum was cleaned, the feet after it was pulled out.
 * @param before the chores of other machines, so many
 */
function followsOf(of: readonly Known[], machine: Machine, before: number): number[][] {
  const follows: number[][] = of.map(() => []);
  of.forEach(({ known: { inForce } }, i) => {
    const { tasks = [], setups = [] } = inForce.school.after ?? {};
    if (tasks.length + setups.length === 0) return;
    of.forEach((leader, k) => {
      if (k === i || isLed(k, i, follows)) return;
      const calls =
        tasks.includes(leader.task.id) ||
        setUpIdsOf(leader.task, machine).some((one) => setups.includes(one));
      if (calls) follows[i]!.push(k);
    });
  });
  return follows.map((all) => all.map((k) => before + k));
}

/** Whether one comes after another already: nothing follows itself. */
const isLed = (i: number, by: number, follows: readonly (readonly number[])[]): boolean =>
  follows[i]!.some((one) => one === by || isLed(one, by, follows));

/** What follows is never too early. */
const following = (chore: Chore, follows: readonly number[]): Chore =>
  follows.length === 0
    ? chore
    : {
        ...chore,
        follows,
        first: { ...chore.first, from: 0 },
        gap: { ...chore.gap, from: 1 },
      };

/** What a week later costs: the rise of the chance that the limit is passed, times what such a trouble costs. */
function latePrices({ gap, slip }: Rhythm, { after, stake }: Risk): number[] {
  const chance = (week: number) => after[Math.min(week, after.length - 1)]!;
  let before = 0;
  return Array.from({ length: slip }, (_, k) => {
    // A week that risks nothing still costs a little: sooner is better where all else is the same.
    before = Math.max(before + 0.1, (chance(gap.to + k + 1) - chance(gap.to)) * stake);
    return before;
  });
}

const SPRING_AND_AUTUMN = [3, 4, 5, 9, 10, 11];

function seasonOf({ inForce }: Due, start: Day, weeks: number): Pick<Chore, 'season'> {
  if (!/spring and autumn/i.test(inForce.school.said ?? '')) return {};
  return {
    season: Array.from({ length: weeks }, (_, week) => {
      const month = Number(plusDays(start, week * WEEK + 3).slice(5, 7));
      return SPRING_AND_AUTUMN.includes(month) ? 0 : OUT_OF_SEASON;
    }),
  };
}
