import { CdkDrag, type CdkDragMove } from '@angular/cdk/drag-drop';
import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  ElementRef,
  inject,
  input,
  output,
  signal,
  type Signal,
} from '@angular/core';
import { plusDays, type Day } from '@needlecase/core';
import { isSafety, maySlip, threadsOf } from '@needlecase/core/plan/threads';
import { BandScale, roomy } from './band-geometry';
import { FabricComponent } from './fabric.component';
import type { Moving } from './moving';
import { PairComponent } from '../thread/pair.component';
import { sayDate, sayLong, sayShort, type ShownVisit } from './shown';
import { stitchLength } from '../thread/stitch.component';

const NAMES = 92;
const TOP = 26;
const LANE = { usual: 82, least: 46, most: 246 } as const;
/** Room for a lane's label under its stitches. */
const LABEL = 22;
const LETTER = 6.7;

/**
 * The year as a band of cloth with a lane a place: each visit a stitch or two, days away a pleat. One list for those
 * who do not look: arrows go from visit to visit, M takes one up and arrows carry it.
 */
@Component({
  selector: 'nc-band',
  imports: [CdkDrag, FabricComponent, PairComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './band.component.html',
  styleUrl: './band.component.scss',
})
export class BandComponent {
  readonly visits = input.required<readonly ShownVisit[]>();
  readonly places = input.required<readonly string[]>();
  readonly start = input.required<Day>();
  readonly end = input.required<Day>();
  readonly away = input.required<readonly { from: Day; to: Day }[]>();
  /** As it is now, also between two keys that come faster than the page is drawn. */
  readonly chosenNow = input.required<Signal<string | undefined>>();
  readonly movingNow = input.required<Signal<Moving | undefined>>();
  protected readonly chosen = computed(() => this.chosenNow()());
  protected readonly moving = computed(() => this.movingNow()());
  /** Visits may be taken up. */
  readonly movable = input(true);

  readonly choose = output<string>();
  readonly open = output<void>();
  readonly take = output<void>();
  readonly carry = output<Day>();
  readonly dropped = output<void>();
  readonly putBack = output<void>();

  protected readonly names = NAMES;
  protected readonly top = TOP;
  readonly #width = signal(1140 + NAMES);
  protected readonly width = computed(() => Math.max(520, this.#width()));
  protected readonly lane = computed(() =>
    Math.max(LANE.least, Math.min(LANE.usual, LANE.most / Math.max(1, this.places().length))),
  );
  protected readonly height = computed(() => this.lane() * this.places().length);
  protected readonly scale = computed(
    () => new BandScale(this.start(), this.end(), this.width() - NAMES - 14, this.away(), 20),
  );
  protected readonly drawn = computed(() => {
    const scale = this.scale();
    const most = this.lane() - LABEL - 8;
    const all = this.visits().map((visit) => {
      const lane = Math.max(0, this.places().indexOf(visit.place));
      const { water, air } = threadsOf(visit);
      const said = `${sayDate(visit.day).split(' ')[0]}${visit.who ? ` ${visit.who}` : ''}`;
      return {
        visit,
        lane,
        at: scale.at(visit.day),
        water: water ? stitchLength(water, most) : 0,
        air: air ? stitchLength(air, most) : 0,
        knot: isSafety(visit),
        slips: maySlip(visit),
        aside: visit.planned?.done ?? visit.planned?.skipped !== undefined,
        said,
        label: false,
      };
    });
    for (let lane = 0; lane < this.places().length; lane++) {
      const here = all.filter((one) => one.lane === lane);
      const room = roomy(
        here.map(({ at, said, visit }) => ({
          at,
          width: said.length * LETTER,
          weight: visit.key === this.chosen() ? 1e6 : visit.minutes,
        })),
        0,
        this.width() - NAMES,
      );
      here.forEach((one, i) => (one.label = room[i]!));
    }
    return all;
  });
  protected readonly ring = computed(() => {
    const one = this.drawn().find(({ visit }) => visit.key === this.chosen());
    if (!one) return undefined;
    const moving = this.moving();
    const at = moving && !this.#dragging() ? this.scale().at(moving.day) : one.at;
    return { ...one, at };
  });
  /** Where the visit that was taken up is now. */
  protected readonly carried = computed(() => {
    const moving = this.moving();
    const one = this.drawn().find(({ visit }) => visit.key === moving?.key);
    return moving && one ? { ...one, at: this.scale().at(moving.day), day: moving.day } : undefined;
  });
  /** Where it may be without a rule giving way. */
  protected readonly chalk = computed(() => {
    const one = this.drawn().find(({ visit }) => visit.key === this.chosen());
    const span = one?.visit.window;
    if (!one || !span || !this.movable() || one.aside) return undefined;
    const left = this.scale().from(span.from);
    const right = this.scale().from(plusDays(span.to, 1));
    return { left, width: Math.max(8, right - left), lane: one.lane };
  });
  readonly #dragging = signal(false);

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

  protected readonly sayShort = sayShort;
  /** Threads that hang out where the cloth goes on. */
  protected readonly frays = computed(() => {
    const right = this.width() - NAMES - 14;
    return Array.from({ length: Math.floor(this.height() / 9) }, (_, i) => {
      const y = 5 + i * 9;
      return `M${right} ${y}h${6 + ((i * 5) % 7)}`;
    });
  });

  /** The tag stays over the cloth. */
  protected tagAt(at: number): number {
    return Math.max(62, Math.min(this.width() - NAMES - 76, at));
  }

  protected said({
    visit,
    knot,
    slips,
  }: {
    visit: ShownVisit;
    knot: boolean;
    slips: boolean;
  }): string {
    const { planned, day, place, minutes, who, tasks } = visit;
    const state = planned?.done
      ? ', done'
      : planned?.skipped !== undefined
        ? ', left out'
        : visit.held
          ? ', stays on its day'
          : '';
    return `${sayLong(day)}, ${place}, ${minutes} minutes${who ? `, ${who}` : ''}, ${tasks.length} ${tasks.length === 1 ? 'task' : 'tasks'}${knot ? ', one keeps people safe' : ''}${slips ? ', may come later' : ''}${state}`;
  }

  /** The nearest stitch to where somebody pressed. */
  protected pressed({ offsetX, offsetY }: MouseEvent): void {
    const lane = Math.floor((offsetY - TOP) / this.lane());
    const x = offsetX - NAMES;
    const here = this.drawn().filter((one) => one.lane === lane);
    const nearest = (here.length ? here : this.drawn()).reduce<
      ReturnType<typeof this.drawn>[number] | undefined
    >((a, b) => (a && Math.abs(a.at - x) <= Math.abs(b.at - x) ? a : b), undefined);
    if (nearest && Math.abs(nearest.at - x) < 40) this.choose.emit(nearest.visit.key);
  }

  protected onKey(event: KeyboardEvent): void {
    if (event.altKey || event.ctrlKey || event.metaKey) return;
    const done = this.moving() ? this.#keyWhileCarrying(event) : this.#key(event);
    if (!done) return;
    event.preventDefault();
    event.stopPropagation();
  }

  #keyWhileCarrying({ key, shiftKey }: KeyboardEvent): boolean {
    const { day } = this.moving()!;
    const by = shiftKey ? 7 : 1;
    if (key === 'ArrowRight' || key === 'ArrowDown') this.carry.emit(plusDays(day, by));
    else if (key === 'ArrowLeft' || key === 'ArrowUp') this.carry.emit(plusDays(day, -by));
    else if (key === 'Enter') this.dropped.emit();
    else if (key === 'Escape') this.putBack.emit();
    else return false;
    return true;
  }

  #key({ key }: KeyboardEvent): boolean {
    const all = this.drawn();
    const i = all.findIndex(({ visit }) => visit.key === this.chosen());
    const to = (one: (typeof all)[number] | undefined): boolean => {
      if (one) this.choose.emit(one.visit.key);
      return true;
    };
    switch (key) {
      case 'ArrowRight':
        return to(all[i + 1]);
      case 'ArrowLeft':
        return to(all[i - 1]);
      case 'Home':
        return to(all[0]);
      case 'End':
        return to(all.at(-1));
      case 'ArrowDown':
      case 'ArrowUp':
        return to(this.#inLane(all[i], key === 'ArrowDown' ? 1 : -1));
      case 'Enter':
      case ' ':
        this.open.emit();
        return true;
      case 'm':
      case 'M':
        this.take.emit();
        return true;
      default:
        return false;
    }
  }

  /** The nearest in time in the next lane that has any. */
  #inLane(from: ReturnType<typeof this.drawn>[number] | undefined, by: 1 | -1) {
    if (!from) return this.drawn()[0];
    for (let lane = from.lane + by; lane >= 0 && lane < this.places().length; lane += by) {
      const here = this.drawn().filter((one) => one.lane === lane);
      if (here.length === 0) continue;
      return here.reduce((a, b) => (Math.abs(b.at - from.at) < Math.abs(a.at - from.at) ? b : a));
    }
    return undefined;
  }

  protected dragStarted(): void {
    this.#dragging.set(true);
    this.take.emit();
  }

  protected dragged({ distance }: CdkDragMove): void {
    const from = this.ring();
    if (!from) return;
    const day = this.scale().dayAt(from.at + distance.x);
    if (day !== this.moving()?.day) this.carry.emit(day);
  }

  protected dragEnded(drag: CdkDrag): void {
    drag.reset();
    this.#dragging.set(false);
  }
}
