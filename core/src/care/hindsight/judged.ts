import type { Foretold } from './foretold.js';

/*
 * How well grades were foretold. A grade is a bracket, so whether it lies in a range is a share: of its part of the
 * forecast's own law, what lies between one and nine in ten (the nonrandomized transform of Czado, Gneiting and Held
 * 2009, "Predictive model assessment for count data"). Foretold rightly, eight in ten lie there, however coarse grades
 * are.
 */

/** A point of a reliability curve: how often something was said to be so, and how often it was. */
export interface CurvePoint {
  /** Mean of what was said, and the share of times that it was so, 0 to 1. */
  said: number;
  seen: number;
  count: number;
}

export interface Judged {
  openings: number;
  /** Share in the eight-in-ten range, 0 to 1. */
  inside: number;
  /** Mean squared error of the chance that it is blocked, and of one and the same chance for all (Brier 1950). */
  brier: number;
  brierOfOne: number;
  /** Days between expected and seen, of finds that tell: how far off in the mean, and to which side. */
  days?: { off: number; late: number; count: number };
  /** Chances that a find is so heavy or heavier, in tenths. */
  curve: CurvePoint[];
}

const [LOW, HIGH] = [0.1, 0.9];
const TENTHS = 10;
/** A tenth with fewer tells nothing. */
const LEAST = 5;

/** What of a find lies in its eight-in-ten range, 0 to 1. */
export function insideOf({ chances, grade }: Pick<Foretold, 'chances' | 'grade'>): number {
  const under = chances.slice(0, grade).reduce((sum, one) => sum + one, 0);
  const own = chances[grade]!;
  if (own < 1e-9) return under >= LOW && under <= HIGH ? 1 : 0;
  const within = Math.min(HIGH, under + own) - Math.max(LOW, under);
  return Math.max(0, within) / own;
}

/** Judges what was foretold against what was seen. */
export function judge(all: readonly Foretold[]): Judged | undefined {
  if (!all.length) return undefined;
  const mean = (values: readonly number[]) => values.reduce((a, b) => a + b, 0) / values.length;
  const blocked = all.map(({ chances, grade }) => ({
    said: chances[4]!,
    was: Number(grade === 4),
  }));
  const share = mean(blocked.map(({ was }) => was));
  const off = all.flatMap(({ daysOff }) => daysOff ?? []);
  return {
    openings: all.length,
    inside: mean(all.map(insideOf)),
    brier: mean(blocked.map(({ said, was }) => (said - was) ** 2)),
    brierOfOne: share * (1 - share),
    ...(off.length
      ? { days: { off: mean(off.map(Math.abs)), late: mean(off), count: off.length } }
      : {}),
    curve: curveOf(all),
  };
}

function curveOf(all: readonly Foretold[]): CurvePoint[] {
  const tenths = Array.from({ length: TENTHS }, () => ({ said: 0, seen: 0, count: 0 }));
  for (const { chances, grade } of all) {
    let atLeast = 1;
    for (let g = 1; g <= 4; g++) {
      atLeast -= chances[g - 1]!;
      const tenth = tenths[Math.min(TENTHS - 1, Math.max(0, Math.floor(TENTHS * atLeast)))]!;
      tenth.said += atLeast;
      tenth.seen += Number(grade >= g);
      tenth.count++;
    }
  }
  return tenths
    .filter(({ count }) => count >= LEAST)
    .map(({ said, seen, count }) => ({ said: said / count, seen: seen / count, count }));
}

/** Widths that are tried. */
const WIDTHS = [1, 1.2, 1.45, 1.75, 2.1, 2.5, 3] as const;
/** So many openings weigh as much as that nothing is to be changed. Judgement. */
const WORTH = 10;
const WANTED = HIGH - LOW;

/**
 * How many times wider ranges had to be for eight in ten finds to lie in them, drawn towards 1 while little was seen.
 * @param insideAt share inside at a width
 * @param openings how many it rests on
 */
export function widthFor(insideAt: (width: number) => number, openings: number): number {
  const at = WIDTHS.map((width) => ({ width, inside: insideAt(width) }));
  const past = at.findIndex(({ inside }) => inside >= WANTED);
  const [first, last] = [at[0]!, at.at(-1)!];
  const exact =
    past < 0 ? last.width : past === 0 ? first.width : between(at[past - 1]!, at[past]!);
  return Math.exp((Math.log(exact) * openings) / (openings + WORTH));
}

interface Tried {
  width: number;
  inside: number;
}
function between(a: Tried, b: Tried): number {
  const part = (WANTED - a.inside) / (b.inside - a.inside);
  return Math.exp(Math.log(a.width) + part * Math.log(b.width / a.width));
}
