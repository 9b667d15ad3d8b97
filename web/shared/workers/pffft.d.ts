declare module '@echogarden/pffft-wasm/simd' {
  /** Starts the module; its type is stated where it is used. */
  export default function PFFFT(options?: { locateFile?: (path: string) => string }): Promise<unknown>;
}
