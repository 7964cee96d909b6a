import { holds, stationsOf, tasksOf } from '../../care/catalogue/lookup.js';
import type { Build } from '../../care/catalogue/types.js';
import type { CodeSeen } from '../../model/schemas.js';
import type { TroubleCircumstance } from '../../model/vocabulary.js';
import type { TroubleCause } from '../data/types.js';
import { CAUSES } from '../data/causes.js';

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

/**
 * The causes that a machine can have, as it is built; a fix names only work that the machine has, and is
 * a professional's where it cannot be reached.
 */
export function causesOf(machine: Build): TroubleCause[] {
  const stations = new Set(stationsOf(machine).map(({ id }) => id));
  const tasks = new Set(tasksOf(machine).map(({ id }) => id));
  return CAUSES.filter(({ kinds, when }) => kinds.includes(machine.kind) && holds(when, machine))
    .flatMap((cause) => {
      if (stations.has(cause.station)) return cause;
      const { elsewhere } = cause;
      return elsewhere && stations.has(elsewhere.station) ? { ...cause, ...elsewhere } : [];
    })
    .flatMap((cause) => {
      const { task } = cause.fix;
      if (task === undefined || tasks.has(task)) return cause;
      return cause.closed ? { ...cause, fix: cause.closed } : [];
    });
}

/** The chance of a cause by its station's state alone, whatever the circumstances. */
function byState(cause: TroubleCause, { fouling: known = {}, ...machine }: Situation): number {
  const { fouling, likelier } = cause;
  const prior = likelier && holds(likelier.when, machine) ? likelier.prior : cause.prior;
  const state = fouling === undefined ? undefined : known[fouling];
  return state === undefined ? prior : prior * byFouling(state);
}

/** Judgement: nearer to 1 than this, the state of a station speaks neither for its cause nor against it. */
const SPEAKS = 1.15;

/** Whether the state of its station, as far as it is known, speaks for a cause, against it, or neither. */
export function stateSpeaks(
  { fouling }: TroubleCause,
  { fouling: known = {} }: Situation,
): 'for' | 'against' | undefined {
  const state = fouling === undefined ? undefined : known[fouling];
  if (state === undefined) return undefined;
  const times = byFouling(state);
  return times >= SPEAKS ? 'for' : times <= 1 / SPEAKS ? 'against' : undefined;
}

/** The circumstance that a cause's prior comes from, where one made it likelier than it would be. */
export function raisedBy(
  cause: TroubleCause,
  situation: Situation,
): TroubleCircumstance | undefined {
  const { raised = {} } = cause;
  const { circumstances = [] } = situation;
  const chance = (one: TroubleCircumstance): number => raised[one] ?? 0;
  const most = [...circumstances].sort((a, b) => chance(b) - chance(a))[0];
  return most !== undefined && chance(most) > byState(cause, situation) ? most : undefined;
}

/** The chance of a cause before anything was answered, above 0 and below 1. */
export function priorOf(cause: TroubleCause, situation: Situation): number {
  const { raised = {} } = cause;
  const { circumstances = [] } = situation;
  const all = circumstances.flatMap((circumstance) => raised[circumstance] ?? []);
  return Math.min(MOST, Math.max(LEAST, byState(cause, situation), ...all));
}
