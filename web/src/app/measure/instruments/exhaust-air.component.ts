import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal } from '@angular/core';
import { EXHAUST_FIELDS, exhaustAir, roomRatio, say, type Amount } from '@needlecase/core';
import { ReadableDirective } from '../../charts/readable.directive';
import { FiguresComponent } from '../parts/figures.component';
import { InstrumentComponent } from '../parts/instrument.component';
import { Measuring } from '../parts/measuring';

const FIRST: Record<string, Amount> = {
  room: { value: 20, unit: '°C' },
  roomHumidity: { value: 50, unit: '%' },
  flow: { value: 50, unit: 'L/s' },
};

/** Water that the exhaust carries out, from temperature and humidity. */
@Component({
  selector: 'nc-exhaust-air',
  imports: [ReadableDirective, FiguresComponent, InstrumentComponent],
  providers: [Measuring],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <nc-instrument
      lead="A small thermo-hygrometer, first in the room, then held in the air at the hood for two minutes in the middle of a cycle."
      keep="Keep this reading"
      [working]="result().value?.working ?? []"
      [ready]="result().value !== undefined"
      (save)="save()"
    >
      <svg
        ncReadable
        draws
        viewBox="0 0 520 230"
        class="drawing"
        role="img"
        aria-label="Water in a kilogram of air, in the room and at the hood"
      >
        @for (one of columns(); track one.name) {
          <rect [attr.x]="one.x" y="20" width="120" height="170" rx="10" />
          @for (drop of one.drops; track $index) {
            <circle class="water-fill" [attr.cx]="drop.x" [attr.cy]="drop.y" r="5" />
          }
          @if (!one.drops) {
            <text class="unknown" [attr.x]="one.x + 60" y="118" text-anchor="middle">?</text>
          }
          <text [attr.x]="one.x + 60" y="212" text-anchor="middle">{{ one.name }}</text>
        }
        <path class="air" d="M200 105H300" stroke-width="9" />
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
        <div class="numbers">
          <div>
            <b>{{ perMinute() }}</b> water a minute
          </div>
          <div>
            <b>{{ anHour() }}</b> in an hour
          </div>
        </div>
        <p class="soft small">One drop is half a gram of water in a kilogram of dry air.</p>
      } @else {
        <p class="soft">
          One drop is half a gram of water in a kilogram of dry air. Give what the hood shows: the
          difference is what the load lost.
        </p>
      }
    </nc-instrument>
  `,
  styleUrl: './instruments.scss',
})
export default class ExhaustAirComponent {
  protected readonly measuring = inject(Measuring);
  protected readonly fields = EXHAUST_FIELDS;
  protected readonly first = computed(() => this.measuring.example(FIRST, this.fields));
  protected readonly given = linkedSignal(() => this.first());
  protected readonly result = computed(() =>
    this.measuring.attempt(() => exhaustAir(this.given())),
  );
  protected readonly perMinute = computed(() => {
    const grams = 60_000 * (this.result().value?.water ?? 0);
    return this.measuring.units() === 'us'
      ? say(grams / 1000, 'mass', 'us', 'oz')
      : `${Math.round(grams)} g`;
  });
  protected readonly anHour = computed(() =>
    say(3600 * (this.result().value?.water ?? 0), 'mass', this.measuring.units()),
  );
  protected readonly columns = computed(() => {
    const ratios = this.result().value?.ratios ?? { room: roomRatio(this.given()) };
    const drops = (ratio: number | undefined, x: number) =>
      ratio === undefined
        ? undefined
        : Array.from({ length: Math.min(130, Math.max(0, Math.round(2000 * ratio))) }, (_, i) => ({
            x: x + 14 + (i % 8) * 13,
            y: 180 - Math.floor(i / 8) * 10,
          }));
    return [
      { name: 'in the room', x: 60, drops: drops(ratios.room, 60) },
      {
        name: 'at the hood',
        x: 320,
        drops: drops('exhaust' in ratios ? ratios.exhaust : undefined, 320),
      },
    ];
  });

  protected save(): void {
    const water = this.result().value?.water;
    if (water === undefined) return;
    void this.measuring.save({
      kind: 'reading',
      station: 'hood',
      quantity: 'exhaust-water',
      value: Math.round(60_000 * water),
      unit: 'g/min',
    });
  }
}
