import { ChangeDetectionStrategy, Component, inject, input, output, signal } from '@angular/core';
import type { Day, FieldProblem } from '@needlecase/core';
import type { Absence } from '@needlecase/core/model/planned';
import type { AwayVisit } from '@needlecase/core/plan/away-visits';
import type { ApiProblem } from '../data/api.service';
import { newId } from '../data/platform';
import { PlanService } from '../data/plan.service';
import { fieldsOf } from '../shared/form-of';
import { sayLong, sayShort } from './shown';

/** When nobody is at home: no loads, no visits; and what is done before going and on coming back. */
@Component({
  selector: 'nc-away',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 id="nc-away-title">When we are away</h2>
    <ul class="spans">
      @for (span of absences(); track span.id) {
        <li>
          <span
            ><b>{{ sayShort(span.from) }} to {{ sayShort(span.to) }}</b> {{ span.note }}</span
          >
          <button
            type="button"
            class="btn btn-plain btn-sm"
            [attr.aria-label]="'Take away: ' + sayShort(span.from)"
            (click)="remove(span)"
          >
            Take away
          </button>
        </li>
      } @empty {
        <li class="soft">
          Nobody is away yet. Loads are not counted then, and no visit falls on these days.
        </li>
      }
    </ul>
    <form (submit)="add($event)">
      <p>
        <label for="nc-away-from">First day away</label>
        <input
          id="nc-away-from"
          name="from"
          type="date"
          class="form-control"
          [min]="start()"
          [attr.aria-describedby]="wrongIn('from') ? 'nc-away-from-wrong' : null"
        />
        @if (wrongIn('from'); as message) {
          <span id="nc-away-from-wrong" class="field-problem" role="alert">{{ message }}</span>
        }
      </p>
      <p>
        <label for="nc-away-to">Last day away</label>
        <input
          id="nc-away-to"
          name="to"
          type="date"
          class="form-control"
          [min]="start()"
          [attr.aria-describedby]="wrongIn('to') ? 'nc-away-to-wrong' : null"
        />
        @if (wrongIn('to'); as message) {
          <span id="nc-away-to-wrong" class="field-problem" role="alert">{{ message }}</span>
        }
      </p>
      <p>
        <label for="nc-away-note">What for (if you like)</label>
        <input id="nc-away-note" name="note" class="form-control" maxlength="80" />
      </p>
      <button class="btn btn-thread" [disabled]="busy()">We are away then</button>
      <button type="button" class="btn btn-plain" (click)="closed.emit()">Close</button>
      @if (wrongIn(''); as message) {
        <p class="field-problem" role="alert">{{ message }}</p>
      }
    </form>
    @for (visit of visits(); track visit.day + visit.kind) {
      <details>
        <summary>
          {{ sayLong(visit.day) }}: {{ visit.kind === 'before' ? 'before you go' : 'back home' }},
          {{ visit.minutes }} min
        </summary>
        <ul>
          @for (what of visit.todo; track what) {
            <li>{{ what }}</li>
          }
        </ul>
      </details>
    }
  `,
  styles: `
    @use 'mixins' as *;

    :host {
      @include panel;
    }
    h2 {
      font-size: 1.3rem;
    }
    .spans {
      list-style: none;
      padding: 0;
    }
    .spans li {
      align-items: center;
      display: flex;
      gap: 1rem;
      min-height: 2.4rem;
    }
    form {
      align-items: flex-start;
      display: flex;
      flex-wrap: wrap;
      gap: 0.8rem;
    }
    form p {
      flex: 0 1 13rem;
      margin: 0;
    }
    form .btn {
      margin-top: 1.55rem;
    }
    details {
      margin-top: 0.6rem;
    }
  `,
})
export class AwayComponent {
  readonly #service = inject(PlanService);

  readonly absences = input.required<readonly Absence[]>();
  readonly visits = input.required<readonly AwayVisit[]>();
  readonly start = input.required<Day>();
  readonly closed = output<void>();

  protected readonly busy = signal(false);
  protected readonly problems = signal<readonly FieldProblem[]>([]);
  protected readonly sayShort = sayShort;
  protected readonly sayLong = sayLong;
  /** The same until it went well: sent twice, it is one. */
  #key = newId();

  protected wrongIn(field: string): string | undefined {
    return this.problems().find((one) => one.field === field)?.message;
  }

  protected add(event: Event): void {
    const form = event.target as HTMLFormElement;
    const of = fieldsOf(event);
    const [from, to, note] = [of('from'), of('to'), of('note')];
    if (!from || !to) {
      const message = 'Say a day.';
      return this.problems.set([
        ...(from ? [] : [{ field: 'from', message }]),
        ...(to ? [] : [{ field: 'to', message }]),
      ]);
    }
    this.busy.set(true);
    this.#service.addAway({ from, to, ...(note ? { note } : {}) }, this.#key).subscribe({
      next: () => {
        this.#key = newId();
        form.reset();
        this.#over();
      },
      error: (problem: ApiProblem) => this.#failed(problem),
    });
  }

  protected remove(span: Absence): void {
    this.#service.removeAway(span).subscribe({
      next: () => this.#over(),
      error: (problem: ApiProblem) => this.#failed(problem),
    });
  }

  #over(): void {
    this.busy.set(false);
    this.problems.set([]);
    this.#service.refresh();
  }

  #failed(problem: ApiProblem): void {
    this.busy.set(false);
    // Refused, it is another deed the next time.
    if (problem.errors.length) this.#key = newId();
    this.problems.set(
      problem.errors.length
        ? problem.errors
        : [{ field: '', message: `${problem.title} ${problem.detail}` }],
    );
  }
}
