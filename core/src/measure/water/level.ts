import type { Grade } from '../../model/vocabulary.js';
import { readFields, type Fields, type Given, type Working } from '../input/fields.js';
import { figure } from '../../units/wording.js';

export const LEVEL_FIELDS = {
  across: { label: 'Left to right: it slopes by', dimension: 'slope', least: 0, most: 40 },
  along: { label: 'Back to front: it slopes by', dimension: 'slope', least: 0, most: 40 },
  width: {
    label: 'Between left and right feet',
    dimension: 'length',
    least: 0.2,
    most: 1.2,
    metric: 'cm',
    us: 'in',
    seldom: true,
  },
  depth: {
    label: 'Between back and front feet',
    dimension: 'length',
    least: 0.2,
    most: 1.2,
    metric: 'cm',
    us: 'in',
    seldom: true,
  },
} as const satisfies Fields;

/** Coarse pitch of a foot's thread, mm a turn. ISO 261, from memory. */
export const PITCHES = { M8: 1.25, M10: 1.5, M12: 1.75 } as const;
export type Thread = keyof typeof PITCHES;

const FEET = ['front-left', 'front-right', 'back-left', 'back-right'] as const;
export type Foot = (typeof FEET)[number];

export interface FootTurns {
  foot: Foot;
  /** mm to raise it. */
  raise: number;
  /** Turns that screw it out. */
  turns: number;
}

/** Which side stands higher. */
export interface Higher {
  across: 'left' | 'right';
  along: 'front' | 'back';
}

/** A foot ends after some 15 to 20 mm of thread, mm. Common practice. */
const FOOT_ENDS = 15;

export interface Level {
  level: boolean;
  /** Where the feet do not reach: what to do instead. */
  says?: string;
  /** Every foot; those of 0 stay. The lowest are raised, so that none is screwed in. */
  feet: FootTurns[];
  working: Working[];
}

/** As level as a bubble shows, mm/m. Common practice. */
const LEVEL_WITHIN = 1;

/**
 * Which foot, how many turns. The highest corner stays, the others are screwed out to it.
 * @throws MeasureProblem
 * @param higher which side stands higher, each way
 * @example 4 mm/m over 0.54 m on M10: 1.44 turns
 */
export function level(
  given: Given<typeof LEVEL_FIELDS>,
  thread: Thread = 'M10',
  higher: Higher = { across: 'right', along: 'front' },
): Level {
  const { width, depth, ...slopes } = readFields(given, LEVEL_FIELDS);
  const across = higher.across === 'right' ? slopes.across : -slopes.across;
  const along = higher.along === 'front' ? slopes.along : -slopes.along;
  const pitch = PITCHES[thread];
  const heights = FEET.map((foot) => ({
    foot,
    height:
      (foot.endsWith('right') ? across * width : 0) +
      (foot.startsWith('front') ? along * depth : 0),
  }));
  const highest = Math.max(...heights.map(({ height }) => height));
  const isLevel = Math.abs(across) <= LEVEL_WITHIN && Math.abs(along) <= LEVEL_WITHIN;
  const feet = heights.map(({ foot, height }): FootTurns => {
    const raise = isLevel ? 0 : highest - height;
    return { foot, raise, turns: raise / pitch };
  });
  const most = Math.max(...feet.map(({ raise }) => raise));
  return {
    level: isLevel,
    ...(most > FOOT_ENDS
      ? {
          says: `A foot ends after some 15 to 20 mm, and ${Math.round(most)} mm are wanted: screw the highest foot in first, or level the floor below the machine. Never stack loose boards.`,
        }
      : {}),
    feet,
    working: [
      {
        what: 'Height of a foot',
        how: 'slope times the distance between the feet, across and along',
      },
      {
        what: 'Turns',
        how: `millimetres over the pitch of ${thread}, ${pitch} mm a turn (ISO 261 coarse); to a quarter of a turn, a bubble tells no more`,
      },
      { what: 'Level', how: `within ${figure(LEVEL_WITHIN, 'slope')} both ways (common practice)` },
    ],
  };
}

/** How a look at the feet is graded: within a hair of level, or clearly off. Judgement. */
export const gradeOfLevel = ({ level: isLevel }: Pick<Level, 'level'>): Grade => (isLevel ? 0 : 2);
