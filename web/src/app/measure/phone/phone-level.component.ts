import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  inject,
  output,
  signal,
} from '@angular/core';
import {
  halfTurn,
  isWorthTurns,
  meanTilt,
  tiltOf,
  type MeanTilt,
  type NoTilt,
  type Tilt,
} from '@needlecase/core/measure/phone/tilt';
import type { Subscription } from 'rxjs';
import { keepAwake } from '../../shared/wake-lock';
import { orientations, sayProblem } from './sensors';
import { SensorProblemComponent } from './sensor-problem.component';
import { Speaker } from '../../shared/speaker';
import { ThisPhone } from './this-phone';
import { WhichPhoneComponent } from './which-phone.component';

const MINUTE_MS = 60_000;
/** From then on it can be ended; a reading of a phone that is pressed just now is none. */
const ENOUGH_MS = 8000;
const SETTLES_MS = 700;
const EVERY_MS = 100;
const SAYS_EVERY_MS = 4000;
/** Of the live figure: so much of it is the reading before. */
const CALM = 0.8;

const PROBLEMS: Readonly<Record<NoTilt, string>> = {
  'too few': 'Too few readings came. Leave the phone where it lies, and measure again.',
  'not lying': 'The phone does not lie on the machine. Lay it flat, its screen up.',
  moved:
    'It moved while it measured: a phone that slides, a hand, a machine that runs. Nothing of it was taken; measure again.',
};

