/** Made when it is first needed: a format takes longer to make than a page to show. */
let short: Intl.DateTimeFormat | undefined;
let long: Intl.DateTimeFormat | undefined;

/** An instant (UTC milliseconds) as this device’s clock and calendar show it: "Wed, 25 Nov, 12:05". */
export function sayWhen(instant: number): string {
  short ??= new Intl.DateTimeFormat('en-GB', {
    ...{ weekday: 'short', day: 'numeric', month: 'short' },
    ...{ hour: '2-digit', minute: '2-digit' },
  });
  return short.format(instant);
}

/** The same for what may be long ago: with the year instead of the weekday where it is another year's. */
export function sayWhenLong(instant: number, now = Date.now()): string {
  if (new Date(instant).getFullYear() === new Date(now).getFullYear()) return sayWhen(instant);
  long ??= new Intl.DateTimeFormat('en-GB', {
    ...{ day: 'numeric', month: 'short', year: 'numeric' },
    ...{ hour: '2-digit', minute: '2-digit' },
  });
  return long.format(instant);
}
