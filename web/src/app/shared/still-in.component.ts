import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import {
  FORBIDDEN,
  ruleOf,
  told,
  sayProduct,
  stationById,
  type Active,
  type ChemicalEvent,
} from '@needlecase/core';
import { sayWhen } from './say-when';

/** What was put into a machine and not rinsed out yet, and what must not follow it. */
@Component({
  selector: 'nc-still-in',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (present().length) {
      <div class="still">
        <p>
          <strong
            >{{ dryer() ? 'Not wiped out of' : 'Not rinsed out of' }} {{ machine() }} yet:</strong
          >
          @for (one of said(); track one.id) {
            {{ one.text }}{{ $last ? '.' : ';' }}
          }
          @if (never(); as list) {
            Until then nothing with {{ list }} goes in.
          }
        </p>
        @if (hindered(); as why) {
          <p class="not-yet">No rinse can run yet: {{ why }}.</p>
        } @else {
          <button type="button" class="btn btn-plain" (click)="rinsed.emit()">
            {{ rinseWords() }}
          </button>
        }
      </div>
    }
  `,
  styles: `
    @use 'mixins' as *;

    .still {
      border: 2px solid var(--due);
      border-radius: 0.9rem;
      background: var(--face);
      padding: 0.7rem 0.9rem;
      margin-block: 0.6rem;
      max-width: 46rem;
    }
    p {
      margin-block-end: 0.6rem;
    }
    .btn {
      @include touch;
    }
  `,
})
export class StillInComponent {
  readonly machine = input.required<string>();
  readonly present = input.required<readonly ChemicalEvent[]>();
  /** A dryer is wiped, not rinsed. */
  readonly dryer = input(false);
  /** Why no rinse can have run. */
  readonly hindered = input('');
  readonly rinsed = output<void>();

  protected readonly rinseWords = computed(() =>
    this.dryer() ? 'It is wiped off with clear water and dry' : 'A full rinse has run to its end',
  );

  protected readonly said = computed(() =>
    this.present().map(({ entryId, product, station, at }) => ({
      id: entryId,
      text: `${sayProduct(product)}${station ? ` (${stationById(station).name.toLowerCase()})` : ''}, ${sayWhen(at)}`,
    })),
  );
  /** What must not meet it, in words; empty where nothing is forbidden. */
  protected readonly never = computed(() => {
    const there = this.present().flatMap(({ actives }) => actives);
    const others = FORBIDDEN.flatMap(({ pair }) => pair).filter((active) =>
      there.some((one) => ruleOf(one, active)),
    );
    return [...new Set(others.map((active) => told(SHORT[active])))]
      .join(', ')
      .replace(/, ([^,]*)$/, ' or $1');
  });
}

const SHORT: Record<Active, string> = {
  hypochlorite: 'chlorine bleach',
  'acetic-acid': 'vinegar',
  acid: 'other acids',
  ammonia: 'ammonia',
  alcohol: 'alcohol',
  acetone: 'acetone',
  peroxide: 'oxygen bleach',
  quat: 'hygiene rinse',
  dithionite: 'colour-run remover',
  unknown: 'anything unknown',
};
