import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  inject,
  linkedSignal,
  signal,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import { hasDuct, isWasher } from '@needlecase/core';
import type { Heard } from '@needlecase/core/measure/phone/sound';
import { meaningOf } from '@needlecase/core/measure/phone/meaning';
import { NOTHING_HEARD } from '@needlecase/core/measure/phone/words';
import type { Subscription } from 'rxjs';
import { ReadableDirective } from '../../charts/readable.directive';
import { keepAwake } from '../../shared/wake-lock';
import { PhoneReader } from '../../workers/phone-reader.service';
import { InstrumentComponent } from '../parts/instrument.component';
import { Measuring } from '../parts/measuring';
import { injectOwn } from '../phone/own-figures';
import { RecordingComponent } from '../phone/recording.component';
import { SensorProblemComponent } from '../phone/sensor-problem.component';
import { sayProblem, sounds } from '../phone/sensors';
import { showFound } from '../phone/show-found';
import { ThisPhone } from '../phone/this-phone';
import { wavOf } from '../phone/wav';
import { WhichPhoneComponent } from '../phone/which-phone.component';

const PLACES = ['on the lid', 'a step in front of it'] as const;
/** Where the pump is heard, or the blower. */
const [AT_PUMP, AT_HOOD] = ['at the pump’s flap', 'at the hood'] as const;
const SECONDS = 10;
const DEEP = 60;
const WIDE = 400;
const HIGH = 140;
/** Tones are drawn from and to, Hz, by their logarithm. */
const [LOW, TOP] = [20, 8000];
const along = (hz: number): number =>
  (WIDE * Math.log(Math.max(LOW, hz) / LOW)) / Math.log(TOP / LOW);

