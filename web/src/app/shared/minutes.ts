/** Minutes of work and waiting in words. */
export function sayMinutes({ hands, waiting }: { hands: number; waiting: number }): string {
  const rounded = Math.max(5, Math.round(hands / 5) * 5);
  const work = `about ${sayLength(rounded)} of work`;
  return waiting >= 10 ? `${work}, ${sayLength(Math.round(waiting / 5) * 5)} of waiting` : work;
}

/** A length of time in minutes and hours. */
export function sayLength(minutes: number): string {
  if (minutes < 90) return `${minutes} min`;
  const hours = Math.floor(minutes / 60);
  const rest = minutes % 60;
  return rest ? `${hours} h ${rest} min` : `${hours} h`;
}
