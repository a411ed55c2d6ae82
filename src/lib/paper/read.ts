/**
 * Reads what stands on a laid-out page: every line of words, box, rule and drawing, where it stands and how it
 * looks. Only what printed pages of Corvel hold is read: words, boxes, and the shapes and words of SVG.
 */
import { colourReader } from './colours';
import type { Drawing, Matrix, Sheet } from './drawings';
import { pathOf, rectangle } from './shapes';

type Placed = Drawing & { readonly top: number; readonly bottom: number };

/** Fields whose value is no text to be read. */
const PRESSED: ReadonlySet<string> = new Set(['checkbox', 'radio', 'range', 'hidden', 'file']);

const PLAIN: Matrix = [1, 0, 0, 1, 0, 0];

const familiesOf = (css: string): readonly string[] =>
  css.split(',').map((one) => one.trim().replace(/^["']|["']$/gu, ''));

const px = (css: string): number => Number.parseFloat(css) || 0;

/** Reads the sheet that an element's document shows; its window must have it laid out. */
export function readSheet(root: HTMLElement): Sheet {
  const view = root.ownerDocument.defaultView ?? window;
  const paint = colourReader();
  const drawings: Placed[] = [];
  const wholes: { top: number; bottom: number }[] = [];
  const ruler = document.createElement('canvas').getContext('2d');
  const ascents = new Map<string, number>();

  /** How far a face reaches over its baseline and under it, for a size of one. */
  function ascentOf({ fontWeight, fontFamily }: CSSStyleDeclaration): number {
    const font = `${fontWeight} 100px ${fontFamily}`;
    const known = ascents.get(font);
    if (known !== undefined || !ruler) return known ?? 0.8;
    ruler.font = font;
    const { fontBoundingBoxAscent: up, fontBoundingBoxDescent: down } = ruler.measureText('x');
    const ascent = up / (up + down);
    ascents.set(font, ascent);
    return ascent;
  }

  function words(
    text: Text,
    style: CSSStyleDeclaration,
    opacity: number,
    end: number | null,
  ): void {
    const fill = paint(style.color);
    const content = text.data;
    if (!fill || content.trim() === '') return;
    const range = root.ownerDocument.createRange();
    const shown = (piece: string) =>
      style.textTransform === 'uppercase' ? piece.toUpperCase() : piece;
    interface Line {
      readonly rect: DOMRect;
      text: string;
      right: number;
    }
    const lines: Line[] = [];
    for (const match of content.matchAll(/\S+/gu)) {
      range.setStart(text, match.index);
      range.setEnd(text, match.index + match[0].length);
      const rect = range.getBoundingClientRect();
      if (rect.width === 0) continue;
      const last = lines.at(-1);
      if (last && Math.abs(last.rect.top - rect.top) < rect.height / 2) {
        last.text += ` ${match[0]}`;
        last.right = rect.right;
      } else {
        lines.push({ rect, text: match[0], right: rect.right });
      }
    }
    const size = px(style.fontSize) * (text.parentElement?.currentCSSZoom ?? 1);
    for (const { rect, text: said, right } of lines) {
      const { top, bottom, left } = rect;
      drawings.push({
        kind: 'words',
        text: shown(said),
        matrix: PLAIN,
        x: left,
        width: right - left,
        y: top + rect.height * ascentOf(style),
        size,
        families: familiesOf(style.fontFamily),
        weight: Number(style.fontWeight) || 400,
        end,
        top,
        bottom,
        fill: { ...fill, opacity: fill.opacity * opacity },
      });
      wholes.push({ top, bottom });
    }
  }

  function box(element: HTMLElement, style: CSSStyleDeclaration, opacity: number): void {
    const rect = element.getBoundingClientRect();
    if (rect.width === 0 || rect.height === 0) return;
    const { left, top, width, height, right, bottom } = rect;
    const zoom = element.currentCSSZoom ?? 1;
    const put = (path: string, fill: ReturnType<typeof paint>) => {
      if (fill)
        drawings.push({
          kind: 'outline',
          path,
          matrix: PLAIN,
          stroke: null,
          top,
          bottom,
          fill: { ...fill, opacity: fill.opacity * opacity },
        });
    };
    put(
      rectangle(left, top, width, height, px(style.borderTopLeftRadius) * zoom),
      paint(style.backgroundColor),
    );
    const sides = [
      ['Top', left, top, width, null],
      ['Bottom', left, bottom, width, null],
      ['Left', left, top, null, height],
      ['Right', right, top, null, height],
    ] as const;
    const widths = sides.map(([side]) =>
      style[`border${side}Style`] === 'none' ? 0 : px(style[`border${side}Width`]) * zoom,
    );
    const round = px(style.borderTopLeftRadius) * zoom;
    const [first = 0] = widths;
    if (round > 0 && first > 0 && widths.every((one) => one === first)) {
      const colour = paint(style.borderTopColor);
      const half = first / 2;
      if (colour)
        drawings.push({
          kind: 'outline',
          matrix: PLAIN,
          fill: null,
          top,
          bottom,
          path: rectangle(left + half, top + half, width - first, height - first, round),
          stroke: {
            ...colour,
            opacity: colour.opacity * opacity,
            width: first,
            dash: [],
            cap: 'butt',
          },
        });
      return;
    }
    sides.forEach(([side, x, y, across, down], index) => {
      const thick = widths[index] ?? 0;
      if (thick === 0) return;
      const [dx, dy] = [side === 'Right' ? -thick : 0, side === 'Bottom' ? -thick : 0];
      put(
        rectangle(x + dx, y + dy, across ?? thick, down ?? thick),
        paint(style[`border${side}Color`]),
      );
    });
  }

  function field(
    element: HTMLInputElement | HTMLTextAreaElement,
    style: CSSStyleDeclaration,
  ): void {
    const fill = paint(style.color);
    if (!fill || element.value === '' || PRESSED.has(element.type)) return;
    const rect = element.getBoundingClientRect();
    const size = px(style.fontSize);
    const y = rect.top + rect.height / 2 + size * 0.35;
    drawings.push({
      kind: 'words',
      text: element.value,
      matrix: PLAIN,
      x: rect.left + px(style.paddingLeft),
      y,
      size,
      families: familiesOf(style.fontFamily),
      weight: Number(style.fontWeight) || 400,
      fill,
      end: rect.right,
      width: rect.width,
      top: rect.top,
      bottom: rect.bottom,
    });
  }

  function matrixOf(element: SVGGraphicsElement): Matrix {
    const found = element.getScreenCTM();
    return found ? [found.a, found.b, found.c, found.d, found.e, found.f] : PLAIN;
  }

  function svgWords(element: SVGTextContentElement, opacity: number, offset: number): number {
    let at = offset;
    for (const child of element.childNodes) {
      if (child.nodeType === Node.TEXT_NODE) {
        const { data } = child as Text;
        const content = data.trim() === '' ? '' : data;
        const style = view.getComputedStyle(element);
        const fill = style.fill === 'none' ? null : paint(style.fill);
        const whole = element.closest('text');
        const seen = whole?.getNumberOfChars() ?? 0;
        if (content !== '' && fill && whole && at < seen) {
          const lead = content.length - content.trimStart().length;
          const start = whole.getStartPositionOfChar(Math.min(at, seen - 1));
          const rect = whole.getBoundingClientRect();
          const shown = content.trim();
          const length = Math.min(shown.length, seen - at);
          drawings.push({
            kind: 'words',
            text: shown,
            matrix: matrixOf(element as SVGGraphicsElement),
            x: start.x,
            y: start.y,
            size: px(style.fontSize),
            families: familiesOf(style.fontFamily),
            weight: Number(style.fontWeight) || 400,
            fill: { ...fill, opacity: fill.opacity * opacity * px(style.fillOpacity || '1') },
            end: null,
            width: whole.getSubStringLength(at, Math.max(1, length)),
            top: rect.top,
            bottom: rect.bottom,
          });
          at += content.length - lead;
        }
      } else if (child instanceof view.SVGTextContentElement) {
        at = svgWords(child, opacity, at);
      }
    }
    return at;
  }

  function drawing(element: SVGElement, opacity: number): void {
    const style = view.getComputedStyle(element);
    if (style.display === 'none' || style.visibility === 'hidden') return;
    const own = opacity * Number(style.opacity);
    if (own === 0 || ['defs', 'title', 'desc', 'clipPath', 'mask'].includes(element.tagName))
      return;
    if (element instanceof view.SVGTextContentElement) {
      svgWords(element, own, 0);
      return;
    }
    const path = pathOf(element);
    if (path !== null) {
      const rect = element.getBoundingClientRect();
      const [fill, stroke] = [paint(style.fill), paint(style.stroke)];
      const filled = style.fill === 'none' || element.tagName === 'line' ? null : fill;
      const width = px(style.strokeWidth);
      const drawn = style.stroke === 'none' || width === 0 ? null : stroke;
      const cap = style.strokeLinecap;
      if (filled || drawn)
        drawings.push({
          kind: 'outline',
          path,
          matrix: matrixOf(element as SVGGraphicsElement),
          fill: filled && {
            ...filled,
            opacity: filled.opacity * own * px(style.fillOpacity || '1'),
          },
          stroke: drawn && {
            ...drawn,
            opacity: drawn.opacity * own * px(style.strokeOpacity || '1'),
            width,
            dash:
              style.strokeDasharray === 'none'
                ? []
                : style.strokeDasharray.split(/[\s,]+/u).map(px),
            cap: cap === 'round' || cap === 'square' ? cap : 'butt',
          },
          top: rect.top,
          bottom: rect.bottom,
        });
      return;
    }
    for (const child of element.children) drawing(child as SVGElement, own);
  }

  function element(one: Element, opacity: number, end: number | null): void {
    if (one instanceof view.SVGSVGElement) {
      const rect = one.getBoundingClientRect();
      if (rect.width > 0) wholes.push({ top: rect.top, bottom: rect.bottom });
      drawing(one, opacity);
      return;
    }
    if (!(one instanceof view.HTMLElement)) return;
    const style = view.getComputedStyle(one);
    if (style.display === 'none' || style.visibility === 'hidden') return;
    const rect = one.getBoundingClientRect();
    // What is there for screen readers only.
    if (style.overflow === 'hidden' && rect.width <= 1 && rect.height <= 1) return;
    const own = opacity * Number(style.opacity);
    if (own === 0) return;
    if (style.display !== 'contents') box(one, style, own);
    if (style.breakInside.startsWith('avoid')) wholes.push({ top: rect.top, bottom: rect.bottom });
    const cut = style.overflowX === 'visible' ? end : Math.min(end ?? Infinity, rect.right);
    if (one instanceof view.HTMLInputElement || one instanceof view.HTMLTextAreaElement) {
      field(one, style);
      return;
    }
    for (const child of one.childNodes) {
      if (child.nodeType === Node.TEXT_NODE) words(child as Text, style, own, cut);
      else if (child.nodeType === Node.ELEMENT_NODE) element(child as Element, own, cut);
    }
  }

  element(root, 1, null);
  const height = Math.max(0, ...drawings.map(({ bottom }) => bottom));
  const behind = view.getComputedStyle(root.ownerDocument.documentElement).backgroundColor;
  const background = paint(behind)?.colour ?? null;
  return { width: root.getBoundingClientRect().width, height, background, drawings, wholes };
}
