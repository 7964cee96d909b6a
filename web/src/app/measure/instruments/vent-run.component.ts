import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  linkedSignal,
  signal,
  type WritableSignal,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import {
  airOfBag,
  IMPROVEMENTS,
  figure,
  heaterOf,
  fromOwn,
  inUnits,
  liningFor,
  MATERIALS,
  MM,
  rulesOf,
  RUN_FIELDS,
  say,
  SETTLING_SPEED,
  shownUnit,
  ventRun,
  ventRunOf,
  improvements,
  improved,
  type Amount,
  type ImprovementId,
  type KeptVentRun,
  type Material,
  type VentRunInput,
} from '@needlecase/core';
import { scaleLinear } from 'd3-scale';
import { line, curveLinear } from 'd3-shape';
import { catchError, map, of, switchMap } from 'rxjs';
import { DrumService } from '../../workers/drum.service';
import { FiguresComponent } from '../parts/figures.component';
import { InstrumentComponent } from '../parts/instrument.component';
import { KeptRunsComponent } from '../parts/kept-runs.component';
import { Measuring } from '../parts/measuring';
import {
  PIECE_NAMES,
  PiecesComponent,
  rowOf,
  type Given,
  type Row,
} from '../parts/pieces.component';
import { drawRun } from '../parts/vent-draw';
import { SelectComponent } from '../../shared/select.component';

const M = (value: number): Amount => ({ value, unit: 'm' });
/** A cellar with a riser and two elbows, to begin with. */
const FIRST: readonly Given[] = [
  { is: 'hose', length: M(1.5), stretched: false },
  { is: 'straight', length: M(1), direction: 'level' },
  { is: 'elbow', angle: 90, radius: '4-in' },
  { is: 'straight', length: M(2.5), direction: 'up' },
  { is: 'elbow', angle: 90, radius: '4-in' },
  { is: 'straight', length: M(1.2), direction: 'level' },
  { is: 'hood', state: 'free', screened: false },
];
const FIGURES: Record<string, Amount> = {
  diameter: { value: 101.6, unit: 'mm' },
  lining: { value: 4, unit: 'mm' },
};
/** Less than this share of what the run should give is worth a look. Judgement. */
const ENOUGH = 0.85;
const LOAD = { dry: 3, moisture: 0.6, target: 0.03, room: 18, humidity: 0.5 };
/** m³/s that always leaks through. */
const LEAST_AIR = 0.004;
const PROFILE = { left: 46, right: 610, top: 12, bottom: 120 };

/** The way of the air outdoors, piece by piece, with where the pressure goes and what a change brings. */
@Component({
  selector: 'nc-vent-run',
  imports: [
    FiguresComponent,
    InstrumentComponent,
    KeptRunsComponent,
    PiecesComponent,
    RouterLink,
    SelectComponent,
  ],
  providers: [Measuring],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './vent-run.component.html',
  styleUrls: ['./instruments.scss', './vent-run.component.scss'],
})
export default class VentRunComponent {
  protected readonly measuring = inject(Measuring);
  readonly #drum = inject(DrumService);

  protected readonly fields = RUN_FIELDS;
  /** What makers allow in this kind of house, until the manual's own figure is entered; m. */
  readonly #limit = computed(() => rulesOf(this.measuring.house()).ductLimit);
  protected readonly first = linkedSignal<Record<string, Amount>>(() => {
    const limit = this.#limit();
    return limit === undefined ? FIGURES : { ...FIGURES, makerLimit: M(limit) };
  });
  protected readonly figures = linkedSignal<Record<string, Amount>>(() => this.first());
  protected readonly material = signal<Material>('smooth-metal');
  protected readonly rows = signal<readonly Row[]>(FIRST.map((piece) => rowOf(piece)));
  protected readonly sayMaterial = (one: Material): string => one.replace('-', ' ');
  protected readonly materials = MATERIALS;
  protected readonly profilePlot = PROFILE;

