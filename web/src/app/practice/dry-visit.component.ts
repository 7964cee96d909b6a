import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import {
  isTask,
  planVisit,
  stationById,
  taskOf,
  worldAfter,
  type Machine,
  type Visit,
  type VisitTask,
} from '@needlecase/core';
import { ApiService } from '../data/api.service';
import { BenchService } from '../data/bench.service';
import { ChemicalsService } from '../data/chemicals.service';
import { HouseholdService } from '../data/household.service';
import { VisitSender } from '../data/visit-sender.service';
import { DRY_RUN } from '../visit/dry-run';
import { VisitComponent } from '../visit/visit.component';
import { StageComponent } from './stage.component';
import { stageOfWorld } from './stage-view';
import { DryApi, DryBench, DryChemicals, DryHousehold, DrySender, DryTasks } from './dry-house';

/** A visit on its own screens, with a stand-in for everything that would record it. */
@Component({
  selector: 'nc-dry-visit',
  imports: [StageComponent, VisitComponent],
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
      @if (stage(); as view) {
        <section class="stands" aria-labelledby="stands-title">
          <h2 id="stands-title">How {{ standsThere() }} stands now</h2>
          <nc-practice-stage [view]="view" />
        </section>
      }
    }
  `,
  styles: `
    .stands {
      border-top: 2px dashed var(--seam);
      margin: 1.5rem auto 0;
      max-width: 46rem;
      padding-top: 0.6rem;
    }

    h2 {
      font-size: 1.15rem;
    }
  `,
})
export class DryVisitComponent {
  readonly #dry = inject(DryTasks);
  readonly #loaded = toSignal(inject(BenchService).bench$);

  readonly tasks = input.required<readonly VisitTask[]>();
  /** A machine that is none of the household's. */
  readonly machine = input<Machine>();
  readonly over = output<Visit>();
  readonly left = output<void>();

  protected readonly ready = signal(false);

  readonly #machines = computed(() => this.#loaded()?.value?.machines ?? []);
  readonly #plan = computed(() => planVisit([...this.tasks()], this.#machines()));
  /** The step that comes after the last that was ticked. */
  readonly #next = computed(() => {
    const { steps } = this.#plan();
    const ticked = this.#dry.ticked();
    const last = steps.findLastIndex(({ key }) => ticked[key] !== undefined);
    return steps[last + 1] ?? steps[last];
  });
  readonly #stands = computed(() =>
    this.#machines().find(({ id }) => id === this.#next()?.machineId),
  );
  protected readonly standsThere = computed(() => this.#stands()?.name);
  /** The machine as the steps that were ticked leave it. */
  protected readonly stage = computed(() => {
    const machine = this.#stands();
    if (!machine) return undefined;
    const ticked = this.#dry.ticked();
    const walked = this.#plan().steps.filter(
      ({ key, machineId }) => machineId === machine.id && ticked[key] !== undefined,
    );
    const world = worldAfter(walked, machine);
    const task = this.#next()?.task;
    const line = task && isTask(task) ? stationById(taskOf(machine, task).station).line : 'water';
    return stageOfWorld(machine, world, {
      ...{ wet: line === 'water', measured: false },
      floor: Math.round(10 * world.floor) / 10,
      tray: world.facts.flap === 'open',
    });
  });

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
