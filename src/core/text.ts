/** Text out of bytes. */

/** UTF-8, or UTF-16 where the text begins with its mark. */
export function decodeText(bytes: Uint8Array): string {
  const [first, second] = bytes;
  const little = first === 0xff && second === 0xfe;
  const big = first === 0xfe && second === 0xff;
  return new TextDecoder(little ? 'utf-16le' : big ? 'utf-16be' : 'utf-8').decode(bytes);
}
