import { MeasureProblem, type Working } from './input/fields.js';

/** What a repair and a new machine would cost, and how long either lasts. Money is the household's. */
export interface RepairQuestion {
  /** What the repair would cost, the way with it. */
  bill: number;
  /** What a new machine of its kind costs, brought and joined. */
  price: number;
  /** Years that it has run. */
  age: number;
  /** Years that such machines last in a household; eleven where nothing is said (common practice). */
  lasts?: number;
  /** Years that it would go on after the repair; half of what it has left where nothing is said. */
  more?: number;
  /** Energy that a new one would save, kWh a year. */
  saves?: number;
  /** Price of a kWh. */
  kWhPrice?: number;
  /** What the money would bring elsewhere, percent a year. */
  interest?: number;
}

export interface RepairReckoning {
  /** What each costs a year, as long as it lasts. */
  repair: number;
  replace: number;
  /** Up to this bill a repair costs less a year than a new machine. */
  paysUpTo: number;
  better: 'repair' | 'replace' | 'even';
  /** In a sentence. */
  says: string;
  lasts: number;
  more: number;
  /** What it rests on. */
  assumes: string[];
  working: Working[];
}

/** Years that such a machine lasts in a household. Common practice. */
export const LASTS = 11;
/** Of what it has left, a repaired machine runs this share until something else goes. Common practice. */
const HELD = 0.5;
const LEAST_MORE = 0.5;
/** Costs that differ by less than this share are the same, as well as anybody knows them. Judgement. */
const EVEN = 0.1;

const LIMITS = {
  bill: [0, 100_000],
  price: [1, 100_000],
  age: [0, 60],
  lasts: [1, 40],
  more: [0.25, 40],
  saves: [0, 5000],
  kWhPrice: [0, 10],
  interest: [0, 20],
} as const satisfies Record<keyof RepairQuestion, readonly [number, number]>;

/**
 * How long a machine would go on after a repair, where nobody says otherwise: half of what it has left.
 * @param age years @param lasts years that such machines last
 * @returns years, half a year at least
 */
export const moreAfter = (age: number, lasts = LASTS): number =>
  Math.max(LEAST_MORE, HELD * (lasts - age));

/**
 * An amount spread evenly over years, with what it would have brought meanwhile: the equivalent annual cost of
 * corporate finance, P r / (1 - (1 + r)^-n).
 * @param years more than 0 @param rate a year, 0.02 for two percent
 */
export const spread = (amount: number, years: number, rate: number): number =>
  rate === 0 ? amount / years : (amount * rate) / (1 - (1 + rate) ** -years);

/**
 * Whether to repair or to replace: what either costs a year, as long as it lasts.
 * @throws MeasureProblem
 */
export function repairOrReplace(question: RepairQuestion): RepairReckoning {
  const problems = Object.entries(LIMITS).flatMap(([field, [least, most]]) => {
    const value = question[field as keyof RepairQuestion];
    const needed = field === 'bill' || field === 'price' || field === 'age';
    if (value === undefined && !needed) return [];
    const fits = value !== undefined && value >= least && value <= most;
    return fits ? [] : [{ field, message: `Give a number from ${least} to ${most}.` }];
  });
  if (problems.length) throw new MeasureProblem(problems);
  const { bill, price, age, lasts = LASTS, saves = 0, kWhPrice = 0, interest = 0 } = question;
  const more = question.more ?? moreAfter(age, lasts);
  const rate = interest / 100;
  const repair = spread(bill, more, rate);
  const saved = saves * kWhPrice;
  const replace = spread(price, lasts, rate) - saved;
  const paysUpTo = Math.max(0, replace / spread(1, more, rate));
  const apart = Math.abs(repair - replace);
  const better =
    apart <= EVEN * Math.max(Math.abs(repair), Math.abs(replace))
      ? 'even'
      : repair < replace
        ? 'repair'
        : 'replace';
  return {
    ...{ repair, replace, paysUpTo, better, lasts, more },
    says: SAYS[better],
    assumes: [
      `Such machines last some ${figure(lasts)} years in a household${question.lasts === undefined ? ' (common practice)' : ''}.`,
      question.more === undefined
        ? `After a repair it runs half of what it has left: ${figure(more)} years. Nobody knows what goes next.`
        : `After the repair it runs ${figure(more)} years.`,
      saved
        ? `A new one saves ${figure(saves)} kWh a year at ${figure(kWhPrice)}.`
        : 'A new one takes as much energy and water as this one does when it is clean.',
      ...(rate ? [`Money would bring ${figure(interest)} % a year elsewhere.`] : []),
      'Cleaning is not in it: what you clean yourself costs nothing, and comes first.',
    ],
    working: [
      {
        what: 'Repair, a year',
        how: `${figure(bill)} over ${figure(more)} years = ${figure(repair)}`,
      },
      {
        what: 'New machine, a year',
        how: `${figure(price)} over ${figure(lasts)} years${saved ? ` − ${figure(saved)} of energy` : ''} = ${figure(replace)}`,
      },
      { what: 'A repair pays up to', how: `what costs the same a year: ${figure(paysUpTo)}` },
    ],
  };
}

const SAYS = {
  repair: 'The repair costs less a year.',
  replace: 'A new machine costs less a year.',
  even: 'Both cost about the same a year: take what is less trouble, and keep the old machine out of the bin.',
} as const;

const figure = (value: number): string =>
  String(Number(value.toFixed(Math.abs(value) < 10 ? 2 : 0)));
