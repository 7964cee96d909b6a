import { isWasher } from '../model/vocabulary.js';
import { demandsOf, effectsOf, RUNS, type Acts, type Body, type Law, type Part } from './acts.js';
import { HOME, strayFacts, type Facts } from './facts.js';
import { afterUse, meetingAt, type Doing, type InPlace } from './products.js';
import { HEIGHT, litresAbove, SUMP } from './water.js';

/** A machine, its water and its heat at one moment. */
export interface World {
  facts: Facts;
  /** Minutes since the visit began. */
  clock: number;
  /** Litres in tub and sump, and on the floor. */
  litres: number;
  floor: number;
  /** °C of drum, water and metal. */
  celsius: number;
  /** What soaks or dries, and until when; minutes. */
  busy: Partial<Record<Part, { until: number; law: Law }>>;
  wet: readonly Part[];
  coated: readonly Part[];
  /** Cleaning products in the machine, and on what was taken out. */
  products: readonly InPlace[];
}

/** A law broken. */
export interface Fault {
  law: Law;
  /** What was not so, in a few words. */
  what: string;
}

/** °C that a hand bears and that scalds nobody (common practice). */
const COOL = 40;
const ROOM = 20;
/**
 * Minutes in which the heat falls to 1/e: a drum of 20 L from 60 °C takes 3 to 8 h to 43 °C, an empty
 * washer under an hour, a dryer some 30 minutes to the hand. Common practice.
 */
const FULL_TAU = 540;
const WASHER_TAU = 45;
const DRYER_TAU = 25;
/** Litres: a drum that is called full; a bucket; the low loop of a drain hose; a cup on the floor. */
const FULL_FROM = 3;
const LOOP = 1;
const BUCKET = 10;
const CUP = 0.25;
/** Litres that a programme sends through a place that was left open, and a pressed hose through its end. */
const GUSH = 15;

/** @param litres in tub and sump @param celsius of water and metal */
export const startWorld = (litres = SUMP, celsius = 55): World => ({
  facts: { ...HOME },
  clock: 0,
  litres,
  floor: 0,
  celsius,
  busy: {},
  wet: [],
  coated: [],
  products: [],
});

/** Time passes, minutes: heat leaves. */
export function pass(world: World, minutes: number, washer: boolean): World {
  const tau = world.litres > FULL_FROM ? FULL_TAU : washer ? WASHER_TAU : DRYER_TAU;
  return {
    ...world,
    clock: world.clock + minutes,
    celsius: ROOM + (world.celsius - ROOM) * Math.exp(-minutes / tau),
  };
}

/** Minutes until it is cool. */
export function minutesToCool({ celsius, litres }: World, washer: boolean): number {
  if (celsius <= COOL) return 0;
  const tau = litres > FULL_FROM ? FULL_TAU : washer ? WASHER_TAU : DRYER_TAU;
  return tau * Math.log((celsius - ROOM) / (COOL - ROOM));
}

/** Whether a machine holds so much that what opens it below floods the floor. */
export const isFull = ({ litres }: World): boolean => litres > FULL_FROM;

/**
 * One step in the world: what it breaks, and the world after it.
 * @param used ids of the products that are used at it; unless said, all that may be
 * @param hands minutes that it takes
 * @throws RangeError for a product that is not known
 */
