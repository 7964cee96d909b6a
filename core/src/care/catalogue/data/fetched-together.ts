/** Things of which two are fetched as one. */
export interface FetchedTogether {
  both: readonly [string, string];
  say: string;
}

const VACUUM = 'A vacuum cleaner';
const BRUSH = 'A vacuum cleaner with a brush nozzle';
const CREVICE = 'A vacuum cleaner with a crevice nozzle';
const NOZZLES = 'A vacuum cleaner with a brush and a crevice nozzle';
const VINEGAR = 'Household vinegar, in case it is needed';
const VINEGARS = ['it smells', 'of soap film', 'of scale'].map(
  (why) => `Household vinegar, in case ${why}`,
);

/** One that serves for the other as well. */
const serves = (better: string, ...others: string[]): FetchedTogether[] =>
  others.map((other) => ({ both: [better, other], say: better }));

/** Nobody carries two towels under two names to the cellar. Common sense. */
export const FETCHED_TOGETHER: readonly FetchedTogether[] = [
  ...serves('Two cloths', 'A cloth', 'A damp cloth', 'A dry cloth', 'A soft cloth'),
  { both: ['A dry cloth', 'A soft cloth'], say: 'Two cloths' },
  { both: ['A cloth', 'A dry cloth'], say: 'Two cloths' },
  { both: ['A cloth', 'A soft cloth'], say: 'Two cloths' },
  ...serves('A cloth', 'A damp cloth'),
  { both: ['A damp cloth', 'A dry cloth'], say: 'Two cloths' },
  { both: ['A damp cloth', 'A soft cloth'], say: 'Two cloths' },
  ...serves('Two old towels', 'A towel', 'A dry towel'),
  ...serves('A dry towel', 'A towel'),
  ...serves('A shallow tray', 'A tray'),
  ...serves(NOZZLES, BRUSH, CREVICE, VACUUM),
  ...serves(BRUSH, VACUUM),
  ...serves(CREVICE, VACUUM),
  { both: [BRUSH, CREVICE], say: NOZZLES },
  ...serves('Pliers', 'Pliers, in case it sticks'),
  ...serves('Two cups for the screws', 'A cup for the screws'),
  ...serves('A screwdriver', 'A screwdriver for the hose clamps'),
  ...serves('Rubber gloves', 'Rubber gloves, in case it is black'),
  ...serves('New hose washers', 'A new hose washer, if the old one is hard'),
  ...serves(VINEGAR, ...VINEGARS),
  ...VINEGARS.flatMap((one, i) =>
    VINEGARS.slice(i + 1).map((other): FetchedTogether => ({ both: [one, other], say: VINEGAR })),
  ),
];
