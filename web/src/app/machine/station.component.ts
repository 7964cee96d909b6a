import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import {
  GRADE_NAMES,
  dayOf,
  foundAgain,
  sayDay,
  sayEntry,
  yearByYear,
  type Day,
  type Entry,
  type Machine,
  type OwnTask,
  type Station,
  type StationState,
  type Task,
  type TaskView,
} from '@needlecase/core';
import { catchError, combineLatest, debounceTime, of, startWith, switchMap } from 'rxjs';
import { FoulingChartComponent } from '../charts/fouling-chart.component';
import { ChangesService } from '../data/changes.service';
import { EntriesService, type LogPage } from '../data/entries.service';
import { VisitsService } from '../data/visits.service';
import { OwnTaskComponent } from './own-task.component';
import { RuleEditorComponent } from './rule-editor.component';
import { ManualPageComponent } from '../shared/manual-page.component';
import { StationFiguresComponent } from './station-figures.component';
import { PhotosComponent } from '../shared/photos.component';
import { KeeperDirective } from '../shared/keeper.directive';

/** So many entries are read for what is compared, and so many told. */
const READ = 100;
const TOLD = 6;

/** What a station is, when it is due and why, and its history. */
@Component({
  selector: 'nc-station',
  imports: [
    KeeperDirective,
    PhotosComponent,
    RouterLink,
    FoulingChartComponent,
    RuleEditorComponent,
    OwnTaskComponent,
    ManualPageComponent,
    StationFiguresComponent,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './station.component.html',
  styleUrl: './station.component.scss',
})
export class StationComponent {
  readonly #entries = inject(EntriesService);
  readonly #changes = inject(ChangesService);
  protected readonly visits = inject(VisitsService);

  readonly machine = input.required<Machine>();
  readonly today = input.required<Day>();
  readonly station = input.required<Station>();
  readonly state = input.required<StationState>();
  readonly tasks = input.required<{ task: Task; due: TaskView; said: string }[]>();

  protected readonly percent = computed(() => {
    const { fouling } = this.state();
    if (!fouling) return undefined;
    const of100 = (f: number) => Math.round(f * 100);
    return { median: of100(fouling.median), low: of100(fouling.low), high: of100(fouling.high) };
  });

  readonly #where = computed(() => ({ machine: this.machine().id, station: this.station().id }));
  protected readonly history = toSignal(
    combineLatest([
      toObservable(this.#where),
      this.#changes.of('entries').pipe(debounceTime(60), startWith(undefined)),
    ]).pipe(
      switchMap(([where]) =>
        this.#entries
          .list({ ...where, limit: READ })
          .pipe(catchError(() => of<LogPage>({ entries: [] }))),
      ),
    ),
  );

  /** The latest few, as they are told. */
  protected readonly latest = computed(() => this.history()?.entries.slice(0, TOLD) ?? []);
  protected readonly hasPhotos = computed(() =>
    (this.history()?.entries ?? []).some(({ photos }) => photos?.length),
  );
  protected readonly again = computed(() => foundAgain(this.history()?.entries ?? []));
  protected readonly years = computed(() => yearByYear(this.history()?.entries ?? []));

  protected say(entry: Entry): string {
    return sayEntry(entry, this.machine());
  }
  protected day(entry: Entry): string {
    return sayDay(dayOf(Date.parse(entry.at), entry.zone), this.today());
  }
  protected grade(entry: Entry): string {
    return entry.grade === undefined ? '' : GRADE_NAMES[entry.grade];
  }
  protected finds(entry: Entry): string {
    return (entry.found ?? []).map(({ what, count }) => `${count} ${what}`).join(', ');
  }

  /** The household's own wording of a task, where it is one of its own. */
  protected own(task: Task): OwnTask | undefined {
    return this.machine().ownTasks?.find(({ id }) => id === task.id);
  }

  protected start(task: Task): void {
    this.visits.start([{ machineId: this.machine().id, task: task.id }]);
  }
}
