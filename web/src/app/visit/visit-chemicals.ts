import { inject, Injectable } from '@angular/core';
import {
  entryOfFullRinse,
  entryOfRinse,
  entryOfUse,
  eventsOfVisit,
  fullRinseKey,
  NOTHING,
  presentIn,
  type ChemicalEvent,
  type Chemicals,
  type Machine,
  type VisitPlan,
  type VisitStep,
} from '@needlecase/core';
import { ChemicalsService } from '../data/chemicals.service';
import { VisitKeeper } from './visit-keeper';
import { instantNow } from '../data/clock';

/**
 * Cleaning products in a visit. What is told goes into the visit's progress and, as an entry, into the
 * log at once: it is in the machine whether the visit is finished or given up.
 */
@Injectable()
export class VisitChemicals {
  readonly #keeper = inject(VisitKeeper);
  readonly #chemicals = inject(ChemicalsService);

  /** What is in a machine and was not rinsed out. */
  presentIn(plan: VisitPlan, machine: Machine, known: Chemicals): ChemicalEvent[] {
    const progress = this.#keeper.progress();
    return presentIn(known, progress && eventsOfVisit(plan, machine, progress));
  }

  /** Notes what is used at a step. */
  use(step: VisitStep, machine: Machine, product: string): void {
    const at = instantNow();
    const brought =
      product === NOTHING
        ? { product, at }
        : { product, at, entryId: this.#chemicals.add(entryOfUse(step, product, machine, at)) };
    this.#keeper.change((progress) => ({
      ...progress,
      brought: { ...progress.brought, [step.key]: brought },
    }));
  }

  /** Takes back what was noted as used at a step, since it was not. */
  unuse({ key }: VisitStep): void {
    const { entryId } = this.#keeper.progress()?.brought?.[key] ?? {};
    if (entryId) this.#chemicals.remove(entryId);
    this.#keeper.change((progress) => {
      const { [key]: _taken, ...brought } = progress.brought ?? {};
      return { ...progress, brought };
    });
  }

  /** Notes a full rinse that was told at no step. */
  fullRinse({ id }: Machine): void {
    const at = instantNow();
    const entryId = this.#chemicals.add(entryOfFullRinse(id, at, 'run'));
    this.#keeper.change((progress) => ({
      ...progress,
      rinsed: { ...progress.rinsed, [fullRinseKey(id)]: { entryId, at } },
    }));
  }

  /** Notes that a rinse has run: of the whole machine, or of the parts that the step rinses. */
  rinse(step: VisitStep, machine: Machine): void {
    const at = instantNow();
    const entryId = this.#chemicals.add(entryOfRinse(step, machine, at));
    this.#keeper.change((progress) => ({
      ...progress,
      rinsed: { ...progress.rinsed, [step.key]: { entryId, at } },
    }));
  }
}
