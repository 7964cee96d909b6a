import {
  ChangeDetectionStrategy,
  Component,
  computed,
  input,
  linkedSignal,
  output,
} from '@angular/core';
import {
  CM,
  COMMON_DRUM,
  convert,
  figure,
  inUnits,
  told,
  many,
  tripsFor,
  tubLitres,
  type UnitSystem,
} from '@needlecase/core';
import { numberOf } from '../forms/number-of';

/** Counts the trays emptied, against how many there are to come by the water seen at the glass. */
@Component({
  selector: 'nc-trays',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="trays" role="group" aria-label="Trays emptied">
      <button
        type="button"
        class="btn btn-plain"
        (click)="counted.emit(step(-1))"
        aria-label="One tray less"
      >
        −
      </button>
      <span
        ><b class="figure-number">{{ trays() }}</b> trays emptied</span
      >
      <button
        type="button"
        class="btn btn-thread"
        (click)="counted.emit(step(1))"
        aria-label="One more tray"
      >
        +
      </button>
    </div>
    <div>
      <label class="form-label" for="water">
        Water at the glass before you let it out, if you saw it
      </label>
      <span class="with-unit">
        <input
          id="water"
          class="form-control"
          inputmode="decimal"
          autocomplete="off"
          [value]="typed()"
          [class.is-invalid]="wrong()"
          [attr.aria-invalid]="wrong() ? true : null"
          aria-describedby="water-said"
          (input)="type($event)"
        />
        {{ unit() }} above the drum’s lowest point
      </span>
      <p id="water-said" [class.field-problem]="wrong()" [attr.role]="wrong() ? 'alert' : 'status'">
        {{ wrong() || estimate() }}
      </p>
    </div>
  `,
  styles: `
    :host {
      display: grid;
      gap: 1rem;
    }
    .trays {
      display: flex;
      align-items: center;
      gap: 1rem;
    }
    .trays .btn {
      width: 64px;
      height: 56px;
      font-size: 1.6rem;
      line-height: 1;
    }
    .figure-number {
      font-size: 2.2rem;
    }
    .with-unit {
      display: flex;
      align-items: center;
      gap: 0.5rem;
    }
    input {
      max-width: 6rem;
      font-size: 1.3rem;
      min-height: 52px;
    }
    p {
      margin: 0.4rem 0 0;
    }
  `,
})
export class TraysComponent {
  readonly trays = input.required<number>();
  /** Water height, metres. */
  readonly height = input<number>();
  readonly units = input<UnitSystem>('metric');

  readonly counted = output<number>();
  readonly measured = output<number | undefined>();

  protected readonly unit = computed(() => (this.units() === 'us' ? 'in' : 'cm'));
  protected readonly typed = linkedSignal(() => {
    const height = this.height();
    return height === undefined
      ? ''
      : String(Math.round(convert(height, 'length', 'm', this.unit()) * 10) / 10);
  });
  protected readonly wrong = computed(() => {
    const typed = this.typed().trim();
    const most = Math.floor(convert(2 * COMMON_DRUM.radius, 'length', 'm', this.unit()));
    const value = numberOf(typed);
    return typed === '' || (value >= 0 && value <= most)
      ? ''
      : `Give a height from 0 to ${most} ${this.unit()}.`;
  });
  protected readonly estimate = computed(() => {
    const height = this.height();
    if (height === undefined) return told('A litre or so is normal; a full drum gives many trays.');
    const litres = tubLitres(height);
    const { trays, buckets } = tripsFor(litres);
    const left = trays - this.trays();
    const rest =
      this.trays() === 0
        ? ''
        : left > 0
          ? ` About ${left} to go.`
          : ' That is all of it by this estimate; a litre or so sits below the drum.';
    const { radius, depth } = COMMON_DRUM;
    const drum = `${figure(2 * radius, 'length', CM)} across, ${figure(depth, 'length', CM)} deep`;
    return inUnits(
      `About ${figure(litres / 1000, 'volume', { digits: 2 })} in a common drum (${drum}): ${many(trays, 'tray')} of ${figure(0.003, 'volume')} filled to half, or ${many(buckets, 'bucket')}.${rest}`,
      this.units(),
    );
  });

  protected step(change: 1 | -1): number {
    return Math.min(200, Math.max(0, this.trays() + change));
  }

  protected type(event: Event): void {
    this.typed.set((event.target as HTMLInputElement).value);
    if (this.wrong()) return;
    const typed = this.typed().trim();
    this.measured.emit(
      typed === '' ? undefined : convert(numberOf(typed), 'length', this.unit(), 'm'),
    );
  }
}
