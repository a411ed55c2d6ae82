/** Writes a sheet as SVG that stands alone: its words are outlines, so that it looks the same everywhere. */
import {
  type Colour,
  type Drawing,
  type Matrix,
  type Outline,
  type Sheet,
  stretchTo,
  type Words,
} from './drawings';
import type { Faces } from './faces';

interface SvgOptions {
  readonly title: string;
  readonly faces: Faces;
}

/** Room round the drawing, in its own units. */
const MARGIN = 16;
const WHITE: Colour = [255, 255, 255];

const round = (value: number): number => Math.round(value * 100) / 100;
const colour = ([red, green, blue]: Colour): string => `rgb(${red},${green},${blue})`;
const escaped = (text: string): string =>
  text.replace(/[&<>"]/gu, (sign) => `&#${sign.charCodeAt(0)};`);
const matrixed = (matrix: Matrix): string =>
  matrix.join() === '1,0,0,1,0,0' ? '' : ` transform="matrix(${matrix.map(round).join(' ')})"`;
const opaque = (name: string, opacity: number): string =>
  opacity === 1 ? '' : ` ${name}="${round(opacity)}"`;

function outline({ path, matrix, fill, stroke }: Outline): string {
  const filled = fill
    ? `fill="${colour(fill.colour)}"${opaque('fill-opacity', fill.opacity)}`
    : 'fill="none"';
  const dash =
    stroke && stroke.dash.length > 0 ? ` stroke-dasharray="${stroke.dash.join(' ')}"` : '';
  const drawn = stroke
    ? ` stroke="${colour(stroke.colour)}" stroke-width="${round(stroke.width)}" stroke-linecap="${stroke.cap}"${dash}${opaque('stroke-opacity', stroke.opacity)}`
    : '';
  return `<path d="${path}" ${filled}${drawn}${matrixed(matrix)}/>`;
}

async function words(drawing: Words, faces: Faces): Promise<string> {
  const { text, matrix, x, y, size, families, weight, fill, width } = drawing;
  const look = `fill="${colour(fill.colour)}"${opaque('fill-opacity', fill.opacity)}`;
  const runs = await faces.runsOf(text, families, weight);
  // Signs that no face of ours has are left to the faces of whoever opens it.
  if (!runs)
    return `<text x="${round(x)}" y="${round(y)}" font-size="${round(size)}" font-family="sans-serif" ${look}${matrixed(matrix)}>${escaped(text)}</text>`;
  const laid = runs.map(({ face, text: run }) => ({ face, run: face.font.layout(run) }));
  const own = laid.reduce(
    (sum, { face, run }) => sum + (run.advanceWidth / face.font.unitsPerEm) * size,
    0,
  );
  const stretch = stretchTo(width, own);
  let pen = x;
  const glyphs = laid.flatMap(({ face, run }) => {
    const scale = size / face.font.unitsPerEm;
    return run.glyphs.map((glyph, index) => {
      const at = pen;
      pen += (run.positions[index]?.xAdvance ?? glyph.advanceWidth) * scale * stretch;
      return glyph.path
        .scale(scale * stretch, -scale)
        .translate(at, y)
        .toSVG();
    });
  });
  return `<path d="${glyphs.join('')}" ${look}${matrixed(matrix)}><title>${escaped(text)}</title></path>`;
}

const draw = (drawing: Drawing, faces: Faces): Promise<string> =>
  drawing.kind === 'outline' ? Promise.resolve(outline(drawing)) : words(drawing, faces);

/** A sheet as one picture, with a margin, on a background. */
export async function writeSvg(sheet: Sheet, { title, faces }: SvgOptions): Promise<string> {
  const width = Math.ceil(sheet.width + 2 * MARGIN);
  const height = Math.ceil(sheet.height + 2 * MARGIN);
  const parts: string[] = [];
  for (const drawing of sheet.drawings) parts.push(await draw(drawing, faces));
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${-MARGIN} ${-MARGIN} ${width} ${height}" width="${width}" height="${height}" role="img">`,
    `<title>${escaped(title)}</title>`,
    `<rect x="${-MARGIN}" y="${-MARGIN}" width="${width}" height="${height}" fill="${colour(sheet.background ?? WHITE)}"/>`,
    ...parts,
    '</svg>',
    '',
  ].join('\n');
}
