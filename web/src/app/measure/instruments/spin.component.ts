import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  inject,
  signal,
} from '@angular/core';
import type { Felt, Spin } from '@needlecase/core/measure/phone/spin';
import { NO_SPIN, SHAKES_OF } from '@needlecase/core/measure/phone/words';
import type { Subscription } from 'rxjs';
import { ReadableDirective } from '../../charts/readable.directive';
import { keepAwake } from '../../shared/wake-lock';
import { PhoneReader } from '../../workers/phone-reader.service';
import { InstrumentComponent } from '../parts/instrument.component';
import { Measuring } from '../parts/measuring';
import { injectOwn } from '../phone/own-figures';
import { RecordingComponent } from '../phone/recording.component';
import { SensorProblemComponent } from '../phone/sensor-problem.component';
import { motions, sayProblem } from '../phone/sensors';
import { showFound } from '../phone/show-found';
import { ThisPhone } from '../phone/this-phone';
import { WhichPhoneComponent } from '../phone/which-phone.component';

const PLACES = ['on the lid, on a cloth', 'held against the side'] as const;
/** What is shown live is of the last so many, ms; read again each so often; nobody records longer. */
const LIVE_MS = 8000;
const EVERY_MS = 2000;
const LONGEST_MS = 30 * 60_000;
/** A device that rounds, or sends less often than this, Hz, tells less: it is said. */
const FULL_RATE = 55;
/** Growth in a year that is more than chance. Judgement. */
const WEARS = 0.15;
const WIDE = 400;
const HIGH = 150;

/** What is held against other spins: the steady part, where it was felt. */
const shakeOf = ({ steady, rms }: Spin): number => steady ?? rms.all;

