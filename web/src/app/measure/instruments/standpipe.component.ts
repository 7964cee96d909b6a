import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal } from '@angular/core';
import {
  CM,
  figure,
  fromOwn,
  HOSE_READINGS,
  hoseRanges,
  inUnits,
  PLUMBING_CODES,
  readFields,
  rulesOf,
  STANDPIPE_FIELDS,
  standpipe,
  type Amount,
  type PlumbingCode,
} from '@needlecase/core';
import { sameData } from '../../data/same-data';
import { ReadableDirective } from '../../charts/readable.directive';
import { FiguresComponent } from '../parts/figures.component';
import { InstrumentComponent } from '../parts/instrument.component';
import { Measuring } from '../parts/measuring';
import { Told } from '../parts/told';
import { SlideDirective } from '../parts/slide.directive';
import { SelectComponent } from '../../shared/select.component';

const FIRST: Record<string, Amount> = {
  overWeir: { value: 60, unit: 'cm' },
  hoseTop: { value: 80, unit: 'cm' },
  inserted: { value: 20, unit: 'cm' },
};
const READ = Object.keys(HOSE_READINGS) as (keyof typeof HOSE_READINGS)[];
type Height = keyof typeof HOSE_READINGS;
/** Units of the drawing a metre; the floor, the trap's weir some 15 cm over it, and the highest that is drawn. */
const SCALE = 230;
const FLOOR = 312;
const WEIR = FLOOR - 0.15 * SCALE;
const HIGHEST = 16;
/** As far as each is slid, m; more is typed. */
const MOST: Record<Height, number> = { overWeir: 1.25, hoseTop: 1.4, inserted: 0.6 };
const WORDS: Record<Height, string> = {
  overWeir: 'pipe top',
  hoseTop: 'hose top',
  inserted: 'inside',
};
/** Of a line of words. */
const LINE = 23;

/** Where words stand that belong at heights from the top down, none on another, none over the weir's. */
function apart(heights: readonly number[]): number[] {
  const placed: number[] = [];
  for (const height of heights) placed.push(Math.max(height, (placed.at(-1) ?? 0) + LINE));
  const over = placed.at(-1)! - (WEIR - LINE + 5);
  return over > 0 ? placed.map((height, i) => Math.max(HIGHEST + i * LINE, height - over)) : placed;
}

