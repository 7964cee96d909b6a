import type { SchoolId } from '../../../model/vocabulary.js';
import { spoken } from '../../../regions/spoken.js';

/** The schools of interval, told as rhythms, with what speaks for each. Common practice. */
export const SCHOOL_TEXTS: Record<SchoolId, { name: string; for: string }> = spoken({
  often: {
    name: 'Little and often',
    for: 'Short visits, every part seldom dirty. More visits in the year, and no joint or seal worked on more than it bears.',
  },
  steady: {
    name: 'Steady',
    for: 'The middle: most manuals fall near it. Short enough for lint, rare enough to be done.',
  },
  stretch: {
    name: 'Stretch',
    for: 'As seldom as some manuals allow; safety limits still hold.',
  },
  count: {
    name: 'By the count',
    for: 'By loads rather than dates. Best where every load is counted.',
  },
});
