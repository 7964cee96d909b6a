import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import {
  DUE_LEVEL,
  GRADE_EDGES,
  GRADE_NAMES,
  LIMIT,
  many,
  type Task,
  type TaskView,
} from '@needlecase/core';
import { scaleLinear } from 'd3-scale';
import { area, line } from 'd3-shape';
import { ReadableDirective } from './readable.directive';

const WIDTH = 420;
const HEIGHT = 216;
const PLOT = { left: 8, right: WIDTH - 10, top: 14, bottom: HEIGHT - 34 };
/** The scale goes so far at least, and so far past the highest figure shown. */
const LEAST_TOP = 1.15;
const OVER = 1.08;

/**
 * What is believed of a station: fouling expected against loads or days since the last clean, with
 * its band; each opening as a bar over the bracket of its grade; the limit; the due point; and now.
 */
@Component({
  selector: 'nc-fouling-chart',
  imports: [ReadableDirective],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './fouling-chart.component.html',
  styleUrl: './fouling-chart.component.scss',
})
export class FoulingChartComponent {
  readonly task = input.required<Task>();
  readonly due = input.required<TaskView>();
  /** Which thread the station is on. */
  readonly thread = input<'water' | 'air'>('water');

  protected readonly width = WIDTH;
  protected readonly height = HEIGHT;
  protected readonly plot = PLOT;
  /** What two lines of words below the plot want more than on a desk. */
  protected readonly room = (px: number): number => Math.max(0, 32 * px - (HEIGHT - PLOT.bottom));
  protected readonly unit = computed(() => (this.task().driver === 'loads' ? 'load' : 'day'));

  readonly #longest = computed(() => {
    const { learned, evidence, use } = this.due();
    return 1.15 * Math.max(learned, use ?? 0, ...evidence.map(({ n }) => n));
  });
  protected readonly x = computed(() => scaleLinear([0, this.#longest()], [PLOT.left, PLOT.right]));
  /** As high as anything that is shown: what is past the limit is seen past it. */
  readonly #top = computed(() => {
    const { evidence, fouling } = this.due();
    const measured = evidence.flatMap(({ measured }) => measured?.fouling ?? []);
    return Math.max(LEAST_TOP, OVER * Math.max(fouling?.high ?? 0, ...measured));
  });
  protected readonly y = computed(() => scaleLinear([0, this.#top()], [PLOT.bottom, PLOT.top]));

  protected readonly ticks = computed(() => this.x().ticks(5).slice(1));
  protected readonly limit = computed(() => this.y()(LIMIT));
  protected readonly dueLevel = computed(() => this.y()(DUE_LEVEL));

  readonly #ends = computed(() => [0, this.#longest()]);
  protected readonly band = computed(() => {
    const { low, high } = this.due().rate;
    return area<number>()
      .x((n) => this.x()(n))
      .y0((n) => this.y()(low * n))
      .y1((n) => this.y()(high * n))(this.#ends());
  });
  protected readonly middle = computed(() => {
    const { median } = this.due().rate;
    return line<number>()
      .x((n) => this.x()(n))
      .y((n) => this.y()(median * n))(this.#ends());
  });

  /** The latest openings; older ones would only blacken the picture. */
  protected readonly openings = computed(() =>
    this.due().evidence.flatMap(({ n, grade }) => {
      if (grade === undefined) return [];
      const from = grade === 0 ? 0 : GRADE_EDGES[grade - 1]!;
      const to = grade === 4 ? this.#top() : GRADE_EDGES[grade];
      return {
        x: this.x()(n),
        top: this.y()(to),
        bottom: this.y()(from),
        middle: this.y()((from + to) / 2),
        title: `${GRADE_NAMES[grade]} after ${many(Math.round(n), this.unit())}`,
      };
    }),
  );

  /** Figures read, each as the fouling that it tells. */
  protected readonly measured = computed(() =>
    this.due().evidence.flatMap(({ n, measured }) =>
      measured
        ? [
            {
              x: this.x()(n),
              y: this.y()(measured.fouling),
              title: `measured: ${Math.round(measured.fouling * 100)} % after ${many(Math.round(n), this.unit())}`,
            },
          ]
        : [],
    ),
  );

  protected readonly now = computed(() => {
    const { use, fouling } = this.due();
    if (use === undefined || !fouling) return undefined;
    const [x, y] = [this.x()(use), this.y()(fouling.median)];
    // Its name goes where the plot has room, on a leader.
    const [toX, toY] = [x > WIDTH / 2 ? x - 34 : x + 34, y < PLOT.top + 40 ? y + 30 : y - 26];
    return { x, y, toX, toY };
  });

  protected readonly said = computed(() => {
    const { learned, evidence, why } = this.due();
    const due = `Due after ${many(Math.round(learned), this.unit())}.`;
    return evidence.length ? `${due} ${why.evidence}` : `${due} Nothing was noted yet.`;
  });
}
