import { SECTION, sectionOf, sectionsOf, type Machine, type SectionTold } from '@needlecase/core';
import {
  housePlan,
  planAhead,
  planView,
  type HousePlan,
  type PlanAhead,
  type PlanView,
} from '@needlecase/core/views/plan';
import type { PlannedVisit } from '@needlecase/core/model/planned';
import { setImmediate as breathe } from 'node:timers/promises';
import type { Answer } from '../http/answer.js';
import { ProblemError } from '../http/problem.js';
import type { Store } from '../store/store.js';
import { householdOf, inHouse } from './household.js';
import type { Planner } from './planner.js';
import { Remember } from './steps.js';

const MINUTE_MS = 60_000;
/** Who wants a sheet, a letter or a calendar waits longer than who looks at a page. ms */
const SHEET_MS = { one: 20_000, many: 600 };
/** Who looks at the bench waits less where there are many plans to wait for. ms */
const AHEAD_MS = { one: 8000, many: 150 };

type PlanTold = Answer<PlanView> & { body: PlanView; written: string };

/** The year ahead as it was answered last: the same for a minute, unless what it tells has changed. */
export class PlanAnswer {
  readonly #told = new Remember<PlanTold>();
  readonly #houses = new Remember<HousePlan>();

  constructor(
    private readonly store: Store,
    private readonly planner: Planner,
  ) {}

  /** A section’s plan. @param section where there is none of this name, the first */
  async answer(section?: string, patience?: number): Promise<PlanTold> {
    const { store } = this;
    const { section: told, house, state } = await this.planner.current(section, patience);
    const all = this.planner.sections().map(({ id }) => id);
    const [absences, supplies] = [store.absences.list(), store.supplies.list()];
    const people = this.#people();
    // All of that is of one moment; what happens from here on is told next.
    await breathe();
    const minute = Math.floor(Date.now() / MINUTE_MS);
    const texts = [absences, people, all].map((one) => JSON.stringify(one));
    const of = [state, house, minute, ...supplies, ...texts];
    return this.#told.getOr(told.id, of, () => {
      const names: SectionTold | undefined =
        all.length > 1 ? { id: told.id, all: all.map((id) => ({ id })) } : undefined;
      const body = planView(house, state, { absences, supplies, people, section: names });
      return { body, written: JSON.stringify(body) };
    });
  }

  async view(section?: string): Promise<PlanView> {
    return (await this.answer(section)).body;
  }

  /**
   * The plan of the whole house, or of some of its machines.
   * @param wanted which machines; all where nothing is said
   * @throws 503 where there is nothing yet to tell of some of it
   */
  async house(wanted: (machine: Machine) => boolean = () => true): Promise<HousePlan> {
    const patience = this.planner.sections().length > 1 ? SHEET_MS.many : SHEET_MS.one;
    const views = await this.#views(wanted, patience, mustTellSomething);
    return this.#houses.getOr(views.map(({ section }) => section?.id).join('\n'), views, () =>
      housePlan(views),
    );
  }

  /** The next weeks of what the bench shows. @param section of those that the bench has */
  async ahead(section?: string): Promise<PlanAhead> {
    householdOf(this.store);
    const { machines } = sectionOf(sectionsOf(inHouse(this.store), SECTION.shown), section);
    const patience = this.planner.sections().length > 1 ? AHEAD_MS.many : AHEAD_MS.one;
    const shown = new Set(machines.map(({ id }) => id));
    return planAhead(housePlan(await this.#views(({ id }) => shown.has(id), patience)));
  }

  /**
   * The plans of the sections in which some machines are, or of the first.
   * @param patience for all, ms
   * @param must is told of each, and may throw
   */
  async #views(
    wanted: (machine: Machine) => boolean,
    patience: number,
    must: (view: PlanView) => void = () => undefined,
  ): Promise<PlanView[]> {
    const until = Date.now() + patience;
    const sections = this.planner.sections();
    const asked = sections.filter(({ machines }) => machines.some(wanted));
    const views: PlanView[] = [];
    for (const { id } of asked.length ? asked : sections.slice(0, 1)) {
      const { body } = await this.answer(id, Math.max(0, until - Date.now()));
      must(body);
      views.push(body);
      await breathe();
    }
    return views;
  }

  /** The plan of the section that a visit is in. */
  async around(visit: PlannedVisit): Promise<PlanView> {
    return this.view(this.planner.sectionAround(visit).id);
  }

  /** The first and the last day of the plan. */
  span() {
    return this.planner.span();
  }

  #people(): string[] {
    const named = this.store.household.get()?.plan?.people ?? [];
    return [...new Set([...named, ...this.store.persons.list()].map(({ name }) => name))];
  }
}

/** @throws 503 where there is no plan yet */
function mustTellSomething({ making, visits, tasks }: PlanView): void {
  if (!making || tasks.length === 0 || visits.length > 0) return;
  throw new ProblemError(503, 'The year is still being planned.', {
    detail: 'Ask again in a few minutes.',
  });
}
