/*
 * What several looks and repairs have in common: made once, the next that needs it costs so much less.
 * The minutes are part of those that each look and each repair names. Common practice; judgement.
 */
export const STAGES = {
  /** Water let out and the pump filter turned out. */
  'filter-open': 10,
  /** The machine pulled out, and back. */
  'pulled-out': 5,
  /** The drain hose off its pipe, and back. */
  'hose-off': 3,
  /** The fill hose off, and back. */
  'fill-hose-off': 4,
  /** The duct's hose off, and back. */
  'duct-off': 4,
  /** The way outside and back. */
  outside: 2,
  /** The rear panel off, and back. */
  'rear-off': 10,
  /** The blower's housing off, and back. */
  'blower-open': 12,
  /** The flap and the catches of the heat exchanger. */
  'exchanger-open': 2,
} as const satisfies Record<string, number>;

export type Stage = keyof typeof STAGES;

/** Something that has stages in common with other things. */
interface Staged {
  minutes: number;
  stages?: readonly Stage[];
}

const ALL = Object.entries(STAGES).map(([stage, minutes], i) => ({ stage, minutes, bit: 2 ** i }));

/** Which stages are made: a bit each, 0 where none is. */
export type Made = number;

const KNOWN = new WeakMap<object, Made>();

/** The stages of something, as made. */
export function stagesOf(one: Pick<Staged, 'stages'>): Made {
  const { stages } = one;
  if (!stages) return 0;
  const known = KNOWN.get(one);
  if (known !== undefined) return known;
  const made = ALL.reduce(
    (sum, { stage, bit }) => (stages.includes(stage as Stage) ? sum | bit : sum),
    0,
  );
  KNOWN.set(one, made);
  return made;
}

/**
 * Minutes left of a look or a repair once some stages are made; never less than one.
 * @param own stages of its own
 */
export function minutesLeft(minutes: number, own: Made, made: Made): number {
  let left = minutes;
  if (own & made) for (const one of ALL) if (own & made & one.bit) left -= one.minutes;
  return Math.max(1, left);
}

/** Minutes left of a look or a repair once some stages are made; never less than one. */
export const minutesWith = (one: Staged, made: Made): number =>
  minutesLeft(one.minutes, stagesOf(one), made);
