import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  ElementRef,
  inject,
  signal,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import { plusDays } from '@needlecase/core';
import type { VisitAhead } from '@needlecase/core/views/plan';
import { catchError, of } from 'rxjs';
import { PlanService } from '../data/plan.service';
import { BandScale } from '../plan/band-geometry';
import { FabricComponent } from '../plan/fabric.component';
import { sayLong } from '../plan/shown';
import { narrow } from '../shared/narrow';
import { PairComponent } from '../thread/pair.component';
import { stitchLength } from '../thread/stitch.component';

const LETTER = 7.2;
/** Words begin so far from the middle of their stitches. */
const BESIDE = 22;

/** The next weeks of the plan, as a piece of its band: which visit is when, where, and whose it is. */
@Component({
  selector: 'nc-weeks',
  imports: [FabricComponent, PairComponent, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (ahead(); as plan) {
      <svg [attr.width]="width()" [attr.height]="height() + 34" aria-hidden="true" (click)="open()">
        <g [attr.transform]="'translate(' + names() + ',26)'">
          <g
            nc-fabric
            [scale]="scale()"
            [places]="plan.places"
            [lane]="lane()"
            [length]="length()"
          ></g>
          @for (one of drawn(); track one.visit.id) {
            <g [attr.transform]="'translate(' + one.at + ',' + one.y + ')'">
              @if ($first) {
                <ellipse class="first" [attr.ry]="lane() / 2 - 1" rx="19" />
              }
              <g
                nc-pair
                [water]="one.water"
                [air]="one.air"
                [knot]="one.visit.safety"
                [slips]="one.visit.slips"
              />
            </g>
            @if (one.label) {
              <text
                class="label"
                [class.next]="$first"
                [attr.x]="one.at + beside"
                [attr.y]="one.y + 5"
              >
                {{ one.label }}
              </text>
            }
          }
          <path class="needle" [attr.d]="'M-1 22L14 -16'" />
          <path class="needle-thread" d="M14 -16C6 -23 2 -14 -4 -19" />
        </g>
      </svg>
      <ul class="visually-hidden">
        @for (one of plan.visits; track one.id) {
          <li>{{ sayWhole(one) }}</li>
        } @empty {
          <li>Nothing is planned in the next nine weeks.</li>
        }
      </ul>
      <p class="small more">
        <a routerLink="/plan">The whole year</a>
      </p>
    }
  `,
  styles: `
    :host {
      --place-size: 15px;
      display: block;
      min-width: 0;
      overflow-x: clip;
      position: relative;
    }
    svg {
      cursor: pointer;
      display: block;
      overflow: visible;
    }
    .first {
      fill: none;
      stroke: var(--ink);
      stroke-dasharray: 5 4;
      stroke-width: 1.8;
    }
    .label {
      fill: var(--ink);
      font-size: 14px;
      paint-order: stroke;
      stroke: var(--face);
      stroke-width: 5px;
    }
    .label.next {
      font-weight: 650;
    }
    .needle {
      stroke: var(--ink);
      stroke-linecap: round;
      stroke-width: 3;
    }
    .needle-thread {
      fill: none;
      stroke: var(--air);
      stroke-linecap: round;
      stroke-width: 2.4;
    }
    .more {
      margin: 0;
      position: absolute;
      right: 0;
      top: -4px;
    }
    .more a {
      display: inline-block;
      min-height: 24px;
    }
  `,
})
export class WeeksComponent {
  readonly #router = inject(Router);
  /** Nothing for those who may not see the plan, and where it cannot be read now. */
  protected readonly ahead = toSignal(
    inject(PlanService).ahead((read) => read.pipe(catchError(() => of(undefined)))),
  );
  protected readonly beside = BESIDE;
  readonly #width = signal(1228);
  protected readonly width = computed(() => Math.max(280, this.#width()));
  protected readonly names = computed(() => (narrow() ? 78 : 92));
  protected readonly length = computed(() => this.width() - this.names() - 4);
  protected readonly lane = computed(() => {
    const most = narrow() ? 92 : 138;
    return Math.min(46, Math.max(24, most / Math.max(1, this.ahead()?.places.length ?? 1)));
  });
  protected readonly height = computed(() => this.lane() * (this.ahead()?.places.length ?? 0));
  protected readonly scale = computed(() => {
    const { start, end, away } = this.ahead()!;
    // A phone shows five weeks of them.
    return new BandScale(start, narrow() ? plusDays(start, 35) : end, this.length(), away, 18);
  });
  protected readonly drawn = computed(() => {
    const plan = this.ahead();
    if (!plan) return [];
    const scale = this.scale();
    const most = this.lane() - 8;
    const folds = scale.folds.map(({ from }) => scale.from(from));
    const all = plan.visits
      .filter(({ day }) => day <= scale.end)
      .map((visit) => {
        const lane = Math.max(0, plan.places.indexOf(visit.place));
        const date = `${sayLong(visit.day).slice(0, 3)} ${Number(visit.day.slice(8))}`;
        const whole = [date, ...(visit.who ? [visit.who] : []), `${Math.round(visit.minutes)} min`];
        return {
          visit,
          lane,
          at: scale.at(visit.day),
          y: (lane + 0.5) * this.lane(),
          water: visit.water ? stitchLength(visit.water, most) : 0,
          air: visit.air ? stitchLength(visit.air, most) : 0,
          says: narrow() ? [date] : [whole.join(', '), date],
          label: '',
        };
      });
    for (let lane = 0; lane < plan.places.length; lane++) {
      const here = all.filter((one) => one.lane === lane);
      here.forEach((one, i) => {
        const next = here[i + 1]?.at ?? this.length() + 16;
        const fold = folds.find((left) => left > one.at) ?? Infinity;
        const room = Math.min(next - 14, fold) - one.at - BESIDE;
        one.label = one.says.find((words) => words.length * LETTER <= room) ?? '';
      });
    }
    return all;
  });

  constructor() {
    const host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
    const destroyed = inject(DestroyRef);
    afterNextRender(() => {
      const seen = new ResizeObserver(([entry]) => {
        if (entry && entry.contentRect.width > 0) this.#width.set(entry.contentRect.width);
      });
      seen.observe(host);
      destroyed.onDestroy(() => seen.disconnect());
    });
  }

  protected sayWhole({ day, place, minutes, who, tasks, safety }: VisitAhead): string {
    const whose = who ? `, ${who}` : '';
    const safe = safety ? ', it keeps people safe' : '';
    return `${sayLong(day)}, ${place}${whose}, ${Math.round(minutes)} minutes${safe}: ${tasks.join(', ')}`;
  }

  protected open(): void {
    void this.#router.navigateByUrl('/plan');
  }
}
