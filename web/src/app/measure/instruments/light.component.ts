import type { ElementRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  linkedSignal,
  signal,
  viewChild,
} from '@angular/core';
import { DRYING, isWasher, type MachineKind } from '@needlecase/core';
import type { Corner, LightThrough, Picture } from '@needlecase/core/measure/phone/light';
import { FILM_OR_LINT, NO_LIGHT } from '@needlecase/core/measure/phone/words';
import { PhoneReader } from '../../workers/phone-reader.service';
import { InstrumentComponent } from '../parts/instrument.component';
import { Measuring } from '../parts/measuring';
import { CornersComponent } from '../phone/corners.component';
import { injectOwn } from '../phone/own-figures';
import { ThisPhone } from '../phone/this-phone';
import { WhichPhoneComponent } from '../phone/which-phone.component';

const PLACES = ['lint screen', 'fine filter', 'hood mesh', 'inlet sieve', 'pump filter'] as const;
/** Pixels of the longer side that are read: a mesh is finer than that, and its mean is what counts. */
const LONGEST = 900;
/** So many of the places are on the air’s way. */
const AIRS = 3;
/** Corners at first, as shares of the picture. */
const AT_FIRST = [
  [0.25, 0.25],
  [0.75, 0.25],
  [0.75, 0.75],
  [0.25, 0.75],
] as const;
/** Light against its own best from which it counts as open. Judgement. */
const OPEN = 0.8;
const WAIT_MS = 150;

type Water = 'runs' | 'stands';

