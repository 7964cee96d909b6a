import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import type { FieldProblem, Household } from '@needlecase/core';
import type { PlanPrefs } from '@needlecase/core/model/planned';
import { wordsOf, type ApiProblem } from '../data/api.service';
import { HouseholdService } from '../data/household.service';
import { fieldsOf } from '../shared/form-of';

const WEEKDAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
/** Taken where nothing was said yet, as the server does. */
const USUAL = { weekdays: [6, 7], minutes: 60, way: 10, at: '10:00' } as const;
/** In this order days are taken where several are ticked: first Saturday, then Sunday, then evenings. */
const DEAREST = [6, 7, 2, 4, 1, 3, 5];

/** On which days visits are, how long, and who does them. */
@Component({
  selector: 'nc-wishes',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2>Days and people</h2>
    <form novalidate (submit)="keep($event)">
      <fieldset>
        <legend>On which days can somebody?</legend>
        @for (day of weekdays; track day; let i = $index) {
          <label
            ><input type="checkbox" [name]="'day-' + (i + 1)" [checked]="days().has(i + 1)" />
            {{ day }}</label
          >
        }
        @if (problemIn('plan.weekdays'); as message) {
          <span class="field-problem" role="alert">{{ message }}</span>
        }
      </fieldset>
      <p>
        <label for="nc-wish-at">Visits begin at</label>
        <input
          id="nc-wish-at"
          name="at"
          type="time"
          class="form-control"
          [value]="prefs().at ?? usual.at"
        />
      </p>
      <p>
        <label for="nc-wish-minutes">Minutes at work in one visit, at most</label>
        <input
          id="nc-wish-minutes"
          name="minutes"
          class="form-control"
          inputmode="numeric"
          [value]="opened().visitMinutes ?? usual.minutes"
        />
        @if (problemIn('visitMinutes'); as message) {
          <span class="field-problem" role="alert">{{ message }}</span>
        }
      </p>
      <p>
        <label for="nc-wish-way">Minutes to fetch things and go there</label>
        <input
          id="nc-wish-way"
          name="way"
          class="form-control"
          inputmode="numeric"
          [value]="prefs().way ?? usual.way"
        />
        @if (problemIn('plan.way'); as message) {
          <span class="field-problem" role="alert">{{ message }}</span>
        }
      </p>
      <fieldset class="people">
        <legend>Who does visits, and on which days? None ticked: any.</legend>
        @for (person of people(); track $index; let p = $index) {
          <div>
            <label class="visually-hidden" [attr.for]="'nc-wish-name-' + p">Name {{ p + 1 }}</label>
            <input
              [id]="'nc-wish-name-' + p"
              [name]="'name-' + p"
              class="form-control"
              maxlength="60"
              placeholder="A name"
              [value]="person.name"
            />
            @for (day of weekdays; track day; let i = $index) {
              <label
                ><input
                  type="checkbox"
                  [name]="'person-' + p + '-' + (i + 1)"
                  [checked]="person.weekdays?.includes(i + 1) ?? false"
                  [attr.aria-label]="(person.name || 'Person ' + (p + 1)) + ', ' + day"
                />{{ day }}</label
              >
            }
          </div>
        }
        <button type="button" class="btn btn-plain btn-sm" (click)="more()">One more</button>
      </fieldset>
      <div class="acts">
        <button class="btn btn-thread" [disabled]="busy()">Keep that</button>
        <button type="button" class="btn btn-plain" (click)="closed.emit()">Close</button>
      </div>
      @if (wrong(); as message) {
        <p class="field-problem" role="alert">{{ message }}</p>
      }
    </form>
  `,
  styles: `
    @use 'mixins' as *;

    :host {
      @include panel;
    }
    h2 {
      font-size: 1.3rem;
    }
    form {
      display: flex;
      flex-wrap: wrap;
      gap: 0.6rem 1.6rem;
    }
    form p {
      flex: 1 1 12rem;
      margin: 0;
    }
    fieldset {
      flex: 1 1 100%;
    }
    legend {
      font-size: 1rem;
      margin-bottom: 0.2rem;
    }
    fieldset label {
      align-items: center;
      display: inline-flex;
      gap: 0.3rem;
      margin-inline-end: 0.8rem;
      min-height: 2rem;
    }
    .people div {
      align-items: center;
      display: flex;
      flex-wrap: wrap;
      gap: 0 0.2rem;
      margin-bottom: 0.3rem;
    }
    .people .form-control {
      flex: 0 1 10rem;
      margin-inline-end: 0.8rem;
    }
    .acts {
      display: flex;
      flex: 1 1 100%;
      gap: 0.5rem;
    }
  `,
})
export class WishesComponent {
  readonly #service = inject(HouseholdService);
  readonly household = input.required<Household>();
  readonly closed = output<void>();
  readonly kept = output<void>();

  protected readonly weekdays = WEEKDAYS;
  protected readonly usual = USUAL;
  protected readonly busy = signal(false);
  protected readonly wrong = signal('');
  protected readonly problems = signal<readonly FieldProblem[]>([]);
  readonly #added = signal(0);

  #first: Household | undefined;
  /** As it was when this was opened: what another tab changes neither types over it, nor is lost by it. */
  protected readonly opened = computed(() => (this.#first ??= this.household()));
  protected readonly prefs = computed((): PlanPrefs => this.opened().plan ?? {});
  protected readonly days = computed(() => new Set(this.prefs().weekdays ?? USUAL.weekdays));
  protected readonly people = computed((): NonNullable<PlanPrefs['people']> => {
    const known = [...(this.prefs().people ?? [])];
    const free = Math.max(this.#added(), known.length ? 0 : 1);
    return [...known, ...Array.from({ length: free }, () => ({ name: '' }))];
  });

  protected more(): void {
    this.#added.update((n) => n + 1);
  }

  protected problemIn(field: string): string | undefined {
    return this.problems().find((one) => one.field === field)?.message;
  }

  protected keep(event: Event): void {
    const of = fieldsOf(event);
    const ticked = (prefix: string) => DEAREST.filter((day) => of(`${prefix}-${day}`) === 'on');
    const weekdays = ticked('day');
    if (weekdays.length === 0) {
      const message = 'Tick one day at least: on none, nothing can be done.';
      return this.problems.set([{ field: 'plan.weekdays', message }]);
    }
    const people = this.people().flatMap((_, p) => {
      const name = of(`name-${p}`);
      const can = ticked(`person-${p}`);
      return name ? [{ name, ...(can.length ? { weekdays: can } : {}) }] : [];
    });
    const { people: _before, ...rest } = this.prefs();
    const plan: PlanPrefs = {
      ...rest,
      weekdays,
      way: Number(of('way')),
      ...(of('at') ? { at: of('at') } : {}),
      ...(people.length ? { people } : {}),
    };
    this.busy.set(true);
    this.wrong.set('');
    this.problems.set([]);
    this.#service.change(this.opened(), { visitMinutes: Number(of('minutes')), plan }).subscribe({
      next: () => {
        this.busy.set(false);
        this.#added.set(0);
        this.kept.emit();
      },
      error: (problem: ApiProblem) => {
        this.busy.set(false);
        this.problems.set(problem.errors);
        const beside = ['plan.weekdays', 'visitMinutes', 'plan.way'];
        if (!problem.errors.some(({ field }) => beside.includes(field)))
          this.wrong.set(wordsOf(problem));
      },
    });
  }
}
