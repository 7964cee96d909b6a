import type { Household, Machine, MachineDraft } from '../../model/schemas.js';
import type { FieldProblem } from '../../model/check.js';
import type { MachineKind, SchoolId } from '../../model/vocabulary.js';
import { isTask, stationsOf, taskOf, tasksOf } from '../catalogue/lookup.js';
import type { Interval, Task } from '../catalogue/types.js';
import { SCHOOL_TEXTS } from '../catalogue/data/schools.js';
import { TASKS } from '../catalogue/data/tasks.js';
import { inDriver } from '../catalogue/interval-figure.js';
import { speedUps, type SpeedUp } from './interval.js';
import { HARDNESS_UNKNOWN, loadsForADose } from '../fouling/scale.js';

/** The interval that holds for a task before profile and evidence, and where it comes from. */
export interface RuleInForce {
  interval: Interval;
  /** Whose school it is; absent for the household's own figure. */
  school?: SchoolId;
  own: boolean;
  /** A plan that was taken gave it: it is meant, whatever was found. */
  planned?: true;
  /** "your manual, page 12", "the school Steady, chosen for this task". */
  from: string;
}

/** Which interval holds: the own figure, else that of the plan taken, the task's school, the machine's, the household's. */
export function ruleFor(
  task: Task,
  machine: Pick<Machine, 'school' | 'rules'>,
  household: Pick<Household, 'school' | 'hardness'>,
): RuleInForce {
  const rule = machine.rules?.[task.id];
  if (rule?.own) {
    const { every, unit, source } = rule.own;
    const from = `your own figure${source ? ` (${source})` : ''}`;
    return { interval: { [unit]: every }, own: true, from };
  }
  if (rule?.planned && !task.safety && !task.own) {
    const { every, unit } = rule.planned;
    const from = 'the plan of the year that you took';
    return { interval: { [unit]: every }, own: true, planned: true, from };
  }
  const school = rule?.school ?? machine.school ?? household.school;
  const chosen = rule?.school
    ? ', chosen for this task'
    : machine.school
      ? ', chosen for this machine'
      : '';
  if (task.own) {
    return { interval: task.intervals.steady, own: true, from: 'your own task' };
  }
  return {
    interval: reckoned(task.intervals[school], household),
    school,
    own: false,
    from: `the rhythm “${SCHOOL_TEXTS[school].name}”${chosen}`,
  };
}

/** A machine as it would be if only the household chose a school; own figures stay. */
export function withoutSchools(
  machine: Pick<Machine, 'rules'>,
  task: Pick<Task, 'id'>,
): Pick<Machine, 'rules'> {
  const own = machine.rules?.[task.id]?.own;
  return own ? { rules: { [task.id]: { own } } } : {};
}

/** An interval with the loads that hardness and litres give, where it asks for them. */
export function reckoned(interval: Interval, { hardness }: Pick<Household, 'hardness'>): Interval {
  return interval.byScale
    ? { ...interval, loads: loadsForADose(hardness ?? HARDNESS_UNKNOWN) }
    : interval;
}

/**
 * What of the profile acts on an interval. The maker's figure is taken as it stands: the profile acts
 * on schools. Loads reckoned from the hardness have the hard water in them already.
 */
export function speedsUnder(
  { interval, own }: Pick<RuleInForce, 'interval' | 'own'>,
  task: Task,
  machine: Pick<Machine, 'features' | 'habits'>,
  household: Pick<Household, 'hardness' | 'multipliers'>,
): SpeedUp[] {
  if (own) return [];
  return speedUps(task, machine, household).filter(
    ({ circumstance }) => !(interval.byScale && circumstance === 'hard-water'),
  );
}

/** Whether a rule leaves a safety task undone, or done more seldom than the steady school says. */
export function loosens(task: Task, rule: NonNullable<Machine['rules']>[string]): boolean {
  if (!task.safety) return false;
  if (rule.off) return true;
  const interval = rule.own
    ? { [rule.own.unit]: rule.own.every }
    : rule.school && task.intervals[rule.school];
  if (!interval) return false;
  const steady = inDriver(task.intervals.steady, task.driver);
  return inDriver(interval, task.driver) > steady * (1 + 1e-9);
}

/**
 * Checks what a schema cannot see in a machine: rules for tasks that it has, and safety tasks that
 * are loosened only by somebody who was asked twice.
 */
export function checkRules(draft: MachineDraft): FieldProblem[] {
  const tasks = tasksOf(draft);
  return Object.entries(draft.rules ?? {}).flatMap(([id, rule]): FieldProblem[] => {
    if (!tasks.some((task) => task.id === id)) {
      return [{ field: `rules.${id}`, message: 'This machine has no such task.' }];
    }
    if (taskOf(draft, id).cap?.everyLoad && rule.own) {
      return [{ field: `rules.${id}.own`, message: 'This is done with every load.' }];
    }
    if (loosens(taskOf(draft, id), rule) && !rule.acknowledged) {
      return [
        {
          field: `rules.${id}.acknowledged`,
          message: 'This task keeps people safe. Say once more that you want it so.',
        },
      ];
    }
    return [];
  });
}

/**
 * What a school leaves longer than the steady one although it keeps people safe, in a sentence; empty
 * where there is nothing of the kind.
 * @param kind only tasks of this kind of machine
 */
export function sayLooser(school: SchoolId, kind?: MachineKind): string {
  const names = TASKS.filter(
    (task) => (!kind || task.kinds.includes(kind)) && loosens(task, { school }),
  ).map(({ name }) => name.toLowerCase());
  return names.length ? `Keeps these safety tasks longer than steady: ${names.join(', ')}.` : '';
}

/** Checks own tasks: at a station the machine has, and no name given twice. */
export function checkOwnTasks(draft: MachineDraft): FieldProblem[] {
  const stations = stationsOf(draft);
  const ids = new Set<string>();
  return (draft.ownTasks ?? []).flatMap((own, i): FieldProblem[] => {
    const problems: FieldProblem[] = [];
    if (!stations.some(({ id }) => id === own.station)) {
      problems.push({
        field: `ownTasks.${i}.station`,
        message: 'This machine has no such station.',
      });
    }
    if (ids.has(own.id)) {
      problems.push({ field: `ownTasks.${i}.id`, message: 'This task is here twice.' });
    }
    ids.add(own.id);
    return problems;
  });
}

/**
 * Checks where a manual tells of what: of tasks that there are, one page for each task and step. A task that this machine
 * has no longer, or that was the household's own, may still have one.
 */
export function checkPages({ pages = [] }: MachineDraft): FieldProblem[] {
  const seen = new Set<string>();
  return pages.flatMap(({ task, step = '' }, i): FieldProblem[] => {
    const place = `${task}/${step}`;
    const twice = seen.has(place);
    seen.add(place);
    if (!isTask(task) && !task.startsWith('own-')) {
      return [{ field: `pages.${i}.task`, message: 'There is no such task.' }];
    }
    return twice ? [{ field: `pages.${i}.task`, message: 'This has a page already.' }] : [];
  });
}
