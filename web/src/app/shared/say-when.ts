const FORMAT = new Intl.DateTimeFormat('en-GB', {
  weekday: 'short',
  day: 'numeric',
  month: 'short',
  hour: '2-digit',
  minute: '2-digit',
});

/** An instant (UTC milliseconds) as this device’s clock and calendar show it: "Wed, 25 Nov, 12:05". */
export const sayWhen = (instant: number): string => FORMAT.format(instant);
