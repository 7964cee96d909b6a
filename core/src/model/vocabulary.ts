import { spoken } from '../regions/spoken.js';

/** The fixed words of the field, shared by schemas, data and screens. */

export const MACHINE_KINDS = [
  'front-load-washer',
  'top-load-washer',
  'vented-dryer',
  'condenser-dryer',
  'heat-pump-dryer',
  'washer-dryer',
  'tower',
] as const;
export type MachineKind = (typeof MACHINE_KINDS)[number];

export const KIND_NAMES: Record<MachineKind, string> = spoken({
  'front-load-washer': 'front-load washer',
  'top-load-washer': 'top-load washer',
  'vented-dryer': 'vented dryer',
  'condenser-dryer': 'condenser dryer',
  'heat-pump-dryer': 'heat-pump dryer',
  'washer-dryer': 'washer-dryer in one',
  tower: 'tower, washer below and dryer above',
});

/*
 * Kinds that are built alike. A washer-dryer is a front loader that dries in its own drum; a tower is a
 * front loader and a vented dryer in one body.
 */
export const FRONT_LOADERS = ['front-load-washer', 'washer-dryer', 'tower'] as const;
export const WASHERS = [...FRONT_LOADERS, 'top-load-washer'] as const;
/** Kinds that blow their air out through a duct. */
export const VENTED = ['vented-dryer', 'tower'] as const;
/** Dryers that take the water out of the air themselves. */
export const CONDENSING = ['condenser-dryer', 'heat-pump-dryer'] as const;
/** Kinds with a drum for drying alone, and a lint screen. */
export const DRYERS = [...VENTED, ...CONDENSING] as const;
/** Kinds that dry, in whatever drum. */
export const DRYING = [...DRYERS, 'washer-dryer'] as const;

const among =
  (kinds: readonly MachineKind[]) =>
  (kind: MachineKind): boolean =>
    kinds.includes(kind);

/** Whether a kind washes. */
export const isWasher = among(WASHERS);
/** Whether a kind has a drum for drying. */
export const isDryer = among(DRYERS);
/** Whether a kind blows its air out through a duct. */
export const hasDuct = among(VENTED);
/** Whether its heater's power counts for how long a load takes. */
export const hasHeater = among([...VENTED, 'condenser-dryer']);

/** What the person saw when a station was opened. */
export const GRADES = [0, 1, 2, 3, 4] as const;
export type Grade = (typeof GRADES)[number];
export const GRADE_NAMES: Record<Grade, string> = {
  0: 'clear',
  1: 'light',
  2: 'moderate',
  3: 'heavy',
  4: 'blocked',
};

export const ENTRY_SOURCES = [
  'bench',
  'run',
  'log',
  'machine',
  'case',
  'measure',
  'meter',
  'import',
  'api',
  'demo',
] as const;
export type EntrySource = (typeof ENTRY_SOURCES)[number];

export const UNIT_SYSTEMS = ['metric', 'us'] as const;
export type UnitSystem = (typeof UNIT_SYSTEMS)[number];

export const VISIT_STATES = ['active', 'paused', 'finished', 'abandoned'] as const;

/** What was said of a proof: it holds, it does not, or it is to be asked after the next load. */
export const PROOF_RESULTS = ['good', 'bad', 'planned'] as const;
export type ProofResult = (typeof PROOF_RESULTS)[number];

/** What a visit made of one of its tasks. */
export const OUTCOMES = ['cleaned', 'looked', 'skipped'] as const;
export type Outcome = (typeof OUTCOMES)[number];

export const SCHOOLS = ['often', 'steady', 'stretch', 'count'] as const;
export type SchoolId = (typeof SCHOOLS)[number];

/** How a machine is built and placed, where a procedure depends on it. */
export const FEATURES = {
  filterAccess: ['front-left', 'front-right', 'lower-front', 'behind', 'none', 'unknown'],
  drainDownHose: ['yes', 'no', 'unknown'],
  dispenser: ['drawer', 'cup', 'unknown'],
  drainsTo: ['standpipe', 'sink', 'floor-drain', 'unknown'],
  energy: ['electric', 'gas', 'unknown'],
  ventPath: ['through-wall', 'up', 'down', 'unknown'],
  riser: ['yes', 'no', 'unknown'],
  condensateTo: ['tank', 'hose', 'unknown'],
  coil: ['brushed', 'self-cleaning', 'unknown'],
  screenWell: ['yes', 'no', 'unknown'],
  blowerAccess: ['yes', 'no', 'unknown'],
  sensor: ['yes', 'no', 'unknown'],
  stacked: ['no', 'above', 'below', 'unknown'],
  room: ['heated', 'unheated', 'unknown'],
} as const;
export type FeatureId = keyof typeof FEATURES;

