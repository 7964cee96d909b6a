import {
  CdkDrag,
  CdkDragHandle,
  CdkDropList,
  moveItemInArray,
  type CdkDragDrop,
} from '@angular/cdk/drag-drop';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  signal,
  untracked,
} from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import {
  CHANGES,
  convert,
  ELBOW_RADII,
  fieldUnit,
  fromOwn,
  HOOD_STATES,
  MATERIALS,
  NARROW_WIDTH,
  ownUnit,
  PIECE_LENGTH,
  RUN_FIELDS,
  say,
  SETTLING_SPEED,
  shownUnit,
  ventRun,
  ventRunOf,
  whatIfs,
  withChanges,
  type Amount,
  type ChangeId,
  type ElbowRadius,
  type HoodState,
  type KeptVentRun,
  type Material,
  type VentPiece,
  type VentRunInput,
} from '@needlecase/core';
import { scaleLinear } from 'd3-scale';
import { line, curveLinear } from 'd3-shape';
import { catchError, map, of, startWith, Subject, switchMap } from 'rxjs';
import { ApiService, type ApiProblem } from '../data/api.service';
import { ToastsService } from '../data/toasts.service';
import { DrumService } from '../workers/drum.service';
import { attempt } from './attempt';
import { FiguresComponent, numberOf } from './figures.component';
import { InstrumentComponent } from './instrument.component';
import { Measuring } from './measuring';
import { drawRun } from './vent-draw';

type Given = VentRunInput['pieces'][number];
interface Row {
  key: number;
  piece: Given;
}

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
const NEW: Record<Given['is'], Given> = {
  hose: { is: 'hose', length: M(1.5), stretched: true },
  straight: { is: 'straight', length: M(1), direction: 'level' },
  elbow: { is: 'elbow', angle: 90, radius: '4-in' },
  narrow: { is: 'narrow', diameter: { value: 80, unit: 'mm' } },
  hood: { is: 'hood', state: 'free', screened: false },
};
const NAMES: Record<Given['is'], string> = {
  hose: 'Hose',
  straight: 'Straight duct',
  elbow: 'Elbow',
  narrow: 'Narrow place',
  hood: 'Hood',
};
const LOAD = { dry: 3, moisture: 0.6, target: 0.03, heater: 5000, room: 18, humidity: 0.5 };
const PROFILE = { left: 46, right: 610, top: 12, bottom: 120 };

/** The way of the air outdoors, piece by piece, with where the pressure goes and what a change brings. */
@Component({
  selector: 'nc-vent-run',
  imports: [CdkDrag, CdkDragHandle, CdkDropList, FiguresComponent, InstrumentComponent],
  providers: [Measuring],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './vent-run.component.html',
  styleUrls: ['./instruments.scss', './vent-run.component.scss'],
})
export class VentRunComponent {
  protected readonly measuring = inject(Measuring);
  readonly #api = inject(ApiService);
  readonly #toasts = inject(ToastsService);
  readonly #drum = inject(DrumService);
  readonly #again = new Subject<void>();
  #key = 0;

