import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { plusDays } from '@needlecase/core';
import type { BandScale } from './band-geometry';
import { sayDate } from './shown';

/** A pleat stands out of the cloth so far. */
const OUT = 5;
/** Room that the words in a pleat, and the name of a month, must have. */
const ROOM = { pleat: 14, words: 110, month: 40 } as const;
/** Letters of a place’s name that have room before its lane. */
const LETTERS = 11;

/** The cloth a plan is sewn on, from its left upper corner: weeks, months, a lane a place, days away as pleats. */
@Component({
  selector: 'g[nc-fabric]',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let right = length();
    <svg:path class="cloth" [attr.d]="'M0 0H' + right + 'V' + height() + 'H0Z'" />
    <svg:path class="edge" [attr.d]="'M' + right + ' 0H0V' + height() + 'H' + right" />
    <svg:path class="hem" [attr.d]="'M4 5H' + right + 'M4 ' + (height() - 5) + 'H' + right" />
    @for (week of scale().weeks; track week) {
      <svg:path class="week" [attr.d]="'M' + week + ' 0v-4'" />
    }
    @for (month of scale().months; track month.day) {
      <svg:path class="warp" [attr.d]="'M' + month.at + ' 0V' + height()" />
      @if (month.at < right - room.month) {
        <svg:text class="month" [attr.x]="month.at + 6" y="-8">{{ month.name }}</svg:text>
      }
    }
    @for (place of places(); track place; let i = $index) {
      @if (i > 0) {
        <svg:path class="lane" [attr.d]="'M4 ' + i * lane() + 'H' + right" />
      }
      <svg:text class="place" x="-10" [attr.y]="(i + 0.5) * lane() + 5" text-anchor="end">
        {{ short(place) }}
      </svg:text>
    }
    <ng-content />
    @for (pleat of pleats(); track pleat.left) {
      <svg:path class="pleat" [attr.d]="pleat.path" />
      @if (pleat.roomy) {
        <svg:text class="away" text-anchor="middle" [attr.transform]="pleat.middle">
          {{ pleat.said }}
        </svg:text>
      }
    }
  `,
  styles: `
    .cloth {
      fill: var(--face);
    }
    .edge {
      fill: none;
      stroke: var(--ink);
      stroke-width: 1.8;
    }
    .hem {
      fill: none;
      stroke: var(--seam);
      stroke-dasharray: 7 5;
      stroke-width: 1.8;
    }
    .week {
      stroke: var(--ink-soft);
    }
    .warp {
      stroke: var(--seam);
    }
    .lane {
      stroke: var(--seam);
      stroke-dasharray: 2 4;
    }
    .month {
      fill: var(--ink-soft);
      font: italic 500 16px var(--serif);
    }
    .place {
      fill: var(--ink);
      font: 560 var(--place-size, 17px) var(--serif);
    }
    .pleat {
      fill: var(--linen-deep);
      stroke: var(--ink);
      stroke-width: 1.4;
    }
    .away {
      fill: var(--ink);
      font-size: 13px;
    }
  `,
})
export class FabricComponent {
  readonly scale = input.required<BandScale>();
  readonly places = input.required<readonly string[]>();
  /** Height of one place’s lane. */
  readonly lane = input.required<number>();
  /** How far the cloth goes to the right. */
  readonly length = input.required<number>();

  protected readonly room = ROOM;
  protected readonly height = computed(() => this.lane() * this.places().length);
  protected readonly pleats = computed(() => {
    const [scale, foot] = [this.scale(), this.height()];
    return scale.folds.map(({ from, to }) => {
      const [left, right] = [scale.from(from), scale.from(plusDays(to, 1))];
      return {
        left,
        path: `M${left} ${-OUT}L${right} 0V${foot}L${left} ${foot + OUT}Z`,
        roomy: right - left > ROOM.pleat && foot > ROOM.words,
        middle: `translate(${(left + right) / 2 + 4},${foot / 2}) rotate(-90)`,
        said: `away ${sayDate(from)} – ${sayDate(to)}`,
      };
    });
  });

  /** A place’s name as far as there is room for it. */
  protected short(place: string): string {
    return place.length > LETTERS ? `${place.slice(0, LETTERS - 1)}…` : place;
  }
}
