/** Reads PDFs back, as somebody else's reader does. */
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';

interface ReadPage {
  readonly size: readonly number[];
  readonly items: readonly {
    readonly str: string;
    readonly width: number;
    readonly transform: readonly number[];
  }[];
}

/** The pages of a PDF: their sizes in points and their runs of words with where they stand. */
export async function readPdf(bytes: Uint8Array) {
  const pdf = await getDocument({ data: new Uint8Array(bytes), verbosity: 0 }).promise;
  const pages: ReadPage[] = [];
  for (let number = 1; number <= pdf.numPages; number += 1) {
    const page = await pdf.getPage(number);
    const { items } = await page.getTextContent();
    const words = items.flatMap((item) => ('str' in item && item.str.trim() !== '' ? [item] : []));
    pages.push({
      size: page.view.slice(2),
      items: words.map(({ str, width, transform }) => ({
        str,
        width,
        transform: transform as number[],
      })),
    });
  }
  return { pages, info: (await pdf.getMetadata()).info as Readonly<Record<string, unknown>> };
}

/** The words of each page, in the order in which they were drawn. */
export const pdfWords = async (bytes: Uint8Array): Promise<readonly string[]> =>
  (await readPdf(bytes)).pages.map(({ items }) => items.map(({ str }) => str.trim()).join(' '));
