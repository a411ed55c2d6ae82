/** The page on the screen as a PDF, by one press. */
import { fileName, fileOf } from '$lib/formats/files';
import { download } from '$lib/ui/download';
import { warn } from '$lib/ui/messages.svelte';
import type { Sheet, Words } from './drawings';
import { createFaces } from './faces';
import { type Paper, type PictureOfWords, roomOf, writePdf } from './pdf';
import { readParts, readPrinted } from './printed';
import { writeSvg } from './svg';

/** The usual paper of a language's country. */
const paperOf = (language: string): Paper =>
  /-(?:US|CA|MX|PH|CL|CO|VE)$/u.test(language) ? 'Letter' : 'A4';

async function load(url: string): Promise<Uint8Array> {
  const response = await fetch(url);
  if (!response.ok) throw new Error(`A face did not come: ${url}`);
  return new Uint8Array(await response.arrayBuffer());
}

const FINENESS = 4;

/** Words in signs that no face of ours has, as the browser shows them. */
async function pictureOf({
  text,
  x,
  y,
  size,
  families,
  weight,
  fill,
  width,
}: Words): Promise<PictureOfWords | null> {
  const canvas = document.createElement('canvas');
  canvas.width = Math.ceil((width + size) * FINENESS);
  canvas.height = Math.ceil(size * 2 * FINENESS);
  const context = canvas.getContext('2d');
  if (!context) return null;
  context.scale(FINENESS, FINENESS);
  context.font = `${weight} ${size}px ${families.map((one) => (/^[\w-]+$/u.test(one) ? one : `"${one}"`)).join(', ')}`;
  context.fillStyle = `rgb(${fill.colour.join(' ')})`;
  context.fillText(text, 0, size * 1.4);
  const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'));
  return (
    blob && {
      png: await blob.arrayBuffer(),
      x,
      y: y - size * 1.4,
      width: canvas.width / FINENESS,
      height: canvas.height / FINENESS,
    }
  );
}

/** Saves what would be printed as a PDF under a title. */
export async function savePdf(title: string): Promise<void> {
  try {
    const paper = paperOf(navigator.language);
    const sheet = await readPrinted(roomOf(paper));
    const faces = createFaces(load);
    const bytes = await writePdf(sheet, { title, paper, faces, picture: pictureOf });
    download(fileOf(bytes, fileName(title, 'pdf', 'Corvel'), 'application/pdf'));
  } catch (error) {
    console.error(error);
    warn('The PDF could not be made. Print the page instead.');
  }
}

const SCALE = 2;

/** A picture as pixels, twice as fine as it is large; null where the browser cannot draw it. */
async function asPng(svg: string): Promise<Blob | null> {
  const address = URL.createObjectURL(new Blob([svg], { type: 'image/svg+xml' }));
  try {
    const image = new Image();
    image.src = address;
    await image.decode();
    const canvas = document.createElement('canvas');
    canvas.width = image.naturalWidth * SCALE;
    canvas.height = image.naturalHeight * SCALE;
    canvas.getContext('2d')?.drawImage(image, 0, 0, canvas.width, canvas.height);
    return await new Promise((resolve) => canvas.toBlob(resolve, 'image/png'));
  } finally {
    URL.revokeObjectURL(address);
  }
}

export type PictureKind = 'svg' | 'png';

async function savePicture(
  title: string,
  kind: PictureKind,
  read: () => Promise<Sheet>,
): Promise<void> {
  try {
    const svg = await writeSvg(await read(), { title, faces: createFaces(load) });
    const type = kind === 'svg' ? 'image/svg+xml' : 'image/png';
    const content = kind === 'svg' ? new Blob([svg], { type }) : await asPng(svg);
    if (!content) throw new Error('The browser could not draw the picture.');
    download(new File([content], fileName(title, kind, 'Corvel'), { type }));
  } catch (error) {
    console.error(error);
    warn('The picture could not be made. Print the page instead.');
  }
}

/** Saves what would be printed as one long picture. */
export const savePrintedPicture = (title: string, kind: PictureKind): Promise<void> =>
  savePicture(title, kind, () => readPrinted(roomOf('A4')));

/** Saves parts of the page as a picture, under one another and under a line of words. */
export const savePartsPicture = (
  title: string,
  kind: PictureKind,
  parts: readonly Element[],
): Promise<void> => savePicture(title, kind, () => readParts({ width: 1100, height: 700 }, parts));
