/*
 * Signs that nobody sees. Unicode Standard Annex 9 (directional overrides, embeddings and isolates) and the trick that
 * is made of them (a text that reads otherwise than it is stored) as in "Trojan Source", CVE-2021-42574, from memory.
 */

/** Turn the direction of what follows; marks of a single place (U+200E, U+200F) turn nothing around. */
const TURNS = /[\u202a-\u202e\u2066-\u2069]/g;
/** Take no room and join nothing. */
const NOTHING = /[\u200b\u2060\u2061-\u2064\ufeff\u180e]/g;
/** Joiners, which stand between two signs that they join or part: in Persian, in pictures of families. */
const ALONE = /(?<![^\s\u200c\u200d])[\u200c\u200d]+|[\u200c\u200d]+(?![^\s\u200c\u200d])/g;
const ANY = /[\u180e\u200b-\u200d\u202a-\u202e\u2060-\u2069\ufeff]/;

/**
 * A text as it is kept: without signs that turn its direction around, and without such as take no room and join
 * nothing.
 *
 * @example keptText('Pump\u200b filter\u202e') // 'Pump filter'
 */
export const keptText = (text: string): string =>
  ANY.test(text) ? text.replace(TURNS, '').replace(NOTHING, '').replace(ALONE, '') : text;

/** Controls of a terminal or a printer (ISO 6429): nothing but tab and the ends of lines belongs in a text. */
// eslint-disable-next-line no-control-regex
const CONTROL = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f-\u009f]/;

/** Whether a text has a control sign in it that is no tab and no end of a line. */
export const hasControl = (text: string): boolean => CONTROL.test(text);
