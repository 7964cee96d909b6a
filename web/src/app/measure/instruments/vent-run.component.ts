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
  healthyFlow,
  heaterOf,
  inUnits,
  liningFor,
  MATERIALS,
  MM,
  rulesOf,
  RUN_FIELDS,
  say,
  SETTLING_SPEED,
  ventRun,
  ventRunOf,
  improvements,
  improved,
  type Amount,
  toOwn,
  type ImprovementId,
  type KeptVentRun,
  type Material,
  type UnitSystem,
  type VentRunInput,
} from '@needlecase/core';
import { catchError, map, of, switchMap } from 'rxjs';
import { DrumService } from '../../workers/drum.service';
import { FiguresComponent } from '../parts/figures.component';
import { InstrumentComponent } from '../parts/instrument.component';
import { KeptRunsComponent } from '../parts/kept-runs.component';
import { Measuring } from '../parts/measuring';
import { MarkComponent } from '../parts/mark.component';
import {
  PIECE_NAMES,
  PiecesComponent,
  rowOf,
  sayBendOf,
  type Given,
  type Row,
} from '../parts/pieces.component';
import { drawRun } from '../parts/vent-draw';
import { narrow } from '../../shared/narrow';
import { SelectComponent } from '../../shared/select.component';

const M = (value: number): Amount => ({ value, unit: 'm' });
const FT = (value: number): Amount => ({ value, unit: 'ft' });
/** A cellar with a riser and two elbows: an example, in whole figures of either kind of unit. */
const exampleIn = (units: UnitSystem): readonly Given[] => {
  const [hose, level, rise, last] =
    units === 'us' ? [FT(5), FT(3), FT(8), FT(4)] : [M(1.5), M(1), M(2.5), M(1.2)];
  return [
    { is: 'hose', length: hose, stretched: false },
    { is: 'straight', length: level, direction: 'level' },
    { is: 'elbow', angle: 90, radius: '4-in' },
    { is: 'straight', length: rise, direction: 'up' },
    { is: 'elbow', angle: 90, radius: '4-in' },
    { is: 'straight', length: last, direction: 'level' },
    { is: 'hood', state: 'free', screened: false },
  ];
};
const FIGURES: Record<string, Amount> = {
  diameter: { value: 100, unit: 'mm' },
  lining: { value: 4, unit: 'mm' },
};
/** Less than this share of what the run should give is worth a look. Judgement. */
const ENOUGH = 0.85;
const LOAD = { dry: 3, moisture: 0.6, target: 0.03, room: 18, humidity: 0.5 };
/** m³/s that always leaks through. */
const LEAST_AIR = 0.004;

const FALL = { left: 74, right: 1150, top: 24, bottom: 96 };

/** A figure against where it counts: it wants at least that, or bears at most that. */
interface Count {
  value: string;
  say: string;
  /** How full its bar is, and where the notch lies, 0 to 1. */
  full: number;
  notch: number;
  is: 'well' | 'near' | 'bad';
}

/** A way that gives less than this share of a clear one is told so. Judgement. */
const TIGHT = 0.7;
/** A figure within this share of its limit is near it. Judgement. */
const NEAR = 0.15;

function countOf(
  kind: 'least' | 'most',
  value: number,
  at: number,
  shown: string,
  words: (at: number) => string,
): Count {
  const share = value / at;
  const well = kind === 'least' ? share >= 1 + NEAR : share <= 1 - NEAR;
  const bad = kind === 'least' ? share < 1 : share > 1;
  const top = Math.max(value, at) * 1.2;
  return {
    value: shown,
    say: words(at),
    full: value / top,
    notch: at / top,
    is: bad ? 'bad' : well ? 'well' : 'near',
  };
}

