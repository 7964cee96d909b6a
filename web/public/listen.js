/* Gives what the microphone hears on to the page, in pieces; nothing of it leaves the page. */
class Listen extends AudioWorkletProcessor {
  process([input]) {
    const samples = input?.[0];
    if (samples?.length) this.port.postMessage(samples.slice());
    return true;
  }
}
registerProcessor('listen', Listen);
