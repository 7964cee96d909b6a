/** Lines are gathered into pieces of about this size, bytes. */
const PIECE = 64_000;
/** No line is longer: what the API takes in is at most 1 MB. */
export const LONGEST_LINE = 4_000_000;

/** Things as JSON lines, in pieces. @param count is told how many there were */
export function* jsonLines(
  things: Iterable<object>,
  count: (lines: number) => void,
): Generator<Buffer> {
  let lines = 0;
  let piece = '';
  for (const thing of things) {
    piece += `${JSON.stringify(thing)}\n`;
    lines++;
    if (piece.length < PIECE) continue;
    yield Buffer.from(piece);
    piece = '';
  }
  if (piece) yield Buffer.from(piece);
  count(lines);
}

/**
 * The lines of a text that comes in pieces, a piece in memory at a time.
 * @throws RangeError where a line is longer than any that is written
 */
export async function* textLines(pieces: AsyncIterable<Buffer>): AsyncGenerator<string> {
  const decoder = new TextDecoder('utf-8', { fatal: true });
  let rest = '';
  for await (const piece of pieces) {
    const lines = (rest + decoder.decode(piece, { stream: true })).split('\n');
    rest = lines.pop()!;
    if (rest.length > LONGEST_LINE)
      throw new RangeError('A line is longer than any that is written.');
    yield* lines;
  }
  rest += decoder.decode();
  if (rest) yield rest;
}