/** The hose in its standpipe, drawn to scale with its trap. */
@Component({
  selector: 'nc-standpipe',
  imports: [
    ReadableDirective,
    FiguresComponent,
    InstrumentComponent,
    SelectComponent,
    SlideDirective,
  ],
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
      <svg
        ncReadable
        draws
        viewBox="0 0 420 330"
        class="drawing"
        role="group"
        aria-label="The hose in its standpipe, over the trap, to scale"
      >
        <path class="wall" d="M4 312H416" />
        <path d="M4 130H76q8 0 8 8V304q0 8 -8 8H4" />
        <path d="M4 178a50 50 0 0 1 0 100" />
        <path class="range" [attr.d]="drawn().usualTop" />
        <path class="range" [attr.d]="drawn().usualEnd" />
        <path [attr.d]="drawn().pipe" stroke-width="3" />
        <path class="water" [attr.d]="drawn().trapWater" stroke-width="12" />
        <path class="hose" [class.bad]="result().value?.right === false" [attr.d]="drawn().hose" />
        <text class="soft" x="252" [attr.y]="drawn().weir + 5">trap’s weir</text>
        @for (one of handles(); track one.name) {
          <path class="soft-line" [attr.d]="one.lead" />
          <text [class.bad-text]="one.off" [attr.x]="one.textX" [attr.y]="one.textY">
            {{ one.words }}
          </text>
          <g class="handle" [ncSlide]="one.slide" (slid)="slide(one.name, $event)">
            <circle class="reach" [attr.cx]="one.x" [attr.cy]="one.y" r="20" />
            <circle class="button" [attr.cx]="one.x" [attr.cy]="one.y" r="11" />
          </g>
        }
      </svg>
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
        <p class="soft small">
          The heights at first are an example: slide them in the drawing, or type them. What you
          change is kept.
        </p>
      </div>
      @if (result().value; as r) {
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
  readonly #example = computed(() => this.measuring.example(FIRST, this.fields));
  readonly #told = new Told(() => this.#example());
  protected readonly first = this.#told.first;
  protected readonly given = this.#told.given;
  protected readonly codes = PLUMBING_CODES;
  protected readonly code = linkedSignal<PlumbingCode>(
    () => rulesOf(this.measuring.house()).plumbing,
  );
  protected readonly sayCode = (code: PlumbingCode): string =>
    code === 'EN' ? 'European practice (40 mm pipe)' : code;
  protected readonly result = computed(() =>
    this.measuring.attempt(() => standpipe(this.given(), this.code())),
  );
  /** The fields that were measured: what stands there at first is an example, and is never kept. */
  protected readonly measured = computed(() =>
    READ.filter((name) => !sameData(this.given()[name], this.#example()[name])),
  );
  readonly #metres = computed(() => {
    const metres = (name: Height) => this.#told.in(name, 'length', 'm') ?? 0;
    return {
      overWeir: metres('overWeir'),
      hoseTop: metres('hoseTop'),
      inserted: metres('inserted'),
    };
  });
  readonly #ranges = computed(() => hoseRanges(this.code()));
  readonly #at = computed(() => {
    const { overWeir, hoseTop, inserted } = this.#metres();
    const top = Math.max(HIGHEST + 12, WEIR - overWeir * SCALE);
    const peak = Math.max(HIGHEST, Math.min(FLOOR - 6, FLOOR - hoseTop * SCALE));
    const end = Math.max(top, Math.min(WEIR + 8, top + inserted * SCALE));
    return { top, peak, end };
  });
  protected readonly drawn = computed(() => {
    const { top, peak, end } = this.#at();
    const { hoseTop, inserted } = this.#ranges();
    const span = (x: number, from: number, to: number) =>
      `M${x} ${Math.max(HIGHEST, from)}V${Math.max(HIGHEST, to)}`;
    return {
      weir: WEIR,
      usualTop: span(108, FLOOR - hoseTop.most * SCALE, FLOOR - hoseTop.least * SCALE),
      usualEnd: span(187, top + inserted.least * SCALE, top + inserted.most * SCALE),
      pipe: `M172 ${top}V${WEIR + 12}a19 19 0 0 0 38 0V${WEIR}H244M202 ${top}V${WEIR + 8}`,
      trapWater: `M187 ${WEIR + 4}v10a6 6 0 0 0 12 0v-10`,
      hose: `M84 296H108V${peak + 20}Q108 ${peak} 130 ${peak}H170Q187 ${peak} 187 ${peak + 16}V${Math.max(end, peak + 18)}`,
    };
  });
  /** What is slid: the hose over its highest point, the pipe's top, the hose's end. */
  protected readonly handles = computed(() => {
    const { top, peak, end } = this.#at();
    const metres = this.#metres();
    const one = (
      name: Height,
      x: number,
      y: number,
      words: [textX: number, textY: number],
      grows: 'up' | 'down',
      valueAt: (y: number) => number,
    ) => {
      const { least, most } = this.#ranges()[name];
      const said = this.#said(metres[name]);
      const [textX, textY] = words;
      const label = this.fields[name].label;
      return {
        name,
        x,
        y,
        textX,
        textY,
        lead: `M${x + 11} ${y}L${textX - 4} ${textY - 5}`,
        words: `${WORDS[name]} ${said}`,
        off: metres[name] < least || metres[name] > most,
        slide: {
          label,
          said,
          least: 0,
          most: MOST[name],
          step: 0.01,
          at: metres[name],
          grows,
          valueAt: ({ y: at }: { y: number }) => valueAt(at),
        },
      };
    };
    const [peakText, topText, endText] = apart([peak + 5, top + 5, end + 5]);
    return [
      one('hoseTop', 140, peak, [252, peakText!], 'up', (y) => (FLOOR - y) / SCALE),
      one('overWeir', 206, top, [252, topText!], 'up', (y) => (WEIR - y) / SCALE),
      one('inserted', 187, end, [252, endText!], 'down', (y) => (y - top) / SCALE),
    ];
  });

  protected slide(name: Height, metres: number): void {
    this.#told.tell({ [name]: { value: metres, unit: 'm' } });
  }

  readonly #said = (metres: number): string =>
    inUnits(figure(metres, 'length', CM), this.measuring.units());

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
