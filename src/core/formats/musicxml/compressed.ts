/** Compressed MusicXML: a zip file that names its score in META-INF/container.xml. */
import { strToU8, unzipSync, zipSync } from 'fflate';
import { decodeText } from '../../text';
import { type Refusal, refused } from '../result';
import { childNamed, childrenNamed, readXml, XML_LIMITS } from './xml';

const ZIP_LIMITS = {
  bytes: 2_000_000,
  unpacked: XML_LIMITS.characters,
  files: 200,
} as const;

const CONTAINER = 'META-INF/container.xml';

/** Whether a file begins as a zip file does. */
export const isCompressed = (bytes: Uint8Array): boolean =>
  bytes[0] === 0x50 && bytes[1] === 0x4b && bytes[2] === 0x03 && bytes[3] === 0x04;

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

type Unpacked = { readonly ok: true; readonly text: string } | Refusal;

/** The score inside a compressed file, as text. */
export function unpackScore(bytes: Uint8Array): Unpacked {
  if (bytes.length > ZIP_LIMITS.bytes) return refused('This file is too large for a score.');
  try {
    const files = unpack(bytes);
    const name = scoreName(files);
    const score = name === undefined ? undefined : files[name];
    return score ? { ok: true, text: decodeText(score) } : refused('This zip file holds no score.');
  } catch (error) {
    return refused(
      error instanceof TooLarge
        ? 'Unpacked, this file is too large for a score.'
        : 'This zip file is damaged and cannot be unpacked.',
    );
  }
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
