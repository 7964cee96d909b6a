import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal } from '@angular/core';
import {
  convert,
  fromOwn,
  HOSE_READINGS,
  PLUMBING_CODES,
  readFields,
  rulesOf,
  STANDPIPE_FIELDS,
  standpipe,
  type Amount,
  type PlumbingCode,
} from '@needlecase/core';
import { sameData } from '../../data/same-data';
import { FiguresComponent } from '../parts/figures.component';
import { InstrumentComponent } from '../parts/instrument.component';
import { Measuring } from '../parts/measuring';
import { SelectComponent } from '../../shared/select.component';

const FIRST: Record<string, Amount> = {
  overWeir: { value: 75, unit: 'cm' },
  hoseTop: { value: 80, unit: 'cm' },
  inserted: { value: 20, unit: 'cm' },
};
const READ = Object.keys(HOSE_READINGS) as (keyof typeof HOSE_READINGS)[];
/** Units of the drawing a metre. */
const SCALE = 170;
const FLOOR = 250;

/** The hose in its standpipe, drawn to scale with its trap. */
@Component({
  selector: 'nc-standpipe',
  imports: [FiguresComponent, InstrumentComponent, SelectComponent],
  providers: [Measuring],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <nc-instrument
      lead="Heights with a rule. Your local code and the maker’s manual come before these ranges."
      keep="Keep what you measured"
      [working]="result().value?.working ?? []"
      [ready]="measured().length > 0 && result().value !== undefined"
      (save)="save()"
    >
      <div form>
        <nc-figures
          [fields]="fields"
          [units]="measuring.units()"
          [first]="first()"
          [problems]="result().problems"
          (given)="given.set($event)"
        />
        <div class="pair">
          <label for="plumbing">Code where you live</label>
          <select
            nc-select
            id="plumbing"
            [options]="codes"
            [(chosen)]="code"
            [say]="sayCode"
          ></select>
        </div>
        <p class="soft small">The heights at first are an example. What you change is kept.</p>
      </div>
      @if (result().value; as r) {
        <svg
          viewBox="0 0 520 300"
          class="drawing"
          role="img"
          aria-label="The hose in its standpipe, over the trap"
        >
          <path class="wall" [attr.d]="'M10 ' + floor + 'H510'" />
          <rect x="30" y="110" width="120" height="140" rx="8" />
          <circle cx="90" cy="180" r="40" />
          <path [attr.d]="drawn().pipe" stroke-width="3" />
          <path class="water" [attr.d]="drawn().trapWater" stroke-width="14" />
          <path class="good" [class.bad]="!r.right" [attr.d]="drawn().hose" stroke-width="7" />
          <text class="soft" x="330" [attr.y]="drawn().top + 4">top of the pipe</text>
          <text class="soft" x="330" [attr.y]="drawn().weir + 4">the trap’s weir</text>
        </svg>
        @for (one of r.warnings; track one.id) {
          <p class="warn">{{ one.say }}</p>
        } @empty {
          <p class="verdict">It sits as it should.</p>
        }
      }
    </nc-instrument>
  `,
  styleUrl: './instruments.scss',
})
export default class StandpipeComponent {
  protected readonly measuring = inject(Measuring);
  protected readonly fields = STANDPIPE_FIELDS;
  protected readonly first = computed(() => this.measuring.example(FIRST, this.fields));
  protected readonly codes = PLUMBING_CODES;
  protected readonly code = linkedSignal<PlumbingCode>(
    () => rulesOf(this.measuring.house()).plumbing,
  );
  protected readonly sayCode = (code: PlumbingCode): string =>
    code === 'EN' ? 'European practice (40 mm pipe)' : code;
  protected readonly given = linkedSignal(() => this.first());
  protected readonly floor = FLOOR;
  protected readonly result = computed(() =>
    this.measuring.attempt(() => standpipe(this.given(), this.code())),
  );
  /** The fields that were measured: what stands there at first is an example, and is never kept. */
  protected readonly measured = computed(() =>
    READ.filter((name) => !sameData(this.given()[name], this.first()[name])),
  );
  protected readonly drawn = computed(() => {
    const metres = (name: string) => {
      const amount = this.given()[name];
      return amount && Number.isFinite(amount.value)
        ? convert(amount.value, 'length', amount.unit, 'm')
        : 0;
    };
    // The trap sits some 15 cm over the floor.
    const weir = FLOOR - 0.15 * SCALE;
    const top = Math.max(14, weir - metres('overWeir') * SCALE);
    const peak = Math.max(8, Math.min(top - 6, FLOOR - metres('hoseTop') * SCALE));
    const end = Math.min(weir, top + metres('inserted') * SCALE);
    return {
      top,
      weir,
      pipe: `M250 ${top}V${weir + 12}a18 18 0 0 0 36 0V${weir}H320M276 ${top}V${weir + 8}`,
      trapWater: `M263 ${weir + 4}v10a6 6 0 0 0 12 0v-10`,
      hose: `M150 235H190V${peak + 20}Q190 ${peak} 215 ${peak}H250Q263 ${peak} 263 ${peak + 14}V${end}`,
    };
  });

  protected save(): void {
    const read = readFields(this.given(), STANDPIPE_FIELDS);
    void this.measuring.save(
      ...this.measured().map((name) => ({
        kind: 'reading' as const,
        station: 'standpipe',
        quantity: HOSE_READINGS[name],
        value: Number(fromOwn(read[name], 'length', 'cm').toFixed(1)),
        unit: 'cm',
      })),
    );
  }
}
