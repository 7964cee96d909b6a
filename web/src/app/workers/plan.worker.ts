import type { AheadProblem } from '@needlecase/core/plan/ahead';
import { curve, pointOf, type CurvePoint } from '@needlecase/core/plan/curve';
import type { Plan } from '@needlecase/core/plan/problem';
import { solve } from '@needlecase/core/plan/solve';
import { replan, type Standing } from '@needlecase/core/plan/standing';
import { onto } from '@needlecase/core/plan/taking';
import { troubleAhead } from '@needlecase/core/plan/trouble-ahead';
import { yearPlan, type YearPlan } from '@needlecase/core/plan/year-plan';

/** What is asked of the worker; `drop` ends what was asked before under an id. */
export type PlanAsked = { id: number } & (
  | { do: 'drop' }
  /** A plan from nothing, better from answer to answer. */
  | { do: 'solve'; problem: AheadProblem; rounds: number }
  /** The plan that goes on from what stands. */
  | { do: 'replan'; problem: AheadProblem; standing: Standing[] }
  /** A year in so many hours; what others ask lies on the curve or above it. */
  | {
      do: 'curve';
      problem: AheadProblem;
      now: { problem: AheadProblem; plan: Plan };
      others: AheadProblem[];
    }
);

/** A year as the worker made it. */
export interface YearMade {
  year: YearPlan;
  plan: Plan;
  trouble: { count: number; minutes: number };
}
/** The curve as far as it is known. */
export interface CurveMade {
  hull: CurvePoint[];
  /** Where what holds now lies. */
  now: CurvePoint;
  /** Where the others lie, in their order. */
  others: CurvePoint[];
  /** By the hull's order. */
  years: YearPlan[];
  /** The point beyond which an hour more saves less than an hour of trouble. */
  balance: number;
}

/** What it answers; the last time `done`. */
export interface PlanAnswered {
  id: number;
  done: boolean;
  made?: YearMade;
  curve?: CurveMade;
  problem?: string;
}

const running = new Set<number>();
const SHAKEN = 0.1;

addEventListener('message', ({ data }: MessageEvent<PlanAsked>) => {
  if (data.do === 'drop') return void running.delete(data.id);
  running.add(data.id);
  void work(data);
});

async function work(asked: Exclude<PlanAsked, { do: 'drop' }>): Promise<void> {
  const { id } = asked;
  const say = (answer: Omit<PlanAnswered, 'id'>) => postMessage({ id, ...answer });
  try {
    for (const answer of answersTo(asked)) {
      if (!running.has(id)) return;
      say({ done: false, ...answer });
      // A word from the page comes in between two rounds.
      await new Promise((resolve) => setTimeout(resolve));
    }
    if (running.has(id)) say({ done: true });
  } catch (problem) {
    say({ done: true, problem: problem instanceof Error ? problem.message : String(problem) });
  } finally {
    running.delete(id);
  }
}

function* answersTo(
  asked: Exclude<PlanAsked, { do: 'drop' }>,
): Generator<Pick<PlanAnswered, 'made' | 'curve'>> {
  const { problem } = asked;
  const made = (plan: Plan, cost: number, bound: number, standing: Standing[] = []): YearMade => {
    const { count, minutes } = troubleAhead(problem, plan);
    const year = yearPlan(problem, { plan, cost, bound }, { standing });
    return { year, plan, trouble: { count, minutes } };
  };
  if (asked.do === 'solve') {
    let last = Infinity;
    for (const { plan, cost, bound } of solve(problem, { rounds: asked.rounds })) {
      if (cost < last - SHAKEN || bound > 0) yield { made: made(plan, cost, bound) };
      last = cost;
    }
  } else if (asked.do === 'replan') {
    const { plan, cost, bound } = replan(problem, asked.standing, 2);
    yield { made: made(plan, cost, bound, asked.standing) };
  } else {
    const now = pointOf(problem, onto(problem, asked.now.problem, asked.now.plan));
    const others: CurvePoint[] = [];
    for (const other of asked.others) {
      others.push(pointOf(problem, onto(problem, other, bestOf(other))));
      yield {};
    }
    const known = [now, ...others].map(({ plan }) => plan);
    for (const hull of curve(problem, { known })) {
      const years = hull.map(({ plan, work }) => yearPlan(problem, { plan, cost: work, bound: 0 }));
      yield { curve: { hull, now, others, years, balance: balanceOf(hull) } };
    }
  }
}

const OTHER_ROUNDS = 4;
function bestOf(problem: AheadProblem): Plan {
  let best: Plan = [];
  for (const { plan } of solve(problem, { rounds: OTHER_ROUNDS })) best = plan;
  return best;
}

/** The point at which work and trouble together take the fewest minutes. */
const balanceOf = (hull: readonly CurvePoint[]): number =>
  hull.reduce(
    (best, { work, trouble }, i) =>
      work + trouble < hull[best]!.work + hull[best]!.trouble - 1e-9 ? i : best,
    0,
  );
