import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  linkedSignal,
  signal,
} from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import {
  DRUM_FIELDS,
  heaterOf,
  readFields,
  say,
  type Amount,
  type DrumMoment,
  type Working,
  inUnits,
  figure,
  convert,
  type UnitSystem,
} from '@needlecase/core';
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { catchError, of, switchMap } from 'rxjs';
import { DrumService } from '../../workers/drum.service';
import { ReadableDirective } from '../../charts/readable.directive';
import { FiguresComponent } from '../parts/figures.component';
import { InstrumentComponent } from '../parts/instrument.component';
import { Measuring } from '../parts/measuring';

const FIRST: Record<string, Amount> = {
  dry: { value: 3, unit: 'kg' },
  moisture: { value: 60, unit: '%' },
  target: { value: 3, unit: '%' },
  room: { value: 18, unit: '°C' },
  humidity: { value: 50, unit: '%' },
};
const { flow: _flow, ...FIELDS } = DRUM_FIELDS;
/** Where the temperatures are ruled. */
const TEMPERATURES: Record<UnitSystem, Amount[]> = {
  metric: [0, 50, 100, 150].map((value) => ({ value, unit: '°C' })),
  us: [32, 100, 200, 300].map((value) => ({ value, unit: '°F' })),
};
const FREE = 60;
const WIDTH = 640;
const PLOT = { left: 6, right: WIDTH - 20, top: 26, bottom: 250 };

/** A load in the drum, minute by minute: slide the air down and see where the limit begins to cut. */
@Component({
  selector: 'nc-drum-model',
  imports: [ReadableDirective, FiguresComponent, InstrumentComponent],
  providers: [Measuring],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './drum-model.component.html',
  styleUrls: ['./instruments.scss', './drum-model.component.scss'],
})
export default class DrumModelComponent {
  protected readonly measuring = inject(Measuring);
  readonly #drum = inject(DrumService);
  protected readonly fields = FIELDS;
  readonly #heater = computed(() => heaterOf(this.measuring.machine(), this.measuring.house()));
  protected readonly first = computed<Record<string, Amount>>(() => ({
    ...this.measuring.example(FIRST, FIELDS),
    heater: { value: this.#heater(), unit: 'W' },
  }));
  protected readonly given = linkedSignal(() => this.first());
  /** L/s. */
  protected readonly air = signal(45);
  protected readonly plot = PLOT;
  protected readonly width = WIDTH;

  protected readonly read = computed(() =>
    this.measuring.attempt(() => readFields(this.given(), FIELDS)),
  );
  readonly #loads = computed(() => {
    const load = this.read().value;
    return (
      load && [this.air(), FREE, 0.75 * FREE].map((litres) => ({ ...load, flow: litres / 1000 }))
    );
  });
  readonly #results = toSignal(
    toObservable(this.#loads).pipe(
      switchMap((loads) =>
        loads ? this.#drum.dry(loads).pipe(catchError(() => of(undefined))) : of(undefined),
      ),
    ),
  );
  protected readonly now = computed(() => this.#results()?.[0]);
  protected readonly free = computed(() => this.#results()?.[1]);
  /** What a quarter less air costs by the model. */
  protected readonly quarter = computed(() => {
    const [, free, less] = this.#results() ?? [];
    return free && less ? Math.round(100 * (less.minutes / free.minutes - 1)) : undefined;
  });

  readonly #x = computed(() =>
    scaleLinear([0, Math.max(20, this.now()?.minutes ?? 20)], [PLOT.left, PLOT.right]),
  );
  readonly #celsius = scaleLinear([0, 150], [PLOT.bottom, PLOT.top]);
  protected readonly ticks = computed(() =>
    this.#x()
      .ticks(6)
      .map((at) => ({ at, x: this.#x()(at) })),
  );
  protected readonly degrees = computed(() =>
    TEMPERATURES[this.measuring.units()].map(({ value, unit }) => ({
      say: `${value} ${unit}`,
      y: this.#celsius(convert(value, 'temperature', unit, '°C')),
    })),
  );
  protected readonly limit = this.#celsius(135);
  protected readonly curves = computed(() => {
    const moments = this.now()?.moments ?? [];
    const most = Math.max(0.1, moments[0]?.moisture ?? 0.1);
    const moist = scaleLinear([0, most], [PLOT.bottom, PLOT.top]);
    const path = (of: (moment: DrumMoment) => number) =>
      line<DrumMoment>()
        .x(({ at }) => this.#x()(at))
        .y(of)(moments) ?? '';
    return [
      { name: 'at the heater', kind: 'inlet', d: path(({ inlet }) => this.#celsius(inlet)) },
      { name: 'cloth', kind: 'cloth-line', d: path(({ cloth }) => this.#celsius(cloth)) },
      { name: 'exhaust', kind: 'exhaust', d: path(({ exhaust }) => this.#celsius(exhaust)) },
      { name: 'moisture', kind: 'moist', d: path(({ moisture }) => moist(moisture)) },
    ];
  });
  protected readonly working = computed((): Working[] => [
    {
      what: 'The model',
      how: 'one temperature and one moisture of the cloth; air warmed, passing it with 0.85 of the way to saturation at the cloth’s own temperature times the water activity 1 − exp(−(X/0.09)^1.2); psychrometrics by the ASHRAE formulas',
    },
    {
      what: 'Thermostats',
      how: inUnits(
        `the exhaust cycles at ${figure(68, 'temperature')}, the limit at the heater opens at ${figure(135, 'temperature')} and closes at ${figure(115, 'temperature')}`,
        this.measuring.units(),
      ),
    },
    {
      what: 'Judgement',
      how: 'heat capacities of drum and heater box, loss through the cabinet, 220 W for motor and fan',
    },
  ]);
  protected readonly round = Math.round;

  protected airSaid(): string {
    return say(this.air() / 1000, 'flow', this.measuring.units());
  }
}
