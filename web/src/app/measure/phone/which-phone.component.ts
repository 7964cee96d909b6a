import { ChangeDetectionStrategy, Component, inject, input, model } from '@angular/core';
import { ThisPhone } from './this-phone';

/** With which phone it is measured, and where it lies: figures are held against those of the same. */
@Component({
  selector: 'nc-which-phone',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="pair">
      <label for="phone-name">This phone is called</label>
      <input
        id="phone-name"
        class="form-control"
        autocomplete="off"
        maxlength="40"
        [value]="phone.name()"
        (change)="call($event)"
      />
    </div>
    @if (places().length > 1) {
      <fieldset class="places">
        <legend class="form-label">{{ asks() }}</legend>
        @for (one of places(); track one) {
          <button type="button" [attr.aria-pressed]="place() === one" (click)="place.set(one)">
            {{ one }}
          </button>
        }
      </fieldset>
    }
    <p class="soft small">
      Another phone, or another place, is another instrument: figures are held against those of the
      same.
    </p>
  `,
  styles: `
    .places {
      display: flex;
      flex-wrap: wrap;
      gap: 0.5rem;
      margin-top: 0.5rem;
    }
    .places legend {
      float: none;
      font-size: 1rem;
      margin: 0;
    }
    .places button {
      background: var(--face);
      border: 2px solid var(--edge);
      border-radius: 0.9rem;
      color: var(--ink);
      min-height: 48px;
      padding: 0.3rem 0.9rem;
    }
    .places button[aria-pressed='true'] {
      border-color: var(--ink);
      border-width: 3px;
    }
  `,
})
export class WhichPhoneComponent {
  protected readonly phone = inject(ThisPhone);
  readonly places = input<readonly string[]>([]);
  /** Before the places. */
  readonly asks = input('It lies');
  readonly place = model('');

  protected call(event: Event): void {
    const field = event.target as HTMLInputElement;
    this.phone.call(field.value);
    field.value = this.phone.name();
  }
}