/** Why a machine is no longer in the house. */
export const RETIRED_WHY = ['replaced', 'moved', 'given-away', 'broken'] as const;
export type RetiredWhy = (typeof RETIRED_WHY)[number];
export const RETIRED_WORDS: Readonly<Record<RetiredWhy, string>> = {
  replaced: 'replaced',
  moved: 'left behind in a move',
  'given-away': 'sold or given away',
  broken: 'broken',
};

/** What goes through a machine that makes it foul faster. */
export const HABITS = [
  'pets',
  'softener',
  'overdose',
  'cool-washes',
  'muddy-clothes',
  'fleece',
  'door-shut',
] as const;
export type HabitId = (typeof HABITS)[number];

/** What a load was, where that is not the usual: it fouls some stations faster or more slowly. */
export const PROGRAMMES = ['cool', 'hot', 'heavy'] as const;
export type Programme = (typeof PROGRAMMES)[number];

/** What acts in a cleaning product, as far as it matters for what must not meet. */
export const ACTIVES = [
  'hypochlorite',
  'acetic-acid',
  'acid',
  'ammonia',
  'alcohol',
  'acetone',
  'peroxide',
  'quat',
  'dithionite',
  'unknown',
] as const;
export type Active = (typeof ACTIVES)[number];

/** What a detergent's label gives its doses in. */
export const DOSE_UNITS = ['ml', 'fl oz', 'g', 'oz'] as const;
export type DoseUnit = (typeof DOSE_UNITS)[number];

/** What can be answered to a symptom or a check. */
export const ANSWERS = ['yes', 'no', 'partly', 'unknown'] as const;
export type Answer = (typeof ANSWERS)[number];

/** What a display code is about. */
export const CODE_CLASSES = [
  'drain',
  'fill',
  'heat',
  'overheat',
  'door',
  'balance',
  'motor',
  'air',
  'tank',
  'sensor',
  'leak',
  'suds',
  'electronics',
  'reminder',
] as const;
export type CodeClass = (typeof CODE_CLASSES)[number];

/** How reliably a code points at its stations, in the words that links use. */
/** What a manual says of one machine alone, kept with it once it is known. */
export const WAYS = [
  'door-reset',
  'drum-programme',
  'fluff-programme',
  'filter-turns',
  'screws',
  'sensor-place',
  'exchanger-release',
  'filter-place',
  'valve-place',
] as const;
export type WayId = (typeof WAYS)[number];

export const CODE_STRENGTHS = ['nearly always', 'often', 'sometimes', 'seldom'] as const;

/** What can happen in a case, from the first symptom to its end. */
export const CASE_EVENTS = [
  'answer',
  'take-back',
  'stop',
  'no-stop',
  'code',
  'code-back',
  'looked',
  'looked-back',
  'fix',
  'fix-back',
  'measure',
  'gone',
  'not-held',
  'rest',
  'wake',
  'close',
  'reopen',
  'note',
] as const;
export type CaseEventKind = (typeof CASE_EVENTS)[number];

/** How a case ends. */
export const CASE_ENDINGS = ['fixed', 'professional', 'by-itself', 'mistake'] as const;
export type CaseEnding = (typeof CASE_ENDINGS)[number];

/** Something in a machine's history that makes a cause of trouble likelier. */
export const TROUBLE_CIRCUMSTANCES = [
  'moved',
  'filter-work',
  'drifting',
  'lint-left',
  'sheets',
  'overdose',
  'hard-water',
  'riser',
  'basement',
  'long-run',
  'old',
  'cold-room',
  'restricted',
  'hose-siphons',
  'hose-loose',
  'tilted',
  'shakes-more',
] as const;
export type TroubleCircumstance = (typeof TROUBLE_CIRCUMSTANCES)[number];

/** Everything about a household that can speed fouling up: habits, water, how a machine stands. */
export const CIRCUMSTANCES = [...HABITS, 'hard-water', 'long-duct', 'unheated-room'] as const;
export type Circumstance = (typeof CIRCUMSTANCES)[number];

export const SUPPLY_UNITS = ['ml', 'g', 'pieces'] as const;
export type SupplyUnit = (typeof SUPPLY_UNITS)[number];

/** What a meter's figures can tell a change of. */
export const SIGNAL_FIGURES = ['drying', 'power', 'heating', 'filling', 'spins', 'drain'] as const;
export type SignalFigure = (typeof SIGNAL_FIGURES)[number];
/** Whether a name is that of such a figure. */
export const isSignalFigure = (name: string | undefined): name is SignalFigure =>
  SIGNAL_FIGURES.some((figure) => figure === name);
