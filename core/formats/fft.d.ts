declare module 'fft.js' {
  export default class FFT {
    constructor(size: number);
    createComplexArray(): number[];
    completeSpectrum(spectrum: number[]): void;
    inverseTransform(out: number[], spectrum: ArrayLike<number>): void;
    realTransform(out: number[], data: ArrayLike<number>): void;
  }
}
