/** Letters of an id that a short address begins with, and more only where two machines share them. */
const LEAST = 6;

/** A machine's short name in an address: as much of its id as tells it from the others. */
export function shortOf(id: string, machines: readonly { id: string }[]): string {
  const whole = id.replaceAll('-', '');
  for (let length = LEAST; length < whole.length; length += 2) {
    const short = whole.slice(0, length);
    const alike = machines.filter((one) => one.id.replaceAll('-', '').startsWith(short));
    if (alike.length <= 1) return short;
  }
  return whole;
}
