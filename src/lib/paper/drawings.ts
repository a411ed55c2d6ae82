/** What stands on a printed sheet, as shapes and words that any medium can draw. */

/** `a b c d e f` of a transformation, as SVG and PDF write it. */
export type Matrix = readonly [number, number, number, number, number, number];

/** Red, green and blue, from 0 to 255. */
export type Colour = readonly [number, number, number];

interface Paint {
  readonly colour: Colour;
  readonly opacity: number;
}

/** An outline, in its own coordinates. */
export interface Outline {
  readonly kind: 'outline';
  /** As SVG writes a path. */
  readonly path: string;
  readonly matrix: Matrix;
  readonly fill: Paint | null;
  readonly stroke:
    | (Paint & {
        readonly width: number;
        readonly dash: readonly number[];
        readonly cap: 'butt' | 'round' | 'square';
      })
    | null;
}

/** A run of words on one line. */
export interface Words {
  readonly kind: 'words';
  readonly text: string;
  readonly matrix: Matrix;
  /** Where the line begins, on its baseline. */
  readonly x: number;
  readonly y: number;
  readonly size: number;
  /** The families asked for, in order. */
  readonly families: readonly string[];
  readonly weight: number;
  readonly fill: Paint;
  /** What the line may not go beyond on the right; none where null. */
  readonly end: number | null;
  /** How wide the page shows it, in its own coordinates. */
  readonly width: number;
}

export type Drawing = Outline | Words;

/** A printed sheet, from its top down, in CSS pixels. */
export interface Sheet {
  readonly width: number;
  readonly height: number;
  readonly drawings: readonly (Drawing & { readonly top: number; readonly bottom: number })[];
  /** What lies behind everything; null for nothing. */
  readonly background: Colour | null;
  /** Stretches that are not cut by the end of a page. */
  readonly wholes: readonly { readonly top: number; readonly bottom: number }[];
}

/** Beyond this the page's words were set in another face, and are left as wide as ours has them. */
const STRETCH = 0.15;

/** How much wider words are drawn than their face has them, to be as wide as on the page. */
export function stretchTo(width: number, own: number): number {
  const asked = own > 0 ? width / own : 1;
  return Math.abs(asked - 1) <= STRETCH ? asked : 1;
}
