/** Bytes that can be read anywhere, of a known size: a file, a blob, a range of a server's answer. */
export interface ByteSource {
  readonly size: number;
  /** Exactly the bytes asked for, fewer only at the end. */
  read(at: number, length: number): Promise<Uint8Array>;
}

export const bytesInMemory = (bytes: Uint8Array): ByteSource => ({
  size: bytes.length,
  read: async (at, length) => bytes.subarray(at, Math.min(bytes.length, at + length)),
});
