import { spoken } from '../regions/spoken.js';

/*
 * One machine and its place as plain facts: each has a few values, the first of which is how it is while
 * the machine is in use and nobody works on it. Whatever a visit changes has to come back to it.
 */
export const FACTS = {
  power: ['on', 'off'],
  tap: ['open', 'shut'],
  gas: ['open', 'shut'],
  place: ['home', 'out'],
  /** What covers the pump filter: a flap, the lower front, or the rear panel. */
  flap: ['shut', 'open'],
  /** The thin hose beside the filter: in its clip, drawn out with its cap on, or with the cap off. */
  thinHose: ['clipped', 'out', 'open'],
  filter: ['in', 'cracked', 'out'],
  drainHose: ['in', 'bucket'],
  trap: ['on', 'off'],
  fillHose: ['on', 'off'],
  inletScreen: ['in', 'out'],
  drawer: ['in', 'out'],
  inserts: ['in', 'out'],
  /** The cloth in the hole from the drawer to the tub. */
  cloth: ['none', 'in'],
  cup: ['in', 'out'],
  duct: ['on', 'off'],
  hood: ['shut', 'open'],
  screen: ['in', 'out'],
  fineFilter: ['in', 'out'],
  exchangerFlap: ['shut', 'open'],
  exchanger: ['in', 'out'],
  housing: ['on', 'off'],
  cabinet: ['on', 'off'],
  tank: ['in', 'out'],
  /** No cleaning product is left in the machine. */
  rinsed: ['yes', 'no'],
  /** Whether what was opened was looked at since, with water, air or gas on it. */
  filterTight: ['yes', 'no'],
  capTight: ['yes', 'no'],
  inletTight: ['yes', 'no'],
  drainTight: ['yes', 'no'],
  ductTight: ['yes', 'no'],
  gasTight: ['yes', 'no'],
  /** Cool enough for hands and for letting water out: under 40 °C. */
  cool: ['unknown', 'no', 'yes'],
  /** Water behind the filter, under which a drip shows: poured in by hand, or from a programme. */
  water: ['none', 'poured', 'run'],
  /** Loose fluff: wetted, it turns to felt. */
  fluff: ['on', 'off'],
  /** A measured half litre for the pump of a dryer. */
  measured: ['none', 'poured'],
  locknuts: ['tight', 'loose'],
  /** Pads with something on them, in the drum. */
  pads: ['none', 'in'],
  /** Whether what is to be wiped was found first. */
  strips: ['unseen', 'seen'],
  /** Whether somebody was asked to come. */
  service: ['none', 'called'],
  /** Whether somebody saw that the hood is reached safely. */
  stand: ['unknown', 'safe'],
  /** A dryer's air has been made to move, with the duct closed. */
  air: ['still', 'run'],
} as const;

export type Fact = keyof typeof FACTS;
export type Value<F extends Fact> = (typeof FACTS)[F][number];
/** The facts of a machine. */
export type Facts = { [F in Fact]: Value<F> };
/** Some facts to be made so. */
export type Change = Partial<Facts>;
/** Facts that have to be one of some values. */
export type Needs = { [F in Fact]?: readonly Value<F>[] };

/** How a machine is while nobody works on it. */
export const HOME: Facts = Object.fromEntries(
  Object.entries(FACTS).map(([fact, [home]]) => [fact, home]),
) as Facts;

/** What a visit may leave otherwise than it was. */
const MAY_STAY: readonly Fact[] = [
  'cool',
  'water',
  'air',
  'fluff',
  'measured',
  'stand',
  'strips',
  'service',
];

/** The facts that are not yet as the machine is used. */
export const strayFacts = (facts: Facts): Fact[] =>
  (Object.keys(FACTS) as Fact[]).filter(
    (fact) => !MAY_STAY.includes(fact) && facts[fact] !== HOME[fact],
  );

/** How it is said that a machine cannot run: what is not as it is in use. */
export const FACT_WORDS: Partial<Record<Fact, string>> = spoken({
  power: 'the plug is out',
  tap: 'the tap is shut',
  filter: 'the pump filter is out',
  thinHose: 'the cap is off the drain-down hose',
  drainHose: 'the drain hose is out',
  trap: 'the trap is open',
  fillHose: 'the fill hose is off',
  inletScreen: 'the inlet screen is out',
  drawer: 'the drawer is out',
  inserts: 'the parts of the drawer are out',
  cloth: 'the cloth is in the hole',
  cup: 'the softener cup is out',
});
