import equal from 'fast-deep-equal';

/**
 * Whether two pieces of plain data say the same. Given to a signal as its equality, it keeps what a person
 * typed when the same data arrive again, as they do whenever another screen changes something.
 */
export const sameData = (a: unknown, b: unknown): boolean => equal(a, b);
