/** Bytes before the samples: RIFF, format and data, as "Multimedia Programming Interface and Data Specifications 1.0" has them (from memory). */
const HEAD = 44;

/** A recording as a file that any player opens: 16 bits, one channel. */
export function wavOf(samples: Float32Array, rate: number): Blob {
  const view = new DataView(new ArrayBuffer(HEAD + 2 * samples.length));
  const text = (at: number, words: string): void =>
    [...words].forEach((letter, i) => view.setUint8(at + i, letter.charCodeAt(0)));
  text(0, 'RIFF');
  view.setUint32(4, HEAD - 8 + 2 * samples.length, true);
  text(8, 'WAVEfmt ');
  view.setUint32(16, 16, true);
  view.setUint16(20, 1, true);
  view.setUint16(22, 1, true);
  view.setUint32(24, rate, true);
  view.setUint32(28, 2 * rate, true);
  view.setUint16(32, 2, true);
  view.setUint16(34, 16, true);
  text(36, 'data');
  view.setUint32(40, 2 * samples.length, true);
  samples.forEach((one, i) =>
    view.setInt16(HEAD + 2 * i, Math.round(32767 * Math.max(-1, Math.min(1, one))), true),
  );
  return new Blob([view.buffer], { type: 'audio/wav' });
}
