import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { many, type Machine, type MeterKept } from '@needlecase/core';
import type { TimeKind } from '@needlecase/core/loads/log/file-time';
import {
  FIGURE_UNITS,
  fieldsOf,
  figureOf,
  wallOf,
  type FigureUnit,
  type FileShape,
  type GuessedShape,
} from '@needlecase/core/loads/log/shape';
import type { Subscription } from 'rxjs';
import type { ApiProblem } from '../../data/api.service';
import { rememberedShape, rememberShape } from './remembered-shape';
import { toldLoad } from '@needlecase/core/loads/cycles/told';
import { MeterService } from '../../data/meter.service';
import { newId } from '../../data/platform';
import { sayWhenLong } from '../../shared/say-when';
import { SelectComponent } from '../../shared/select.component';
import { MeterLogService } from '../../workers/meter-log.service';
import type { MeterLogFound } from '../../workers/meter-log.worker';

const TIME_NAMES: Record<TimeKind, string> = {
  'epoch-s': 'seconds since 1970',
  'epoch-ms': 'milliseconds since 1970',
  'year-first': 'year, month, day',
  'day-first': 'day, month, year',
  'month-first': 'month, day, year',
};
const UNIT_NAMES: Record<FigureUnit, string> = {
  W: 'watts',
  kW: 'kilowatts',
  Wh: 'a counter of watt hours',
  kWh: 'a counter of kilowatt hours',
};
const ROWS = 10;
/** More lines than this share that cannot be read: it is written otherwise than it was understood. */
const MOST_LEFT = 0.1;

