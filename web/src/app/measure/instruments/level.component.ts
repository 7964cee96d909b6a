import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  linkedSignal,
  signal,
} from '@angular/core';
import {
  convert,
  LEVEL_FIELDS,
  gradeOfLevel,
  level,
  PITCHES,
  type Amount,
  type Foot,
  type Higher,
  type Thread,
} from '@needlecase/core';
import { FiguresComponent } from '../parts/figures.component';
import { InstrumentComponent } from '../parts/instrument.component';
import { Measuring } from '../parts/measuring';
import { SelectComponent } from '../../shared/select.component';

const FIRST: Record<string, Amount> = {
  width: { value: 54, unit: 'cm' },
  depth: { value: 48, unit: 'cm' },
};
const PLACES: Record<Foot, { x: number; y: number; say: string }> = {
  'back-left': { x: 92, y: 50, say: 'back left' },
  'back-right': { x: 288, y: 50, say: 'back right' },
  'front-left': { x: 92, y: 230, say: 'front left' },
  'front-right': { x: 288, y: 230, say: 'front right' },
};

/** The feet from above: which, how many turns, which way. */
@Component({
  selector: 'nc-level',
  imports: [FiguresComponent, InstrumentComponent, SelectComponent],
  providers: [Measuring],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <nc-instrument
      lead="A spirit level on top of the machine, once left to right, once back to front. The bubble goes to the higher side; how far it stands off can be told in lines of the vial, some 3 mm/m each. Loosen the locknut, turn, tighten it again; the machine empty and off."
      keep="Keep it as a look at the feet"
      [working]="result().value?.working ?? []"
      [ready]="result().value !== undefined"
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
        <svg viewBox="0 0 380 300" class="drawing feet" role="img" [attr.aria-label]="said()">
          <rect x="40" y="20" width="300" height="240" rx="14" />
          <text class="soft" x="190" y="282" text-anchor="middle">front</text>
          <circle cx="190" cy="140" r="44" />
          <circle cx="190" cy="140" r="14" class="wall" />
          <circle class="water-fill" [attr.cx]="bubble().x" [attr.cy]="bubble().y" r="12" />
          @for (one of r.feet; track one.foot) {
            <circle
              [class]="one.turns >= 0.125 ? 'bad' : 'good'"
              [attr.cx]="places[one.foot].x"
              [attr.cy]="places[one.foot].y"
              r="18"
            />
            <text
              [attr.x]="places[one.foot].x"
              [attr.y]="places[one.foot].y + (one.foot.startsWith('front') ? -26 : 38)"
              text-anchor="middle"
            >
              {{ one.turns >= 0.125 ? sayTurns(one.turns) : 'stays' }}
            </text>
          }
        </svg>
        @if (r.level) {
          <p class="verdict">Level. Press two opposite corners: nothing may rock.</p>
        } @else {
          <ul>
            @for (one of r.feet; track one.foot) {
              @if (one.turns >= 0.125) {
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
          Put the level on the machine and tell both slopes: the feet are drawn from above, with the
          turns that each needs.
        </p>
      }
    </nc-instrument>
  `,
  styleUrl: './instruments.scss',
})
export default class LevelComponent {
  protected readonly measuring = inject(Measuring);
  protected readonly fields = LEVEL_FIELDS;
  protected readonly first = computed(() => this.measuring.example(FIRST, this.fields));
  protected readonly places = PLACES;
  protected readonly threads = Object.keys(PITCHES) as Thread[];
  protected readonly thread = signal<Thread>('M10');
  protected readonly sides = ['right', 'left'] as const;
  protected readonly across = signal<Higher['across']>('right');
  protected readonly ends = ['front', 'back'] as const;
  protected readonly along = signal<Higher['along']>('front');
  protected readonly given = linkedSignal(() => this.first());
  protected readonly result = computed(() =>
    this.measuring.attempt(() =>
      level(this.given(), this.thread(), { across: this.across(), along: this.along() }),
    ),
  );
  /** The bubble goes to the high side. */
  protected readonly bubble = computed(() => {
    const slope = (name: string) => {
      const amount = this.given()[name];
      return amount && Number.isFinite(amount.value)
        ? convert(amount.value, 'slope', amount.unit, 'mm/m')
        : 0;
    };
    const limited = (value: number) => Math.max(-30, Math.min(30, value * 4));
    const right = this.across() === 'right' ? 1 : -1;
    const front = this.along() === 'front' ? 1 : -1;
    return {
      x: 190 + limited(right * slope('across')),
      y: 140 + limited(front * slope('along')),
    };
  });
  protected readonly said = computed(
    () =>
      this.result()
        .value?.feet.map(({ foot, turns }) => `${PLACES[foot].say}: ${this.sayTurns(turns)}`)
        .join(', ') ?? '',
  );

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
    if (r) void this.measuring.save({ kind: 'opened', task: 'level', grade: gradeOfLevel(r) });
  }
}
