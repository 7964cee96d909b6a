import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import type { ChartSeries, ChartsView } from '@needlecase/core/views/charts';
import { catchError, combineLatest, of, startWith, switchMap, type Observable } from 'rxjs';
import { ChangesService } from '../data/changes.service';
import { ChartsService } from '../data/charts.service';
import { written } from '../log/charts/question';
import { RecordChartComponent, type Span } from '../log/charts/record-chart.component';

/** Room at the ends of a chart, a share of it. */
const EDGE = 0.03;

/** What was measured at a station along time, with what was done there. */
@Component({
  selector: 'nc-station-figures',
  imports: [RecordChartComponent, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (one of shown(); track one.series.id) {
      <h3>{{ one.series.say }}, {{ one.series.unit }}</h3>
      <nc-record-chart
        [series]="one.series"
        [marks]="marks()"
        [span]="one.span"
        [thread]="thread()"
        [name]="one.series.say"
      />
      <p class="small">
        <a routerLink="/log/charts" [queryParams]="{ a: one.asked }"
          >Larger, as a table, beside another</a
        >
      </p>
    }
  `,
})
export class StationFiguresComponent {
  readonly #charts = inject(ChartsService);
  readonly machineId = input.required<string>();
  readonly station = input.required<string>();
  readonly thread = input.required<'water' | 'air'>();

  readonly #view = toSignal(
    combineLatest([
      toObservable(this.machineId),
      inject(ChangesService).of('entries').pipe(startWith(undefined)),
    ]).pipe(
      switchMap(([id]): Observable<ChartsView | undefined> =>
        this.#charts.of(id).pipe(catchError(() => of(undefined))),
      ),
    ),
  );
  protected readonly marks = computed(() => this.#view()?.marks ?? []);
  protected readonly shown = computed(() =>
    (this.#view()?.series ?? [])
      .filter(({ stations }) => stations?.includes(this.station()))
      .map((series) => ({
        series,
        span: spanOf(series),
        asked: written({
          ...{ machine: this.machineId(), figure: series.id },
          ...({ length: 'all', along: 'time', ago: 0 } as const),
        }),
      })),
  );
}

function spanOf({ points }: ChartSeries): Span {
  const first = points[0]?.at ?? Date.now() - 1;
  const last = Math.max(Date.now(), first + 1);
  const room = EDGE * (last - first);
  return [first - room, last + room];
}
