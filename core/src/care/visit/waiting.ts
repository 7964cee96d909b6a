import type { VisitProgress } from '../../model/schemas.js';
import { isWasher } from '../../model/vocabulary.js';
import { NOTHING } from '../../chemistry/products.js';
import type { ChemicalEvent } from '../../chemistry/guard.js';
import { effectsOf, RUNS } from '../../world/acts.js';
import { FACT_WORDS, HOME, type Fact, type Facts } from '../../world/facts.js';
import type { Build } from '../catalogue/types.js';
import type { VisitPlan } from './plan.js';
import type { VisitStep } from './visit-step.js';

/** What a step waits for before it can be ticked: a product to be named, a rinse, or what soaks or dries. */
export type Wait =
  | { for: 'answer' | 'rinse' }
  | {
      for: 'soak' | 'dry';
      /** Key of the step at which it was left to. */
      key: string;
      /** UTC instant, milliseconds, at which it has had its time. */
      until: number;
    };

/**
 * What has to be answered, done or waited for before a step can be ticked.
 * @param present cleaning products in the machine that were not rinsed out
 * @param now UTC instant, milliseconds
 */
export function waitsFor(
  one: VisitStep,
  { steps }: Pick<VisitPlan, 'steps'>,
  { brought, timers = {} }: Pick<VisitProgress, 'brought'> & Partial<Pick<VisitProgress, 'timers'>>,
  present: readonly ChemicalEvent[],
  now: number,
): Wait | undefined {
  const { key, step } = one;
  for (const { key: left, machineId, step: before } of steps) {
    const { soaks, dries } = before.acts;
    const part = (soaks ?? dries)?.part;
    const timer = timers[left];
    if (machineId !== one.machineId || !part || !timer || left === key) continue;
    const until = Date.parse(timer.startedAt) + timer.seconds * 1000;
    if (part === step.acts.touches && step.acts.waits && until > now) {
      return { for: soaks ? 'soak' : 'dry', key: left, until };
    }
  }
  if (step.brings && !brought?.[key]) return { for: 'answer' };
  return step.rinses === 'all' && present.length > 0 ? { for: 'rinse' } : undefined;
}

/**
 * The timer that a step starts by itself: of what was left to soak in something, or to dry. In seconds.
 * @param product what was said to be used; absent where the step was ticked
 */
export function timerStartedBy({ step }: VisitStep, product?: string): number | undefined {
  const { soaks, dries } = step.acts;
  if (product !== undefined) {
    return soaks && product !== NOTHING ? soaks.minutes * 60 : undefined;
  }
  return dries && dries.minutes * 60;
}

/** How a machine is by the steps of a visit that were ticked. */
export function factsOf(
  { steps }: Pick<VisitPlan, 'steps'>,
  { ticked }: Pick<VisitProgress, 'ticked'>,
  machineId: string,
): Facts {
  const done = steps
    .filter((one) => one.machineId === machineId && !one.step.later && ticked[one.key])
    .sort((a, b) => ticked[a.key]!.localeCompare(ticked[b.key]!));
  return done.reduce<Facts>((facts, { step }) => ({ ...facts, ...effectsOf(step.acts) }), HOME);
}

/**
 * Why no full rinse can have run just now, in a few words each: the plug is out, the filter is out. A dryer
 * is wiped, and nothing hinders that.
 */
export function hindersRinse(
  plan: Pick<VisitPlan, 'steps'>,
  progress: Pick<VisitProgress, 'ticked'>,
  machine: Build & { id: string },
): string[] {
  if (!isWasher(machine.kind)) return [];
  const facts = factsOf(plan, progress, machine.id);
  return Object.values(RUNS.rinse.needs)
    .flatMap((needs) => Object.entries(needs) as [Fact, readonly string[]][])
    .filter(([fact, values]) => !values.includes(facts[fact]))
    .flatMap(([fact]) => FACT_WORDS[fact] ?? []);
}
