/** Shapes of a page as paths. */

/** A rectangle as a path, its corners round by a radius. */
export const rectangle = (
  x: number,
  y: number,
  width: number,
  height: number,
  radius = 0,
): string => {
  const r = Math.min(radius, width / 2, height / 2);
  if (r <= 0) return `M${x} ${y}h${width}v${height}h${-width}Z`;
  const corner = (dx: number, dy: number) => `a${r} ${r} 0 0 1 ${dx} ${dy}`;
  return `M${x + r} ${y}h${width - 2 * r}${corner(r, r)}v${height - 2 * r}${corner(-r, r)}h${2 * r - width}${corner(-r, -r)}v${2 * r - height}${corner(r, -r)}Z`;
};

const ellipse = (cx: number, cy: number, rx: number, ry: number): string =>
  `M${cx - rx} ${cy}a${rx} ${ry} 0 1 0 ${2 * rx} 0a${rx} ${ry} 0 1 0 ${-2 * rx} 0Z`;

/** A shape of SVG as a path; null for what is no shape. */
export function pathOf(shape: SVGElement): string | null {
  const number = (name: string) => Number.parseFloat(shape.getAttribute(name) ?? '0') || 0;
  switch (shape.tagName) {
    case 'path':
      return shape.getAttribute('d');
    case 'line':
      return `M${number('x1')} ${number('y1')}L${number('x2')} ${number('y2')}`;
    case 'rect':
      return rectangle(number('x'), number('y'), number('width'), number('height'), number('rx'));
    case 'circle':
      return ellipse(number('cx'), number('cy'), number('r'), number('r'));
    case 'ellipse':
      return ellipse(number('cx'), number('cy'), number('rx'), number('ry'));
    case 'polyline':
    case 'polygon': {
      const points = (shape.getAttribute('points') ?? '').trim();
      if (points === '') return null;
      return `M${points}${shape.tagName === 'polygon' ? 'Z' : ''}`;
    }
    default:
      return null;
  }
}
