import type { QuantityId } from '../../model/quantities.js';
import type { Features, OwnTask } from '../../model/schemas.js';
import type {
  Circumstance,
  FeatureId,
  MachineKind,
  Programme,
  SchoolId,
  WayId,
} from '../../model/vocabulary.js';
import type { Acts } from '../../world/acts.js';
import type { DisputeId } from './data/disputes.js';
import type { FigureId } from './data/figures.js';

/*
 * The care catalogue: stations, tasks, intervals, set-ups and procedures as data. Adding a station
 * or a task touches data only; catalogue.spec.ts checks that every id resolves and nothing is
 * missing.
 */

/** A condition on how a machine is built: every named feature has one of the listed values. */
export type When = Partial<Record<FeatureId, readonly string[]>> & {
  kinds?: readonly MachineKind[];
  /** It holds as well where this does. */
  or?: When;
};

/**
 * `water` and `air` are the two threads; `condensate` is a dryer's own small water line; `body` is
 * what belongs to the machine and lies on no thread.
 */
export type LineId = 'water' | 'air' | 'condensate' | 'body';

export interface Station {
  id: string;
  name: string;
  line: LineId;
  kinds: readonly MachineKind[];
  when?: When;
  /** What it is and where it sits, in a sentence or two. */
  what: string;
  /** How it fouls, and what comes of it. */
  fouls: string;
}

/** How often: whichever of the given bounds comes first. */
export interface Interval {
  loads?: number;
  days?: number;
  months?: number;
  everyLoad?: true;
  /** How people say it, where that is more than the figures ("spring and autumn"). */
  said?: string;
  /** Due as well once one of these tasks, or any that needs one of these set-ups, was done later. */
  after?: { tasks?: readonly string[]; setups?: readonly string[]; said: string };
  /**
   * Nothing is due until a sign shows ("when draining slows"). The figures beside it are then only
   * where learning starts from.
   */
  sign?: string;
  /** The loads come from hardness and litres instead (scale.ts). */
  byScale?: true;
}

export interface Task {
  id: string;
  station: string;
  /** Imperative, short: "Clean the pump filter". */
  name: string;
  kinds: readonly MachineKind[];
  when?: When;
  /** What fouling is counted in: lint, hair and scale come with loads, slime with days. */
  driver: 'loads' | 'days';
  intervals: Record<SchoolId, Interval>;
  /** Never longer than this, whatever the evidence says. */
  cap?: Interval;
  /** True where neglect can hurt someone: it cannot be loosened without being asked twice. */
  safety: boolean;
  setups: readonly SetUpUse[];
  /** Tasks that are done along with this one. */
  covers?: readonly string[];
  /** Done with each load: it stands on the daily strip and is never part of a visit. */
  habit?: true;
  /** Nothing is graded and nothing learned: the date alone counts. */
  ungraded?: true;
  /** Added by the household: one interval, whatever the school. */
  own?: true;
  /** Not needed where the water is soft. */
  onlyHardWater?: true;
  /** Work for somebody trained; the steps are what to ask for and to write down. */
  professional?: true;
  /** Figures that tell how fouled the station is, against this machine's own when clean. */
  measures?: readonly StationMeasure[];
  /** What a load of another programme counts for, where that is not one. */
  programmes?: Partial<Record<Programme, number>>;
  /** Minutes at work and minutes waiting, without the set-ups. */
  minutes: { hands: number; waiting: number };
  /** Why it is done at all, for the why-panel. */
  reason: string;
  basis: string;
  /** Names of habits and circumstances that speed it up, with the multiplier on the rate. */
  speeds: Partial<Record<Circumstance, number>>;
}

/** A set-up that a task needs; with a condition, only on machines where it holds. */
export type SetUpUse = string | { id: string; when: When };

/**
 * How a reading tells fouling. The figure grows as the station closes; `limit` is how many times its
 * clean figure it reaches where trouble begins (F = 1).
 */
export interface StationMeasure {
  quantity: QuantityId;
  limit: number;
  /** Standard deviation of ln of one reading: by hand some 10 %. */
  spread: number;
}

export interface SetUp {
  id: string;
  name: string;
  minutes: number;
  fetch: readonly string[];
  steps: readonly Step[];
  undo: readonly Step[];
}

export interface Hazard {
  id: string;
  /** Shown at the step where it counts. */
  caution: string;
  /** Only on machines built so. */
  when?: When;
}

export interface Step {
  id: string;
  /** What it is to the machine: where the hands are, what it needs, does, starts and proves. */
  acts: Acts;
  /** One action. */
  do: string;
  why: string;
  /** What to look at while doing it. */
  look?: string;
  /** Cautions shown at this step. */
  hazards?: readonly string[];
  when?: When;
  /** What the person is asked to note here. */
  note?: 'grade' | 'found' | 'trays' | 'note';
  /** A figure taken here. */
  reading?: QuantityId;
  timer?: { minutes: number; label: string; optional?: true };
  /** A proof that only the next load can give. */
  later?: true;
  /** What this machine's manual says of it, kept with the machine. */
  way?: WayId;
  /** What practitioners disagree on here. */
  dispute?: DisputeId;
  /** A small drawing of it. */
  figure?: FigureId;
  /** A cleaning product goes on or in here; the person says which. */
  brings?: Brings;
  /** What was used is rinsed away here: out of the whole machine, or off this station's parts. */
  rinses?: 'all' | 'station';
}

/** What may be used at a step: products by id. */
export interface Brings {
  /** What is asked. */
  ask: string;
  products: readonly string[];
  /** Something is used in any case; else nothing may be the answer. */
  always?: true;
}

/** Something to fetch; with `uses`, something that is used up. */
export interface Fetch {
  what: string;
  when?: When;
  /** The supply, how much of it in its unit, and how often of ten times it is needed at all. */
  uses?: { supply: string; amount: number; share?: number };
  /** What must not be carried to the same machine together: acids, and what may hold chlorine. */
  holds?: 'acid' | 'chlorine';
}

export interface Procedure {
  task: string;
  fetch: readonly Fetch[];
  /** What typically turns up, for counting with a tap. */
  finds?: readonly string[];
  steps: readonly Step[];
  putBack: readonly Step[];
  proof: readonly Step[];
}

/** What the catalogue needs to know of a machine. */
export interface Build {
  kind: MachineKind;
  features: Features;
  /** Tasks that the household added. */
  ownTasks?: readonly OwnTask[];
}
