/** Compressed copies beside the files, a few at a time: the adapter opens all at once, more than a container may allow. */
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { extname, join } from 'node:path';
import { promisify } from 'node:util';
import { brotliCompress, constants, gzip } from 'node:zlib';

const TEXTS = new Set(['.html', '.js', '.json', '.css', '.svg', '.txt', '.wasm']);
const AT_ONCE = 16;

const ways = {
  gz: (/** @type {Buffer} */ bytes) =>
    promisify(gzip)(bytes, { level: constants.Z_BEST_COMPRESSION }),
  br: (/** @type {Buffer} */ bytes) =>
    promisify(brotliCompress)(bytes, {
      params: { [constants.BROTLI_PARAM_MODE]: constants.BROTLI_MODE_TEXT },
    }),
};

/** Writes `.gz` and `.br` beside every text of a folder, those of its folders too. */
export async function compress(/** @type {string} */ folder) {
  if (!existsSync(folder)) return;
  const files = readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((file) => file.isFile() && TEXTS.has(extname(file.name)))
    .map((file) => join(file.parentPath, file.name));
  for (let from = 0; from < files.length; from += AT_ONCE)
    await Promise.all(
      files.slice(from, from + AT_ONCE).map(async (file) => {
        const bytes = readFileSync(file);
        for (const [ending, way] of Object.entries(ways))
          writeFileSync(`${file}.${ending}`, await way(bytes));
      }),
    );
}