  readonly input = computed<VentRunInput>(() => ({
    pieces: this.rows().map(({ piece }) => piece),
    material: this.material(),
    ...this.figures(),
  }));
  readonly #run = computed(() => this.measuring.attempt(() => ventRunOf(this.input())));
  protected readonly result = computed(() => {
    const { value: run, problems } = this.#run();
    return run ? this.measuring.attempt(() => ventRun(run)) : { value: undefined, problems };
  });
  protected readonly drawn = computed(() => {
    const [run, result] = [this.#run().value, this.result().value];
    return run && result && drawRun(run.pieces, result);
  });
  /** The slowest stretch of the duct, m/s. */
  protected readonly speed = computed(() => {
    const pieces = this.#run().value?.pieces ?? [];
    const speeds = (this.result().value?.pieces ?? []).flatMap(({ speed }, i) =>
      pieces[i]!.is === 'straight' ? speed : [],
    );
    return speeds.length ? Math.min(...speeds) : undefined;
  });
  protected readonly load = LOAD;
  protected readonly settling = SETTLING_SPEED;
  /** The three pieces that take the most. */
  protected readonly worst = computed(() => {
    const pieces = this.result().value?.pieces ?? [];
    return pieces
      .map(({ loss }, i) => ({ i, loss, name: PIECE_NAMES[this.rows()[i]!.piece.is] }))
      .sort((a, b) => b.loss - a.loss)
      .slice(0, 3);
  });
  protected readonly profile = computed(() => {
    const units = this.measuring.units();
    const [metres, pascals] = [shownUnit('length', units), shownUnit('pressure', units)];
    const steps = (this.drawn()?.profile ?? []).map(({ at, pressure }) => ({
      at: fromOwn(at, 'length', metres),
      pressure: fromOwn(pressure, 'pressure', pascals),
    }));
    const [first, last] = [steps[0], steps.at(-1)];
    const x = scaleLinear([0, last?.at ?? 1], [PROFILE.left, PROFILE.right]);
    const y = scaleLinear([0, first?.pressure ?? 1], [PROFILE.bottom, PROFILE.top]);
    const path =
      line<(typeof steps)[number]>()
        .x(({ at }) => x(at))
        .y(({ pressure }) => y(pressure))
        .curve(curveLinear)(steps) ?? '';
    return {
      path,
      units: `${pascals} against ${metres} from the machine`,
      y: y.ticks(4).map((at) => ({ y: y(at), say: String(at) })),
      x: x.ticks(6).map((at) => ({ x: x(at), say: String(at) })),
    };
  });

  /** The air last measured at the hood, held against what the run as laid out would give. */
  protected readonly held = computed(() => {
    const last = this.measuring.figures()['bag-fill-time']?.[0];
    const [run, result] = [this.#run().value, this.result().value];
    if (!last || !run || !result) return undefined;
    const measured = airOfBag(last.value);
    const lining = liningFor(run, measured);
    return {
      measured,
      on: this.measuring.sayDay(last.at),
      missing: measured < ENOUGH * result.flow,
      lining:
        lining === undefined
          ? undefined
          : inUnits(figure(lining, 'length', MM), this.measuring.units()),
    };
  });

  /** W. */
  protected readonly heater = computed(() =>
    heaterOf(this.measuring.machine(), this.measuring.house()),
  );
  protected readonly plate = computed(() => this.measuring.machine()?.features.heater);

  /** Changes that are switched on. */
  protected readonly ticked = signal<readonly ImprovementId[]>([]);
  readonly #ifs = computed(() => {
    const run = this.#run().value;
    if (!run || !this.result().value) return [];
    const each = improvements(run);
    const on = this.ticked().filter((id) => each.some((one) => one.id === id));
    const rows = [
      { id: 'now', say: 'as it is', run },
      ...each,
      ...(on.length > 1
        ? [{ id: 'together', say: 'all that is ticked', run: improved(run, on) }]
        : []),
    ];
    return rows.map(({ id, say: words, run: changed }) => ({
      id,
      say: words,
      change: IMPROVEMENTS.find((one) => one === id),
      load: {
        ...LOAD,
        heater: this.heater(),
        flow: Math.max(LEAST_AIR, ventRun(changed).flow),
      },
    }));
  });
  /** Minutes that a usual load takes with each. */
  protected readonly ifs = toSignal(
    toObservable(this.#ifs).pipe(
      switchMap((ifs) =>
        ifs.length
          ? this.#drum.dry(ifs.map(({ load }) => load)).pipe(
              map((results) =>
                ifs.map((one, i) => ({
                  ...one,
                  minutes: results[i]!.minutes,
                  dried: results[i]!.dried,
                })),
              ),
              catchError(() => of([])),
            )
          : of([]),
      ),
    ),
    { initialValue: [] },
  );

  /** Whether the person laid something out here; then nothing is put in its place unasked. */
  readonly #touched = signal(false);

  protected say(
    value: number,
    dimension: 'flow' | 'pressure' | 'length' | 'speed' | 'mass' | 'power',
  ): string {
    return say(value, dimension, this.measuring.units());
  }

  protected tick(id: ImprovementId): void {
    this.ticked.update((on) => (on.includes(id) ? on.filter((one) => one !== id) : [...on, id]));
  }

  /** Takes over what the person lays out. */
  protected lay<T>(part: WritableSignal<T>, next: T): void {
    this.#touched.set(true);
    part.set(next);
  }

  /** What is kept for this machine is what there is to begin with. */
  protected offer(run: KeptVentRun): void {
    if (!this.#touched()) this.takeUp(run);
  }

  protected takeUp(run: KeptVentRun): void {
    const { pieces, material, ...figures } = run.run;
    this.material.set(material);
    this.rows.set(pieces.map((piece) => rowOf(piece)));
    const given = Object.fromEntries(
      Object.entries(figures).filter(([, amount]) => amount !== undefined),
    ) as Record<string, Amount>;
    this.first.set(given);
    this.figures.set(given);
  }
}
