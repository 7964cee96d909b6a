const FORMAT = new Intl.DateTimeFormat('en-GB', {
  weekday: 'short',
  day: 'numeric',
  month: 'short',
  hour: '2-digit',
  minute: '2-digit',
});

/** An instant (UTC milliseconds) as this device’s clock and calendar show it: "Wed, 25 Nov, 12:05". */
export const sayWhen = (instant: number): string => FORMAT.format(instant);

const WITH_YEAR = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'short',
  year: 'numeric',
  hour: '2-digit',
  minute: '2-digit',
});

/** The same for what may be long ago: with the year instead of the weekday where it is another year's. */
export const sayWhenLong = (instant: number, now = Date.now()): string =>
  new Date(instant).getFullYear() === new Date(now).getFullYear()
    ? sayWhen(instant)
    : WITH_YEAR.format(instant);