/** Ten seconds by the microphone: how loud against its own, which tones, how much roar, which beat. */
@Component({
  selector: 'nc-sound',
  imports: [
    InstrumentComponent,
    ReadableDirective,
    RouterLink,
    RecordingComponent,
    SensorProblemComponent,
    WhichPhoneComponent,
  ],
  providers: [Measuring, PhoneReader],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <nc-instrument
      lead="Ten seconds of what the machine sounds like: how loud against its own, which tones, how much roar. Nothing else running, the same part of the cycle each time."
      keep="Keep this sound’s figures"
      [ready]="heard() !== undefined && !recording()"
      (save)="save()"
    >
      <svg
        ncReadable
        draws
        class="drawing tones"
        [attr.viewBox]="'0 0 ' + wide + ' ' + (high + 40)"
        role="img"
        [attr.aria-label]="spoken()"
      >
        <path class="wall" [attr.d]="'M0 ' + high + 'H' + wide" />
        @for (one of marks; track one.hz) {
          <text class="soft" [attr.x]="one.x" [attr.y]="high + 22" text-anchor="middle">
            {{ one.say }}
          </text>
        }
        @if (heard(); as h) {
          <path class="roar" [attr.d]="roarOf(h)" />
          @for (tone of tones(); track tone.hz) {
            <path [class]="tone.multiple ? 'tone of' : 'tone'" [attr.d]="tone.d" />
          }
        } @else if (recording()) {
          <path class="tone" [attr.d]="'M4 70H' + (4 + 392 * loud())" />
        } @else {
          <path class="air" d="M150 70q18 -40 36 0t36 0t36 0" />
        }
      </svg>
      <div form>
        <nc-which-phone [places]="places()" [(place)]="place" />
        <nc-sensor-problem [says]="problem()" byHand="The ear stays: Trouble asks what you hear." />
        @if (!recording()) {
          <p class="soft small">
            It asks for the microphone. Only the figures are kept; the sound itself goes with this
            page, and never leaves the phone.
          </p>
          <button type="button" class="btn btn-plain go" (click)="begin()">
            {{ heard() ? 'Listen once more' : 'Listen for ten seconds' }}
          </button>
        } @else {
          <nc-recording> Recording, {{ left() }} s left </nc-recording>
          <button type="button" class="btn btn-thread go" (click)="end()">Stop it</button>
        }
        @if (heard() && !recording()) {
          <p>
            <a class="small" [href]="file()" download="machine.wav">Keep the recording as a file</a>
          </p>
        }
      </div>
      @if (heard(); as h) {
        <div class="numbers">
          <div>
            <b>{{ h.level.toFixed(0) }} dB</b> on this phone’s own scale
          </div>
          <div>
            <b>{{ round(100 * h.roar) }} %</b> of it broad roar
          </div>
          @if (h.thumps; as thumps) {
            <div>
              <b>{{ round(60 * thumps) }} a minute</b> thumps, evenly
            </div>
          }
        </div>
        <p class="verdict">{{ against() }}</p>
        @if (h.tones.length) {
          <p class="soft small">
            Tones:
            @for (tone of h.tones.slice(0, 4); track tone.hz; let last = $last) {
              {{ round(tone.hz) }} Hz{{
                tone.multiple ? ' (' + tone.multiple + ' times another)' : ''
              }}{{ last ? '.' : ',' }}
            }
          </p>
        }
        @for (one of meaning(); track one.say) {
          <p>
            {{ one.say }}
            @if (one.finding && measuring.machine(); as machine) {
              <a routerLink="/trouble" [queryParams]="{ machine: machine.id, finding: one.finding }"
                >Take it to Trouble</a
              >
            }
          </p>
        }
      } @else if (status()) {
        <p class="field-problem" role="alert">{{ status() }}</p>
      } @else {
        <p class="soft">
          Before the work and after it: what got quieter, and by how much, proves it.
        </p>
      }
    </nc-instrument>
  `,
  styles: `
    .tones .tone {
      stroke: var(--water);
      stroke-width: 5;
    }
    .tones .of {
      stroke: var(--seam);
    }
    .tones .roar {
      fill: var(--air);
      fill-opacity: 0.25;
      stroke: none;
    }
    .go {
      min-height: 56px;
      width: 100%;
    }
  `,
  styleUrl: './instruments.scss',
})
export default class SoundComponent {
  protected readonly measuring = inject(Measuring);
  readonly #reader = inject(PhoneReader);
  readonly #phone = inject(ThisPhone);

  protected readonly places = computed(() => {
    const kind = this.measuring.machine()?.kind;
    const washes = kind === undefined || isWasher(kind);
    return [...PLACES, ...(washes ? [AT_PUMP] : []), ...(kind && hasDuct(kind) ? [AT_HOOD] : [])];
  });
  protected readonly wide = WIDE;
  protected readonly high = HIGH;
  protected readonly marks = [50, 250, 1000, 4000].map((hz) => ({
    hz,
    x: along(hz),
    say: hz >= 1000 ? `${hz / 1000} kHz` : `${hz} Hz`,
  }));
  protected readonly round = Math.round;
  /** The one that was chosen, as long as such a machine has it. */
  protected readonly place = linkedSignal<readonly string[], string>({
    source: this.places,
    computation: (places, before) => places.find((one) => one === before?.value) ?? places[0]!,
  });
  /** How loud it is just now, 0 to 1 of sixty dB. */
  protected readonly loud = signal(0);
  protected readonly recording = signal(false);
  protected readonly left = signal(SECONDS);
  protected readonly problem = signal<string | undefined>(undefined);
  protected readonly status = signal('');
  protected readonly heard = signal<Heard | undefined>(undefined);
  /** Address of the recording, for whoever wants it as a file. */
  protected readonly file = signal<string | undefined>(undefined);
  readonly #own = injectOwn(this.place);

  readonly #against = computed(() => {
    const heard = this.heard();
    return heard && this.#own.against('sound-level', heard.level);
  });
  protected readonly against = computed(() => {
    const heard = this.heard();
    return heard ? this.#own.say('sound-level', heard.level) : '';
  });
  protected readonly meaning = computed(() => {
    const [heard, kind] = [this.heard(), this.measuring.machine()?.kind];
    return heard && kind ? meaningOf(heard, kind, this.#against()) : [];
  });
  protected readonly tones = computed(() => {
    const tones = this.heard()?.tones ?? [];
    const most = Math.max(30, ...tones.map(({ over }) => over));
    return tones.map(({ hz, over, multiple }) => {
      const x = along(hz).toFixed(1);
      return {
        hz,
        multiple,
        d: `M${x} ${HIGH - 2}V${(HIGH - (HIGH - 14) * (over / most)).toFixed(1)}`,
      };
    });
  });
  protected readonly spoken = computed(() => {
    const heard = this.heard();
    return heard
      ? `${heard.tones.length} tones over the roar; the strongest at ${heard.tones[0] ? Math.round(heard.tones[0].hz) : 'no'} hertz`
      : 'Tones along the pitch, low to high';
  });

  readonly #showFound = showFound();
  #listening: Subscription | undefined;
  #pieces: Float32Array[] = [];
  #rate = 48_000;

  constructor() {
    keepAwake(() => this.recording());
    inject(DestroyRef).onDestroy(() => {
      this.#stop();
      this.#forget();
    });
  }

  protected begin(): void {
    this.#stop();
    this.#forget();
    this.#pieces = [];
    let count = 0;
    this.problem.set(undefined);
    this.status.set('');
    this.heard.set(undefined);
    this.left.set(SECONDS);
    this.recording.set(true);
    this.#listening = sounds().subscribe({
      next: ({ samples, rate }) => {
        this.#pieces.push(samples);
        this.#rate = rate;
        count += samples.length;
        this.loud.set(loudness(samples));
        this.left.set(Math.max(0, Math.ceil(SECONDS - count / rate)));
        if (count >= SECONDS * rate) void this.end();
      },
      error: (problem: unknown) => {
        this.#stop();
        this.problem.set(sayProblem(problem));
      },
      // The microphone was taken away, by a call: what was heard up to then counts.
      complete: () => void this.end(),
    });
  }

  protected async end(): Promise<void> {
    if (!this.recording()) return;
    this.#stop();
    const samples = joined(this.#pieces);
    this.#pieces = [];
    try {
      const heard = await this.#reader.read({ what: 'sound', samples, rate: this.#rate });
      // Listened to anew since: that is told next.
      if (this.recording()) return;
      if (typeof heard === 'string') return this.status.set(NOTHING_HEARD[heard]);
      this.heard.set(heard);
      this.#showFound();
      this.file.set(URL.createObjectURL(wavOf(samples, this.#rate)));
    } catch (problem) {
      this.status.set((problem as Error).message);
    }
  }

  protected save(): void {
    const heard = this.heard();
    if (!heard) return;
    void this.measuring
      .save({
        ...{ kind: 'reading', quantity: 'sound-level', unit: 'dB' },
        ...{ value: Number(heard.level.toFixed(1)) },
        ...{ device: this.#phone.name(), placement: this.place() },
      })
      .then(() => this.#own.refresh());
  }

  /** What lies below the tones, as high as it is of all of it. */
  protected roarOf({ roar }: Heard): string {
    const top = HIGH - (HIGH - 14) * 0.6 * roar;
    return `M${along(300)} ${HIGH}V${top}H${along(4000)}V${HIGH}Z`;
  }

  #stop(): void {
    this.#listening?.unsubscribe();
    this.recording.set(false);
  }

  #forget(): void {
    const file = this.file();
    if (file) URL.revokeObjectURL(file);
    this.file.set(undefined);
  }
}

/** How loud a piece is, 0 to 1 of the sixty dB below the loudest. */
function loudness(samples: Float32Array): number {
  const power = samples.reduce((sum, one) => sum + one * one, 0) / Math.max(1, samples.length);
  return Math.min(1, Math.max(0, 1 + (10 * Math.log10(Math.max(1e-12, power))) / DEEP));
}

function joined(pieces: readonly Float32Array[]): Float32Array {
  const all = new Float32Array(pieces.reduce((sum, one) => sum + one.length, 0));
  let at = 0;
  for (const one of pieces) {
    all.set(one, at);
    at += one.length;
  }
  return all;
}
