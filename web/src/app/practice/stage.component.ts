import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { ReadableDirective } from '../charts/readable.directive';
import type { PartId, StageView } from './stage-view';

const GLASS = { x: 420, y: 272, r: 108 };
/** Where a part's words stand, and where its ring is. */
interface Spot {
  x: number;
  y: number;
  anchor: 'start' | 'middle' | 'end';
  ring: { x: number; y: number; r: number };
}
const WASHER: Partial<Record<PartId, Spot>> = {
  plug: { x: 74, y: 302, anchor: 'start', ring: { x: 95, y: 353, r: 34 } },
  tap: { x: 126, y: 74, anchor: 'start', ring: { x: 92, y: 96, r: 34 } },
  glass: { x: 420, y: 206, anchor: 'middle', ring: { x: 420, y: 272, r: 120 } },
  filter: { x: 474, y: 436, anchor: 'end', ring: { x: 530, y: 431, r: 34 } },
  hose: { x: 680, y: 84, anchor: 'start', ring: { x: 664, y: 250, r: 34 } },
  pipe: { x: 756, y: 262, anchor: 'start', ring: { x: 740, y: 300, r: 34 } },
  floor: { x: 700, y: 494, anchor: 'start', ring: { x: 606, y: 500, r: 30 } },
};
const TOP = {
  ...WASHER,
  filter: { x: 506, y: 436, anchor: 'start', ring: { x: 470, y: 432, r: 34 } },
} satisfies typeof WASHER;
const DRYER: Partial<Record<PartId, Spot>> = {
  plug: WASHER.plug!,
  gas: { x: 126, y: 206, anchor: 'start', ring: { x: 92, y: 226, r: 32 } },
  glass: { x: 420, y: 246, anchor: 'middle', ring: { x: 420, y: 262, r: 118 } },
  screen: { x: 346, y: 408, anchor: 'end', ring: { x: 420, y: 420, r: 40 } },
  exchanger: { x: 474, y: 446, anchor: 'end', ring: { x: 530, y: 434, r: 40 } },
  duct: { x: 618, y: 392, anchor: 'start', ring: { x: 650, y: 430, r: 36 } },
  hood: { x: 764, y: 96, anchor: 'start', ring: { x: 792, y: 140, r: 34 } },
  floor: WASHER.floor!,
};

/** A machine opened like a pattern drawing: how everything stands is seen on it. */
@Component({
  selector: 'nc-practice-stage',
  imports: [ReadableDirective],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './stage.component.html',
  styleUrl: './stage.component.scss',
})
export class StageComponent {
  readonly view = input.required<StageView>();
  /** The part that was just worked at. */
  readonly ringed = input<PartId>();
  /** Without words in the drawing: where they stand beside it. */
  readonly bare = input(false);

  protected readonly wet = computed(() => ['front', 'top'].includes(this.view().kind));
  protected readonly spots = computed(() =>
    this.view().kind === 'top' ? TOP : this.wet() ? WASHER : DRYER,
  );
  protected readonly words = computed(() =>
    this.view().parts.flatMap((part) => {
      const spot = this.spots()[part.id];
      return spot ? [{ ...part, ...spot }] : [];
    }),
  );
  protected readonly ring = computed(() => {
    const part = this.ringed();
    return part && this.spots()[part]?.ring;
  });
  /** The water in the drum: its body and its surface. */
  protected readonly water = computed(() => {
    const { water, kind } = this.view();
    if (water === 0) return undefined;
    const { x, y, r } = GLASS;
    const top = y + r - 2 * r * Math.min(0.97, water);
    if (kind === 'top') {
      return {
        body: `M312,${top}V372Q312,380 320,380H520Q528,380 528,372V${top}Z`,
        surface: `M312,${top}q18,-9 36,0t36,0t36,0t36,0t36,0t36,0`,
      };
    }
    const half = Math.sqrt(r * r - (top - y) ** 2);
    const wave = half / 3;
    const big = top < y ? 1 : 0;
    return {
      body: `M${x - half},${top}A${r},${r} 0 ${big} 0 ${x + half},${top}Z`,
      surface: `M${x - half},${top}q${wave / 2},-9 ${wave},0${`t${wave},0`.repeat(5)}`,
    };
  });
  /** What lies on the floor: the wider the more. */
  protected readonly puddle = computed(() => {
    const { floor } = this.view();
    const wide = Math.min(2.4, 0.5 + 0.32 * Math.sqrt(floor));
    return floor > 0 ? `translate(606 0) scale(${wide} 1) translate(-606 0)` : undefined;
  });
}