/** The phone as a level: it lies on the machine, is turned half round once, and is read live while feet are turned. */
@Component({
  selector: 'nc-phone-level',
  imports: [SensorProblemComponent, WhichPhoneComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <nc-sensor-problem
      [says]="problem()"
      byHand="With a spirit level it goes as well: slide its bubbles in the drawing."
    />
    @if (!live()) {
      <p>
        Lay the phone on the middle of the machine, screen up, its top to the back, out of its case.
        It is asked how it lies, and nothing else; that stays on the phone.
      </p>
      <nc-which-phone />
      <button type="button" class="btn btn-thread big" (click)="begin()">
        {{ problem() ? 'Try again' : 'Begin' }}
      </button>
    } @else if (shown(); as now) {
      <div class="live" role="group" aria-label="How the machine stands, live">
        <svg viewBox="-100 -100 200 200" aria-hidden="true">
          <circle r="92" class="glass" />
          <circle r="34" class="ring" />
          <path d="M-92 0H92M0 -92V92" class="cross" />
          <circle [attr.cx]="bubble().x" [attr.cy]="bubble().y" r="24" class="bubble" />
        </svg>
        <p class="figure">
          <b>{{ say(now.across) }}</b> <span>{{ sideOf(now) }}</span>
        </p>
        <p class="figure">
          <b>{{ say(now.along) }}</b> <span>{{ endOf(now) }}</span>
        </p>
        <p class="soft">
          {{
            'mm a metre, give or take ' +
              give() +
              (phone.ownTilt() ? '.' : '; the phone’s own error is still in it.')
          }}
        </p>
      </div>
      <p class="says" role="status">{{ status() }}</p>
      @if (measuring()) {
        <p role="timer">{{ secondsLeft() }} s left. Hands off.</p>
        <button type="button" class="btn btn-plain big" [disabled]="!enough()" (click)="end()">
          That is enough
        </button>
      } @else {
        <div class="deeds">
          <button type="button" class="btn btn-thread big" (click)="measure()">
            {{ first() ? 'Turned half round: measure' : 'Measure for a minute' }}
          </button>
          @if (!first() && phone.ownTilt()) {
            <button type="button" class="btn btn-plain" (click)="anew()">
              Find its own error anew
            </button>
          }
          @if (speaker.able) {
            <button
              type="button"
              class="btn btn-plain"
              [attr.aria-pressed]="aloud()"
              (click)="aloud.set(!aloud())"
            >
              Say it aloud
            </button>
          }
          <button type="button" class="btn btn-plain" (click)="stop()">Put it away</button>
        </div>
      }
    } @else {
      <p class="soft" role="status">Waiting for the sensor…</p>
    }
  `,
  styles: `
    .live {
      align-items: center;
      display: grid;
      gap: 0 1rem;
      grid-template-columns: minmax(0, 1fr) auto;
    }
    .live svg {
      grid-row: span 2;
      max-height: 14rem;
      width: 100%;
    }
    .figure {
      line-height: 1;
      margin: 0;
      text-align: end;
    }
    .figure b {
      display: block;
      font: 500 clamp(4rem, 24vw, 7rem) / 1 var(--serif);
      font-variant-numeric: tabular-nums;
    }
    .figure span {
      font-size: clamp(1.4rem, 6.4vw, 2.2rem);
      font-weight: 650;
      white-space: nowrap;
    }
    .live .soft {
      grid-column: 1 / -1;
      margin: 0.3rem 0;
    }
    .glass {
      fill: color-mix(in srgb, var(--water) 14%, var(--face));
      stroke: var(--edge);
      stroke-width: 3;
    }
    .ring,
    .cross {
      fill: none;
      stroke: var(--ink-soft);
      stroke-width: 2;
    }
    .bubble {
      fill: var(--face);
      stroke: var(--water);
      stroke-width: 6;
    }
    .big {
      min-height: 56px;
    }
    .deeds {
      display: flex;
      flex-wrap: wrap;
      gap: 0.6rem;
    }
    .says {
      font-size: 1.1rem;
      font-weight: 600;
    }
  `,
})
export class PhoneLevelComponent {
  protected readonly phone = inject(ThisPhone);
  protected readonly speaker = inject(Speaker);

  readonly told = output<MeanTilt>();

  protected readonly problem = signal<string | undefined>(undefined);
  protected readonly live = signal(false);
  /** As it lies, less its own error, a little calmed. */
  protected readonly shown = signal<Tilt | undefined>(undefined);
  protected readonly measuring = signal(false);
  protected readonly enough = signal(false);
  protected readonly secondsLeft = signal(0);
  /** The first of the two readings that take its own error out. */
  protected readonly first = signal<MeanTilt | undefined>(undefined);
  protected readonly status = signal('');
  protected readonly aloud = signal(false);
  protected readonly give = computed(() => (this.phone.ownTilt() ? 2 : 10));
  protected readonly bubble = computed(() => {
    const { across, along } = this.shown() ?? { across: 0, along: 0 };
    const [x, y] = [6 * across, -6 * along];
    const far = Math.hypot(x, y);
    const most = 66;
    return far > most ? { x: (x * most) / far, y: (y * most) / far } : { x, y };
  });

  #listening: Subscription | undefined;
  #readings: Tilt[] = [];
  #latest: Tilt | undefined;
  #from = 0;
  #ticking: ReturnType<typeof setInterval> | undefined;
  #speaking: ReturnType<typeof setInterval> | undefined;

  constructor() {
    keepAwake(() => this.live());
    // A call takes the phone up: what was measured up to then is none of the machine's.
    const hidden = (): void => {
      if (document.visibilityState !== 'hidden' || !this.measuring()) return;
      this.#cut();
      this.status.set('Something came in between. Lay the phone back, and measure again.');
    };
    document.addEventListener('visibilitychange', hidden);
    inject(DestroyRef).onDestroy(() => {
      document.removeEventListener('visibilitychange', hidden);
      this.stop();
    });
  }

  protected begin(): void {
    this.stop();
    this.problem.set(undefined);
    this.live.set(true);
    this.status.set('');
    this.#listening = orientations().subscribe({
      next: (orientation) => this.#feel(tiltOf(orientation)),
      error: (problem: unknown) => {
        this.stop();
        this.problem.set(sayProblem(problem));
      },
    });
    this.#speaking = setInterval(() => this.#speak(), SAYS_EVERY_MS);
  }

  protected measure(): void {
    this.#readings = [];
    this.#from = performance.now();
    this.measuring.set(true);
    this.enough.set(false);
    this.secondsLeft.set(MINUTE_MS / 1000);
    this.status.set('');
    clearInterval(this.#ticking);
    this.#ticking = setInterval(() => {
      const gone = performance.now() - this.#from;
      // Browsers send only what changed by a tenth of a degree: a phone that lies still says so by silence.
      if (this.#latest && gone > SETTLES_MS) this.#readings.push(this.#latest);
      this.secondsLeft.set(Math.max(0, Math.ceil((MINUTE_MS - gone) / 1000)));
      this.enough.set(gone >= ENOUGH_MS);
      if (gone >= MINUTE_MS) this.end();
    }, EVERY_MS);
  }

  protected end(): void {
    clearInterval(this.#ticking);
    this.measuring.set(false);
    const own = this.first() ? undefined : this.phone.ownTilt();
    const mean = meanTilt(this.#readings, own);
    if (typeof mean === 'string') {
      this.status.set(PROBLEMS[mean]);
      return;
    }
    const before = this.first();
    if (!before && !own) {
      this.first.set(mean);
      this.status.set(
        'Now turn the phone half round on the same place, its top to you, and measure once more: what turns with it is its own error.',
      );
      return;
    }
    if (before) {
      const { tilt, own: error } = halfTurn(before.tilt, mean.tilt);
      this.phone.calibrated(error);
      this.first.set(undefined);
      this.#tell(
        { ...mean, tilt, give: Math.max(before.give, mean.give) },
        ' Turn the phone back, its top to the back, before you turn feet.',
      );
      return;
    }
    this.#tell(mean);
  }

  protected anew(): void {
    this.first.set(undefined);
    this.phone.ownTilt.set(undefined);
    this.measure();
  }

  protected stop(): void {
    this.#listening?.unsubscribe();
    clearInterval(this.#ticking);
    clearInterval(this.#speaking);
    this.live.set(false);
    this.measuring.set(false);
    this.first.set(undefined);
    this.shown.set(undefined);
    this.#latest = undefined;
    this.#readings = [];
    this.speaker.quiet();
  }

  protected readonly say = (slope: number): string => String(Math.round(Math.abs(slope)));
  protected readonly sideOf = ({ across }: Tilt): string =>
    Math.round(across) === 0 ? 'even' : across > 0 ? 'right higher' : 'left higher';
  protected readonly endOf = ({ along }: Tilt): string =>
    Math.round(along) === 0 ? 'even' : along > 0 ? 'back higher' : 'front higher';

  /** The readings of this measurement go. */
  #cut(): void {
    clearInterval(this.#ticking);
    this.measuring.set(false);
    this.#readings = [];
  }

  #feel(tilt: Tilt): void {
    const own = this.phone.ownTilt() ?? { across: 0, along: 0 };
    const now = { across: tilt.across - own.across, along: tilt.along - own.along };
    const before = this.shown();
    this.shown.set(
      before
        ? {
            across: CALM * before.across + (1 - CALM) * now.across,
            along: CALM * before.along + (1 - CALM) * now.along,
          }
        : now,
    );
    this.#latest = tilt;
  }

  #tell(told: MeanTilt, then = ''): void {
    const { tilt, give } = told;
    const far = `${this.say(tilt.across)} mm a metre, ${this.sideOf(tilt)}; ${this.say(tilt.along)}, ${this.endOf(tilt)}, give or take ${Math.ceil(give)}.`;
    const next = isWorthTurns(tilt)
      ? ' The feet and their turns stand below.'
      : ' That is as level as a phone can tell: finish with a bubble.';
    this.status.set(far + next + then);
    this.told.emit(told);
  }

  #speak(): void {
    const now = this.shown();
    if (!this.aloud() || !now || this.measuring()) return;
    this.speaker.say(
      `${this.sideOf(now)} ${this.say(now.across)}. ${this.endOf(now)} ${this.say(now.along)}.`,
    );
  }
}
