import {
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  input,
  output,
  signal,
  viewChildren,
} from '@angular/core';
import type { MachineKind, StationState } from '@needlecase/core';
import { GaugeComponent } from './gauge.component';
import { threadThrough, threadWidth } from './geometry';
import { column, picture, strip, type Layout, type Placed } from './layouts';

export type LineSize = 'strip' | 'picture' | 'column';

interface Stretch {
  path: string;
  width: number;
  kind: 'water' | 'air';
}

/**
 * The line drawing: a machine's stations as buttons on their thread. Everywhere the same component,
 * from a strip of 60 px to the whole picture. One stop for the Tab key; arrow keys go along the line.
 */
@Component({
  selector: 'nc-line',
  imports: [GaugeComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './line.component.html',
  styleUrl: './line.component.scss',
  host: { '[class]': "'line-' + size()" },
})
export class LineComponent {
  readonly kind = input.required<MachineKind>();
  readonly stations = input.required<readonly StationState[]>();
  readonly size = input<LineSize>('strip');
  /** What the whole drawing is called by a screen reader. */
  readonly label = input.required<string>();
  readonly selected = input<string>();
  /** Width in drawing units, for strips and columns. */
  readonly width = input(640);
  /** A picture only, where the same can be chosen elsewhere. */
  readonly still = input(false);
  /** Chance that trouble sits at a station, 0 to 1, drawn as a halo round it. */
  readonly halos = input<ReadonlyMap<string, number>>();
  /** Told beside each station in place of its state. */
  readonly words = input<ReadonlyMap<string, { said: string; chance?: string }>>();
  /** What a meter noticed, by the station that it most likely comes from: a loop of the thread there. */
  readonly snags = input<ReadonlyMap<string, string>>();
  readonly choose = output<string>();

  readonly #host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly buttons = viewChildren<ElementRef<SVGGElement>>('station');
  readonly #focused = signal<string | undefined>(undefined);

  /** A strip is the line alone; what belongs to the machine as a whole is drawn from a column up. */
  protected readonly shown = computed(() =>
    this.size() === 'strip'
      ? this.stations().filter(({ line }) => line !== 'body')
      : this.stations(),
  );

  protected readonly layout = computed<Layout>(() => {
    const stations = this.shown();
    switch (this.size()) {
      case 'strip':
        return strip(stations, this.width());
      case 'column':
        return column(stations, this.width());
      case 'picture':
        return picture(this.kind(), stations);
    }
  });

  protected readonly stretches = computed<Stretch[]>(() => {
    const { placed: all, radius } = this.layout();
    const full = Math.max(5, radius * 0.3);
    const placed = all.map((one) => ({ ...one, narrowing: this.#narrowing(one.state) }));
    const water = placed.filter(({ state: { line } }) => line === 'water');
    const air = placed.filter(({ state: { line } }) => line === 'air');
    const condensate = placed.filter(({ state }) => state.line === 'condensate');
    const source = air.find(({ state }) => state.id === 'heat-exchanger');
    return [
      ...stretchesOf(water, full),
      ...stretchesOf(air, full),
      ...(condensate.length && source
        ? stretchesOf([source, ...condensate], full * 0.8, 'water')
        : []),
    ];
  });

  /** The one station that Tab reaches. */
  protected readonly reachable = computed(() => {
    const ids = this.shown().map(({ id }) => id);
    const wanted = this.#focused() ?? this.selected();
    return wanted !== undefined && ids.includes(wanted) ? wanted : ids[0];
  });

  /** How far the way is closed, 0 to 1: by suspicion where there is one, else by the expected fouling. */
  #narrowing({ id, fouling }: StationState): number {
    const halos = this.halos();
    return halos?.size ? (halos.get(id) ?? 0) : (fouling?.median ?? 0);
  }

  protected haloOf(station: string): number {
    const chance = this.halos()?.get(station) ?? 0;
    return chance < 0.02 ? 0 : chance;
  }

  protected said(state: StationState): string {
    const fouled = state.fouling
      ? `, about ${Math.round(state.fouling.median * 100)} % of the way to trouble`
      : '';
    const snag = this.snags()?.get(state.id);
    return `${state.name}: ${state.said}${fouled}${snag ? `; ${snag}` : ''}`;
  }

  protected labelPlace({ side }: Placed): { x: number; y: number; anchor: string } {
    const r = this.layout().radius + 13;
    switch (side) {
      case 'left':
        return { x: -r, y: -2, anchor: 'end' };
      case 'right':
        return { x: r, y: -2, anchor: 'start' };
      case 'above':
        return { x: 0, y: -r - 14, anchor: 'middle' };
      case 'below':
        return { x: 0, y: r + 11, anchor: 'middle' };
    }
  }

  protected move(event: KeyboardEvent, index: number): void {
    const last = this.shown().length - 1;
    const to = {
      ArrowRight: index + 1,
      ArrowDown: index + 1,
      ArrowLeft: index - 1,
      ArrowUp: index - 1,
      Home: 0,
      End: last,
    }[event.key];
    if (to !== undefined) {
      event.preventDefault();
      const next = Math.min(Math.max(to, 0), last);
      this.#focused.set(this.shown()[next]!.id);
      this.buttons()[next]?.nativeElement.focus();
    } else if (event.key === 'Enter' || event.key === ' ') {
      event.preventDefault();
      this.choose.emit(this.shown()[index]!.id);
    }
  }

  /** Puts the focus on a station, after a choice made elsewhere. */
  focus(): void {
    this.#host.nativeElement.querySelector<SVGGElement>('[tabindex="0"]')?.focus();
  }
}

function stretchesOf(
  placed: readonly (Placed & { narrowing: number })[],
  full: number,
  kind?: 'water',
): Stretch[] {
  return threadThrough(placed).map((path, i) => ({
    path,
    width: threadWidth(placed[i]!.narrowing, full),
    kind: kind ?? (placed[i]!.state.line === 'water' ? 'water' : 'air'),
  }));
}
