import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import {
  CM,
  COMMON_DRUM,
  figure,
  inUnits,
  say,
  TUB_FIELDS,
  tubWater,
  type Amount,
} from '@needlecase/core';
import { sameData } from '../../data/same-data';
import { DrumComponent } from '../parts/drum.component';
import { FiguresComponent } from '../parts/figures.component';
import { InstrumentComponent } from '../parts/instrument.component';
import { Measuring } from '../parts/measuring';
import { Told } from '../parts/told';

const FIRST: Record<string, Amount> = {
  height: { value: 15, unit: 'cm' },
  radius: { value: 26, unit: 'cm' },
  depth: { value: 35, unit: 'cm' },
};
const MOST_TRAYS = 40;

/** Water behind the glass: litres, trays, minutes. */
@Component({
  selector: 'nc-tub-water',
  imports: [DrumComponent, FiguresComponent, InstrumentComponent],
  providers: [Measuring],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <nc-instrument
      lead="Hold a rule to the glass: from the lowest point of the drum up to the water. Let hot water cool before you let it out."
      keep="Keep it in the record"
      [working]="result().value?.working ?? []"
      [ready]="measured() && result().value !== undefined"
      (save)="save()"
    >
      <svg
        draws
        viewBox="0 0 560 250"
        class="drawing"
        role="group"
        aria-label="The water, and the trays to scale"
      >
        <g
          nc-drum
          [drum]="drum()"
          [lying]="lying()"
          [height]="height()"
          label="Height of the water"
          [said]="saidHeight()"
          (slid)="slide($event)"
        />
        @for (tray of trays(); track $index) {
          <path
            [attr.transform]="'translate(' + tray.x + ',' + tray.y + ')'"
            d="M0 0l3 14h24l3 -14"
          />
          <path
            class="water-fill"
            [attr.transform]="'translate(' + tray.x + ',' + tray.y + ')'"
            d="M1.500 7l1.500 7h24l1.500 -7z"
          />
        }
      </svg>
      <nc-figures
        form
        [fields]="fields"
        [units]="measuring.units()"
        [first]="first()"
        [problems]="result().problems"
        (given)="given.set($event)"
      />
      @if (result().value; as r) {
        <div class="numbers" aria-live="polite">
          <div>
            <b>{{ litres() }}</b> stand there
          </div>
          <div>
            <b>{{ r.trays }}</b> trays carried half full
          </div>
          <div>
            <b>{{ r.buckets }}</b> buckets
          </div>
          <div>
            <b>{{ minutes() }} min</b> by the thin hose
          </div>
        </div>
        @if (r.trays > mostTrays) {
          <p class="soft small">{{ mostTrays }} of {{ r.trays }} trays are drawn.</p>
        }
      }
    </nc-instrument>
  `,
  styleUrl: './instruments.scss',
})
export default class TubWaterComponent {
  protected readonly measuring = inject(Measuring);
  protected readonly fields = TUB_FIELDS;
  readonly #example = computed(() => this.measuring.example(FIRST, this.fields));
  readonly #told = new Told(() => this.#example());
  protected readonly first = this.#told.first;
  protected readonly given = this.#told.given;
  protected readonly mostTrays = MOST_TRAYS;
  protected readonly lying = computed(() => this.measuring.machine()?.kind !== 'top-load-washer');
  protected readonly result = computed(() =>
    this.measuring.attempt(() => tubWater(this.given(), this.lying())),
  );
  /** Whether the height was measured: what stands there at first is an example. */
  protected readonly measured = computed(
    () => !sameData(this.given()['height'], this.#example()['height']),
  );
  protected readonly litres = computed(() =>
    say((this.result().value?.litres ?? 0) / 1000, 'volume', this.measuring.units()),
  );
  protected readonly minutes = computed(() => Math.ceil(this.result().value?.minutes ?? 0));
  /** Of the drum, m, as far as it is told. */
  protected readonly drum = computed(() => ({
    radius: this.#metres('radius') || COMMON_DRUM.radius,
    depth: this.#metres('depth') || COMMON_DRUM.depth,
  }));
  protected readonly height = computed(() => this.#metres('height'));
  protected readonly saidHeight = computed(() =>
    inUnits(figure(this.height(), 'length', CM), this.measuring.units()),
  );
  protected readonly trays = computed(() =>
    Array.from({ length: Math.min(MOST_TRAYS, this.result().value?.trays ?? 0) }, (_, i) => ({
      x: 280 + (i % 8) * 34,
      y: 30 + Math.floor(i / 8) * 24,
    })),
  );

  protected slide(metres: number): void {
    this.#told.tell({ height: { value: metres, unit: 'm' } });
  }

  #metres(name: 'height' | 'radius' | 'depth'): number {
    return this.#told.in(name, 'length', 'm') ?? 0;
  }

  protected save(): void {
    const litres = this.result().value?.litres;
    if (litres === undefined) return;
    void this.measuring.save({
      kind: 'reading',
      station: 'tub',
      quantity: 'standing-water',
      value: Number(litres.toFixed(1)),
      unit: 'L',
    });
  }
}
