import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import {
  entryOfProduct,
  isWasher,
  PRODUCTS,
  stationsOf,
  type ChemicalEvent,
  type Machine,
  type Meeting,
  meetingsOf,
  productById,
} from '@needlecase/core';
import { ChemicalsService } from '../data/chemicals.service';
import { ToastsService } from '../data/toasts.service';

/** Notes a cleaning product that was used outside a visit, so that nothing wrong follows it. */
@Component({
  selector: 'nc-product-used',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <form (submit)="note($event)">
      <label class="form-label" for="product">Which product</label>
      <select id="product" class="form-select" (change)="product.set(valueOf($event))">
        <option value="">Choose by what the label says</option>
        @for (one of products; track one.id) {
          <option [value]="one.id" [selected]="one.id === product()">{{ one.name }}</option>
        }
      </select>
      @if (label(); as text) {
        <p class="soft small">On the label: {{ text }}.</p>
      }
      <label class="form-label" for="where">Where</label>
      <select id="where" class="form-select" (change)="station.set(valueOf($event))">
        <option value="">In the machine</option>
        @for (one of stations(); track one.id) {
          <option [value]="one.id" [selected]="one.id === station()">{{ one.name }}</option>
        }
      </select>
      @for (meeting of meets(); track meeting) {
        <p class="field-problem" role="alert">
          <strong
            >Danger: with what is still in this machine it gives {{ meeting.rule.gives }}.</strong
          >
          {{ meeting.rule.harm }} {{ meeting.rule.aid }}
        </p>
      }
      <button type="submit" class="btn btn-plain" [disabled]="!product()">
        {{ meets().length ? 'It was used all the same: note it' : 'Note it' }}
      </button>
    </form>
  `,
  styles: `
    form {
      display: grid;
      gap: 0.4rem;
      max-width: 26rem;
    }
    .btn {
      min-height: 48px;
      margin-block: 0.4rem;
    }
  `,
})
export class ProductUsedComponent {
  readonly #chemicals = inject(ChemicalsService);
  readonly #toasts = inject(ToastsService);

  readonly machine = input.required<Machine>();
  readonly present = input.required<readonly ChemicalEvent[]>();

  protected readonly products = PRODUCTS;
  protected readonly product = signal('');
  protected readonly station = signal('');
  protected readonly stations = computed(() => stationsOf(this.machine()));
  protected readonly label = computed(() => this.product() && productById(this.product()).label);
  protected readonly meets = computed<Meeting[]>(() =>
    this.product() ? meetingsOf(this.product(), this.present()).slice(0, 1) : [],
  );

  protected valueOf(event: Event): string {
    return (event.target as HTMLSelectElement).value;
  }

  protected note(event: Event): void {
    event.preventDefault();
    if (!this.product()) return;
    const machine = this.machine();
    const id = this.#chemicals.add(
      entryOfProduct(machine.id, this.product(), new Date().toISOString(), this.station()),
    );
    const until = isWasher(machine.kind) ? 'a full rinse has run' : 'it is wiped off';
    this.#toasts.show(`Noted. It counts as in the machine until ${until}.`, {
      action: { label: 'Undo', do: () => this.#chemicals.remove(id) },
    });
    this.product.set('');
  }
}
