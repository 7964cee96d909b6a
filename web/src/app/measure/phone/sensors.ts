import { Observable } from 'rxjs';
import type { Felt } from '@needlecase/core/measure/phone/spin';
import type { Orientation } from '@needlecase/core/measure/phone/tilt';

/** Why a sensor of the phone tells nothing. */
export type NoSensor = 'insecure' | 'missing' | 'refused' | 'silent' | 'busy';

/** What is said then; the way by hand stays. */
export const SENSOR_WORDS: Readonly<Record<NoSensor, string>> = {
  insecure:
    'This browser gives its sensors only to a safe address. Open the house by its https address, as under House, Phones.',
  missing: 'This device has no such sensor, or its browser does not give it.',
  refused:
    'You, or the browser, said no. It can be allowed in the browser’s settings of this page; then try again.',
  silent: 'The sensor sends nothing. Not every device with a screen has one; a phone usually does.',
  busy: 'Something else uses the microphone just now. Close it, and try again.',
};

export class SensorProblem extends Error {
  constructor(readonly why: NoSensor) {
    super(SENSOR_WORDS[why]);
  }
}

/** What is said of it. */
export const sayProblem = (problem: unknown): string =>
  problem instanceof Error ? problem.message : String(problem);

/** Nothing for so long is nothing at all, ms. */
const SILENT_MS = 3000;

/** Some browsers ask, at a tap, before they give a sensor. */
interface Asks {
  requestPermission?(): Promise<'granted' | 'denied'>;
}

/** What a sensor sends, read; an event that tells nothing is passed over. @throws SensorProblem on the stream */
function sensed<E extends Event, T>(
  type: 'deviceorientation' | 'devicemotion',
  read: (event: E) => T | undefined,
): Observable<T> {
  return new Observable((listener) => {
    const gone = new AbortController();
    const begin = async (): Promise<void> => {
      if (!isSecureContext) throw new SensorProblem('insecure');
      const kind = (globalThis as unknown as Record<string, Asks | undefined>)[
        type === 'devicemotion' ? 'DeviceMotionEvent' : 'DeviceOrientationEvent'
      ];
      if (!kind) throw new SensorProblem('missing');
      const said = await kind.requestPermission?.().catch(() => 'denied');
      if (said === 'denied') throw new SensorProblem('refused');
      if (gone.signal.aborted) return;
      const silent = setTimeout(() => listener.error(new SensorProblem('silent')), SILENT_MS);
      gone.signal.addEventListener('abort', () => clearTimeout(silent));
      const hear = (event: Event): void => {
        const told = read(event as E);
        if (told === undefined) return;
        clearTimeout(silent);
        listener.next(told);
      };
      addEventListener(type, hear, { signal: gone.signal });
    };
    begin().catch((problem: unknown) => listener.error(problem));
    return () => gone.abort();
  });
}

/** How the phone lies, as it is turned; begin it at a tap. */
export const orientations = (): Observable<Orientation> =>
  sensed<DeviceOrientationEvent, Orientation>('deviceorientation', ({ beta, gamma }) =>
    beta === null || gamma === null ? undefined : { beta, gamma },
  );

/** What the phone feels, gravity left in, as its sensor sends it; begin it at a tap. */
export const motions = (): Observable<Felt> =>
  sensed<DeviceMotionEvent, Felt>('devicemotion', (event) => {
    const felt =
      event.acceleration?.x == null ? event.accelerationIncludingGravity : event.acceleration;
    if (!felt || felt.x === null || felt.y === null || felt.z === null) return undefined;
    return { at: event.timeStamp, x: felt.x, y: felt.y, z: felt.z };
  });

/** What the microphone hears, in pieces, -1 to 1, with how many samples a second. */
export interface HeardPiece {
  samples: Float32Array;
  rate: number;
}

/** Listens, as little altered as the browser lets it; begin it at a tap. Whoever goes closes the microphone. */
export const sounds = (): Observable<HeardPiece> =>
  new Observable((listener) => {
    let gone = false;
    let close = (): void => undefined;
    const begin = async (): Promise<void> => {
      if (!isSecureContext) throw new SensorProblem('insecure');
      if (!('mediaDevices' in navigator) || typeof AudioWorkletNode === 'undefined') {
        throw new SensorProblem('missing');
      }
      const stream = await navigator.mediaDevices
        .getUserMedia({
          audio: { autoGainControl: false, noiseSuppression: false, echoCancellation: false },
        })
        .catch((problem: DOMException) => {
          throw new SensorProblem(
            problem.name === 'NotFoundError'
              ? 'missing'
              : problem.name === 'NotReadableError'
                ? 'busy'
                : 'refused',
          );
        });
      const context = new AudioContext();
      close = () => {
        for (const track of stream.getTracks()) track.stop();
        void context.close();
      };
      if (gone) return close();
      await context.audioWorklet.addModule('/listen.js');
      const node = new AudioWorkletNode(context, 'listen');
      node.port.onmessage = ({ data }: MessageEvent<Float32Array>) =>
        listener.next({ samples: data, rate: context.sampleRate });
      context.createMediaStreamSource(stream).connect(node);
      // A call, or another page, takes the microphone away.
      for (const track of stream.getTracks()) {
        track.addEventListener('ended', () => listener.complete());
      }
      await context.resume();
    };
    begin().catch((problem: unknown) => listener.error(problem));
    return () => {
      gone = true;
      close();
    };
  });
