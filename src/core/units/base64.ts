/** So many bytes go into text at a time: more at once fill the stack. */
const PIECE = 0x8000;

/** Bytes as text by RFC 4648, section 4. */
export function toBase64(bytes: Uint8Array): string {
  let text = '';
  for (let i = 0; i < bytes.length; i += PIECE) text += String.fromCharCode(...bytes.subarray(i, i + PIECE));
  return btoa(text);
}

/** Throws where the text is no such thing. */
export const fromBase64 = (text: string): Uint8Array<ArrayBuffer> =>
  Uint8Array.from(atob(text), (c) => c.charCodeAt(0));
