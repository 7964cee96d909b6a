import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  linkedSignal,
  signal,
} from '@angular/core';
import {
  ACTIVE_NAMES,
  FORBIDDEN,
  mixSequence,
  RECIPES,
  VINEGAR_SODA_FIELDS,
  vinegarAndSoda,
  type Amount,
  type PlannedMix,
  type Recipe,
  inUnits,
  figure,
} from '@needlecase/core';
import { FiguresComponent } from '../parts/figures.component';
import { InstrumentComponent } from '../parts/instrument.component';
import { lookNear } from '../../data/near';
import { Measuring } from '../parts/measuring';

const FIRST: Record<string, Amount> = {
  vinegar: { value: 473, unit: 'ml' },
  strength: { value: 5, unit: '%' },
  soda: { value: 473, unit: 'ml' },
};

/** Recipes with their reason and school; what vinegar and soda do to each other; what must never meet. */
@Component({
  selector: 'nc-mix',
  imports: [FiguresComponent, InstrumentComponent],
  providers: [Measuring],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <nc-instrument
      lead="Follow your machine’s manual first. Put recipes in the order you want to use them, over days if you like: the guard says where a full rinse has to come between."
      [working]="result().value?.working ?? []"
    >
      <div form>
        <h2>Recipes</h2>
        @for (one of recipes; track one.id) {
          <details class="recipe">
            <summary>
              {{ one.name }} <span class="soft small">for {{ one.for }}</span>
            </summary>
            <ul>
              @for (part of one.parts; track part.what) {
                <li>{{ amount(part) }} {{ part.what }}</li>
              }
            </ul>
            <p class="small">
              Where: {{ one.where }}. {{ one.programme }}. Afterwards:
              {{ one.rinse === 'full' ? 'a full rinse' : 'rinse the part' }}.
            </p>
            <p class="small">
              {{ one.reason }} <span class="soft">Who says so: {{ one.school }}.</span>
            </p>
          </details>
          <button
            type="button"
            class="btn btn-plain"
            [attr.aria-label]="'Use next: ' + one.name"
            (click)="use(one)"
          >
            Use it next
          </button>
        }
      </div>
      <h2>In this order</h2>
      <ol class="order" aria-live="polite">
        @for (step of sequence(); track $index) {
          <li [class.stopped]="step.wrong">
            {{ step.name }}
            @if (step.wrong; as wrong) {
              <p class="warn" role="alert">{{ wrong }}</p>
            }
          </li>
        } @empty {
          <li class="soft">Nothing yet: use a recipe.</li>
        }
      </ol>
      @if (sequence().length) {
        <div class="row">
          <button type="button" class="btn btn-plain" (click)="rinse()">
            A full rinse comes next
          </button>
          <button type="button" class="btn btn-link" (click)="chosen.set([])">Begin anew</button>
        </div>
      }
      <h2>Vinegar and baking soda together</h2>
      <nc-figures
        [fields]="fields"
        [units]="measuring.units()"
        [first]="first()"
        [problems]="result().problems"
        (given)="given.set($event)"
      />
      @if (result().value; as r) {
        <div class="numbers">
          <div>
            <b>{{ round(r.dissolves) }} g</b> of scale, at most, it still dissolves
          </div>
          <div>
            <b>{{ r.alone.toFixed(1) }} g</b> the vinegar alone would
          </div>
          <div>
            <b>{{ gas() }}</b> of gas, that is the fizz
          </div>
          <div>
            <b>{{ round(r.left.soda) }} g</b> of soda left over
          </div>
        </div>
        <p>{{ r.say }}</p>
      }
      <section wide>
        <h2>What must never meet</h2>
        <div class="scroll" tabindex="0" role="region" aria-label="What must never meet">
          <table>
            <thead>
              <tr>
                <th scope="col">This</th>
                <th scope="col">with this</th>
                <th scope="col">gives</th>
                <th scope="col">Source</th>
              </tr>
            </thead>
            <tbody>
              @for (one of forbidden; track $index) {
                <tr>
                  <td>{{ names[one.pair[0]] }}</td>
                  <td>{{ names[one.pair[1]] }}</td>
                  <td>
                    <b>{{ one.gives }}</b>. {{ one.harm }}
                  </td>
                  <td class="soft small">{{ withoutMemory(one.source) }}</td>
                </tr>
              }
            </tbody>
          </table>
          <p class="soft small">
            Sources are named from memory; the label and the safety data sheet come first.
          </p>
        </div>
      </section>
    </nc-instrument>
  `,
  styles: `
    @use 'mixins' as *;

    h2 {
      font-size: 1.25rem;
      margin-top: 0.8rem;
    }
    .recipe summary {
      cursor: pointer;
      font-weight: 600;
      padding-block: 0.5rem;
    }
    .order {
      padding-left: 1.4rem;
    }
    .order li {
      padding-block: 0.25rem;
    }
    .stopped {
      color: var(--due);
      font-weight: 600;
    }
    .scroll {
      overflow-x: auto;
    }
    td {
      vertical-align: top;
    }
    @media (max-width: 600px) {
      thead {
        display: none;
      }
      tr {
        @include seam(bottom, 1px);
        display: grid;
        grid-template-columns: 1fr 1fr;
        padding-block: 0.4rem;
      }
      td {
        border: 0;
        padding: 0.1rem 0.5rem 0.1rem 0;
      }
      td:nth-child(1),
      td:nth-child(2) {
        font-weight: 600;
      }
      td:nth-child(2)::before {
        content: 'with ';
        font-weight: 400;
      }
      td:nth-child(n + 3) {
        grid-column: 1 / -1;
      }
    }
  `,
  styleUrl: './instruments.scss',
})
export default class MixComponent {
  /** That sources are from memory is said once, below them. */
  protected withoutMemory(source: string): string {
    return source.replace(/ \((?:both )?from memory\)/g, '');
  }
  protected readonly measuring = inject(Measuring);
  protected readonly recipes = RECIPES;
  protected readonly forbidden = FORBIDDEN;
  protected readonly names = ACTIVE_NAMES;
  protected readonly fields = VINEGAR_SODA_FIELDS;
  protected readonly first = computed(() => this.measuring.example(FIRST, this.fields));
  protected readonly given = linkedSignal(() => this.first());
  protected readonly result = computed(() =>
    this.measuring.attempt(() => vinegarAndSoda(this.given())),
  );
  protected readonly gas = computed(() =>
    inUnits(
      figure((this.result().value?.made.gasLitres ?? 0) / 1000, 'volume', { digits: 2 }),
      this.measuring.units(),
    ),
  );
  protected readonly chosen = signal<readonly PlannedMix[]>([]);
  /** What is still in the machine, by its record, and then each step in turn. */
  protected readonly sequence = computed(() => {
    const record = this.measuring
      .bench()
      ?.states.find(({ machineId }) => machineId === this.measuring.machineId());
    const steps = mixSequence(this.chosen(), record?.chemicals.events ?? [], Date.now());
    return steps.map(({ name, meets }) => ({
      name,
      wrong: meets
        ? `Stop: ${meets.rule.gives}. ${meets.rule.harm} A full rinse has to come before it. ${meets.rule.aid}`
        : '',
    }));
  });
  protected readonly round = Math.round;

  constructor() {
    // What is still in a machine is told with its section.
    lookNear(this.measuring.machineId);
  }

  protected amount({ ml, g, scaled }: Recipe['parts'][number]): string {
    // A top loader holds twice the water.
    const times = scaled && this.measuring.machine()?.kind === 'top-load-washer' ? 2 : 1;
    if (g !== undefined) return `${g} g`;
    return ml === undefined ? '' : `${ml * times} ml`;
  }

  protected use(recipe: Recipe): void {
    this.chosen.update((all) => [...all, recipe]);
  }

  protected rinse(): void {
    this.chosen.update((all) => [...all, 'rinse']);
  }
}
