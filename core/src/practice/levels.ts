import { spoken } from '../regions/spoken.js';

export const LEVEL_IDS = ['first', 'full', 'one', 'any', 'two', 'misled'] as const;
export type LevelId = (typeof LEVEL_IDS)[number];

/** How hard a case is: what may be wrong, and what the record says of it. */
export interface PracticeLevel {
  id: LevelId;
  name: string;
  say: string;
  /** Weights of no fault, one and two. */
  faults: readonly [none: number, one: number, two: number];
  /** Only these causes, where they are named. */
  causes?: readonly string[];
  /** It shows this. */
  symptom?: string;
  /** The record says of what is at fault that it was cleaned lately, and of something else that it is overdue. */
  misleads?: true;
}

const DRAIN = ['filter-clogged', 'impeller-jammed', 'drain-hose-closed'];
/** What slows the two lines of a house: the water out, the air through. */
const LINES = [
  ...[...DRAIN, 'trap-clogged', 'suds-lock', 'inlet-screen-clogged', 'tap-shut'],
  ...['screen-loaded', 'screen-coated', 'well-matted', 'hose-crushed', 'duct-lined', 'hood-stuck'],
  ...['exchanger-matted', 'fine-filter-clogged', 'channel-matted', 'strips-coated'],
  ...['gasket-holes', 'stale-water', 'condensate-blocked', 'tank-full'],
];

/** From the easiest on. */
export const LEVELS: readonly PracticeLevel[] = spoken([
  {
    id: 'first',
    name: 'Your first three minutes',
    say: 'Water stands in the drum, and each step tells you what to do next.',
    faults: [0, 1, 0],
    causes: ['filter-clogged'],
    symptom: 'wont-drain',
  },
  {
    id: 'full',
    name: 'Full of water',
    say: 'It stopped with the drum full. One thing is wrong between the drum and the pipe.',
    faults: [0, 1, 0],
    causes: DRAIN,
    symptom: 'wont-drain',
  },
  {
    id: 'one',
    name: 'One place on the line',
    say: 'One thing on the line of the water or of the air is closed.',
    faults: [0, 1, 0],
    causes: LINES,
  },
  {
    id: 'any',
    name: 'Anything, or nothing',
    say: 'One thing is wrong anywhere in the machine. Or nothing is, and it only looked so.',
    faults: [1, 9, 0],
  },
  {
    id: 'two',
    name: 'Two at once',
    say: 'Two things are wrong. Putting one right does not end it.',
    faults: [0, 0, 1],
  },
  {
    id: 'misled',
    name: 'Two, and the record misleads',
    say: 'Two things are wrong, and what the record says of the machine is not how it is.',
    faults: [0, 0, 1],
    misleads: true,
  },
]);

/** @throws RangeError for an unknown one */
export function levelById(id: string): PracticeLevel {
  const found = LEVELS.find((one) => one.id === id);
  if (!found) throw new RangeError(`There is no level "${id}".`);
  return found;
}
