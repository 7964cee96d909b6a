import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import {
  LEVEL_FIELDS,
  gradeOfLevel,
  level,
  PITCHES,
  say,
  type Amount,
  type Foot,
  type Higher,
  type Thread,
} from '@needlecase/core';
import {
  levelGiven,
  TURNS_FROM,
  type MeanTilt,
  type Tilt,
} from '@needlecase/core/measure/phone/tilt';
import { ReadableDirective } from '../../charts/readable.directive';
import { PhoneLevelComponent } from '../phone/phone-level.component';
import { ThisPhone } from '../phone/this-phone';
import { FiguresComponent } from '../parts/figures.component';
import { InstrumentComponent } from '../parts/instrument.component';
import { Measuring } from '../parts/measuring';
import { Told } from '../parts/told';
import { VialComponent } from '../parts/vial.component';
import { SelectComponent } from '../../shared/select.component';

const FIRST: Record<string, Amount> = {
  width: { value: 54, unit: 'cm' },
  depth: { value: 48, unit: 'cm' },
};
/** Where the feet are drawn, and their words below or above them. */
const PLACES: Record<Foot, { x: number; y: number; says: number; say: string }> = {
  'back-left': { x: 66, y: 48, says: 88, say: 'back left' },
  'back-right': { x: 334, y: 48, says: 88, say: 'back right' },
  'front-left': { x: 66, y: 272, says: 244, say: 'front left' },
  'front-right': { x: 334, y: 272, says: 244, say: 'front right' },
};
/** Turns that a bubble can tell. */
const LEAST_TURN = 0.125;

