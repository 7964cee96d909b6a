import {
  MeasureProblem,
  readFields,
  type Fields,
  type Given,
  type Working,
} from '../input/fields.js';
import type { Grade } from '../../model/vocabulary.js';

export const SCREEN_FIELDS = {
  seconds: {
    label: 'Time until the cup has run through',
    dimension: 'time',
    least: 0,
    most: 600,
    optional: true,
  },
} as const satisfies Fields;

/** What the water did, as a picture shows it. */
export const SCREEN_FILMS = ['runs', 'beads', 'pools', 'stands'] as const;
export type ScreenFilm = (typeof SCREEN_FILMS)[number];

/** Share of the mesh that a film shuts, and the grade it is. Common practice. */
export const FILM_SHARES: Record<ScreenFilm, { blocked: number; grade: Grade; say: string }> = {
  runs: { blocked: 0, grade: 0, say: 'It runs straight through' },
  beads: { blocked: 0.15, grade: 1, say: 'Beads hang in the mesh, then fall' },
  pools: { blocked: 0.45, grade: 3, say: 'A pool stays on part of it' },
  stands: { blocked: 0.85, grade: 4, say: 'Water stands on the whole of it' },
};

/** A cup runs through a clean screen within this, s; a longer time is so much blocked. Common practice. */
const BY_SECONDS: readonly (readonly [atMost: number, film: ScreenFilm])[] = [
  [3, 'runs'],
  [8, 'beads'],
  [30, 'pools'],
  [Infinity, 'stands'],
];

export interface LintScreen {
  film: ScreenFilm;
  blocked: number;
  grade: Grade;
  advice: string;
  working: Working[];
}

/** What a cup of water on the brushed screen tells. @throws MeasureProblem where neither is given */
export function lintScreen(given: Given<typeof SCREEN_FIELDS>, seen?: ScreenFilm): LintScreen {
  const { seconds } = readFields(given, SCREEN_FIELDS);
  if (seconds === undefined && seen === undefined) {
    throw new MeasureProblem([
      { field: 'film', message: 'Choose what the water did, or give the seconds.' },
    ]);
  }
  const timed =
    seconds === undefined ? undefined : BY_SECONDS.find(([atMost]) => seconds <= atMost)![1];
  // Where both are given the worse of them counts.
  const rank = (film: ScreenFilm) => SCREEN_FILMS.indexOf(film);
  const film = [timed, seen].flatMap((one) => one ?? []).sort((a, b) => rank(b) - rank(a))[0]!;
  const { blocked, grade, say } = FILM_SHARES[film];
  return {
    film,
    blocked,
    grade,
    advice:
      grade === 0
        ? 'The mesh is open. Brushing after each load is enough.'
        : 'Softener and dryer sheets left a film. Wash it with warm water, dish soap and a soft brush, and let it dry.',
    working: [
      { what: 'What the water did', how: say },
      ...(seconds === undefined
        ? []
        : [
            {
              what: 'Time',
              how: `${seconds} s; up to 3 s is clear, 8 s light, 30 s heavy (common practice)`,
            },
          ]),
    ],
  };
}