/** Takes a meter's file in: how it is understood, what is in it, and then, if it is right, keeping it. */
@Component({
  selector: 'nc-meter-import',
  imports: [SelectComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './meter-import.component.html',
  styleUrl: './meter-import.component.scss',
})
export class MeterImportComponent {
  readonly #logs = inject(MeterLogService);
  readonly #service = inject(MeterService);

  readonly machine = input.required<Machine>();
  /** Its longest pause within a load, minutes, as it was learned. */
  readonly pause = input(12);
  readonly zone = input.required<string>();
  readonly kept = output<MeterKept>();

  protected readonly file = signal<File | undefined>(undefined);
  readonly #guessed = signal<GuessedShape | undefined>(undefined);
  readonly #lines = signal<readonly string[]>([]);
  protected readonly shape = signal<FileShape | undefined>(undefined);
  /** Bytes that were read; none where nothing is read. */
  protected readonly read = signal<number | undefined>(undefined);
  protected readonly found = signal<MeterLogFound | undefined>(undefined);
  protected readonly problem = signal('');
  protected readonly keeping = signal(false);
  #work: Subscription | undefined;
  #key = newId();

  constructor() {
    inject(DestroyRef).onDestroy(() => this.#work?.unsubscribe());
  }

  protected readonly many = many;
  protected readonly when = sayWhenLong;
  protected readonly units = FIGURE_UNITS;
  protected readonly sayUnit = (unit: FigureUnit): string => UNIT_NAMES[unit];
  protected readonly sayTime = (kind: TimeKind): string => TIME_NAMES[kind];
  protected readonly sayColumn = (column: number): string =>
    this.#guessed()?.names[column] || `column ${column + 1}`;
  /** How the dates may be meant: only where the file does not tell. */
  protected readonly kinds = computed<TimeKind[]>(() =>
    this.#guessed()?.unsure ? ['day-first', 'month-first'] : [],
  );
  protected readonly columns = computed(() => {
    const shape = this.shape();
    if (!shape) return [];
    const width = Math.max(...this.#rows().map(({ length }) => length));
    return Array.from({ length: width }, (_, i) => i).filter((i) => !shape.time.includes(i));
  });
  readonly #rows = computed(() => {
    const shape = this.shape();
    if (!shape) return [];
    const rows = this.#lines().map((line) => fieldsOf(line, shape.delimiter));
    return rows.slice(shape.header ? 1 : 0).slice(0, ROWS);
  });
  /** Ten rows as they were understood. */
  protected readonly rows = computed(() => {
    const shape = this.shape();
    if (!shape) return [];
    return this.#rows().map((row) => {
      const wall = wallOf(row, shape);
      const figure = figureOf(row[shape.figure] ?? '', shape.decimal);
      return {
        time: Number.isNaN(wall) ? '' : new Date(wall).toISOString().slice(0, 19).replace('T', ' '),
        figure: Number.isNaN(figure) ? '' : `${figure} ${shape.unit}`,
      };
    });
  });
  protected readonly share = computed(() =>
    Math.min(100, Math.round((100 * (this.read() ?? 0)) / Math.max(1, this.file()?.size ?? 1))),
  );
  /** Too much of it could not be read: it is written in two ways, or otherwise than it looks. */
  protected readonly refused = computed(() => {
    const found = this.found();
    return found !== undefined && found.left > MOST_LEFT * found.lines;
  });
  protected readonly kWh = computed(() =>
    (this.found()?.cycles ?? []).reduce((sum, { wattHours }) => sum + wattHours / 1000, 0),
  );

  protected choose(files: FileList | null): void {
    const file = files?.[0];
    this.stop();
    this.file.set(file);
    this.shape.set(undefined);
    if (!file) return;
    if (file.size === 0) return this.problem.set('There is nothing in this file.');
    this.#work = this.#logs.ask({ do: 'look', file }).subscribe({
      next: ({ look }) => {
        this.#guessed.set(look?.guessed);
        this.#lines.set(look?.lines ?? []);
        this.shape.set(look?.guessed && rememberedShape(look.guessed));
        if (look && !look.guessed) {
          this.problem.set(
            'No column of times and none of figures is to be seen in it. A meter’s file has a line for each reading: when, and how many watts.',
          );
        }
      },
      error: ({ message }: Error) => this.problem.set(`It cannot be read: ${message}`),
    });
  }

  protected change(more: Partial<FileShape>): void {
    this.shape.update((shape) => shape && { ...shape, ...more });
    this.found.set(undefined);
  }

  protected start(): void {
    const [file, shape, guessed] = [this.file(), this.shape(), this.#guessed()];
    if (!file || !shape || !guessed) return;
    this.stop();
    this.read.set(0);
    this.#key = newId();
    const { interval, newestFirst } = guessed;
    rememberShape(guessed, shape);
    this.#work = this.#logs
      .ask({
        ...{ do: 'read', file, shape, interval, newestFirst },
        ...{ zone: this.zone(), now: Date.now(), pause: this.pause() * 60_000 },
      })
      .subscribe({
        next: ({ progress, found }) => {
          if (progress !== undefined) this.read.set(progress);
          if (!found) return;
          this.read.set(undefined);
          this.found.set(found);
        },
        error: ({ message }: Error) => {
          this.read.set(undefined);
          this.problem.set(`It cannot be read to its end: ${message} Choose the file again.`);
        },
      });
  }

  /** Ends what is read, at once. */
  protected stop(): void {
    this.#work?.unsubscribe();
    this.read.set(undefined);
    this.found.set(undefined);
    this.problem.set('');
  }

  protected keep(): void {
    const found = this.found();
    if (!found || this.keeping()) return;
    this.keeping.set(true);
    const loads = found.cycles.map(toldLoad);
    this.#service.keep(this.machine().id, { loads, days: found.days }, this.#key).subscribe({
      next: (kept) => {
        this.keeping.set(false);
        this.file.set(undefined);
        this.shape.set(undefined);
        this.found.set(undefined);
        this.kept.emit(kept);
      },
      error: (problem: ApiProblem) => {
        this.keeping.set(false);
        this.problem.set(`${problem.title} ${problem.errors[0]?.message ?? problem.detail}`);
      },
    });
  }
}
