/** Text as UTF-8; core has no encoder of its own, and URIs are UTF-8. */
export const utf8 = (text: string): Uint8Array =>
  Uint8Array.from(
    encodeURIComponent(text).replace(/%(..)/g, (_, hex: string) => String.fromCharCode(Number.parseInt(hex, 16))),
    (c) => c.charCodeAt(0),
  );

/** Bytes as text: UTF-8, or byte by byte where they are none. */
export function textOf(bytes: Uint8Array): string {
  const plain = Array.from(bytes, (b) => String.fromCharCode(b)).join('');
  try {
    return decodeURIComponent(
      plain.replace(/[^A-Za-z0-9]/g, (c) => `%${c.charCodeAt(0).toString(16).padStart(2, '0')}`),
    );
  } catch {
    return plain;
  }
}