/** A piece in a person’s words, and what there is to say of it. */
function pieceWords(piece: Given, units: UnitSystem): { name: string; more: string } {
  const long = (amount: Amount) => say(toOwn(amount, 'length'), 'length', units);
  switch (piece.is) {
    case 'hose':
      return { name: piece.stretched ? 'Hose' : 'Hose in folds', more: long(piece.length) };
    case 'straight':
      return {
        name: { level: 'Straight', up: 'Rise', down: 'Fall' }[piece.direction],
        more: long(piece.length),
      };
    case 'elbow':
      return { name: 'Elbow', more: sayBendOf(piece, units) };
    case 'hood':
      return {
        name: { free: 'Hood', linted: 'Hood, linted up', stuck: 'Hood, flap stuck' }[piece.state],
        more: piece.screened
          ? 'with a screen'
          : { free: 'free', linted: 'to be cleaned', stuck: 'to be freed' }[piece.state],
      };
    case 'narrow':
      return { name: 'Narrow place', more: long(piece.diameter) };
    case 'screen':
      return { name: 'Lint screen', more: `${piece.blocked.value} % shut` };
  }
}

/** The way of the air outdoors, piece by piece, with where the pressure goes and what a change brings. */
@Component({
  selector: 'nc-vent-run',
  imports: [
    FiguresComponent,
    InstrumentComponent,
    KeptRunsComponent,
    MarkComponent,
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
    const given =
      this.measuring.units() === 'us'
        ? { diameter: { value: 4, unit: 'in' }, lining: { value: 0.15, unit: 'in' } }
        : FIGURES;
    return limit === undefined ? given : { ...given, makerLimit: M(limit) };
  });
  protected readonly figures = linkedSignal<Record<string, Amount>>(() => this.first());
  protected readonly material = signal<Material>('smooth-metal');
  protected readonly rows = linkedSignal<readonly Row[]>(() =>
    exampleIn(this.measuring.units()).map((piece) => rowOf(piece)),
  );
  protected readonly sayMaterial = (one: Material): string => one.replace('-', ' ');
  protected readonly materials = MATERIALS;

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
  protected readonly narrow = narrow;
  protected readonly drawn = computed(() => {
    const [run, result] = [this.#run().value, this.result().value];
    const worst = this.worst().map(({ i }) => i);
    const sheet = narrow()
      ? { width: 366, height: 300, labels: false }
      : { width: 800, height: 400, labels: true };
    return run && result && drawRun(run.pieces, result, worst, sheet);
  });
  /** The piece chosen on the drawing. */
  protected readonly chosen = signal<number | undefined>(undefined);
  /** Every piece in words, with what it takes and how it ranks: 3 stitches the worst. */
  protected readonly told = computed(() => {
    const units = this.measuring.units();
    const worst = this.worst().map(({ i }) => i);
    return (this.result().value?.pieces ?? []).map(({ loss, before }, i) => ({
      i,
      ...pieceWords(this.rows()[i]!.piece, units),
      loss: say(loss, 'pressure', units),
      before,
      after: before - loss,
      rank: worst.includes(i) ? 3 - worst.indexOf(i) : 0,
    }));
  });
  /** The pressure from piece to piece, as it falls: the same beads as on the drawing. */
  protected readonly fall = computed(() => {
    const told = this.told();
    const whole = this.result().value?.pressure ?? 1;
    const step = told.length ? (FALL.right - FALL.left) / told.length : 0;
    const y = (pressure: number) =>
      FALL.bottom - ((FALL.bottom - FALL.top) * pressure) / (whole || 1);
    const beads = told.map((one, k) => {
      const x = FALL.left + step * (k + 0.5);
      return { ...one, x, y: (y(one.before) + y(one.after)) / 2 };
    });
    const path = told.reduce(
      (d, one, k) => {
        const [from, to] = [FALL.left + step * k, FALL.left + step * (k + 1)];
        const bend = step * 0.35;
        return `${d}C${from + bend},${y(one.before)} ${to - bend},${y(one.after)} ${to},${y(one.after)}`;
      },
      `M${FALL.left},${y(whole)}`,
    );
    return { beads, path, step, zero: y(0) };
  });
  /** What the machine wants, m³/s. */
  readonly #wanted = computed(() => healthyFlow(this.heater()).least);
  protected readonly verdict = computed(() => {
    const flow = this.result().value?.flow;
    if (flow === undefined) return '';
    const share = flow / this.#wanted();
    const percent = (part: number) => `${Math.round(100 * part)} %`;
    if (share < 1) {
      return share >= 0.75
        ? `It breathes, a little tight: ${percent(share)} of the air the machine needs.`
        : `It breathes, but barely: ${percent(share)} of the air the machine needs.`;
    }
    const best = this.#best();
    return best !== undefined && flow < TIGHT * best
      ? `It has the air it needs, and gives ${percent(flow / best)} of what a clear way would.`
      : 'It breathes freely.';
  });
  /** With every remedy, m³/s. */
  readonly #best = computed(() => {
    const run = this.#run().value;
    return run && ventRun(improved(run, IMPROVEMENTS)).flow;
  });
  /** The figures that count, each against where it counts. */
  protected readonly counts = computed((): Count[] => {
    const r = this.result().value;
    if (!r) return [];
    const units = this.measuring.units();
    const speed = this.speed();
    const blower = this.#run().value!.blower.shutOff;
    return [
      countOf(
        'least',
        r.flow,
        this.#wanted(),
        say(r.flow, 'flow', units),
        (at) => `of air; the machine needs ${say(at, 'flow', units)}`,
      ),
      countOf(
        'most',
        r.pressure,
        blower,
        say(r.pressure, 'pressure', units),
        (at) => `on the way; the blower makes ${say(at, 'pressure', units)}`,
      ),
      countOf(
        'most',
        r.code.used,
        r.code.limit,
        say(r.code.used, 'length', units),
        (at) =>
          `as straight duct; ${say(at, 'length', units)} allowed${r.code.passes ? '' : ': too long'}`,
      ),
      ...(speed === undefined
        ? []
        : [
            countOf(
              'least',
              speed,
              SETTLING_SPEED,
              say(speed, 'speed', units),
              (at) => `in the duct; lint settles below ${say(at, 'speed', units)}`,
            ),
          ]),
    ];
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

  /** The three changes that bring most air. */
  protected readonly remedies = computed(() => {
    const now = this.result().value?.flow;
    if (now === undefined) return [];
    return this.#ifs()
      .flatMap((one) =>
        one.change ? [{ ...one, change: one.change, gain: one.load.flow - now }] : [],
      )
      .filter(({ gain }) => gain > 0.0005)
      .sort((a, b) => b.gain - a.gain)
      .slice(0, 3);
  });
  /** With all that is tried. */
  protected readonly tried = computed(() => {
    const ifs = this.ifs();
    const on = this.ticked();
    const with$ =
      on.length > 1 ? ifs.find(({ id }) => id === 'together') : ifs.find(({ id }) => id === on[0]);
    const now = ifs.find(({ id }) => id === 'now');
    if (!with$ || !now || on.length === 0) return undefined;
    const sooner = now.dried && with$.dried ? Math.round(now.minutes - with$.minutes) : 0;
    return { flow: with$.load.flow, sooner };
  });

  /** Whether the person laid something out here; then nothing is put in its place unasked. */
  readonly #touched = signal(false);
  readonly #taken = signal(false);
  /** What stands there is an example: it is nobody’s run, and is never kept. */
  protected readonly example = computed(() => !this.#touched() && !this.#taken());

  protected say(
    value: number,
    dimension: 'flow' | 'pressure' | 'length' | 'speed' | 'mass' | 'power',
  ): string {
    return say(value, dimension, this.measuring.units());
  }

  /** Goes to the piece’s own fields. */
  protected open(i: number): void {
    this.chosen.set(i);
    const row = document.querySelectorAll<HTMLElement>('nc-pieces .pieces > li')[i];
    row?.scrollIntoView({ block: 'center' });
    row?.querySelector<HTMLElement>('input, select')?.focus({ preventScroll: true });
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
    this.#taken.set(true);
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
