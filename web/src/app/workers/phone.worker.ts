import {
  lightThrough,
  type Corner,
  type LightThrough,
  type NoLight,
  type Picture,
} from '@needlecase/core/measure/phone/light';
import { heardIn, type Heard, type NothingHeard } from '@needlecase/core/measure/phone/sound';
import { spinOf, type Felt, type NoSpin, type Spin } from '@needlecase/core/measure/phone/spin';

/** What the worker is asked to read. */
export type PhoneAsked =
  | { what: 'spin'; felt: readonly Felt[] }
  | { what: 'sound'; samples: Float32Array; rate: number }
  | { what: 'light'; picture: Picture; corners: readonly Corner[] };
/** What it reads, or why nothing can be read. */
export interface PhoneRead {
  spin: Spin | NoSpin;
  sound: Heard | NothingHeard;
  light: LightThrough | NoLight;
}
export interface PhoneAnswered {
  id: number;
  read?: PhoneRead[keyof PhoneRead];
  problem?: string;
}

const read = (asked: PhoneAsked): PhoneRead[keyof PhoneRead] => {
  switch (asked.what) {
    case 'spin':
      return spinOf(asked.felt);
    case 'sound':
      return heardIn(asked.samples, asked.rate);
    case 'light':
      return lightThrough(asked.picture, asked.corners);
  }
};

addEventListener(
  'message',
  ({ data: { id, asked } }: MessageEvent<{ id: number; asked: PhoneAsked }>) => {
    try {
      postMessage({ id, read: read(asked) } satisfies PhoneAnswered);
    } catch (problem) {
      const said = problem instanceof Error ? problem.message : String(problem);
      postMessage({ id, problem: said } satisfies PhoneAnswered);
    }
  },
);
