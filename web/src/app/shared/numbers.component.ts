import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { NUMBER_NAMES, rulesOf, type HouseNumber } from '@needlecase/core';
import { BenchService } from '../data/bench.service';

/** Whom to call, as this household keeps it; for an emergency what is dialled in its country. */
@Component({
  selector: 'nc-numbers',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p class="numbers">
      @for (one of numbers(); track one.id) {
        <a class="btn btn-thread" [href]="'tel:' + one.dial">{{ one.name }}: {{ one.number }}</a>
      }
      @if (missing(); as which) {
        <a class="small" routerLink="/house">Keep your own: {{ which }}</a>
      }
    </p>
  `,
  styles: `
    @use 'mixins' as *;

    .numbers {
      align-items: center;
      display: flex;
      flex-wrap: wrap;
      gap: 0.4rem 0.8rem;
      margin: 0.6rem 0;
    }

    .btn {
      @include touch;
    }
  `,
})
export class NumbersComponent {
  readonly #loaded = toSignal(inject(BenchService).bench$);
  readonly wanted = input.required<readonly HouseNumber[]>();

  readonly #kept = computed<Partial<Record<HouseNumber, string>>>(() => {
    const household = this.#loaded()?.value?.household;
    if (!household) return {};
    return { emergency: rulesOf(household).emergency, ...household.numbers };
  });
  protected readonly numbers = computed(() =>
    this.wanted().flatMap((id) => {
      const number = this.#kept()[id];
      return number
        ? [{ id, number, name: NUMBER_NAMES[id], dial: number.replaceAll(/[^0-9+]/g, '') }]
        : [];
    }),
  );
  protected readonly missing = computed(() =>
    this.wanted()
      .filter((id) => !this.#kept()[id])
      .map((id) => NUMBER_NAMES[id].toLowerCase())
      .join(', '),
  );
}
