import { MeasureProblem, type Working } from '../input/fields.js';

/** What a meter on its highest or automatic ohm range shows with one probe on each strip: damp cloth is kilo-ohms. */
export type MeterReading = 'zero' | 'figure' | 'open';

export type SensorOutcome = 'works' | 'shorted' | 'clean-first' | 'faulty' | 'wrong-probes';

export interface SensorTest {
  outcome: SensorOutcome;
  say: string;
  next: string;
  working: Working[];
}

export interface SensorInput {
  /** Nothing on the strips. */
  dry: MeterReading;
  /** A damp cloth across both. */
  damp: MeterReading;
  /** The strips were cleaned and the test repeated. */
  cleaned: boolean;
  /** Both probes on the same strip, or on the drum's metal. */
  sameStrip?: boolean;
  /** Where both show a figure: it changed clearly. */
  changed?: boolean;
}

const OUTCOMES: Record<SensorOutcome, { say: string; next: string }> = {
  works: {
    say: 'It works: the strips tell dry from damp.',
    next: 'Look elsewhere: at the load, or at the air.',
  },
  shorted: {
    say: 'Nothing lies across the strips, and still they are joined: shorted.',
    next: 'Plug out, look for metal, foil or wire between them. If there is none, it is work for a professional.',
  },
  'clean-first': {
    say: 'Damp or dry, it shows the same: a film may cover the strips.',
    next: 'Clean both with rubbing alcohol on a pad, let them dry, and test again.',
  },
  faulty: {
    say: 'Cleaned, and still no change: the sensor or its lead is faulty.',
    next: 'Work for a professional. A timed cycle dries meanwhile.',
  },
  'wrong-probes': {
    say: 'Both probes touch the same strip: that always reads zero.',
    next: 'One probe on each strip, nothing between them, and test again. You know it by the zero that a damp cloth does not change.',
  },
};

/**
 * What the meter test of the two strips says (common practice). Open when dry and a figure when damp
 * counts as working.
 * @throws MeasureProblem for figures on both without saying whether they changed
 */
export function moistureSensor(input: SensorInput): SensorTest {
  const outcome = outcomeOf(input);
  return {
    outcome,
    ...OUTCOMES[outcome],
    working: [
      { what: 'Dry', how: MEANING[input.dry] },
      { what: 'With a damp cloth across', how: MEANING[input.damp] },
    ],
  };
}

const MEANING: Record<MeterReading, string> = {
  zero: '0 Ω: the strips are joined',
  figure: 'a figure: some current passes',
  open: 'over range: nothing passes',
};

function outcomeOf({ dry, damp, cleaned, sameStrip, changed }: SensorInput): SensorOutcome {
  if (sameStrip) return 'wrong-probes';
  if (dry === 'zero') return 'shorted';
  if (dry === 'open' && damp !== 'open') return 'works';
  if (dry === 'figure' && damp === 'figure') {
    if (changed === undefined) {
      throw new MeasureProblem([
        {
          field: 'changed',
          message: 'Say whether the figure changed clearly with the damp cloth.',
        },
      ]);
    }
    if (changed) return 'works';
  }
  if (dry === 'figure' && damp === 'zero') return 'works';
  return cleaned ? 'faulty' : 'clean-first';
}