/** A photo of a screen before a lamp: how much light it lets through, and where it is shut. */
@Component({
  selector: 'nc-light',
  imports: [CornersComponent, InstrumentComponent, WhichPhoneComponent],
  providers: [Measuring, PhoneReader],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <nc-instrument
      lead="Hold the screen before a bright window or a white lamp, bare light all round it in the picture, and put the four corners on the mesh."
      keep="Keep this light"
      [ready]="light() !== undefined"
      (save)="save()"
    >
      <div draws class="picture" [hidden]="!picture()">
        <canvas #canvas></canvas>
        @if (picture(); as p) {
          <svg
            nc-corners
            [width]="p.width"
            [height]="p.height"
            [(corners)]="corners"
            role="group"
            aria-label="The picture, with the four corners of the mesh"
          ></svg>
        }
      </div>
      @if (!picture()) {
        <svg draws viewBox="0 0 400 240" class="drawing" aria-hidden="true">
          <rect class="lamp" x="60" y="10" width="280" height="220" rx="20" />
          <rect class="cloth" x="120" y="50" width="160" height="140" rx="8" />
          @for (x of wires; track x) {
            <path class="wall" [attr.d]="'M' + x + ' 50V190'" />
          }
        </svg>
      }
      <div form>
        <nc-which-phone asks="It is the" [places]="places()" [(place)]="place" />
        <label class="btn btn-plain take">
          {{ picture() ? 'Another picture' : 'Take a picture, or choose one' }}
          <input
            #file
            class="visually-hidden"
            type="file"
            accept="image/*"
            capture="environment"
            (change)="take(file)"
          />
        </label>
        <p class="soft small">
          The picture stays on this page: it is not sent, and gone when you leave.
        </p>
        <fieldset class="water">
          <legend class="form-label">Poured on it, water</legend>
          @for (one of waters; track one) {
            <button
              type="button"
              class="btn btn-plain"
              [attr.aria-pressed]="water() === one"
              (click)="water.set(water() === one ? undefined : one)"
            >
              {{ one === 'runs' ? 'runs through' : 'stands on it' }}
            </button>
          }
        </fieldset>
      </div>
      @if (light(); as l) {
        <div class="numbers">
          <div>
            <b>{{ round(100 * l.share) }} %</b> of the light passes
          </div>
          @if (l.blocked !== undefined) {
            <div>
              <b>{{ round(100 * l.blocked) }} %</b> of it is shut, in patches
            </div>
          }
        </div>
        <p class="verdict">{{ against() }}</p>
        <svg
          class="heat"
          [attr.viewBox]="'0 0 ' + l.columns + ' ' + l.rows"
          role="img"
          aria-label="Where it is shut: the fuller the colour, the less light"
        >
          @for (cell of cells(); track $index) {
            <rect
              [attr.x]="cell.x"
              [attr.y]="cell.y"
              width="1.02"
              height="1.02"
              [style.opacity]="cell.shut"
            />
          }
        </svg>
        <p class="soft small">
          The fuller the colour, the less light. A clean screen passes some 30 to 45 %; its own when
          washed is what counts.
        </p>
        @if (filmOrLint(); as says) {
          <p>
            <b>{{ says }}</b>
          </p>
        }
      } @else if (status()) {
        <p class="field-problem" role="alert">{{ status() }}</p>
      } @else {
        <p class="soft">
          Wash it and take its picture once: from then on you know how much of it is shut.
        </p>
      }
    </nc-instrument>
  `,
  styles: `
    .picture {
      max-width: 30rem;
      position: relative;
    }
    canvas {
      border-radius: 0.8rem;
      display: block;
      width: 100%;
    }
    .lamp {
      fill: var(--face);
    }
    .take {
      align-items: center;
      display: inline-flex;
      min-height: 56px;
    }
    .take:focus-within {
      outline: 3px solid var(--ink);
      outline-offset: 2px;
    }
    .water {
      display: flex;
      flex-wrap: wrap;
      gap: 0.5rem;
    }
    .water legend {
      float: none;
      font-size: 1rem;
      margin: 0;
    }
    .water .btn[aria-pressed='true'] {
      border-color: var(--ink);
      border-width: 3px;
    }
    .heat {
      background: var(--face);
      border: 2px solid var(--edge);
      border-radius: 0.6rem;
      display: block;
      max-width: 20rem;
      width: 100%;
    }
    .heat rect {
      fill: var(--air);
    }
  `,
  styleUrl: './instruments.scss',
})
export default class LightComponent {
  protected readonly measuring = inject(Measuring);
  readonly #reader = inject(PhoneReader);
  readonly #phone = inject(ThisPhone);
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');

  protected readonly waters: readonly Water[] = ['runs', 'stands'];
  protected readonly wires = [140, 160, 180, 200, 220, 240, 260];
  protected readonly round = Math.round;
  /** What such a machine has that light can pass. */
  protected readonly places = computed(() => {
    const kind = this.measuring.machine()?.kind;
    const washes = kind !== undefined && isWasher(kind);
    const dries = kind === undefined || (DRYING as readonly MachineKind[]).includes(kind);
    return PLACES.filter((_, i) => (i < AIRS ? dries : washes));
  });
  /** The one that was chosen, as long as such a machine has it. */
  protected readonly place = linkedSignal<readonly string[], string>({
    source: this.places,
    computation: (places, before) => places.find((one) => one === before?.value) ?? places[0]!,
  });
  readonly #figure = computed(() => (this.place() === PLACES[0] ? 'screen-light' : 'sieve-light'));
  protected readonly water = signal<Water | undefined>(undefined);
  protected readonly picture = signal<Picture | undefined>(undefined);
  protected readonly corners = signal<readonly Corner[]>([]);
  protected readonly status = signal('');
  protected readonly light = signal<LightThrough | undefined>(undefined);
  readonly #own = injectOwn(this.place);

  readonly #percent = computed(() => Number((100 * (this.light()?.share ?? 0)).toFixed(1)));
  readonly #against = computed(() => this.#own.against(this.#figure(), this.#percent()));
  protected readonly against = computed(() => this.#own.say(this.#figure(), this.#percent()));
  protected readonly filmOrLint = computed(() => {
    const [water, against] = [this.water(), this.#against()];
    if (!water || !against) return '';
    const open = against.change >= OPEN;
    if (water === 'runs') return open ? FILM_OR_LINT.open : FILM_OR_LINT.lint;
    return open ? FILM_OR_LINT.film : FILM_OR_LINT.both;
  });
  protected readonly cells = computed(() => {
    const light = this.light();
    if (!light) return [];
    const most = Math.max(0.05, ...light.cells);
    return light.cells.map((share, i) => ({
      x: i % light.columns,
      y: Math.floor(i / light.columns),
      shut: (1 - share / most).toFixed(2),
    }));
  });

  constructor() {
    // What is read follows the corners, a moment after they rest.
    effect((stop) => {
      const [picture, corners] = [this.picture(), this.corners()];
      if (!picture || corners.length !== 4) return;
      const waiting = setTimeout(() => void this.#read(picture, corners), WAIT_MS);
      stop(() => clearTimeout(waiting));
    });
  }

  protected async take(input: HTMLInputElement): Promise<void> {
    const file = input.files?.[0];
    input.value = '';
    if (!file) return;
    this.light.set(undefined);
    this.status.set('');
    try {
      const bitmap = await createImageBitmap(file);
      const times = Math.min(1, LONGEST / Math.max(bitmap.width, bitmap.height));
      const canvas = this.canvas().nativeElement;
      canvas.width = Math.max(1, Math.round(times * bitmap.width));
      canvas.height = Math.max(1, Math.round(times * bitmap.height));
      const draws = canvas.getContext('2d', { willReadFrequently: true })!;
      draws.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
      bitmap.close();
      const { width, height, data } = draws.getImageData(0, 0, canvas.width, canvas.height);
      this.corners.set(
        AT_FIRST.map(([x, y]) => ({ x: Math.round(x * width), y: Math.round(y * height) })),
      );
      this.picture.set({ width, height, data });
    } catch {
      this.picture.set(undefined);
      this.status.set('This file is no picture that the browser can read. Take another.');
    }
  }

  protected save(): void {
    if (!this.light()) return;
    void this.measuring
      .save({
        ...{ kind: 'reading', quantity: this.#figure(), unit: '%' },
        ...{ value: this.#percent(), device: this.#phone.name(), placement: this.place() },
      })
      .then(() => this.#own.refresh());
  }

  async #read(picture: Picture, corners: readonly Corner[]): Promise<void> {
    try {
      const light = await this.#reader.read({ what: 'light', picture, corners });
      // Moved again since: that is read next.
      if (picture !== this.picture() || corners !== this.corners()) return;
      const none = typeof light === 'string';
      this.light.set(none ? undefined : light);
      this.status.set(none ? NO_LIGHT[light] : '');
    } catch (problem) {
      this.status.set((problem as Error).message);
    }
  }
}
