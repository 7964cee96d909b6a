import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import {
  entryOfProduct,
  isWasher,
  PRODUCTS,
  stationById,
  stationsOf,
  type ChemicalEvent,
  type Machine,
  type Meeting,
  meetingsOf,
  productById,
} from '@needlecase/core';
import { ChemicalsService } from '../data/chemicals.service';
import { ToastsService } from '../data/toasts.service';
import { NumbersComponent } from '../shared/numbers.component';
import { SelectComponent } from '../shared/select.component';
import { instantNow } from '../data/clock';

/** Notes a cleaning product that was used outside a visit, so that nothing wrong follows it. */
@Component({
  selector: 'nc-product-used',
  imports: [NumbersComponent, SelectComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <form (submit)="note($event)">
      <label class="form-label" for="product">Which product</label>
      <select
        nc-select
        id="product"
        [options]="products"
        [(chosen)]="product"
        [say]="sayProduct"
      ></select>
      @if (label(); as text) {
        <p class="soft small">On the label: {{ text }}.</p>
      }
      @if (care(); as text) {
        <p class="small">{{ text }}</p>
      }
      <label class="form-label" for="where">Where</label>
      <select
        nc-select
        id="where"
        [options]="places()"
        [(chosen)]="station"
        [say]="sayPlace"
      ></select>
      @for (meeting of meets(); track meeting) {
        <p class="field-problem" role="alert">
          <strong
            >Danger: with what is still in this machine it gives {{ meeting.rule.gives }}.</strong
          >
          {{ meeting.rule.harm }} {{ meeting.rule.aid }}
        </p>
      }
      @if (meets().length) {
        <nc-numbers [wanted]="['poison', 'emergency']" />
      }
      <button type="submit" class="btn btn-plain" [disabled]="!product()">
        {{ meets().length ? 'It was used all the same: note it' : 'Note it' }}
      </button>
    </form>
  `,
  styles: `
    @use 'mixins' as *;

    form {
      display: grid;
      gap: 0.4rem;
      max-width: 26rem;
    }
    .btn {
      @include touch;
      margin-block: 0.4rem;
    }
  `,
})
export class ProductUsedComponent {
  readonly #chemicals = inject(ChemicalsService);
  readonly #toasts = inject(ToastsService);

  readonly machine = input.required<Machine>();
  readonly present = input.required<readonly ChemicalEvent[]>();

  protected readonly products = ['', ...PRODUCTS.map(({ id }) => id)];
  protected readonly sayProduct = (id: string): string =>
    id === '' ? 'Choose by what the label says' : productById(id).name;
  protected readonly product = signal('');
  protected readonly station = signal('');
  protected readonly places = computed(() => [
    '',
    ...stationsOf(this.machine()).map(({ id }) => id),
  ]);
  protected readonly sayPlace = (id: string): string =>
    id === '' ? 'In the machine' : stationById(id).name;
  protected readonly care = computed(() => {
    const id = this.product();
    return id ? productById(id).care : undefined;
  });
  protected readonly label = computed(() => this.product() && productById(this.product()).label);
  protected readonly meets = computed<Meeting[]>(() =>
    this.product() ? meetingsOf(this.product(), this.present()).slice(0, 1) : [],
  );

  protected note(event: Event): void {
    event.preventDefault();
    if (!this.product()) return;
    const machine = this.machine();
    const id = this.#chemicals.add(
      entryOfProduct(machine.id, this.product(), instantNow(), this.station()),
    );
    const until = isWasher(machine.kind) ? 'a full rinse has run' : 'it is wiped off';
    this.#toasts.show(`Noted. It counts as in the machine until ${until}.`, {
      action: { label: 'Undo', do: () => this.#chemicals.remove(id) },
    });
    this.product.set('');
  }
}
