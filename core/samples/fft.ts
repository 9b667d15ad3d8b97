/**
 * A real transform of one size. The spectrum is packed as N values: [DC, Nyquist, re 1, im 1, re 2, im 2, ...].
 * Forward is unscaled; inverse divides by N, so that a round trip is the identity.
 */
export interface Fft {
  readonly size: number;
  forward(input: Float32Array, spectrum: Float32Array): void;
  inverse(spectrum: Float32Array, output: Float32Array): void;
}

/** Gives a transform of the size asked for, a power of two of 32 or more; the same one when asked again. */
export type FftOf = (size: number) => Fft;

/** The part of the PFFFT WebAssembly module that is used; the edges load it, each in its own way. */
export interface PffftModule {
  HEAPF32: Float32Array;
  _pffft_new_setup(size: number, kind: number): number;
  _pffft_aligned_malloc(bytes: number): number;
  _pffft_transform_ordered(setup: number, input: number, output: number, work: number, direction: number): void;
}

const REAL = 0;
const FORWARD = 0;
const BACKWARD = 1;

/** Transforms over PFFFT. Sizes are set up once and kept; all of them share two buffers. */
export function fftOver(module: PffftModule): FftOf {
  const known = new Map<number, Fft>();
  let capacity = 0;
  let input = 0;
  let output = 0;
  let work = 0;
  // The memory may move when it grows, so views are made anew.
  const viewAt = (pointer: number, size: number): Float32Array =>
    module.HEAPF32.subarray(pointer / 4, pointer / 4 + size);
  const reserve = (size: number): void => {
    if (size <= capacity) return;
    [input, output, work] = [0, 0, 0].map(() => module._pffft_aligned_malloc(size * 4)) as [number, number, number];
    capacity = size;
  };
  return (size) => {
    const ready = known.get(size);
    if (ready) return ready;
    reserve(size);
    const setup = module._pffft_new_setup(size, REAL);
    if (setup === 0) throw new RangeError(`No transform of size ${size}.`);
    const fft: Fft = {
      size,
      forward(x, spectrum) {
        viewAt(input, size).set(x);
        module._pffft_transform_ordered(setup, input, output, work, FORWARD);
        spectrum.set(viewAt(output, size));
      },
      inverse(spectrum, x) {
        viewAt(input, size).set(spectrum);
        module._pffft_transform_ordered(setup, input, output, work, BACKWARD);
        const y = viewAt(output, size);
        const k = 1 / size;
        for (let i = 0; i < size; i++) x[i] = y[i]! * k;
      },
    };
    known.set(size, fft);
    return fft;
  };
}

/** The least power of two that is not below `n`, 32 at least. */
export const fftSize = (n: number): number => Math.max(32, 2 ** Math.ceil(Math.log2(Math.max(1, n))));
