/* Gives what the microphone hears on to the page, in pieces; nothing of it leaves the page. */
const PIECE = 2048;

class Listen extends AudioWorkletProcessor {
  piece = new Float32Array(PIECE);
  at = 0;

  process([input]) {
    for (const sample of input?.[0] ?? []) {
      this.piece[this.at++] = sample;
      if (this.at < PIECE) continue;
      this.port.postMessage(this.piece.slice());
      this.at = 0;
    }
    return true;
  }
}
registerProcessor('listen', Listen);
