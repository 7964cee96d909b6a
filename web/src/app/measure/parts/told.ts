import { linkedSignal, type WritableSignal } from '@angular/core';
import { convert, type Amount, type DimensionId } from '@needlecase/core';

type Amounts = Record<string, Amount>;

/** What an instrument's fields hold: what they are shown with, and what is given by now. */
export class Told {
  /** What stands in the fields; the fields follow it. */
  readonly first: WritableSignal<Amounts>;
  /** What is given, typed or told otherwise. */
  readonly given: WritableSignal<Amounts>;

  /** @param example what stands there at first */
  constructor(example: () => Amounts) {
    this.first = linkedSignal(example);
    this.given = linkedSignal(() => this.first());
  }

  /** Takes some of it from elsewhere than the fields: a drawing, a stopwatch, a test strip. */
  tell(some: Amounts): void {
    const next = { ...this.given(), ...some };
    this.first.set(next);
    this.given.set(next);
  }

  /** One of them in a unit; nothing where it is no number. */
  in(name: string, dimension: DimensionId, unit: string): number | undefined {
    const amount = this.given()[name];
    return amount && Number.isFinite(amount.value)
      ? convert(amount.value, dimension, amount.unit, unit)
      : undefined;
  }
}
