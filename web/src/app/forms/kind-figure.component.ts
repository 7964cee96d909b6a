import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { MachineKind } from '@needlecase/core';
import { box, ring } from '../visit/figures/shapes';

interface Strokes {
  line: string;
  soft?: string;
  water?: string;
  air?: string;
}

const BODY = box(22, 8, 56, 74, 5);

/** Each on a sheet of 100 by 90. */
const KINDS: Record<MachineKind, Strokes> = {
  'front-load-washer': {
    line: BODY + ring(50, 52, 19),
    soft: 'M22,24H78M30,16h16',
    water: 'M34,58q8,-5 16,0t16,0v6a17,17 0 0 1 -32,0z',
  },
  'top-load-washer': {
    line: `${box(22, 22, 56, 60, 5)}M22,30H78M28,22L36,6H80L78,22`,
    soft: ring(50, 56, 15),
    water: 'M36,58q7,-5 14,0t14,0v3a15,15 0 0 1 -28,0z',
  },
  'vented-dryer': {
    line: BODY + ring(50, 52, 19),
    soft: 'M22,24H78',
    air: 'M78,70h16M86,64c6,4 6,8 0,12',
  },
  'condenser-dryer': {
    line: BODY + ring(50, 52, 19),
    soft: 'M28,14h26v10h-26z',
    water: 'M30,18h22v4h-22z',
    air: 'M40,52c6,-6 14,6 20,0',
  },
  'heat-pump-dryer': {
    line: BODY + ring(50, 50, 17),
    soft: 'M30,72h40M34,72v8M42,72v8M50,72v8M58,72v8M66,72v8M28,14h26v8h-26z',
    air: 'M40,50c6,-6 14,6 20,0',
  },
  'washer-dryer': {
    line: BODY + ring(50, 52, 19),
    soft: 'M22,24H78',
    water: 'M34,58q8,-5 16,0t16,0v6a17,17 0 0 1 -32,0z',
    air: 'M40,44c6,-6 14,6 20,0',
  },
  tower: {
    line: `${box(28, 2, 44, 84, 5)}${ring(50, 24, 13)}${ring(50, 66, 13)}M28,44H72`,
    air: 'M43,24c4,-4 10,4 14,0M72,16h18',
    water: 'M39,69q6,-4 11,0t11,0v2a12,12 0 0 1 -22,0z',
  },
};

/** A kind of machine as people know it from the front. */
@Component({
  selector: 'nc-kind-figure',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let k = strokes();
    <svg viewBox="0 0 100 90" width="88" height="79" aria-hidden="true">
      @if (k.water) {
        <path class="water" [attr.d]="k.water" />
      }
      <path class="line" [attr.d]="k.line" />
      @if (k.soft) {
        <path class="soft" [attr.d]="k.soft" />
      }
      @if (k.air) {
        <path class="air" [attr.d]="k.air" />
      }
    </svg>
  `,
  styles: `
    path {
      fill: none;
      stroke-linecap: round;
      stroke-linejoin: round;
    }
    .line {
      stroke: var(--ink);
      stroke-width: 2.6;
    }
    .soft {
      stroke: var(--edge);
      stroke-width: 2;
    }
    .water {
      fill: color-mix(in srgb, var(--water) 45%, transparent);
    }
    .air {
      stroke: var(--air);
      stroke-width: 3;
    }
  `,
})
export class KindFigureComponent {
  readonly kind = input.required<MachineKind>();
  protected readonly strokes = computed(() => KINDS[this.kind()]);
}
