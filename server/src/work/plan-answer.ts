import type { AheadProblem } from '@needlecase/core/plan/ahead';
import { planView, type PlanView } from '@needlecase/core/views/plan';
import type { Answer } from '../http/answer.js';
import type { Store } from '../store/store.js';
import type { Planner } from './planner.js';

const MINUTE_MS = 60_000;

/** The year ahead as it was answered last: the same for a minute, unless something was written. */
export class PlanAnswer {
  #last: { at: string; answer: Answer<PlanView> & { body: PlanView } } | undefined;

  constructor(
    private readonly store: Store,
    private readonly planner: Planner,
  ) {}

  async view(): Promise<PlanView> {
    return (await this.answer()).body;
  }

  async answer(): Promise<Answer<PlanView> & { body: PlanView }> {
    if (this.#last?.at === this.#moment()) return this.#last.answer;
    const { store } = this;
    const { house, state } = await this.planner.current();
    const body = planView(house, state, {
      absences: store.absences.list(),
      supplies: store.supplies.list(),
      people: this.#people(),
    });
    const answer = { body, written: JSON.stringify(body) };
    this.#last = { at: this.#moment(), answer };
    return answer;
  }

  /** What there is to plan now. */
  problem(): AheadProblem {
    return this.planner.problem();
  }

  #moment(): string {
    return `${this.store.revision} ${Math.floor(Date.now() / MINUTE_MS)}`;
  }

  #people(): string[] {
    const named = this.store.household.get()?.plan?.people ?? [];
    return [...new Set([...named, ...this.store.persons.list()].map(({ name }) => name))];
  }
}
