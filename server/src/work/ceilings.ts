import { invalid } from '../http/problem.js';

/** How much a household can have of something; more is a mistake, or somebody at play. */
export const MOST = {
  machines: 500,
  visits: 50,
  cases: 100,
  happenings: 1000,
  supplies: 300,
  sheets: 300,
  ventRuns: 300,
  absences: 100,
  feeds: 50,
  recipients: 30,
  busy: 20,
  meters: 50,
  documents: 60,
} as const;

/**
 * @param there how many there are already
 * @param what in words, such as `machines`
 * @throws 422 where there is no room for one more
 */
export function mustHaveRoom(there: number, most: number, what: string, field = ''): void {
  if (there < most) return;
  const message = `There are ${most} ${what} already: more is not kept.`;
  throw invalid([{ field, message }]);
}
