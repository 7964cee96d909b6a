/** Kinds of houses: what things are called in them, what is built in, and what the law asks. */
export const REGIONS = ['eu', 'uk', 'us'] as const;
export type Region = (typeof REGIONS)[number];

/** In which units figures are read; the same names as the model’s. */
export type Units = 'metric' | 'us';
