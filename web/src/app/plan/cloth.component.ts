import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { daysBetween, type Day } from '@needlecase/core';
import { isSafety, maySlip, threadsOf } from '@needlecase/core/plan/threads';
import { sayDate, sayMonth, sayShort, type ShownVisit } from './shown';
import { PairComponent } from '../thread/pair.component';
import { stitchLength } from '../thread/stitch.component';

const ROW = 58;
const EMPTY_WEEK = 13;
const MOST_EMPTY = 3;
const FOLD = 44;
const LANES = 132;
const LEFT = 36;
const TOP = 34;
const A_MINUTE = 0.42;

/** The year as a cloth that hangs down, for a phone: what is on it stands beside it in words. */
@Component({
  selector: 'nc-cloth',
  imports: [PairComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="cloth" [style.height.px]="height()">
      <svg [attr.width]="width" [attr.height]="height()" aria-hidden="true">
        @for (place of lanes(); track place.name) {
          <text class="place" text-anchor="middle" [attr.x]="place.at" y="14">
            {{ place.short }}
          </text>
        }
        <path
          class="face"
          [attr.d]="'M' + left + ' 22H' + right + 'V' + height() + 'H' + left + 'Z'"
        />
        <path
          class="edge"
          [attr.d]="'M' + left + ' ' + height() + 'V22H' + right + 'V' + height()"
        />
        @for (place of lanes(); track place.name; let i = $index) {
          @if (i > 0) {
            <path class="lane" [attr.d]="'M' + place.from + ' 24V' + height()" />
          }
        }
        @for (month of months(); track month.day) {
          <path class="warp" [attr.d]="'M' + left + ' ' + month.at + 'H' + right" />
          <text class="month" text-anchor="end" [attr.x]="left - 6" [attr.y]="month.at + 16">
            {{ month.name }}
          </text>
        }
        @for (row of rows(); track row.key) {
          @if (row.fold) {
            <path
              class="fold"
              [attr.d]="
                'M' +
                (left - 5) +
                ' ' +
                (row.at + 3) +
                'L' +
                (right + 4) +
                ' ' +
                (row.at + 7) +
                'V' +
                (row.at + 35) +
                'L' +
                (left - 5) +
                ' ' +
                (row.at + 39) +
                'Z'
              "
            />
          } @else {
            <path
              class="lead"
              [attr.d]="'M' + (row.x + 26) + ' ' + (row.at + 26) + 'H' + (right + 10)"
            />
            <g
              [attr.transform]="'translate(' + row.x + ',' + (row.at + 26) + ')'"
              [class.ghost]="row.aside"
            >
              <g
                nc-pair
                [across]="true"
                [width]="4.4"
                [water]="row.water"
                [air]="row.air"
                [knot]="row.knot"
                [slips]="row.slips"
              />
            </g>
          }
        }
      </svg>
      <ul>
        @for (row of rows(); track row.key) {
          <li [style.top.px]="row.at" [class.fold-row]="row.fold">
            @if (row.visit; as visit) {
              <button
                type="button"
                [class.chosen]="visit.key === chosen()"
                [attr.aria-pressed]="visit.key === chosen()"
                (click)="choose.emit(visit.key)"
              >
                <span class="when">{{ sayShort(visit.day) }}</span>
                <span class="long">{{ visit.minutes }} min</span>
                <span class="what">{{ row.said }}</span>
              </button>
            } @else {
              {{ row.said }}
            }
          </li>
        }
      </ul>
    </div>
  `,
  styleUrl: './cloth.component.scss',
})
export class ClothComponent {
  readonly visits = input.required<readonly ShownVisit[]>();
  readonly places = input.required<readonly string[]>();
  readonly away = input.required<readonly { from: Day; to: Day }[]>();
  readonly start = input.required<Day>();
  readonly chosen = input<string>();
  readonly choose = output<string>();

  protected readonly left = LEFT;
  protected readonly right = LEFT + LANES;
  protected readonly width = LEFT + LANES + 14;
  protected readonly sayShort = sayShort;

  protected readonly lanes = computed(() => {
    const all = this.places();
    const wide = LANES / Math.max(1, all.length);
    return all.map((name, i) => ({
      name,
      short: name.split(' ')[0]!.slice(0, Math.max(2, Math.floor(wide / 6.5))),
      from: LEFT + i * wide,
      at: LEFT + (i + 0.5) * wide,
    }));
  });

  protected readonly rows = computed(() => {
    const folds = this.away().map((span) => ({ day: span.from, span, visit: undefined }));
    const all = [
      ...this.visits().map((visit) => ({ day: visit.day, visit, span: undefined })),
      ...folds.filter(({ span }) => span.to >= this.start()),
    ].sort((a, b) => a.day.localeCompare(b.day));
    const most = LANES / Math.max(1, this.places().length) - 8;
    let at = TOP;
    let before = this.start();
    return all.map(({ day, visit, span }) => {
      const empty = Math.max(0, Math.floor(daysBetween(before, day) / 7) - 1);
      at += Math.min(MOST_EMPTY, empty) * EMPTY_WEEK;
      const here = at;
      before = span ? span.to : day;
      at += span ? FOLD : ROW;
      if (!visit) {
        return {
          ...{ key: `away-${day}`, at: here, fold: true, visit, day, x: 0, water: 0, air: 0 },
          ...{ knot: false, slips: false, aside: false },
          said: `away ${sayDate(span.from)} – ${sayDate(span.to)}`,
        };
      }
      const { water, air } = threadsOf(visit);
      const lane = Math.max(0, this.places().indexOf(visit.place));
      const knot = isSafety(visit);
      const { planned } = visit;
      const words = [
        visit.place,
        visit.who ?? '',
        knot ? 'safety' : '',
        planned?.done ? 'done' : planned?.skipped !== undefined ? 'left out' : '',
      ];
      return {
        ...{ key: visit.key, at: here, fold: false, visit, day, knot, slips: maySlip(visit) },
        x: this.lanes()[lane]!.at,
        water: water ? stitchLength(water, most, A_MINUTE) : 0,
        air: air ? stitchLength(air, most, A_MINUTE) : 0,
        aside: planned?.done ?? planned?.skipped !== undefined,
        said: words.filter(Boolean).join(', '),
      };
    });
  });
  protected readonly height = computed(() => {
    const last = this.rows().at(-1);
    return last ? last.at + ROW + 10 : TOP + 60;
  });
  protected readonly months = computed(() => {
    let month = '';
    return this.rows().flatMap(({ day, at }) => {
      if (day.slice(0, 7) === month) return [];
      month = day.slice(0, 7);
      return [{ day, at, name: sayMonth(day) }];
    });
  });
}
