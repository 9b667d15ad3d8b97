import { LEVELS_WASM } from './levels.generated.ts';

/** What wasm/levels.ts exports. */
interface Exports {
  readonly memory: { readonly buffer: ArrayBuffer };
  leftAt(): number;
  rightAt(): number;
  sectionsAt(): number;
  memoriesAt(): number;
  energiesAt(): number;
  phasesAt(): number;
  halfwayAt(): number;
  peaksAt(): number;
  weigh(from: number, count: number, awake: number): void;
  look(count: number, phases: number, bound: number, near: number): void;
}

/** The part of WebAssembly's interface that is used: core knows neither pages nor Node. */
interface WebAssemblyApi {
  readonly Module: new (bytes: Uint8Array) => object;
  readonly Instance: new (module: object) => { readonly exports: unknown };
}

/**
 * The inner loops of loudness and true peak in WebAssembly with SIMD, over views of its memory. There is one for each
 * thread: each user loads its own state first, and saves it before another one does.
 */
export interface LevelsKernel extends Pick<Exports, 'weigh' | 'look'> {
  /** Frames of a channel that are worked on at a time. */
  readonly frames: number;
  /** A channel, `frames` and the taps of the true peak long. */
  readonly left: Float32Array;
  readonly right: Float32Array;
  readonly sections: Float64Array;
  /** z1, z2, y1, y2, each for left and right. */
  readonly memories: Float64Array;
  readonly energies: Float64Array;
  /** Pairs of phases side by side, tap by tap. */
  readonly phases: Float64Array;
  readonly halfway: Float32Array;
  /** Sample peak, true peak. */
  readonly peaks: Float64Array;
}

const FRAMES = 8192;
const TAPS = 32;
const MAX_PHASES = 8;

let known: LevelsKernel | null | undefined;

/** The kernel of this thread; null where there is no WebAssembly, or none with SIMD: the plain code does it then. */
export function levelsKernel(): LevelsKernel | null {
  if (known === undefined) known = makeKernel((globalThis as { WebAssembly?: WebAssemblyApi }).WebAssembly);
  return known;
}

function makeKernel(api: WebAssemblyApi | undefined): LevelsKernel | null {
  if (!api) return null;
  try {
    const wasm = new api.Instance(new api.Module(LEVELS_WASM)).exports as Exports;
    const { buffer } = wasm.memory;
    return {
      weigh: wasm.weigh,
      look: wasm.look,
      frames: FRAMES,
      left: new Float32Array(buffer, wasm.leftAt(), FRAMES + TAPS),
      right: new Float32Array(buffer, wasm.rightAt(), FRAMES),
      sections: new Float64Array(buffer, wasm.sectionsAt(), 7),
      memories: new Float64Array(buffer, wasm.memoriesAt(), 8),
      energies: new Float64Array(buffer, wasm.energiesAt(), 2),
      phases: new Float64Array(buffer, wasm.phasesAt(), TAPS * MAX_PHASES),
      halfway: new Float32Array(buffer, wasm.halfwayAt(), 6),
      peaks: new Float64Array(buffer, wasm.peaksAt(), 2),
    };
  } catch {
    // A processor or browser without SIMD, or a page that may not compile.
    return null;
  }
}
