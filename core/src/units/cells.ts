/*
 * Cells of a table that spreadsheets open. What begins like a formula is run by them, whoever wrote it: such a text
 * gets an apostrophe before it (OWASP, "CSV Injection"), and so does one that begins with an apostrophe, so that
 * taking one off gives back what was written.
 */

/** What a spreadsheet runs or strips at the beginning of a text, or takes for our own sign. */
const RISKY = /^[=+\-@\t\r\n'＝＋－＠]/;

/** A text as it may stand in a cell. */
export const safeCell = (text: string): string => (RISKY.test(text) ? `'${text}` : text);

/** The text of a cell that was written by `safeCell`. */
export const cellText = (cell: string): string =>
  cell.startsWith("'") && RISKY.test(cell.slice(1)) ? cell.slice(1) : cell;
