import { NgTemplateOutlet } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  signal,
} from '@angular/core';
import { takeUntilDestroyed, toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import {
  isWasher,
  KIND_NAMES,
  many,
  sayLongDay,
  type BenchView,
  type DueSummary,
  type HabitRow,
  type Machine,
  type ProofQuestion,
} from '@needlecase/core';
import { BenchService } from '../data/bench.service';
import { SectionChoiceComponent } from '../shared/section-choice.component';
import { LoadsService } from '../data/loads.service';
import { badge } from '../data/platform';
import { RoleService } from '../data/role.service';
import { VisitsService } from '../data/visits.service';
import { LineComponent } from '../thread/line.component';
import { HouseWatchComponent } from '../shared/house-watch.component';
import { OfferComponent } from '../practice/offer.component';
import { ProofsComponent } from './proofs.component';
import { BeforeLoadComponent } from './before-load.component';
import { CaseCardComponent } from './case-card.component';
import { snagsOf } from './snags';
import { SignalComponent } from './signal.component';
import { TallyComponent } from './tally.component';
import { UnderWayCardComponent } from './under-way-card.component';
import { WeeksComponent } from './weeks.component';
import { StitchComponent } from '../thread/stitch.component';
import { narrow } from '../shared/narrow';
import { Dialogs } from '../shared/dialogs';
import { sayMinutes } from '../shared/minutes';

const ROWS_AT_ONCE = 2;

/** Home: the next visit or the one under way, every machine's line, loads with one tap, the next weeks. */
@Component({
  selector: 'nc-bench',
  imports: [
    SignalComponent,
    BeforeLoadComponent,
    CaseCardComponent,
    HouseWatchComponent,
    LineComponent,
    NgTemplateOutlet,
    OfferComponent,
    ProofsComponent,
    RouterLink,
    StitchComponent,
    SectionChoiceComponent,
    TallyComponent,
    UnderWayCardComponent,
    WeeksComponent,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './bench.component.html',
  styleUrl: './bench.component.scss',
})
export class BenchComponent {
  readonly #bench = inject(BenchService);
  readonly #loads = inject(LoadsService);
  readonly #router = inject(Router);
  readonly #dialogs = inject(Dialogs);
  protected readonly visits = inject(VisitsService);
  readonly #role = inject(RoleService);
  protected readonly isOwner = computed(() => this.#role.may('keeper'));

  readonly #loaded = toSignal(this.#bench.bench$);
  protected readonly problem = computed(() => this.#loaded()?.problem);
  protected readonly bench = computed(() => this.#loaded()?.value);

  readonly #every = computed(() => {
    const bench = this.bench();
    if (!bench) return [];
    const pending = this.#loads.pending();
    return bench.states.flatMap((state) => {
      const machine = bench.machines.find(({ id }) => id === state.machineId);
      if (!machine) return [];
      const counted = bench.loads.find(({ machineId }) => machineId === machine.id)!;
      const first = mostPressing(state.dues);
      const waiting = pending.get(machine.id) ?? 0;
      return [
        {
          machine,
          stations: state.stations,
          first,
          firstStation: state.stations.find(({ id }) => id === first?.station)?.name,
          today: counted.today + waiting,
          week: counted.week + waiting,
          days: counted.days.map((n, i) => (i === counted.days.length - 1 ? n + waiting : n)),
          thread: isWasher(machine.kind) ? ('water' as const) : ('air' as const),
          snags: snagsOf(bench.signals, machine.id),
        },
      ];
    });
  });

  /** Of most of what is due here nobody knows when it was done: the program is new to this house. */
  protected readonly isNew = computed(() => {
    const dues = this.bench()?.states.flatMap((state) => state.dues) ?? [];
    return 2 * dues.filter(({ status }) => status === 'unknown').length > dues.length;
  });
  /** The first rows at once, the others a few a frame: nobody waits for all of them to touch one. */
  readonly #drawn = signal(ROWS_AT_ONCE);
  protected readonly rows = computed(() => this.#every().slice(0, this.#drawn()));
  /** Parts that are due by their age, warranties that end; a guest does not see to them. */
  protected readonly aged = computed(() =>
    this.#role.may('helper') ? (this.bench()?.states.flatMap(({ age }) => age) ?? []) : [],
  );
  /** How many tasks of each machine are not known yet. */
  protected readonly unknown = computed(() =>
    (this.bench()?.states ?? [])
      .map(({ machineId, dues }) => {
        const open = dues.filter(({ status }) => status === 'unknown');
        return { machineId, count: open.length, station: open[0]?.station ?? '' };
      })
      .filter(({ count }) => count > 0),
  );
  /** What goes with today's loads, where there were any. */
  protected readonly withLoads = computed(() => {
    const bench = this.bench();
    if (!bench) return [];
    return this.#every()
      .filter(({ today }) => today > 0)
      .map(({ machine }) => ({
        machine,
        habits: bench.habits.filter(
          ({ machineId, when }) => machineId === machine.id && when === 'after',
        ),
      }))
      .filter(({ habits }) => habits.length);
  });

  /** What is to be proved, or did not hold; that first. */
  protected readonly proofs = computed(() =>
    (this.bench()?.states ?? [])
      .flatMap(({ proofs }) => proofs)
      .sort((a, b) => Number(a.state === 'ask') - Number(b.state === 'ask')),
  );
  protected readonly name = (machineId: string): string => this.nameOf(machineId);

  protected readonly kindNames = KIND_NAMES;
  protected readonly sayMinutes = sayMinutes;
  protected readonly narrow = narrow;
  protected readonly sayLongDay = sayLongDay;
  protected readonly many = many;

  constructor() {
    effect(() => {
      const drawn = this.#drawn();
      if (drawn >= this.#every().length) return;
      requestAnimationFrame(() => this.#drawn.set(drawn + ROWS_AT_ONCE));
    });
    effect(() => {
      const dues = this.bench()?.states.flatMap(({ dues }) => dues);
      if (dues) badge(dues.filter(({ status }) => status === 'due').length);
    });
    this.#loads.settled$.pipe(takeUntilDestroyed()).subscribe(() => this.#bench.refresh());
  }

  protected nameOf(machineId: string): string {
    return this.bench()?.machines.find(({ id }) => id === machineId)?.name ?? '';
  }

  protected count(machine: Machine): void {
    void this.#loads.count(machine);
  }

  protected open(machine: Machine, station: string): void {
    void this.#router.navigate(['/machine', machine.id, station]);
  }

  protected doAgain({ machineId, task }: ProofQuestion): void {
    this.visits.start([{ machineId, task }]);
  }

  protected start(): void {
    this.visits.start(this.bench()?.visit?.tasks ?? []);
  }

  /** Something that does not fit into the next visit is made by itself. */
  protected startAlone({ machineId, task }: DueSummary): void {
    this.visits.start([{ machineId, task }]);
  }

  protected lineOf(bench: BenchView, { machineId, station }: DueSummary): 'water' | 'air' {
    const state = bench.states.find((one) => one.machineId === machineId);
    return state?.stations.find(({ id }) => id === station)?.line === 'air' ? 'air' : 'water';
  }

  /** Several loads, another programme, another day. */
  protected async countMore(machine: Machine): Promise<void> {
    const { LoadsDialogComponent } = await import('./loads-dialog.component');
    const dialog = await this.#dialogs.open(LoadsDialogComponent, {
      ariaLabelledBy: 'loads-title',
    });
    const shown = dialog.componentInstance as InstanceType<typeof LoadsDialogComponent>;
    shown.machine.set(machine);
    shown.zone.set(this.bench()!.household.zone);
    dialog.result.catch(() => undefined);
  }

  protected keep(row: HabitRow): void {
    void this.#loads.keep(row);
  }

  protected again(): void {
    this.#bench.refresh();
  }
}

/** What a machine's row tells: something with a date before what is only not known. */
const mostPressing = (dues: readonly DueSummary[]): DueSummary | undefined =>
  dues.find(({ status }) => status === 'due' || status === 'soon') ??
  dues.find(({ on }) => on !== undefined) ??
  dues[0];