export function step(
  before: World,
  doing: Doing,
  body: Body,
  used: readonly string[] = doing.brings?.products ?? [],
  hands = 1,
): { world: World; faults: Fault[] } {
  const { acts } = doing;
  const washer = isWasher(body.kind);
  const faults: Fault[] = demandsOf(acts, body)
    .filter(({ fact, values }) => !values.includes(before.facts[fact]))
    .map(({ fact, values, law }) => ({
      law,
      what: `${fact} is ${before.facts[fact]}, not ${values.join(' or ')}`,
    }));
  let world: World = { ...before, busy: { ...before.busy } };
  const part = acts.touches && world.busy[acts.touches];
  if (part && part.until > world.clock) {
    if (acts.waits) world = pass(world, part.until - world.clock, washer);
    else
      faults.push({ law: part.law, what: `${acts.touches} for ${part.until - world.clock} min` });
  }
  if (acts.touches) {
    delete world.busy[acts.touches];
    // What is put back changes how the machine is.
    const back = acts.does !== undefined && !acts.clears && !acts.wets;
    if (back && world.wet.includes(acts.touches)) {
      faults.push({ law: 'put back wet', what: acts.touches });
    }
    if (back && world.coated.includes(acts.touches)) {
      faults.push({ law: 'put back unrinsed', what: acts.touches });
    }
  }
  world = { ...world, ...partsAfter(world, acts) };
  if (acts.cools) world = pass(world, minutesToCool(world, washer), washer);
  world = pass(world, acts.runs ? RUNS[acts.runs].minutes : hands, washer);
  if (acts.drains) world.litres = 0;
  if (needsTwo(acts, body) && acts.people !== 2) {
    faults.push({ law: 'too heavy alone', what: 'one person moves it' });
  }
  if (acts.does?.place === 'out' && isFull(world)) {
    faults.push({ law: 'too heavy alone', what: `${world.litres} L in the drum` });
  }
  const spilled = spill(world, acts, body);
  if (spilled > CUP) faults.push({ law: 'flood', what: `${spilled.toFixed(1)} L on the floor` });
  faults.push(...meetingAt(world.products, doing, used));
  world.products = afterUse(world.products, doing, used, world.clock);
  world.floor += spilled;
  world.facts = { ...world.facts, ...effectsOf(acts) };
  if (acts.runs) {
    world.litres = washer ? SUMP : world.litres;
    world.celsius = Math.max(world.celsius, RUNS[acts.runs].celsius);
  }
  for (const [waiting, law] of [
    [acts.soaks, 'soaking touched'],
    [acts.dries, 'put back wet'],
  ] as const) {
    if (waiting) world.busy[waiting.part] = { until: world.clock + waiting.minutes, law };
  }
  return { world, faults };
}

/** Whether it takes two: a stack or a tower moved. */
function needsTwo({ does = {} }: Acts, { kind, features }: Body): boolean {
  const { stacked } = features;
  const high = kind === 'tower' || stacked === 'above' || stacked === 'below';
  return does.place !== undefined && high;
}

/** What is wet, and what has something on it, after a step. */
function partsAfter(
  { wet, coated }: World,
  { wets, dries, coats, soaks, clears, touches }: Acts,
): Pick<World, 'wet' | 'coated'> {
  const changed = (parts: readonly Part[], more: readonly (Part | undefined)[], less?: Part) => [
    ...parts.filter((part) => part !== less),
    ...more.flatMap((part) => part ?? []),
  ];
  return {
    wet: changed(wet, [wets], dries?.part),
    coated: changed(coated, [coats, soaks?.part], clears ? touches : undefined),
  };
}

/** Litres that a step lets run on the floor, by gravity. */
function spill({ litres, facts }: World, { does = {} }: Acts, { kind }: Body): number {
  const above = (height: number) => litresAbove(litres, height, kind);
  if (does.filter === 'out') return above(HEIGHT.filter);
  if (does.drainHose === 'bucket') return Math.max(0, LOOP + above(HEIGHT.bucket) - BUCKET);
  if (does.trap === 'off' && facts.drainHose === 'in') return above(HEIGHT.trap);
  if (does.fillHose === 'off' && facts.tap === 'open') return GUSH;
  if (does.tap === 'open' && facts.fillHose === 'off') return GUSH;
  // Whoever opens it lays it into a tray, and the sump's litre runs there.
  if (does.thinHose === 'open' && facts.flap !== 'open') return above(HEIGHT.drum);
  return 0;
}

/** What is not as it should be when everybody has gone. */
export const faultsAtEnd = ({ facts }: World): Fault[] =>
  strayFacts(facts).map((fact) => ({
    law: fact.endsWith('Tight') ? 'left unproved' : 'left undone',
    what: `${fact} is ${facts[fact]}`,
  }));
