import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  input,
  output,
  signal,
  type Signal,
  untracked,
  viewChild,
  type WritableSignal,
} from '@angular/core';
import { many, plusDays, type Day, type FieldProblem } from '@needlecase/core';
import type { PlannedChange } from '@needlecase/core/model/planned';
import type { PlannedTaskView } from '@needlecase/core/views/plan';
import { fieldsOf } from '../shared/form-of';
import type { Effect, Moving } from './moving';
import { sayHours, sayLong, sayShort, type ShownVisit } from './shown';
import { StitchComponent } from '../thread/stitch.component';

/** One visit of the year ahead, opened: what there is to do, and what can be laid down of it by hand. */
@Component({
  selector: 'nc-visit-card',
  imports: [StitchComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './visit-card.component.html',
  styleUrl: './visit-card.component.scss',
  host: { '(document:focusin)': 'focused($event)' },
})
export class VisitCardComponent {
  readonly visit = input.required<ShownVisit>();
  /** As it is now, also between two taps that come faster than the page is drawn. */
  readonly movingNow = input.required<Signal<Moving | undefined>>();
  protected readonly moving = computed(() => this.movingNow()());
  readonly effect = input<Effect>();
  readonly people = input<readonly string[]>([]);
  readonly today = input.required<Day>();
  readonly end = input.required<Day>();
  readonly busy = input(false);
  /** What the server said of the last change. */
  readonly problems = input<readonly FieldProblem[]>([]);
  /** Somebody may change it. */
  readonly changeable = input(true);

  readonly begin = output<void>();
  readonly take = output<void>();
  readonly carry = output<Day>();
  readonly dropped = output<void>();
  readonly putBack = output<void>();
  readonly changed = output<PlannedChange>();
  /** What was refused is meant all the same. */
  readonly insist = output<void>();
  readonly letGo = output<void>();

  protected readonly leaving = signal(false);
  protected readonly giving = signal(false);
  /** Who and when, as it was when somebody began to type: what another tab changes does not type over it. */
  protected readonly atFirst = signal<{ who: string; day: Day }>({ who: '', day: '' });
  protected readonly parting = signal(false);
  protected readonly more = signal(false);
  protected readonly chosen = signal<ReadonlySet<string>>(new Set());
  protected readonly heading = viewChild<ElementRef<HTMLElement>>('heading');

  readonly #host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  /** The focus is in here, or was before it lost its place. */
  #inside = false;

  protected readonly sayLong = sayLong;
  protected readonly sayShort = sayShort;
  protected readonly sayHours = sayHours;
  protected readonly many = many;

  protected readonly planned = computed(() => this.visit().planned);
  protected readonly aside = computed(
    () => this.planned()?.done ?? this.planned()?.skipped !== undefined,
  );
  protected readonly doubt = computed(() =>
    this.problems().find(({ field }) => field === 'acknowledged'),
  );
  protected readonly wrong = computed(() =>
    this.problems().filter(({ field }) => field !== 'acknowledged'),
  );

  constructor() {
    let key = '';
    effect(() => {
      const visit = this.visit();
      if (visit.key !== key) untracked(() => this.#close());
      key = visit.key;
      this.moving();
      // What had the focus may be gone with what was shown.
      if (this.#inside) setTimeout(() => document.activeElement === document.body && this.focus());
    });
  }

  focus(): void {
    this.heading()?.nativeElement.focus();
  }

  /** Shows more, and goes to the first of it. */
  protected show(what: WritableSignal<boolean>): void {
    const { who = '', day } = this.visit();
    this.atFirst.set({ who, day });
    what.set(true);
    setTimeout(() => this.#host.querySelector<HTMLElement>('[data-first]')?.focus());
  }

  /** Shows less, and goes back to the top. */
  protected hide(what: WritableSignal<boolean>): void {
    what.set(false);
    setTimeout(() => this.focus());
  }

  protected focused({ target }: FocusEvent): void {
    this.#inside = this.#host.contains(target as Node);
  }

  protected key({ machineId, task }: PlannedTaskView): string {
    return `${machineId}/${task}`;
  }

  protected pick(task: PlannedTaskView): void {
    this.chosen.update((chosen) => {
      const next = new Set(chosen);
      if (!next.delete(this.key(task))) next.add(this.key(task));
      return next;
    });
  }

  protected carryTo({ target }: Event): void {
    const { value } = target as HTMLInputElement;
    if (/^\d{4}-\d\d-\d\d$/.test(value)) this.carry.emit(value);
  }

  protected byDays(days: number): void {
    this.carry.emit(plusDays(this.moving()!.day, days));
  }

  protected give(event: Event): void {
    const who = fieldsOf(event)('who');
    this.giving.set(false);
    this.changed.emit({ who });
  }

  protected leave(event: Event): void {
    const skipped = fieldsOf(event)('why');
    if (skipped) this.changed.emit({ skipped });
  }

  protected part(event: Event): void {
    const day = fieldsOf(event)('day');
    const tasks = this.visit()
      .tasks.filter((task) => this.chosen().has(this.key(task)))
      .map(({ machineId, task }) => ({ machineId, task }));
    if (tasks.length && day) this.changed.emit({ tasks, day });
  }

  #close(): void {
    this.leaving.set(false);
    this.giving.set(false);
    this.parting.set(false);
    this.more.set(false);
    this.chosen.set(new Set());
  }
}
