import { readFile } from 'node:fs/promises';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { Drawing, Sheet, Words } from './drawings';
import { createFaces } from './faces';
import { cutPages } from './pages';
import { PAPERS, roomOf, writePdf } from './pdf';
import { writeSvg } from './svg';
import { readPdf } from '$tests/pdf';

const load = async (url: string) =>
  new Uint8Array(
    await readFile(url.replace(/^\/(?:@fs\/)?/u, url.startsWith('/@fs/') ? '/' : './')),
  );
const faces = createFaces(load);

const BLACK = { colour: [0, 0, 0], opacity: 1 } as const;
const words = (text: string, y: number, more: Partial<Words> = {}): Sheet['drawings'][number] => ({
  kind: 'words',
  text,
  matrix: [1, 0, 0, 1, 0, 0],
  x: 10,
  y,
  size: 16,
  weight: 400,
  end: null,
  families: ['Atkinson Hyperlegible Next Variable', 'Corvel Signs', 'sans-serif'],
  fill: BLACK,
  width: 200,
  ...more,
  top: y - 16,
  bottom: y + 4,
});
const sheetOf = (drawings: Sheet['drawings'], height = 400): Sheet => ({
  width: 700,
  height,
  background: null,
  drawings,
  wholes: drawings.map(({ top, bottom }) => ({ top, bottom })),
});

async function read(sheet: Sheet, paper: keyof typeof PAPERS = 'A4') {
  const bytes = await writePdf(sheet, { title: 'Two Spoons', paper, faces });
  return { text: new TextDecoder('latin1').decode(bytes), ...(await readPdf(bytes)) };
}

describe('pages of a long sheet', () => {
  test('a cut goes over what it would go through, and all that is whole with it', () => {
    const wholes = [
      { top: 90, bottom: 110 },
      { top: 80, bottom: 95 },
      { top: 0, bottom: 80 },
    ];
    expect(cutPages(wholes, 150, 100)).toEqual([0, 80]);
    expect(cutPages([{ top: 90, bottom: 110 }], 150, 100)).toEqual([0, 90]);
    expect(cutPages([], 250, 100)).toEqual([0, 100, 200]);
    expect(cutPages([], 100, 100)).toEqual([0]);
    // Longer than a page: it is cut where the page ends.
    expect(cutPages([{ top: 0, bottom: 180 }], 180, 100)).toEqual([0, 100]);
  });

  test('whatever fits a page is on one page, and every page is used', () => {
    const piece = fc.record({
      top: fc.integer({ min: 0, max: 900 }),
      size: fc.integer({ min: 1, max: 60 }),
    });
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 30 }), (pieces) => {
        const wholes = pieces.map(({ top, size }) => ({ top, bottom: top + size }));
        const tops = cutPages(wholes, 1000, 100);
        const ends = [...tops.slice(1), 1000];
        tops.forEach((top, index) => {
          const end = ends[index] ?? 0;
          expect(end).toBeGreaterThan(top);
          expect(end - top).toBeLessThanOrEqual(101);
          const through = wholes.filter((one) => one.top < end - 1 && one.bottom > end + 1);
          // Only where what hangs together is longer than the page.
          if (through.length > 0) expect(end - top).toBeCloseTo(100);
        });
      }),
    );
  });
});

describe('a PDF', () => {
  test('its words can be found and copied, in faces of its own', async () => {
    const { text, pages, info } = await read(
      sheetOf([
        words('B♭ stays', 40),
        words('Heading', 80, { families: ['Source Serif 4 Variable'], weight: 600 }),
      ]),
    );
    expect(pages).toHaveLength(1);
    expect(
      pages[0]?.items
        .map(({ str }) => str)
        .map((one) => one.trim())
        .join(' '),
    ).toBe('B ♭ stays Heading');
    expect(info).toMatchObject({ Title: 'Two Spoons', Creator: 'Corvel' });
    // Three faces, each with its file inside.
    expect(text.match(/\/FontFile[23]/gu)).toHaveLength(3);
    expect(text).toMatch(/SourceSerif/u);
  });

  test('words stand where they stood, as wide as they were', async () => {
    const [page] = (await read(sheetOf([words('Land on string 3', 100)]))).pages;
    const [item] = page?.items ?? [];
    const margin = (12 * 72) / 25.4;
    expect(item?.transform[4]).toBeCloseTo(margin + 10 * 0.75, 1);
    expect(item?.transform[5]).toBeCloseTo(PAPERS.A4[1] - margin - 100 * 0.75, 1);
    const natural = item?.width ?? 0;
    const [wider] = (
      await read(sheetOf([words('Land on string 3', 100, { width: natural / 0.75 + 8 })]))
    ).pages;
    expect(wider?.items[0]?.width).toBeGreaterThan(natural * 0.99);
  });

  test('a sheet wider than the paper is made smaller; a longer one goes on', async () => {
    const wide = { ...sheetOf([words('Here', 40)]), width: 1400 };
    const [page] = (await read(wide)).pages;
    const half = roomOf('A4').width / 1400;
    expect(page?.items[0]?.transform[0]).toBeCloseTo(16 * 0.75 * half, 0);
    const long = sheetOf(
      Array.from({ length: 40 }, (_, line) => words(`Line ${line}`, 50 * (line + 1))),
      2010,
    );
    const { pages } = await read(long, 'Letter');
    expect(pages.map(({ size }) => size)).toEqual([
      [612, 792],
      [612, 792],
      [612, 792],
    ]);
    expect(pages.flatMap(({ items }) => items).length).toBe(40);
  });

  test('music is drawn, and signs that no face has are pictures', async () => {
    const clef = words('\uE050', 40, { families: ['Bravura'] });
    const { text, pages } = await read(sheetOf([clef]));
    expect([pages[0]?.items, text.includes('/FontFile')]).toEqual([[], false]);
    const asked: string[] = [];
    const picture = async ({ text: unknown }: Words) => {
      asked.push(unknown);
      return null;
    };
    await writePdf(sheetOf([words('曲', 40), words('♭3→3', 60), words('Tune', 80)]), {
      title: '',
      paper: 'A4',
      faces,
      picture,
    });
    expect(asked).toEqual(['曲']);
  });

  test('shapes are vectors with their colours', async () => {
    const shape: Drawing = {
      kind: 'outline',
      path: 'M0 0h10v10h-10Z',
      matrix: [2, 0, 0, 2, 5, 5],
      fill: { colour: [255, 0, 0], opacity: 0.5 },
      stroke: { ...BLACK, width: 2, dash: [3, 2], cap: 'round' },
    };
    const { text } = await read(sheetOf([{ ...shape, top: 5, bottom: 25 }]));
    expect(text).toContain('/ca 0.5');
    expect(text).not.toContain('/Subtype /Image');
  });
});

describe('a picture', () => {
  test('holds words as outlines with their text, on its background', async () => {
    const sheet = {
      ...sheetOf([words('F falls & <C>', 40), words('曲', 80)]),
      background: [246, 241, 233] as const,
    };
    const svg = await writeSvg(sheet, { title: 'Gm7 to C7', faces });
    expect(svg).toContain('<title>Gm7 to C7</title>');
    expect(svg).toContain('<title>F falls &#38; &#60;C&#62;</title>');
    expect(svg).toContain('fill="rgb(246,241,233)"');
    // Only what no face of ours can draw is left as text.
    expect(svg.match(/<text/gu)).toHaveLength(1);
    expect(svg).toContain('viewBox="-16 -16 732 432"');
  });
});
