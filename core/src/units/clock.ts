/** Clocks are off by some; more than this ahead is a mistake. */
const CLOCK_SLACK_MS = 10 * 60_000;
/** A clock may have been wrong while something was noted; by more than this nobody's is. */
const FAR_AHEAD_MS = 10 * 366 * 86_400_000;
const EARLIEST = Date.parse('1990-01-01T00:00:00Z');

/**
 * What is wrong with the time of something that is told to have happened.
 * @param at UTC instant, milliseconds
 * @param now UTC instant, milliseconds
 * @returns nothing where it can be
 */
export function wrongTime(at: number, now: number): string | undefined {
  if (at > now + CLOCK_SLACK_MS) return 'This is in the future. Give a time up to now.';
  if (at < EARLIEST) return 'This is before 1990. Give a later date.';
  return undefined;
}

/**
 * What is wrong with the time of something that was kept already and comes back: it was right when it was noted, though
 * the clock of then may have been ahead of the one of now.
 * @param at UTC instant, milliseconds
 * @param now UTC instant, milliseconds
 * @returns nothing where it can be
 */
export function impossibleTime(at: number, now: number): string | undefined {
  if (at > now + FAR_AHEAD_MS) return 'This is more than ten years in the future.';
  return at > now ? undefined : wrongTime(at, now);
}
