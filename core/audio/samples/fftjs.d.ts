declare module 'fft.js' {
  /** The second opinion of the tests. */
  export default class FFT {
    constructor(size: number);
    createComplexArray(): number[];
    realTransform(out: number[], data: number[]): void;
  }
}
