/* What is known of people without a schema: pages read it at once. */

/** What a person may do, each all that the one before may. */
export const ROLES = ['guest', 'helper', 'keeper'] as const;
export type Role = (typeof ROLES)[number];

/**
 * Whether a role is enough for something.
 *
 * @param role of the person
 * @param least that it takes
 * @example mayAs('helper', 'guest') // true
 */
export const mayAs = (role: Role, least: Role): boolean =>
  ROLES.indexOf(role) >= ROLES.indexOf(least);

/** The colours of thread that persons are told apart by, beside their initial. */
export const THREADS = ['indigo', 'rust', 'moss', 'plum', 'ochre', 'slate'] as const;
export type Thread = (typeof THREADS)[number];

/**
 * The letter that stands for a person where there is no room for the name.
 *
 * @example initialOf('ilse') // 'I'
 */
export const initialOf = (person: { name: string }): string => {
  const [first] = new Intl.Segmenter().segment(person.name.trim());
  return (first?.segment ?? '?').toUpperCase();
};

/**
 * Whether a person goes by a name: people sign in by it, however they write it.
 *
 * @example isCalled({ name: 'Ilse' }, ' ilse') // true
 */
export const isCalled = (person: { name: string }, name: string): boolean =>
  plain(person.name) === plain(name);

const plain = (name: string): string => name.normalize('NFKC').trim().toLowerCase();

/**
 * Whether somebody still keeps the house without one of its people: only a keeper lets anybody in.
 *
 * @param without the id of the one who goes, or keeps it no longer
 */
export const isKeptWithout = (
  persons: readonly { id: string; role: Role }[],
  without: string,
): boolean => persons.some(({ id, role }) => id !== without && role === 'keeper');
