/** The pictures of a page as one file that stands alone, away from the page's styles. */

const COLUMNS = 4;
const CELL = { width: 240, gap: 20, caption: 24 } as const;
const HEAD = 48;

/** What a drawing takes from the page's styles. */
const STYLES = [
  'fill',
  'stroke',
  'stroke-width',
  'stroke-linecap',
  'stroke-dasharray',
  'font-size',
  'font-weight',
  'text-anchor',
  'opacity',
] as const;

const FACE = 'Atkinson Hyperlegible Next, Helvetica, Arial, sans-serif';

/** A copy of a drawing with its computed styles written into it. */
function standalone(drawing: SVGSVGElement): SVGSVGElement {
  const copy = drawing.cloneNode(true) as SVGSVGElement;
  const originals = drawing.querySelectorAll('*');
  copy.querySelectorAll('*').forEach((element, index) => {
    const original = originals[index];
    if (!original) return;
    const computed = getComputedStyle(original);
    element.removeAttribute('class');
    for (const name of STYLES) {
      const value = computed.getPropertyValue(name);
      if (value !== '') element.setAttribute(name, value);
    }
  });
  copy.removeAttribute('class');
  return copy;
}

const SVG = 'http://www.w3.org/2000/svg';

function text(content: string, x: number, y: number, size: number, color: string): SVGTextElement {
  const element = document.createElementNS(SVG, 'text');
  element.setAttribute('x', String(x));
  element.setAttribute('y', String(y));
  element.setAttribute('font-size', String(size));
  element.setAttribute('font-family', FACE);
  element.setAttribute('fill', color);
  element.textContent = content;
  return element;
}

/** Every captioned drawing inside an element, in rows, under a title. */
export function picturesAsSvg(inside: HTMLElement, title: string): string {
  const figures = [...inside.querySelectorAll<HTMLElement>('figure[data-caption]')];
  const style = getComputedStyle(document.documentElement);
  const ink = style.color;
  const sheet = document.createElementNS(SVG, 'svg');
  let y = HEAD;
  let tallest = 0;
  sheet.append(text(title, 0, 28, 24, ink));
  figures.forEach((figure, index) => {
    const drawing = figure.querySelector('svg');
    if (!drawing) return;
    const { width, height } = drawing.viewBox.baseVal;
    const column = index % COLUMNS;
    if (column === 0 && index > 0) {
      y += tallest;
      tallest = 0;
    }
    const shown = (CELL.width / width) * height;
    tallest = Math.max(tallest, shown + CELL.caption + CELL.gap);
    const x = column * (CELL.width + CELL.gap);
    const copy = standalone(drawing);
    for (const [name, value] of Object.entries({
      x,
      y: y + CELL.caption,
      width: CELL.width,
      height: shown,
    })) {
      copy.setAttribute(name, String(value));
    }
    copy.setAttribute('font-family', FACE);
    sheet.append(text(figure.dataset['caption'] ?? '', x, y + 16, 14, ink), copy);
  });
  const width = COLUMNS * (CELL.width + CELL.gap) - CELL.gap;
  const height = Math.ceil(y + tallest);
  sheet.setAttribute('xmlns', SVG);
  sheet.setAttribute('viewBox', `-20 -10 ${width + 40} ${height + 20}`);
  sheet.setAttribute('width', String(width + 40));
  sheet.setAttribute('height', String(height + 20));
  sheet.setAttribute('style', `background:${style.backgroundColor}`);
  return `<?xml version="1.0" encoding="UTF-8"?>\n${new XMLSerializer().serializeToString(sheet)}\n`;
}

const SCALE = 2;

/** The picture as pixels, twice as fine as it is large; null where the browser cannot draw it. */
export async function svgAsPng(svg: string): Promise<Blob | null> {
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
  } catch {
    return null;
  } finally {
    URL.revokeObjectURL(address);
  }
}
