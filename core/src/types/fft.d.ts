/** The part of fft.js that is used here. */
declare module 'fft.js' {
  export default class FFT {
    /** @param size a power of two */
    constructor(size: number);
    /** An array for real and imaginary parts in turn. */
    createComplexArray(): number[];
    /** The first half of the transform of real numbers, up to half the rate. */
    realTransform(out: number[], data: readonly number[]): void;
  }
}
