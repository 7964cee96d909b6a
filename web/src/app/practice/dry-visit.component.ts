import {
  ChangeDetectionStrategy,
  Component,
  effect,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import type { Machine, Visit, VisitTask } from '@needlecase/core';
import { ApiService } from '../data/api.service';
import { BenchService } from '../data/bench.service';
import { ChemicalsService } from '../data/chemicals.service';
import { HouseholdService } from '../data/household.service';
import { VisitSender } from '../data/visit-sender.service';
import { DRY_RUN } from '../visit/dry-run';
import { VisitComponent } from '../visit/visit.component';
import { DryApi, DryBench, DryChemicals, DryHousehold, DrySender, DryTasks } from './dry-house';

/** A visit on its own screens, with a stand-in for everything that would record it. */
@Component({
  selector: 'nc-dry-visit',
  imports: [VisitComponent],
  providers: [
    DryTasks,
    { provide: BenchService, useClass: DryBench },
    { provide: ApiService, useClass: DryApi },
    { provide: HouseholdService, useClass: DryHousehold },
    { provide: VisitSender, useClass: DrySender },
    { provide: ChemicalsService, useClass: DryChemicals },
    {
      provide: DRY_RUN,
      useFactory: () => {
        const dry = inject(DryTasks);
        return { finish: (visit: Visit) => dry.over.set(visit), leave: () => dry.left.set(true) };
      },
    },
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (ready()) {
      <nc-visit id="dry" />
    }
  `,
})
export class DryVisitComponent {
  readonly #dry = inject(DryTasks);

  readonly tasks = input.required<readonly VisitTask[]>();
  /** A machine that is none of the household's. */
  readonly machine = input<Machine>();
  readonly over = output<Visit>();
  readonly left = output<void>();

  protected readonly ready = signal(false);

  constructor() {
    effect(() => {
      this.#dry.tasks.set(this.tasks());
      this.#dry.machine.set(this.machine());
      this.ready.set(true);
    });
    effect(() => {
      const visit = this.#dry.over();
      if (visit) this.over.emit(visit);
    });
    effect(() => {
      if (this.#dry.left()) this.left.emit();
    });
  }
}
