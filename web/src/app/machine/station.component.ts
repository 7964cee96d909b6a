import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import {
  GRADE_NAMES,
  dayOf,
  sayDay,
  sayEntry,
  type Day,
  type Entry,
  type Machine,
  type Run,
  type Station,
  type StationState,
  type Task,
  type TaskView,
} from '@needlecase/core';
import { catchError, combineLatest, debounceTime, of, startWith, switchMap } from 'rxjs';
import { FoulingChartComponent } from '../charts/fouling-chart.component';
import { ApiService, type ApiProblem } from '../data/api.service';
import { ChangesService } from '../data/changes.service';
import { EntriesService, type LogPage } from '../data/entries.service';
import { ToastsService } from '../data/toasts.service';
import { RuleEditorComponent } from './rule-editor.component';

/** What a station is, when it is due and why, and its history. */
@Component({
  selector: 'nc-station',
  imports: [RouterLink, FoulingChartComponent, RuleEditorComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './station.component.html',
  styleUrl: './station.component.scss',
})
export class StationComponent {
  readonly #api = inject(ApiService);
  readonly #entries = inject(EntriesService);
  readonly #changes = inject(ChangesService);
  readonly #router = inject(Router);
  readonly #toasts = inject(ToastsService);

  readonly machine = input.required<Machine>();
  readonly today = input.required<Day>();
  readonly station = input.required<Station>();
  readonly state = input.required<StationState>();
  readonly tasks = input.required<{ task: Task; due: TaskView; said: string }[]>();

  protected readonly starting = signal(false);
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
          .list({ ...where, limit: 6 })
          .pipe(catchError(() => of<LogPage>({ entries: [] }))),
      ),
    ),
  );

  protected readonly say = sayEntry;
  protected day(entry: Entry): string {
    return sayDay(dayOf(Date.parse(entry.at), entry.zone), this.today());
  }
  protected grade(entry: Entry): string {
    return entry.grade === undefined ? '' : GRADE_NAMES[entry.grade];
  }
  protected finds(entry: Entry): string {
    return (entry.found ?? []).map(({ what, count }) => `${count} ${what}`).join(', ');
  }

  protected start(task: Task): void {
    this.starting.set(true);
    const tasks = [{ machineId: this.machine().id, task: task.id }];
    this.#api.send<Run>('POST', 'runs', { tasks }, { key: crypto.randomUUID() }).subscribe({
      next: (run) => void this.#router.navigate(['/run', run.id]),
      error: (problem: ApiProblem) => {
        this.starting.set(false);
        this.#toasts.show(`${problem.title} ${problem.detail}`, { problem: true });
      },
    });
  }
}
