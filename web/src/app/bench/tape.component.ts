import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { Router } from '@angular/router';
import {
  daysBetween,
  plusDays,
  sayDay,
  sayDistance,
  type Day,
  type DueStatus,
} from '@needlecase/core';
import { scaleLinear } from 'd3-scale';

/** A task pinned to its date. */
export interface Pin {
  key: string;
  machineId: string;
  station: string;
  name: string;
  machine: string;
  on: Day;
  status: DueStatus;
  line: 'water' | 'air';
}

interface PlacedPin extends Pin {
  x: number;
  row: number;
  /** Labels near the right end stand left of their pin. */
  flipped: boolean;
  said: string;
  /** False where there is no room for its name: it is told when pointed at. */
  named: boolean;
}

const WIDTH = 1240;
const LEFT = 74;
const WEEKS = 18;
const ROW = 21;
const LETTER = 6.5;
/** Rows of names above the tape; what finds none keeps its pin. */
const ROWS = 4;
/** The list on phones says the next few. */
const LISTED = 10;

/** The coming weeks as a tape measure, with what is due pinned to it; a list on phones. */
@Component({
  selector: 'nc-tape',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg [attr.viewBox]="'0 0 ' + width + ' ' + height()" role="img" [attr.aria-label]="said()">
      <rect class="tape" x="0" [attr.y]="top()" [attr.width]="width" height="30" rx="4" />
      <text class="past" x="10" [attr.y]="top() + 20">before</text>
      @for (tick of ticks(); track tick.x) {
        <line
          [class.month]="tick.label"
          class="tick"
          [attr.x1]="tick.x"
          [attr.x2]="tick.x"
          [attr.y1]="top()"
          [attr.y2]="top() + (tick.label ? 14 : 8)"
        />
        @if (tick.label) {
          <text class="day" [attr.x]="tick.x + 4" [attr.y]="top() + 25">{{ tick.label }}</text>
        }
      }
      @for (pin of placed(); track pin.key) {
        <g class="pin" (click)="open(pin)">
          <line
            [class]="'shaft ' + pin.line"
            [attr.x1]="pin.x"
            [attr.x2]="pin.x"
            [attr.y1]="pin.row * row + 14"
            [attr.y2]="top() + 6"
          />
          <circle
            [class]="'head ' + pin.line"
            [attr.cx]="pin.x"
            [attr.cy]="pin.row * row + 12"
            r="5.5"
          />
          @if (pin.named) {
            <text
              [class]="'name ' + pin.status"
              [attr.x]="pin.flipped ? pin.x - 10 : pin.x + 10"
              [attr.text-anchor]="pin.flipped ? 'end' : 'start'"
              [attr.y]="pin.row * row + 17"
            >
              {{ pin.name }}, {{ pin.machine }}
            </text>
          } @else {
            <title>{{ pin.name }}, {{ pin.machine }}: {{ pin.said }}</title>
          }
        </g>
      }
    </svg>
    <ul class="list">
      @for (pin of listed(); track pin.key) {
        <li>
          <button type="button" class="btn btn-link" (click)="open(pin)">
            {{ pin.name }}, {{ pin.machine }}
          </button>
          <span [class]="'state ' + pin.status">{{ distance(pin.on) }}</span>
        </li>
      }
      @if (sorted().length > listed().length) {
        <li class="soft">and {{ sorted().length - listed().length }} more later</li>
      }
    </ul>
  `,
  styleUrl: './tape.component.scss',
})
export class TapeComponent {
  readonly #router = inject(Router);
  readonly pins = input.required<readonly Pin[]>();
  readonly today = input.required<Day>();
  protected readonly width = WIDTH;
  protected readonly row = ROW;

  readonly #x = scaleLinear([0, WEEKS * 7], [LEFT, WIDTH - 16]).clamp(false);

  protected readonly sorted = computed(() =>
    [...this.pins()].sort((a, b) => a.on.localeCompare(b.on)),
  );

  protected readonly listed = computed(() => this.sorted().slice(0, LISTED));

  protected readonly placed = computed<PlacedPin[]>(() => {
    const ends: number[] = [];
    return this.sorted().flatMap((pin): PlacedPin[] => {
      const days = daysBetween(this.today(), pin.on);
      if (days > WEEKS * 7) return [];
      const x = days < 0 ? Math.max(18, LEFT - 22 + days / 4) : this.#x(days);
      const length = (pin.name.length + pin.machine.length + 2) * LETTER + 24;
      const flipped = x + length > WIDTH;
      const [from, to] = flipped ? [x - length, x + 8] : [x - 8, x + length];
      let row = ends.findIndex((end) => end < from);
      if (row < 0 && ends.length < ROWS) row = ends.length;
      const said = this.distance(pin.on);
      if (row < 0) return [{ ...pin, x, row: ROWS, flipped, said, named: false }];
      ends[row] = to;
      return [{ ...pin, x, row, flipped, said, named: true }];
    });
  });

  protected readonly top = computed(
    () => (Math.max(0, ...this.placed().map(({ row }) => row)) + 1) * ROW + 8,
  );
  protected readonly height = computed(() => this.top() + 32);

  protected readonly ticks = computed(() =>
    Array.from({ length: WEEKS + 1 }, (_, week) => {
      const day = plusDays(this.today(), week * 7);
      const label = week === 0 ? 'today' : week % 2 === 0 ? sayDay(day, day) : '';
      return { x: this.#x(week * 7), label: week === WEEKS ? '' : label };
    }),
  );

  protected readonly said = computed(
    () =>
      'Due dates: ' +
      this.sorted()
        .map((pin) => `${pin.name}, ${pin.machine}, ${this.distance(pin.on)}`)
        .join('; '),
  );

  protected distance(day: Day): string {
    return sayDistance(day, this.today());
  }

  protected open({ machineId, station }: Pin): void {
    void this.#router.navigate(['/machine', machineId, station]);
  }
}
