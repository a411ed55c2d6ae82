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

/** What files begin with that are no music to read. */
const STRANGERS: readonly (readonly [begins: string, what: string])[] = [
  ['%PDF', 'a PDF'],
  ['\x89PNG', 'a picture'],
  ['\xff\xd8\xff', 'a picture'],
  ['GIF8', 'a picture'],
  ['RIFF', 'a recording'],
  ['ID3', 'a recording'],
  ['\xff\xfb', 'a recording'],
  ['OggS', 'a recording'],
  ['fLaC', 'a recording'],
];

/** What a file that cannot be read seems to be, by its first bytes; null where that is not known. */
export const seemsToBe = ({ bytes }: Pick<OpenedFile, 'bytes'>): string | null =>
  STRANGERS.find(([start]) => begins(bytes, start))?.[1] ?? null;

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