/** The phone on the lid feels the spin: how hard, how fast, and against this machine's own. */
@Component({
  selector: 'nc-spin',
  imports: [
    InstrumentComponent,
    ReadableDirective,
    RecordingComponent,
    SensorProblemComponent,
    WhichPhoneComponent,
  ],
  providers: [Measuring, PhoneReader],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <nc-instrument
      lead="The phone feels how hard the spin shakes, and counts its turns. By itself a figure says little: it is held against this machine’s own."
      keep="Keep this spin"
      [ready]="spin() !== undefined && !recording()"
      (save)="save()"
    >
      <svg
        ncReadable
        draws
        class="drawing course"
        [attr.viewBox]="'0 0 ' + wide + ' ' + (high + 46)"
        role="img"
        [attr.aria-label]="spoken()"
      >
        <path class="wall" [attr.d]="'M0 ' + high + 'H' + wide" />
        @for (bar of bars(); track $index) {
          <path [class]="bar.resonance ? 'bar hard' : 'bar'" [attr.d]="bar.d" />
        }
        @if (bars().length) {
          <text class="soft" x="0" [attr.y]="high + 20">from the start</text>
          <text class="soft" [attr.x]="wide" [attr.y]="high + 20" text-anchor="end">
            {{ seconds() }} s
          </text>
        } @else {
          <path
            class="machine"
            d="M120 30H280Q290 30 290 40V140Q290 150 280 150H120Q110 150 110 140V40Q110 30 120 30Z"
          />
          <circle cx="200" cy="98" r="36" />
          <rect class="phone" x="172" y="18" width="56" height="9" rx="3" />
          <path class="air" d="M150 14q6 -6 0 -12M250 14q-6 -6 0 -12" />
        }
      </svg>
      <div form>
        <p class="caution">
          A phone falls off a machine that walks. Lay it on a folded cloth in the middle, and stay
          by it; never reach into a machine that spins.
        </p>
        <nc-which-phone [places]="places" [(place)]="place" />
        <nc-sensor-problem
          [says]="problem()"
          byHand="The eye stays: does it walk, does it bang, does it take long to come up?"
        />
        @if (!recording()) {
          <p class="soft small">
            It asks for the phone’s motion sensor. What it feels stays on the phone; only the
            figures are kept.
          </p>
          <button type="button" class="btn btn-plain go" (click)="begin()">
            {{ spin() ? 'Feel it once more' : 'Feel the spin' }}
          </button>
        } @else {
          <nc-recording> Feeling, {{ gone() }} s</nc-recording>
          <button type="button" class="btn btn-thread go" (click)="end()">End it</button>
        }
      </div>
      @if (spin(); as s) {
        <div class="numbers">
          <div>
            <b>{{ shakeOf(s).toFixed(2) }} m/s²</b>
            {{ s.steady ? 'shaking, in the steady spin' : 'shaking, all ways' }}
          </div>
          <div>
            @if (s.speed; as speed) {
              <b>{{ round(speed.rpm) }} rpm</b> give or take {{ ceil(speed.give) }}
            } @else {
              <b>no speed</b> stands out
            }
          </div>
          <div>
            <b>{{ s.peak.toFixed(1) }} m/s²</b> the hardest knock
          </div>
        </div>
        <p class="soft small">
          To the sides {{ s.rms.x.toFixed(2) }}, along {{ s.rms.y.toFixed(2) }}, up and down
          {{ s.rms.z.toFixed(2) }} m/s².
          @if (s.resonance; as r) {
            On the way up it shook hardest at {{ round(r.rpm ?? 0) }} rpm, as a hung tub does.
          }
          @if (s.rate < fullRate) {
            This device tells {{ round(s.rate) }} times a second: what shakes faster folds into what
            is slower.
          }
        </p>
        @if (!recording()) {
          <p class="verdict">{{ against() }}</p>
          @if (growth(); as share) {
            <p>
              Over the record it shakes harder by some {{ round(100 * share) }} % a year: feet or
              suspension that wear do that, loads do not.
            </p>
          }
          @if (worse()) {
            <ul>
              @for (one of shakesOf; track one) {
                <li>{{ one }}</li>
              }
            </ul>
          }
        }
      } @else if (status()) {
        <p class="field-problem" role="alert">{{ status() }}</p>
      } @else {
        <p class="soft">
          Begin it before the spin: the way up shows where the tub swings by itself, the steady part
          tells the speed.
        </p>
      }
    </nc-instrument>
  `,
  styles: `
    .course .bar {
      stroke: var(--water);
      stroke-linecap: butt;
    }
    .course .hard {
      stroke: var(--due);
    }
    .course .phone {
      fill: var(--water);
    }
    .caution {
      border-inline-start: 5px solid var(--due);
      font-weight: 600;
      padding-inline-start: 0.7rem;
    }
    .go {
      min-height: 56px;
      width: 100%;
    }
  `,
  styleUrl: './instruments.scss',
})
export default class SpinComponent {
  protected readonly measuring = inject(Measuring);
  readonly #reader = inject(PhoneReader);
  readonly #phone = inject(ThisPhone);

  protected readonly places = PLACES;
  protected readonly wide = WIDE;
  protected readonly high = HIGH;
  protected readonly fullRate = FULL_RATE;
  protected readonly shakesOf = SHAKES_OF;
  protected readonly shakeOf = shakeOf;
  protected readonly round = Math.round;
  protected readonly ceil = Math.ceil;
  protected readonly place = signal<string>(PLACES[0]);
  protected readonly recording = signal(false);
  protected readonly gone = signal(0);
  protected readonly problem = signal<string | undefined>(undefined);
  /** Why what was felt tells nothing. */
  protected readonly status = signal('');
  protected readonly spin = signal<Spin | undefined>(undefined);
  readonly #own = injectOwn(this.place);

  protected readonly against = computed(() => {
    const spin = this.spin();
    return spin ? this.#own.say('spin-shake', shakeOf(spin)) : '';
  });
  /** Share by which it grows in a year, where it clearly does. */
  protected readonly growth = computed(() => {
    const share = this.#own.growth('spin-shake');
    return share !== undefined && share >= WEARS ? share : undefined;
  });
  protected readonly worse = computed(() => {
    const spin = this.spin();
    return spin && this.#own.against('spin-shake', shakeOf(spin))?.is === 'worse';
  });
  protected readonly bars = computed(() => {
    const { course = [], resonance } = this.spin() ?? {};
    const most = Math.max(0.01, ...course.map(({ rms }) => rms));
    const step = WIDE / Math.max(12, course.length);
    return course.map((one, i) => {
      const x = ((i + 0.5) * step).toFixed(1);
      const top = (HIGH - (HIGH - 10) * (one.rms / most)).toFixed(1);
      return { d: `M${x} ${HIGH - 2}V${top}`, resonance: one.at === resonance?.at };
    });
  });
  protected readonly seconds = computed(() => {
    const last = this.spin()?.course.at(-1);
    return last ? Math.round(last.at / 1000) + 2 : 0;
  });
  protected readonly spoken = computed(() => {
    const spin = this.spin();
    return spin
      ? `How hard it shook, over ${this.seconds()} seconds; ${spin.rms.all.toFixed(2)} m/s² in all`
      : 'A phone on a folded cloth, on the lid of the machine';
  });

  readonly #showFound = showFound();
  #feeling: Subscription | undefined;
  #felt: Felt[] = [];
  #reading: ReturnType<typeof setInterval> | undefined;

  constructor() {
    keepAwake(() => this.recording());
    // A call, or another page, takes the sensor away: what was felt up to then counts.
    const hidden = (): void => {
      if (document.visibilityState === 'hidden' && this.recording()) void this.end();
    };
    document.addEventListener('visibilitychange', hidden);
    inject(DestroyRef).onDestroy(() => {
      document.removeEventListener('visibilitychange', hidden);
      this.#stop();
    });
  }

  protected begin(): void {
    this.#stop();
    this.#felt = [];
    this.problem.set(undefined);
    this.status.set('');
    this.spin.set(undefined);
    this.gone.set(0);
    this.recording.set(true);
    this.#feeling = motions().subscribe({
      next: (felt) => {
        this.#felt.push(felt);
        const ms = felt.at - this.#felt[0]!.at;
        this.gone.set(Math.floor(ms / 1000));
        if (ms > LONGEST_MS) void this.end();
      },
      error: (problem: unknown) => {
        this.#stop();
        this.problem.set(sayProblem(problem));
      },
    });
    this.#reading = setInterval(() => void this.#live(), EVERY_MS);
  }

  protected async end(): Promise<void> {
    if (!this.recording()) return;
    this.#stop();
    await this.#read(this.#felt, true);
  }

  protected save(): void {
    const spin = this.spin();
    if (!spin) return;
    const by = { kind: 'reading', device: this.#phone.name(), placement: this.place() } as const;
    void this.measuring
      .save(
        { ...by, quantity: 'spin-shake', value: Number(shakeOf(spin).toFixed(3)), unit: 'm/s²' },
        ...(spin.speed
          ? [{ ...by, quantity: 'spin-speed', value: Math.round(spin.speed.rpm), unit: 'rpm' }]
          : []),
      )
      .then(() => this.#own.refresh());
  }

  #stop(): void {
    this.#feeling?.unsubscribe();
    clearInterval(this.#reading);
    this.recording.set(false);
  }

  async #live(): Promise<void> {
    const last = this.#felt.at(-1)?.at ?? 0;
    await this.#read(
      this.#felt.filter(({ at }) => at > last - LIVE_MS),
      false,
    );
  }

  /** @param whole the recording is over: why it tells nothing is said */
  async #read(felt: readonly Felt[], whole: boolean): Promise<void> {
    try {
      const spin = await this.#reader.read({ what: 'spin', felt });
      // What was read live is late once it is over.
      if (!whole && !this.recording()) return;
      if (typeof spin !== 'string') {
        this.spin.set(spin);
        if (whole) this.#showFound();
      } else if (whole) {
        this.spin.set(undefined);
        this.status.set(NO_SPIN[spin]);
      }
    } catch (problem) {
      this.status.set((problem as Error).message);
    }
  }
}
