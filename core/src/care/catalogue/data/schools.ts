import type { SchoolId } from '../../../model/vocabulary.js';

/** The schools of interval, with what speaks for each. Common practice. */
export const SCHOOL_TEXTS: Record<SchoolId, { name: string; for: string }> = {
  often: {
    name: 'Little and often',
    for: 'Short visits, every part seldom dirty. More visits in the year.',
  },
  steady: {
    name: 'Steady',
    for: 'The middle way, and where you begin unless you choose otherwise.',
  },
  stretch: {
    name: 'Stretch',
    for: 'As seldom as people get away with. The hard limits still hold.',
  },
  count: {
    name: 'By the count',
    for: 'By loads rather than dates. Best where every load is counted.',
  },
};
