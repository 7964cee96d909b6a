import { NgComponentOutlet } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  Injectable,
  input,
  signal,
  type Type,
} from '@angular/core';
import { ActivatedRoute, convertToParamMap, RouterLink } from '@angular/router';
import {
  bagSeconds,
  drainSeconds,
  PRACTICE_MEASURES,
  type Amount,
  type InstrumentName,
  type MeasureId,
  type TroubleStart,
} from '@needlecase/core';
import { of, type Observable } from 'rxjs';
import { ApiService } from '../data/api.service';
import { BenchService } from '../data/bench.service';
import { HouseholdService } from '../data/household.service';
import { OutboxService } from '../data/outbox.service';
import { TAKEN } from '../measure/parts/taken';
import { DryBench, DryHousehold, DryTasks } from './dry-house';
import { PracticeKeeper } from './practice-keeper';
import { PRACTICE, practiceMachine } from './practice-machine';

type Screen = () => Promise<{ default: Type<unknown> }>;
/** The screens of the real instruments. */
const SCREENS: Partial<Record<MeasureId, Screen>> = {
  tub: () => import('../measure/instruments/tub-water.component'),
  drain: () => import('../measure/instruments/drain-test.component'),
  bucket: () => import('../measure/instruments/drain-test.component'),
  fill: () => import('../measure/instruments/fill-flow.component'),
  air: () => import('../measure/instruments/hood-air.component'),
};

const nameOf = (what: string): InstrumentName | undefined =>
  PRACTICE_MEASURES.find(({ id }) => id === what)?.instrument as InstrumentName | undefined;

/** Stands in for the address: which instrument it is, on which machine. */
@Injectable()
class InstrumentRoute {
  readonly snapshot: { data: { instrument?: InstrumentName } } = { data: {} };
  readonly queryParamMap = of(convertToParamMap({ machine: PRACTICE }));
}

/** Stands in for the record: how the machine was measured while it was well. */
@Injectable()
class WellRecord {
  readonly #keeper = inject(PracticeKeeper);

  get(): Observable<Partial<TroubleStart>> {
    const { drain, air } = this.#keeper.drawn()?.clean ?? {};
    return of({
      figures: {
        ...(drain ? { 'drain-time': [{ value: drainSeconds(drain.clean), at: 0 }] } : {}),
        ...(air ? { 'bag-fill-time': [{ value: bagSeconds(air.flow), at: 0 }] } : {}),
      },
    });
  }
}

/** A figure that was taken in practice, on its real instrument: worked out there, and not kept. */
@Component({
  selector: 'nc-practice-instrument',
  imports: [NgComponentOutlet, RouterLink],
  providers: [
    DryTasks,
    { provide: BenchService, useClass: DryBench },
    { provide: HouseholdService, useClass: DryHousehold },
    { provide: ApiService, useClass: WellRecord },
    { provide: OutboxService, useValue: {} },
    { provide: ActivatedRoute, useClass: InstrumentRoute },
    {
      provide: TAKEN,
      useFactory: () => {
        const keeper = inject(PracticeKeeper);
        const tasks = inject(DryTasks);
        return () => takenOf(keeper, tasks.figure());
      },
    },
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p class="back">
      <a class="btn btn-plain" routerLink="/practice/play">Back to the case</a>
      <span class="soft small">Practice: nothing of this is kept.</span>
    </p>
    @if (screen(); as shown) {
      <ng-container *ngComponentOutlet="shown" />
    } @else if (!known()) {
      <h1>Nothing was measured</h1>
    }
  `,
  styles: `
    .back {
      align-items: center;
      display: flex;
      flex-wrap: wrap;
      gap: 0.8rem;
      margin: 0.4rem 0;
    }
  `,
})
export class InstrumentComponent {
  readonly #keeper = inject(PracticeKeeper);
  readonly #tasks = inject(DryTasks);
  readonly #route = inject(ActivatedRoute) as unknown as InstrumentRoute;

  /** From the address: what was measured. */
  readonly what = input.required<MeasureId>();

  protected readonly known = computed(
    () =>
      SCREENS[this.what()] !== undefined &&
      this.#keeper.state()?.figures.some(({ what }) => what === this.what()) === true,
  );
  protected readonly screen = signal<Type<unknown> | undefined>(undefined);

  constructor() {
    effect(() => {
      const what = this.what();
      const drawn = this.#keeper.drawn();
      const name = nameOf(what);
      if (!drawn || !name || !this.known()) return;
      this.#route.snapshot.data.instrument = name;
      this.#tasks.figure.set(what);
      this.#tasks.machine.set(practiceMachine(drawn.machine));
      void SCREENS[what]!().then(({ default: shown }) => this.screen.set(shown));
    });
  }
}

/** The latest figure of its kind, and of a drain into a bucket the one into the pipe with it. */
function takenOf(keeper: PracticeKeeper, what: MeasureId | undefined): Record<string, Amount> {
  const figures = keeper.state()?.figures ?? [];
  const latest = (id: MeasureId) => figures.findLast((one) => one.what === id)?.given ?? {};
  if (!what) return {};
  return what === 'bucket' ? { ...latest('drain'), ...latest('bucket') } : { ...latest(what) };
}
