/** A field of two versions of a thing, in words; empty text where one does not have it. */
export interface DifferingField {
  name: string;
  ours: string;
  theirs: string;
}

/**
 * The fields in which two versions of a thing differ.
 * @param but fields that do not count
 * @example differing({ name: 'Washer', place: 'Cellar' }, { name: 'Washer', place: 'Bath' })
 *   // [{ name: 'place', ours: 'Cellar', theirs: 'Bath' }]
 */
export function differing(
  ours: object,
  theirs: object,
  but: readonly string[] = [],
): DifferingField[] {
  const [a, b] = [flat(ours), flat(theirs)];
  return [...new Set([...Object.keys(b), ...Object.keys(a)])]
    .filter((name) => a[name] !== b[name] && !but.includes(name))
    .map((name) => ({ name: inWords(name), ours: a[name] ?? '', theirs: b[name] ?? '' }));
}

/** The name of a field as words: `loadsPerWeek` is `loads per week`. */
const inWords = (name: string): string =>
  name.replaceAll(
    /([a-z])([A-Z])/g,
    (_, before: string, after: string) => `${before} ${after.toLowerCase()}`,
  );

function flat(thing: object, before = ''): Record<string, string> {
  return Object.assign(
    {},
    ...Object.entries(thing).map(([key, value]: [string, unknown]) => {
      const name = before ? `${before}, ${key}` : key;
      if (value === null || value === undefined) return {};
      if (Array.isArray(value) && value.every((one) => typeof one !== 'object')) {
        return { [name]: value.join(', ') };
      }
      if (typeof value === 'object') return flat(value, name);
      return { [name]: `${value as boolean | number | string}` };
    }),
  ) as Record<string, string>;
}
