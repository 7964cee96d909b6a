import { stationsOf, type Build } from '../care/catalogue.js';
import type { CodeSeen } from '../model/schemas.js';
import type { TroubleCircumstance } from '../model/vocabulary.js';
import type { TroubleCause } from './catalogue.js';
import { CAUSES } from './data/causes.js';

/** What is known of a machine before anybody says what is wrong. */
export interface Situation extends Build {
  /** Fouling expected now, by care task; 1 is where trouble begins. Absent: not known. */
  fouling?: Readonly<Record<string, number>>;
  circumstances?: readonly TroubleCircumstance[];
  /** Codes that the display showed. */
  codes?: readonly CodeSeen[];
  /** Causes whose fix was done and did not help. */
  ruledOut?: readonly string[];
}

const LEAST = 0.002;
const MOST = 0.7;

/**
 * What an expected fouling makes of a prior: a station cleaned just now seldom is the cause, at a
 * typical state the prior holds, past the limit it is half as likely again. Judgement.
 */
const byFouling = (fouling: number): number => 0.15 + 1.5 * Math.min(1.2, Math.max(0, fouling));

/** The causes that a machine can have, as it is built. */
export function causesOf(machine: Build): TroubleCause[] {
  const stations = new Set(stationsOf(machine).map(({ id }) => id));
  return CAUSES.filter(
    ({ kinds, station }) => kinds.includes(machine.kind) && stations.has(station),
  );
}

/** The circumstance that a cause's prior comes from, where one made it likelier than it would be. */
export function raisedBy(
  { prior, fouling, raised = {} }: TroubleCause,
  { fouling: known = {}, circumstances = [] }: Situation,
): TroubleCircumstance | undefined {
  const state = fouling === undefined ? undefined : known[fouling];
  const without = state === undefined ? prior : prior * byFouling(state);
  const chance = (one: TroubleCircumstance): number => raised[one] ?? 0;
  const most = [...circumstances].sort((a, b) => chance(b) - chance(a))[0];
  return most !== undefined && chance(most) > without ? most : undefined;
}

/** The chance of a cause before anything was answered, above 0 and below 1. */
export function priorOf(
  { id, prior, fouling, raised = {} }: TroubleCause,
  { fouling: known = {}, circumstances = [], ruledOut = [] }: Situation,
): number {
  if (ruledOut.includes(id)) return LEAST;
  const state = fouling === undefined ? undefined : known[fouling];
  const fouled = state === undefined ? prior : prior * byFouling(state);
  const all = circumstances.flatMap((circumstance) => raised[circumstance] ?? []);
  return Math.min(MOST, Math.max(LEAST, fouled, ...all));
}
