import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { StitchComponent } from './stitch.component';

/** Half of what lies between the two stitches of a pair. */
const APART = { along: 5, across: 6 } as const;

/** A visit’s stitches round the origin, by their lengths: water, air, or both side by side. */
@Component({
  selector: 'g[nc-pair]',
  imports: [StitchComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (water()) {
      <svg:g
        nc-stitch
        line="water"
        [attr.transform]="air() ? aside(-1) : null"
        [length]="water()"
        [slips]="slips()"
        [knot]="knot() && !air()"
        [width]="width()"
        [across]="across()"
      />
    }
    @if (air()) {
      <svg:g
        nc-stitch
        line="air"
        [attr.transform]="water() ? aside(1) : null"
        [length]="air()"
        [slips]="slips()"
        [knot]="knot()"
        [width]="width()"
        [across]="across()"
      />
    }
  `,
})
export class PairComponent {
  readonly water = input.required<number>();
  readonly air = input.required<number>();
  readonly knot = input(false);
  readonly slips = input(false);
  readonly width = input(5.4);
  readonly across = input(false);

  protected aside(way: 1 | -1): string {
    return this.across()
      ? `translate(0,${way * APART.across})`
      : `translate(${way * APART.along},0)`;
  }
}
