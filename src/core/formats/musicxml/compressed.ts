/** Compressed MusicXML: a zip file that names its score in META-INF/container.xml. */
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { type ImportResult, readMusicXml } from './read';
import { childNamed, childrenNamed, readXml, XML_LIMITS } from './xml';

export const ZIP_LIMITS = {
  bytes: 2_000_000,
  unpacked: XML_LIMITS.characters,
  files: 200,
} as const;

const CONTAINER = 'META-INF/container.xml';

/** Whether a file begins as a zip file does. */
export const isCompressed = (bytes: Uint8Array): boolean =>
  bytes[0] === 0x50 && bytes[1] === 0x4b && bytes[2] === 0x03 && bytes[3] === 0x04;

const refuse = (message: string): ImportResult => ({ ok: false, message });

/** UTF-8, or UTF-16 where the file begins with its mark. */
export function decodeText(bytes: Uint8Array): string {
  const utf16 =
    (bytes[0] === 0xff && bytes[1] === 0xfe) || (bytes[0] === 0xfe && bytes[1] === 0xff);
  if (!utf16) return strFromU8(bytes).replace(/^\uFEFF/u, '');
  const little = bytes[0] === 0xff;
  const units = Array.from({ length: Math.floor(bytes.length / 2) - 1 }, (_, index) => {
    const first = bytes[2 * index + 2] ?? 0;
    const second = bytes[2 * index + 3] ?? 0;
    return little ? first | (second << 8) : (first << 8) | second;
  });
  let text = '';
  for (const unit of units) text += String.fromCharCode(unit);
  return text;
}

class TooLarge extends Error {}

/** Unpacks only XML, and only as much as a score may hold, whatever the file claims. */
function unpack(bytes: Uint8Array): Readonly<Record<string, Uint8Array>> {
  let files = 0;
  let unpacked = 0;
  return unzipSync(bytes, {
    filter: ({ name, originalSize }) => {
      files += 1;
      if (files > ZIP_LIMITS.files) throw new TooLarge();
      if (!/\.(?:xml|musicxml)$/iu.test(name)) return false;
      unpacked += originalSize;
      if (unpacked > ZIP_LIMITS.unpacked) throw new TooLarge();
      return true;
    },
  });
}

function scoreName(files: Readonly<Record<string, Uint8Array>>): string | undefined {
  const container = files[CONTAINER];
  const parsed = container ? readXml(decodeText(container)) : null;
  const roots = parsed?.ok ? childNamed(parsed.root, 'rootfiles') : undefined;
  const named = (roots ? childrenNamed(roots, 'rootfile') : [])
    .map(({ attributes }) => attributes['full-path'])
    .find((name) => name !== undefined && files[name] !== undefined);
  return named ?? Object.keys(files).find((name) => !name.startsWith('META-INF/'));
}

export type Unpacked =
  { readonly ok: true; readonly text: string } | { readonly ok: false; readonly message: string };

/** The score inside a compressed file, as text. */
export function unpackScore(bytes: Uint8Array): Unpacked {
  if (bytes.length > ZIP_LIMITS.bytes) return refuse('This file is too large for a score.');
  try {
    const files = unpack(bytes);
    const name = scoreName(files);
    const score = name === undefined ? undefined : files[name];
    return score ? { ok: true, text: decodeText(score) } : refuse('This zip file holds no score.');
  } catch (error) {
    return refuse(
      error instanceof TooLarge
        ? 'Unpacked, this file is too large for a score.'
        : 'This zip file is damaged and cannot be unpacked.',
    );
  }
}

/** Reads a MusicXML file, plain or compressed. */
export function readMusicXmlFile(bytes: Uint8Array): ImportResult {
  if (!isCompressed(bytes)) return readMusicXml(decodeText(bytes));
  const unpacked = unpackScore(bytes);
  return unpacked.ok ? readMusicXml(unpacked.text) : unpacked;
}

/** Packs a score as compressed MusicXML. */
export function compressMusicXml(xml: string): Uint8Array {
  const container =
    '<?xml version="1.0" encoding="UTF-8"?>\n<container><rootfiles><rootfile ' +
    'full-path="score.musicxml" media-type="application/vnd.recordare.musicxml+xml"/>' +
    '</rootfiles></container>\n';
  // Fixed dates: the same chart gives the same file.
  const mtime = '1980-01-01T00:00:00';
  return zipSync(
    {
      mimetype: [strToU8('application/vnd.recordare.musicxml'), { level: 0 }],
      [CONTAINER]: strToU8(container),
      'score.musicxml': strToU8(xml),
    },
    { mtime },
  );
}
