/**
 * A real transform of one size. The spectrum is packed as N values: [DC, Nyquist, re 1, im 1, re 2, im 2, ...].
 * Forward is unscaled; inverse divides by N, so that a round trip is the identity.
 */
interface Fft {
  readonly size: number;
  forward(input: Float32Array, spectrum: Float32Array): void;
  inverse(spectrum: Float32Array, output: Float32Array): void;
}

/** Gives a transform of the size asked for, a power of two of 32 or more; the same one when asked again. */
export interface FftOf {
  (size: number): Fft;
  /** Of complex values: real and imaginary parts in turn, `2 * size` of them, in both sound and spectrum. */
  complex(size: number): Fft;
  /** Holds many short complex sounds against one long one, cut into pieces of this size. Its memory is held until `free`. */
  correlator(size: number): Correlator;
}

/** Complex sounds, real and imaginary parts in turn. */
export interface Correlator {
  /** Keeps a piece of the long sound, `2 * size` values. @returns its number */
  keep(piece: Float32Array): number;
  /** The short sound that the pieces are held against from now on; silence behind it. */
  against(short: Float32Array): void;
  /** Their correlation, round the corner: at lag n where the piece has the short sound from n on. A view, good until the next call. */
  withPiece(number: number): Float32Array;
  free(): void;
}

/** The part of the PFFFT WebAssembly module that is used; the edges load it, each in its own way. */
export interface PffftModule {
  HEAPF32: Float32Array;
  _pffft_new_setup(size: number, kind: number): number;
  _pffft_aligned_malloc(bytes: number): number;
  _pffft_aligned_free(pointer: number): void;
  _pffft_transform_ordered(setup: number, input: number, output: number, work: number, direction: number): void;
  /** Spectra in the library's own order, which products do not mind. */
  _pffft_transform(setup: number, input: number, output: number, work: number, direction: number): void;
  _pffft_zconvolve_accumulate(setup: number, a: number, b: number, sum: number, scaling: number): void;
}

const REAL = 0;
const COMPLEX = 1;
const FORWARD = 0;
const BACKWARD = 1;

/** Transforms over PFFFT. Sizes are set up once and kept; all of them share two buffers. */
export function fftOver(module: PffftModule): FftOf {
  const known = new Map<string, Fft>();
  let capacity = 0;
  let input = 0;
  let output = 0;
  let work = 0;
  // The memory may move when it grows, so views are made again.
  const viewAt = (pointer: number, values: number): Float32Array =>
    module.HEAPF32.subarray(pointer / 4, pointer / 4 + values);
  const reserve = (values: number): void => {
    if (values <= capacity) return;
    [input, output, work] = [0, 0, 0].map(() => module._pffft_aligned_malloc(values * 4)) as [number, number, number];
    capacity = values;
  };
  const transform = (size: number, kind: typeof REAL | typeof COMPLEX): Fft => {
    const key = `${kind} ${size}`;
    const ready = known.get(key);
    if (ready) return ready;
    const values = kind === COMPLEX ? 2 * size : size;
    reserve(values);
    const setup = module._pffft_new_setup(size, kind);
    if (setup === 0) throw new RangeError(`No transform of size ${size}.`);
    const fft: Fft = {
      size,
      forward(x, spectrum) {
        viewAt(input, values).set(x);
        module._pffft_transform_ordered(setup, input, output, work, FORWARD);
        spectrum.set(viewAt(output, values));
      },
      inverse(spectrum, x) {
        viewAt(input, values).set(spectrum);
        module._pffft_transform_ordered(setup, input, output, work, BACKWARD);
        const y = viewAt(output, values);
        const k = 1 / size;
        for (let i = 0; i < values; i++) x[i] = y[i]! * k;
      },
    };
    known.set(key, fft);
    return fft;
  };
  const setups = new Map<number, number>();
  const correlator = (size: number): Correlator => {
    const values = 2 * size;
    const setup = setups.get(size) ?? module._pffft_new_setup(size, COMPLEX);
    if (setup === 0) throw new RangeError(`No transform of size ${size}.`);
    setups.set(size, setup);
    const room = () => module._pffft_aligned_malloc(values * 4);
    const [time, short, product, room4] = [room(), room(), room(), room()];
    const pieces: number[] = [];
    const forward = (into: number) => module._pffft_transform(setup, time, into, room4, FORWARD);
    return {
      keep(piece) {
        const at = room();
        viewAt(time, values).set(piece);
        forward(at);
        return pieces.push(at) - 1;
      },
      against(sound) {
        // Turned round and conjugated, so that a product of spectra is a correlation.
        const view = viewAt(time, values);
        view.fill(0);
        for (let i = 0; i < sound.length / 2; i++) {
          const to = (size - i) % size;
          view[2 * to] = sound[2 * i]!;
          view[2 * to + 1] = -sound[2 * i + 1]!;
        }
        forward(short);
      },
      withPiece(number) {
        viewAt(product, values).fill(0);
        module._pffft_zconvolve_accumulate(setup, pieces[number]!, short, product, 1 / size);
        module._pffft_transform(setup, product, time, room4, BACKWARD);
        return viewAt(time, values);
      },
      free() {
        for (const at of [time, short, product, room4, ...pieces]) module._pffft_aligned_free(at);
        pieces.length = 0;
      },
    };
  };
  return Object.assign((size: number) => transform(size, REAL), {
    complex: (size: number) => transform(size, COMPLEX),
    correlator,
  });
}

/** The least power of two that is not below `n`, 32 at least. */
export const fftSize = (n: number): number => Math.max(32, 2 ** Math.ceil(Math.log2(Math.max(1, n))));