/** The feet from above: which, how many turns, which way. */
@Component({
  selector: 'nc-level',
  imports: [
    ReadableDirective,
    FiguresComponent,
    InstrumentComponent,
    PhoneLevelComponent,
    SelectComponent,
    VialComponent,
  ],
  providers: [Measuring],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <nc-instrument
      lead="A spirit level on top of the machine, once left to right, once back to front: slide each bubble to where yours stands. Loosen the locknut, turn, tighten it again; the machine empty and off."
      keep="Keep it as a look at the feet"
      [working]="result().value?.working ?? []"
      [ready]="result().value !== undefined"
      (save)="save()"
    >
      <div top class="by-phone">
        @if (phoning()) {
          <nc-phone-level (told)="phoned($event)" />
        } @else if (!measuring.dry) {
          <button type="button" class="btn btn-plain" (click)="phoning.set(true)">
            Measure it with this phone
          </button>
        }
      </div>
      <svg
        ncReadable
        draws
        viewBox="0 0 400 340"
        class="drawing feet"
        role="group"
        aria-label="The machine from above, with both bubbles"
      >
        <rect class="top" x="20" y="12" width="360" height="296" rx="16" />
        <text class="soft" x="200" y="331" text-anchor="middle">front</text>
        @for (one of feet(); track one.foot) {
          <circle [class]="one.out ? 'bad' : 'good'" [attr.cx]="one.x" [attr.cy]="one.y" r="18" />
          @if (one.out) {
            <path class="bad" [attr.d]="'M' + (one.x - 7) + ' ' + (one.y + 3) + 'l7 -8l7 8'" />
          }
          <text
            [attr.x]="one.x < 200 ? 32 : 368"
            [attr.y]="one.says"
            [attr.text-anchor]="one.x < 200 ? 'start' : 'end'"
          >
            {{ one.say }}
          </text>
        }
        <g
          nc-vial
          transform="translate(200 48)"
          label="Bubble, left to right"
          [at]="sloped().across"
          [said]="saySlope('across')"
          (slid)="slide('across', $event)"
        />
        <g
          nc-vial
          transform="translate(200 186) rotate(90)"
          grows="down"
          label="Bubble, back to front"
          [at]="sloped().along"
          [said]="saySlope('along')"
          (slid)="slide('along', $event)"
        />
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
          <label for="across">Which side is higher?</label>
          <select nc-select id="across" [options]="sides" [(chosen)]="across"></select>
        </div>
        <div class="pair">
          <label for="along">And front or back?</label>
          <select nc-select id="along" [options]="ends" [(chosen)]="along"></select>
        </div>
        <div class="pair">
          <label for="thread">Thread of the feet</label>
          <select nc-select id="thread" [options]="threads" [(chosen)]="thread"></select>
        </div>
      </div>
      @if (result().value; as r) {
        @if (byPhone() && !worthTurns()) {
          <p class="verdict">
            As level as a phone can tell. Finish with a bubble, and press two opposite corners:
            nothing may rock.
          </p>
        } @else if (r.level) {
          <p class="verdict">Level. Press two opposite corners: nothing may rock.</p>
        } @else {
          <ul>
            @for (one of r.feet; track one.foot) {
              @if (one.turns >= leastTurn) {
                <li>
                  <strong>{{ places[one.foot].say }}</strong>: {{ sayTurns(one.turns) }} out,
                  clockwise seen from above; it rises about {{ one.raise.toFixed(0) }} mm.
                </li>
              }
            }
          </ul>
          @if (r.says) {
            <p class="field-problem">{{ r.says }}</p>
          }
          <p class="soft small">
            Then measure again; a foot that settles shows at the second look.
          </p>
        }
      } @else {
        <p class="soft">
          {{
            sloped().across === undefined && sloped().along === undefined
              ? 'The bubble goes to the higher side. From line to line it is some 3 mm a metre; where yours stands off more than the vial shows, type it.'
              : 'Now the other way.'
          }}
        </p>
      }
    </nc-instrument>
  `,
  styleUrl: './instruments.scss',
})
export default class LevelComponent {
  protected readonly measuring = inject(Measuring);
  protected readonly fields = LEVEL_FIELDS;
  readonly #told = new Told(() => this.measuring.example(FIRST, this.fields));
  protected readonly first = this.#told.first;
  protected readonly given = this.#told.given;
  protected readonly phoning = signal(false);
  /** What the phone told, until something else is told. */
  readonly #phoned = signal<{ tilt: Tilt; given: Record<string, Amount> } | undefined>(undefined);
  protected readonly byPhone = computed(() => {
    const phoned = this.#phoned();
    const given = this.given();
    return phoned &&
      phoned.given['across'] === given['across'] &&
      phoned.given['along'] === given['along']
      ? phoned.tilt
      : undefined;
  });
  protected readonly worthTurns = computed(() => {
    const tilt = this.byPhone();
    return !tilt || Math.max(Math.abs(tilt.across), Math.abs(tilt.along)) > TURNS_FROM;
  });
  readonly #phone = inject(ThisPhone);
  protected readonly leastTurn = LEAST_TURN;
  protected readonly places = PLACES;
  protected readonly threads = Object.keys(PITCHES) as Thread[];
  protected readonly thread = signal<Thread>('M10');
  protected readonly sides = ['right', 'left'] as const;
  protected readonly across = signal<Higher['across']>('right');
  protected readonly ends = ['front', 'back'] as const;
  protected readonly along = signal<Higher['along']>('front');
  protected readonly result = computed(() =>
    this.measuring.attempt(() =>
      level(this.given(), this.thread(), { across: this.across(), along: this.along() }),
    ),
  );
  /** mm/m, to the right and to the front where those are higher; none where nobody told. */
  protected readonly sloped = computed(() => {
    const told = (name: 'across' | 'along', on: boolean): number | undefined => {
      const slope = this.#told.in(name, 'slope', 'mm/m');
      return slope === undefined ? undefined : (on ? 1 : -1) * slope;
    };
    return {
      across: told('across', this.across() === 'right'),
      along: told('along', this.along() === 'front'),
    };
  });
  protected readonly feet = computed(() => {
    const result = this.result().value;
    return Object.entries(PLACES).map(([foot, place]) => {
      const turns = result?.feet.find((one) => one.foot === foot)?.turns;
      const out = turns !== undefined && turns >= LEAST_TURN;
      const say = turns === undefined ? place.say : out ? this.sayTurns(turns) : 'stays';
      return { foot, ...place, out, say };
    });
  });

  protected saySlope(way: 'across' | 'along'): string {
    const slope = this.sloped()[way];
    if (slope === undefined) return 'not told yet';
    if (Math.abs(slope) < 0.25) return 'in the middle';
    const side = way === 'across' ? this.across() : this.along();
    return `${say(Math.abs(slope), 'slope', this.measuring.units())}, the ${side} is higher`;
  }

  /** Takes what the person slid a bubble to, mm/m. */
  protected slide(way: 'across' | 'along', slope: number): void {
    if (way === 'across') this.across.set(slope < 0 ? 'left' : 'right');
    else this.along.set(slope < 0 ? 'back' : 'front');
    this.#told.tell({ [way]: { value: Math.abs(slope), unit: 'mm/m' } });
  }

  /** Takes what the phone measured. */
  protected phoned({ tilt }: MeanTilt): void {
    const { given, higher } = levelGiven(tilt);
    this.across.set(higher.across);
    this.along.set(higher.along);
    this.#told.tell(given);
    this.#phoned.set({ tilt, given });
  }

  /** "1½ turns", "a quarter of a turn": a bubble tells no more. */
  protected sayTurns(turns: number): string {
    const quarters = Math.round(4 * turns);
    const whole = Math.floor(quarters / 4);
    const part = ['', '¼', '½', '¾'][quarters % 4]!;
    const said = `${whole || !part ? whole : ''}${part}`;
    return `${said} ${turns > 1 ? 'turns' : 'turn'}`;
  }

  protected save(): void {
    const r = this.result().value;
    if (!r) return;
    const tilt = this.byPhone();
    const look = { kind: 'opened', task: 'level', grade: gradeOfLevel(r) } as const;
    if (!tilt) return void this.measuring.save(look);
    const value = Math.max(Math.abs(tilt.across), Math.abs(tilt.along));
    void this.measuring.save(look, {
      ...{ kind: 'reading', quantity: 'phone-tilt', unit: 'mm/m', placement: 'on top' },
      ...{ value: Number(value.toFixed(1)), device: this.#phone.name() },
    });
  }
}
