/** Colours of a page as they are printed. */
import type { Colour } from './drawings';

interface Painted {
  readonly colour: Colour;
  /** 0–1, never 0. */
  readonly opacity: number;
}

const PAINT = /rgba?\(\s*([\d.]+)[\s,]+([\d.]+)[\s,]+([\d.]+)(?:[\s,/]+([\d.]+%?))?/u;

/** A painter that turns any CSS colour into red, green, blue and opacity. */
export function colourReader(): (css: string) => Painted | null {
  const canvas = document.createElement('canvas');
  canvas.width = canvas.height = 1;
  const context = canvas.getContext('2d', { willReadFrequently: true });
  const known = new Map<string, Painted | null>();
  return (css: string) => {
    const before = known.get(css);
    if (before !== undefined) return before;
    let read: Painted | null = null;
    const match = PAINT.exec(css);
    if (match) {
      const [, red, green, blue, alpha] = match;
      const opacity =
        alpha === undefined ? 1 : Number.parseFloat(alpha) / (alpha.endsWith('%') ? 100 : 1);
      read = { colour: [Number(red), Number(green), Number(blue)], opacity };
    } else if (context && css !== '' && css !== 'none' && css !== 'transparent') {
      context.clearRect(0, 0, 1, 1);
      context.fillStyle = css;
      context.fillRect(0, 0, 1, 1);
      const [red = 0, green = 0, blue = 0, alpha = 0] = context.getImageData(0, 0, 1, 1).data;
      read = { colour: [red, green, blue], opacity: alpha / 255 };
    }
    const seen = read && read.opacity > 0 ? read : null;
    known.set(css, seen);
    return seen;
  };
}
