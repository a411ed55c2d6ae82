/** Writes a printed sheet as a PDF: vectors, with the faces of its words embedded. */
import PDFDocument from 'pdfkit';
import { toBytes } from 'pdfkit/output';
import {
  type Drawing,
  type Matrix,
  type Outline,
  type Sheet,
  stretchTo,
  type Words,
} from './drawings';
import type { Faces } from './faces';
import { cutPages } from './pages';

/** Points of a millimetre and of a CSS pixel. */
const MILLIMETRE = 72 / 25.4;
const PIXEL = 0.75;

/** Papers and their sizes in points. */
export const PAPERS = { A4: [595.28, 841.89], Letter: [612, 792] } as const;
export type Paper = keyof typeof PAPERS;

const MARGIN = 12 * MILLIMETRE;

/** The room of a page between its margins, in CSS pixels. */
export const roomOf = (paper: Paper) => {
  const [width, height] = PAPERS[paper];
  return { width: (width - 2 * MARGIN) / PIXEL, height: (height - 2 * MARGIN) / PIXEL };
};

/** A picture of words that no embedded face can set: PNG, as wide and high as said, its top left at x, y. */
export interface PictureOfWords {
  readonly png: ArrayBuffer;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

interface PdfOptions {
  readonly title: string;
  readonly paper: Paper;
  readonly faces: Faces;
  /** Draws words in signs that no face of ours has; where it cannot, they are left out. */
  readonly picture?: (words: Words) => Promise<PictureOfWords | null>;
}

type Pdf = InstanceType<typeof PDFDocument>;

const moved = ([a, b, c, d, e, f]: Matrix) => [a, b, c, d, e, f] as const;

function outline(pdf: Pdf, { path, matrix, fill, stroke }: Outline): void {
  pdf
    .save()
    .transform(...moved(matrix))
    .path(path);
  if (fill) pdf.fillColor([...fill.colour], fill.opacity);
  if (stroke) {
    const { colour, opacity, width, dash, cap } = stroke;
    pdf
      .strokeColor([...colour], opacity)
      .lineWidth(width)
      .lineCap(cap);
    const [on = 0, off = on] = dash;
    if (on > 0) pdf.dash(on, { space: off });
  }
  if (fill && stroke) pdf.fillAndStroke();
  else if (fill) pdf.fill();
  else pdf.stroke();
  pdf.restore();
}

async function words(pdf: Pdf, drawing: Words, options: PdfOptions): Promise<void> {
  const { text, matrix, x, y, size, families, weight, fill, end, width } = drawing;
  const runs = await options.faces.runsOf(text, families, weight);
  pdf.save().transform(...moved(matrix));
  if (end !== null && x + width > end + 1) pdf.rect(0, y - 2 * size, end, 4 * size).clip();
  pdf.fillColor([...fill.colour], fill.opacity);
  if (!runs) {
    const picture = await options.picture?.(drawing);
    if (picture)
      pdf.image(picture.png, picture.x, picture.y, {
        width: picture.width,
        height: picture.height,
      });
  } else {
    const measured = runs.map(({ face, text: run }) => {
      if (face.outlined) return (face.font.layout(run).advanceWidth / face.font.unitsPerEm) * size;
      return pdf
        .font(face.bytes as never)
        .fontSize(size)
        .widthOfString(run);
    });
    const own = measured.reduce((sum, one) => sum + one, 0);
    const stretch = stretchTo(width, own);
    let at = x;
    for (const [index, { face, text: run }] of runs.entries()) {
      if (face.outlined) {
        const scale = size / face.font.unitsPerEm;
        let pen = at;
        for (const glyph of face.font.layout(run).glyphs) {
          pdf
            .save()
            .transform(scale, 0, 0, -scale, pen, y)
            .path(glyph.path.toSVG())
            .fill()
            .restore();
          pen += glyph.advanceWidth * scale;
        }
      } else {
        // The library's types do not know that it can stretch.
        const options: PDFKit.Mixins.TextOptions & { readonly horizontalScaling: number } = {
          lineBreak: false,
          baseline: 'alphabetic',
          horizontalScaling: stretch * 100,
        };
        pdf
          .font(face.bytes as never)
          .fontSize(size)
          .text(run, at, y, options);
      }
      at += (measured[index] ?? 0) * (face.outlined ? 1 : stretch);
    }
  }
  pdf.restore();
}

const draw = async (pdf: Pdf, drawing: Drawing, options: PdfOptions): Promise<void> =>
  drawing.kind === 'outline' ? outline(pdf, drawing) : await words(pdf, drawing, options);

/** A sheet as a PDF of as many pages as it takes. */
export async function writePdf(sheet: Sheet, options: PdfOptions): Promise<Uint8Array> {
  const { paper, title } = options;
  const [width, height] = PAPERS[paper];
  const room = roomOf(paper);
  // A sheet wider than the page is made smaller whole.
  const scale = PIXEL * Math.min(1, room.width / sheet.width);
  const tops = cutPages(sheet.wholes, sheet.height, (height - 2 * MARGIN) / scale);
  const pdf = new PDFDocument({
    size: [width, height],
    margin: 0,
    autoFirstPage: false,
    font: null as never,
    info: { Title: title, Creator: 'Corvel', Producer: 'Corvel' },
    lang: 'en',
    pdfVersion: '1.7',
  });
  const written = toBytes(pdf);
  for (const [page, top] of tops.entries()) {
    const bottom = tops[page + 1] ?? Infinity;
    pdf.addPage();
    pdf.save().transform(scale, 0, 0, scale, MARGIN, MARGIN - top * scale);
    for (const drawing of sheet.drawings) {
      // What was cut through stands on both pages; a rule of no height stands on one.
      const on = drawing.top < bottom - 0.25 && (drawing.bottom > top + 0.25 || drawing.top >= top);
      if (on) await draw(pdf, drawing, options);
    }
    pdf.restore();
  }
  pdf.end();
  return written;
}
