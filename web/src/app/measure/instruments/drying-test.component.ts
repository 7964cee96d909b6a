import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import {
  convert,
  DRYING_FIELDS,
  dryingTest,
  isWasher,
  LOAD_CLASSES,
  say,
  type Amount,
} from '@needlecase/core';
import { DryingGuideComponent, type Told } from '../parts/drying-guide.component';
import { ReadableDirective } from '../../charts/readable.directive';
import { FiguresComponent } from '../parts/figures.component';
import { InstrumentComponent } from '../parts/instrument.component';
import { Measuring } from '../parts/measuring';
import { SelectComponent } from '../../shared/select.component';
import { SPINS, saySpin } from '../parts/spins';

const EMPTY_BARS = [
  { name: 'before', x: 190, dry: 0, water: 0, said: '' },
  { name: 'after', x: 400, dry: 0, water: 0, said: '' },
];

/** A weighed load: was it slow, or just wet? */
@Component({
  selector: 'nc-drying-test',
  imports: [
    ReadableDirective,
    DryingGuideComponent,
    FiguresComponent,
    InstrumentComponent,
    RouterLink,
    SelectComponent,
  ],
  providers: [Measuring],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <nc-instrument
      lead="Was it slow, or was there just more water to dry?"
      keep="Keep the minutes of a usual load"
      [working]="result().value?.working ?? []"
      [ready]="result().value !== undefined"
      (save)="save()"
    >
      <svg
        ncReadable
        draws
        viewBox="0 0 600 220"
        class="drawing"
        role="img"
        aria-label="Cloth and water in the load, before and after"
      >
        @for (bar of bars(); track bar.name) {
          <rect
            class="cloth"
            [attr.x]="bar.x"
            [attr.y]="190 - bar.dry"
            width="90"
            [attr.height]="bar.dry"
          />
          <rect
            class="water-fill"
            [attr.x]="bar.x"
            [attr.y]="190 - bar.dry - bar.water"
            width="90"
            [attr.height]="bar.water"
          />
          <text [attr.x]="bar.x + 45" y="210" text-anchor="middle">{{ bar.name }}</text>
          @if (bar.said) {
            <text [attr.x]="bar.x + 45" [attr.y]="182 - bar.dry - bar.water" text-anchor="middle">
              {{ bar.said }}
            </text>
          } @else {
            <rect class="wall" [attr.x]="bar.x" y="40" width="90" height="150" />
            <text class="unknown" [attr.x]="bar.x + 45" y="128" text-anchor="middle">?</text>
          }
        }
        @if (expected(); as line) {
          <path class="bad" stroke-dasharray="6 5" [attr.d]="'M176 ' + line + 'h108'" />
          <text x="292" [attr.y]="line + 5">the spin’s</text>
        }
      </svg>
      <div form>
        <div class="ways">
          @for (one of ways; track one.id) {
            <button
              type="button"
              class="choice"
              [attr.aria-pressed]="way() === one.id"
              (click)="turn(one.id)"
            >
              {{ one.say }}
            </button>
          }
        </div>
        @if (way() === 'guide') {
          <nc-drying-guide
            [machineId]="measuring.machineId()"
            [units]="measuring.units()"
            (told)="follow($event)"
          />
        } @else {
          <fieldset class="choices">
            <legend>No dry weight? Take a class</legend>
            @for (one of classes; track one.id) {
              <button
                type="button"
                class="choice"
                [attr.aria-pressed]="chosen() === one.id"
                (click)="take(one.id, one.dry)"
              >
                {{ one.say }}
              </button>
            }
          </fieldset>
          <nc-figures
            [fields]="fields"
            [units]="measuring.units()"
            [first]="first()"
            [problems]="result().problems"
            (given)="given.set($event)"
          />
          <div class="pair">
            <label for="spin">The washer’s spin before</label>
            <select
              nc-select
              id="spin"
              [options]="spins"
              [(chosen)]="spin"
              [say]="saySpin"
            ></select>
          </div>
        }
      </div>
      @if (result().value; as r) {
        <div class="numbers">
          <div>
            <b>{{ round(r.normalised) }} min</b> for a usual load
          </div>
          <div>
            <b>{{ round(60000 * r.rate) }} g</b> water a minute
          </div>
          <div>
            <b>{{ round(100 * r.moisture.before) }} %</b> moisture before
          </div>
          @if (r.energyPerKg !== undefined) {
            <div>
              <b>{{ r.energyPerKg.toFixed(2) }} kWh</b> a kg of water
            </div>
          }
        </div>
        @if (r.fault === 'washer') {
          <p class="warn">
            The load came out wetter than that spin should leave it: the washer is to blame, not the
            dryer.
            <a routerLink="/trouble" [queryParams]="{ machine: washer() }"
              >Look for it at the washer</a
            >
          </p>
        } @else if (!r.dryEnough) {
          <p class="warn">Still damp: the load had more than 5 % moisture when it came out.</p>
        } @else {
          <p class="verdict">
            Dry. Compare the {{ round(r.normalised) }} min with what was before.
          </p>
        }
        @if (past().length) {
          <p class="soft small">Before: {{ past().join(', ') }} min.</p>
        }
      } @else {
        <p class="soft">
          With three weights and the time it tells the water that went out, and how long a usual
          load would have taken: a big or wet load then does not look like a fault.
        </p>
      }
    </nc-instrument>
  `,
  styleUrl: './instruments.scss',
})
export default class DryingTestComponent {
  protected readonly measuring = inject(Measuring);
  protected readonly fields = DRYING_FIELDS;
  protected readonly ways = [
    { id: 'guide', say: 'Step by step' },
    { id: 'all', say: 'I have all figures' },
  ] as const;
  protected readonly way = signal<'guide' | 'all'>('guide');
  protected readonly classes = LOAD_CLASSES;
  protected readonly spins = SPINS;
  protected readonly saySpin = saySpin;
  protected readonly spin = signal<number | undefined>(undefined);
  protected readonly chosen = signal('');
  protected readonly first = signal<Record<string, Amount>>({});
  protected readonly given = signal<Record<string, Amount>>({});
  protected readonly result = computed(() =>
    this.measuring.attempt(() => dryingTest(this.given(), this.spin())),
  );
  /** The washer that stands by this dryer. */
  protected readonly washer = computed(() => {
    const all = this.measuring.bench()?.machines ?? [];
    const place = this.measuring.machine()?.place;
    return all.find((one) => isWasher(one.kind) && one.place === place)?.id;
  });
  protected readonly past = computed(() =>
    (this.measuring.figures()['drying-minutes'] ?? []).slice(0, 5).map(({ value }) => value),
  );
  readonly #dry = computed(() => this.#kg('dry'));
  readonly #scale = computed(() => 145 / Math.max(this.#kg('wet'), this.#dry(), 0.1));
  protected readonly bars = computed(() => {
    const r = this.result().value;
    if (!r) return EMPTY_BARS;
    const dry = this.#dry() * this.#scale();
    const water = (share: number) => Math.max(0, share) * dry;
    const units = this.measuring.units();
    const kg = (share: number) => say(Math.max(0, share) * this.#dry(), 'mass', units);
    return [
      {
        name: 'before',
        x: 190,
        dry,
        water: water(r.moisture.before),
        said: `${kg(r.moisture.before)} of water`,
      },
      {
        name: 'after',
        x: 400,
        dry,
        water: water(r.moisture.after),
        said: `${kg(r.moisture.after)} left`,
      },
    ];
  });
  protected readonly expected = computed(() => {
    const expected = this.result().value?.expected;
    return expected === undefined ? undefined : 190 - this.#dry() * this.#scale() * (1 + expected);
  });
  protected readonly round = Math.round;

  protected turn(way: 'guide' | 'all'): void {
    this.first.set(this.given());
    this.way.set(way);
  }

  protected follow({ given, spin }: Told): void {
    this.given.set(given);
    this.spin.set(spin);
  }

  protected take(id: string, kg: number): void {
    this.chosen.set(id);
    const dry = { value: kg, unit: 'kg' };
    this.first.set({ ...this.given(), dry });
    this.given.update((given) => ({ ...given, dry }));
  }

  protected save(): void {
    const minutes = this.result().value?.normalised;
    if (minutes === undefined) return;
    void this.measuring.save({
      kind: 'reading',
      quantity: 'drying-minutes',
      value: Math.round(minutes),
      unit: 'min',
    });
  }

  #kg(name: 'dry' | 'wet'): number {
    const amount = this.given()[name];
    return amount && Number.isFinite(amount.value)
      ? convert(amount.value, 'mass', amount.unit, 'kg')
      : 0;
  }
}
