declare module 'fft.js' {
  /** Fast Fourier transform of a power of two; complex numbers lie one behind the other as real and imaginary part. */
  export default class FFT {
    constructor(size: number)
    createComplexArray(): number[]
    realTransform(out: number[], data: readonly number[]): void
    completeSpectrum(out: number[]): void
    transform(out: number[], data: readonly number[]): void
  }
}
