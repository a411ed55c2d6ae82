/** What every opened file goes through first, whatever it holds. */

import { decodeText } from '$core/text';

/** Largest file taken, in bytes. */
export const FILE_LIMIT = 8_000_000;

/** A file's bytes, and its text where it is not packed. */
export interface OpenedFile {
  readonly bytes: Uint8Array;
  /** Empty for a packed or binary file. */
  readonly text: string;
}

const begins = (bytes: Uint8Array, signature: string): boolean =>
  signature.length <= bytes.length &&
  [...signature].every((sign, index) => bytes[index] === sign.charCodeAt(0));

export const isMidi = ({ bytes }: OpenedFile): boolean => begins(bytes, 'MThd');
export const isZip = ({ bytes }: OpenedFile): boolean => begins(bytes, 'PK\x03\x04');
export const isXml = ({ text }: OpenedFile): boolean => /^\s*</u.test(text);
export const isJson = ({ text }: OpenedFile): boolean => /^\s*\{/u.test(text);

/** Takes a file up, its text decoded where it holds one. */
export function takeUp(bytes: Uint8Array): OpenedFile {
  const packed = { bytes, text: '' };
  if (isMidi(packed) || isZip(packed)) return packed;
  return { bytes, text: decodeText(bytes) };
}

/** A name for a file from a title. */
export const fileName = (title: string, extension: string, otherwise: string): string =>
  `${
    title
      .replace(/[–—]/gu, '-')
      .replace(/[^\p{L}\p{N} _-]/gu, '')
      .trim() || otherwise
  }.${extension}`;

/** A file to be downloaded; bytes are copied, so that a view on a larger buffer is no matter. */
export const fileOf = (content: string | Uint8Array, name: string, type: string): File =>
  new File([typeof content === 'string' ? content : content.slice()], name, { type });