  protected readonly fields = RUN_FIELDS;
  protected readonly first = signal(FIGURES);
  protected readonly figures = signal<Record<string, Amount>>(FIGURES);
  protected readonly material = signal<Material>('smooth-metal');
  protected readonly rows = signal<readonly Row[]>(FIRST.map((piece) => this.#row(piece)));
  protected readonly materials = MATERIALS;
  protected readonly radii = ELBOW_RADII;
  protected readonly hoodStates = HOOD_STATES;
  protected readonly names = NAMES;
  protected readonly kinds = Object.keys(NEW) as Given['is'][];
  protected readonly profilePlot = PROFILE;

  readonly input = computed<VentRunInput>(() => ({
    pieces: this.rows().map(({ piece }) => piece),
    material: this.material(),
    ...this.figures(),
  }));
  readonly #run = computed(() => attempt(() => ventRunOf(this.input())));
  protected readonly result = computed(() => {
    const { value: run, problems } = this.#run();
    return run ? attempt(() => ventRun(run)) : { value: undefined, problems };
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
  protected readonly settling = SETTLING_SPEED;
  /** The three pieces that take the most. */
  protected readonly worst = computed(() => {
    const pieces = this.result().value?.pieces ?? [];
    return pieces
      .map(({ loss }, i) => ({ i, loss, name: NAMES[this.rows()[i]!.piece.is] }))
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

  /** Changes that are switched on. */
  protected readonly ticked = signal<readonly ChangeId[]>([]);
  readonly #ifs = computed(() => {
    const run = this.#run().value;
    if (!run || !this.result().value) return [];
    const each = whatIfs(run);
    const on = this.ticked().filter((id) => each.some((one) => one.id === id));
    const rows = [
      { id: 'now', say: 'as it is', run },
      ...each,
      ...(on.length > 1
        ? [{ id: 'together', say: 'all that is ticked', run: withChanges(run, on) }]
        : []),
    ];
    return rows.map(({ id, say: words, run: changed }) => ({
      id,
      say: words,
      change: CHANGES.find((one) => one === id),
      flow: ventRun(changed).flow,
    }));
  });
  /** Minutes that a usual load takes with each. */
  protected readonly ifs = toSignal(
    toObservable(this.#ifs).pipe(
      switchMap((ifs) =>
        ifs.length
          ? this.#drum.dry(ifs.map(({ flow }) => ({ ...LOAD, flow: Math.max(0.004, flow) }))).pipe(
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

  protected readonly kept = toSignal(
    this.#again.pipe(
      startWith(undefined),
      switchMap(() =>
        this.#api.get<KeptVentRun[]>('vent-runs').pipe(catchError(() => of<KeptVentRun[]>([]))),
      ),
    ),
    { initialValue: [] as KeptVentRun[] },
  );
  protected readonly open = signal<KeptVentRun | undefined>(undefined);
  protected readonly compared = computed(() =>
    this.kept().map((run) => {
      const { value } = attempt(() => ventRun(ventRunOf(run.run)));
      return { run, flow: value?.flow, used: value?.code.used, passes: value?.code.passes };
    }),
  );

  constructor() {
    this.measuring.kinds.set(['vented-dryer']);
    // What is kept for this machine is what there is to begin with.
    let begun = false;
    effect(() => {
      const run = this.kept().find(({ machineId }) => machineId === this.measuring.machineId());
      if (!run || begun) return;
      begun = true;
      untracked(() => this.takeUp(run));
    });
  }

  protected say(value: number, dimension: 'flow' | 'pressure' | 'length' | 'speed'): string {
    return say(value, dimension, this.measuring.units());
  }

  protected unit(which: 'length' | 'narrow'): string {
    return fieldUnit(which === 'length' ? PIECE_LENGTH : NARROW_WIDTH, this.measuring.units());
  }

  /** The figure of a piece in the unit that is shown. */
  protected shown(amount: Amount | undefined, which: 'length' | 'narrow'): string {
    if (!amount) return '';
    if (!Number.isFinite(amount.value)) return '';
    return String(
      Number(convert(amount.value, 'length', amount.unit, this.unit(which)).toPrecision(4)),
    );
  }

  protected wrong(at: number): string {
    return (
      this.result().problems.find(({ field }) => field.startsWith(`pieces.${at}.`))?.message ?? ''
    );
  }

  protected tick(id: ChangeId): void {
    this.ticked.update((on) => (on.includes(id) ? on.filter((one) => one !== id) : [...on, id]));
  }

  protected add(is: Given['is']): void {
    const row = this.#row(NEW[is]);
    // What is added goes before the hood, which is last.
    this.rows.update((rows) => {
      const last = rows.at(-1);
      return last?.piece.is === 'hood' && is !== 'hood'
        ? [...rows.slice(0, -1), row, last]
        : [...rows, row];
    });
  }

  protected drop({ previousIndex, currentIndex }: CdkDragDrop<unknown>): void {
    this.rows.update((rows) => {
      const next = [...rows];
      moveItemInArray(next, previousIndex, currentIndex);
      return next;
    });
  }

  protected move(at: number, by: -1 | 1): void {
    this.rows.update((rows) => {
      const next = [...rows];
      moveItemInArray(next, at, at + by);
      return next;
    });
  }

  protected remove(at: number): void {
    this.rows.update((rows) => rows.filter((_, i) => i !== at));
  }

  protected change(
    at: number,
    piece: Partial<VentPiece> | { length: Amount } | { diameter: Amount },
  ): void {
    this.rows.update((rows) =>
      rows.map((row, i) =>
        i === at ? { ...row, piece: { ...row.piece, ...piece } as Given } : row,
      ),
    );
  }

  protected measure(at: number, text: string, which: 'length' | 'narrow'): void {
    const amount = { value: numberOf(text), unit: this.unit(which) };
    this.change(at, which === 'length' ? { length: amount } : { diameter: amount });
  }

  protected turn(at: number, elbow: string): void {
    const [angle, radius] = elbow.split('/') as [string, ElbowRadius];
    this.change(at, { angle: Number(angle) as 45 | 90, radius });
  }

  protected setHood(at: number, state: string): void {
    this.change(at, { state: state as HoodState });
  }

  protected saveFlow(): void {
    const flow = this.result().value?.flow;
    if (flow === undefined) return;
    const value = Number(convert(flow, 'flow', ownUnit('flow'), 'L/s').toFixed(1));
    void this.measuring.save({
      kind: 'reading',
      station: 'duct-run',
      quantity: 'vent-flow',
      value,
      unit: 'L/s',
    });
  }

  protected keep(field: HTMLInputElement): void {
    const name = field.value.trim() || 'My run';
    const machineId = this.measuring.machineId();
    const draft = { name, run: this.input(), ...(machineId ? { machineId } : {}) };
    this.#api
      .send<KeptVentRun>('POST', 'vent-runs', draft, { key: crypto.randomUUID() })
      .subscribe({
        next: (run) => {
          field.value = '';
          this.open.set(run);
          this.#again.next();
          this.#toasts.show(`“${run.name}” is kept.`);
        },
        error: (problem: ApiProblem) => this.#refused(problem),
      });
  }

  protected takeUp(run: KeptVentRun): void {
    const { pieces, material, ...figures } = run.run;
    this.open.set(run);
    this.material.set(material);
    this.rows.set(pieces.map((piece) => this.#row(piece)));
    const given = Object.fromEntries(
      Object.entries(figures).filter(([, amount]) => amount !== undefined),
    ) as Record<string, Amount>;
    this.first.set(given);
    this.figures.set(given);
  }

  protected takeAway({ id, version, ...draft }: KeptVentRun): void {
    this.#api.send('DELETE', `vent-runs/${id}`, undefined, { version }).subscribe({
      next: () => {
        this.#again.next();
        this.#toasts.show(`“${draft.name}” is taken away.`, {
          action: {
            label: 'Undo',
            do: () =>
              this.#api
                .send('POST', 'vent-runs', draft, { key: crypto.randomUUID() })
                .subscribe(() => this.#again.next()),
          },
        });
      },
      error: (problem: ApiProblem) => this.#refused(problem),
    });
  }

  #refused(problem: ApiProblem): void {
    this.#toasts.show(problem.errors[0]?.message ?? problem.title, { problem: true });
  }

  #row(piece: Given): Row {
    return { key: this.#key++, piece };
  }
}
