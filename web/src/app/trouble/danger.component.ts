import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { PLACE_NAMES, type Household, type StopRule } from '@needlecase/core';
import { NumbersComponent } from '../shared/numbers.component';

/** What to do now where something can hurt somebody: before anything else, and nothing beside it. */
@Component({
  selector: 'nc-danger',
  imports: [NumbersComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section role="alert">
      @for (rule of rules(); track rule.id) {
        <h2>{{ rule.say }}</h2>
        <p class="do">{{ rule.now }}</p>
        <p>
          <strong>{{ rule.call }}</strong>
        </p>
        @if (rule.calls; as calls) {
          <nc-numbers [wanted]="calls" />
        }
        @for (place of placesFor(rule); track place.name) {
          <p>
            <strong>{{ place.name }}:</strong> {{ place.where }}
          </p>
        }
      }
      @for (rule of rules(); track rule.id) {
        @if (rule.then; as onward) {
          <button type="button" class="btn btn-thread" (click)="goOn.emit(onward.finding)">
            {{ onward.say }}
          </button>
        }
      }
      <button type="button" class="btn btn-plain" (click)="over.emit()">
        It is over, or it was a slip
      </button>
      <ng-content />
    </section>
  `,
  styles: `
    section {
      background: var(--face);
      border: 3px solid var(--due);
      border-radius: 0.9rem;
      max-width: 46rem;
      padding: 0.8rem 1rem;
    }
    h2 {
      font-size: 1.3rem;
      margin-top: 0;
    }
    .do {
      font-size: 1.25rem;
    }
    .btn {
      margin: 0.2rem 0.4rem 0 0;
      min-height: 52px;
    }
  `,
})
export class DangerComponent {
  readonly rules = input.required<readonly StopRule[]>();
  readonly household = input<Pick<Household, 'places'>>();
  readonly over = output();
  /** The symptom with which the case goes on. */
  readonly goOn = output<string>();

  /** Where this house has what a stop rule shuts off. Outside a house that smells of gas nobody looks for a valve. */
  protected placesFor({ id, shuts = [] }: StopRule): { name: string; where: string }[] {
    const places = this.household()?.places ?? {};
    return shuts.flatMap((one) => {
      const where = places[one];
      if (!where) return [];
      const name =
        id === 'gas-smell' ? `${PLACE_NAMES[one]}, for the gas service` : PLACE_NAMES[one];
      return [{ name, where }];
    });
  }
}
