/**
 * How the notes of a neck are drawn. Now is a filled disc, next a ring; a note of both is a disc
 * inside a ring. Chord tones are solid, colour tones pale and thin, guide tones stand a little
 * prouder. What is of neither chord's choice, and every note of a plain shape, is ink on paper.
 *
 * Discs that look alike and stand near each other are one path: a change of chord then changes a
 * handful of elements, not hundreds. Near each other, since a path is drawn anew wherever it reaches;
 * and rings are two discs, since an outline costs more to draw than a disc does.
 */
import type { Weight } from '$core/chords/over';
import { type DrawnMark, RADIUS } from './drawn';
import type { NeckLayout } from './layout';

interface Disc {
  readonly r: number;
  readonly class: string;
  /** The width of an outline; filled when left out. */
  readonly width?: number;
  /** Whether it is of what comes, and grows as that comes near. */
  readonly coming?: boolean;
}

/** Discs that look alike, as one path. */
export interface DiscPath {
  readonly id: string;
  /** Where it lies: over those of lower levels. */
  readonly level: number;
  readonly class: string;
  readonly width: number | undefined;
  readonly dash: string | undefined;
  readonly d: string;
}

/** What only bends a shape is drawn with a broken edge. */
const DASHED = 'fill-sheet stroke-ink';

const pale = (weight: Weight | 'blue') => weight === 'colour' || weight === 'blue';

/** A disc with an edge of another colour, `width` wide and half outside its radius. */
const edged = (r: number, width: number, edge: string, fill: string): readonly Disc[] => [
  { r: r + width / 2, class: edge },
  { r: r - width / 2, class: fill },
];

/** A ring of what comes. */
const ring = (r: number, width: number): readonly Disc[] =>
  edged(r, width, 'fill-next', 'fill-paper').map((disc) => ({ ...disc, coming: true }));

const SOUNDING: readonly Disc[] = [{ r: 13, class: 'fill-now' }];
const COMING = ring(11, 2.8);
const ASKED = edged(11, 2, 'fill-ink', 'fill-sheet');
const KNOWN = edged(8.5, 1.2, 'fill-line-strong', 'fill-paper');
const GROUND = {
  colour: [{ r: 5, class: 'fill-line-strong' }],
  chord: edged(7, 2, 'fill-ink-soft', 'fill-paper'),
} as const;

function discsOfChange(now: Weight | null, next: Weight | null): readonly Disc[] {
  if (!now && !next) return KNOWN;
  const inner = now ? RADIUS[now] : 0;
  const coming = next && ring(now ? inner + 2 : RADIUS[next] - 1, next === 'colour' ? 1.4 : 2.8);
  const sounding =
    now &&
    (now === 'colour'
      ? edged(inner, 1, 'fill-now', 'fill-now-tint')
      : [{ r: inner + 0.5, class: 'fill-now' }]);
  return [...(coming ?? []), ...(sounding ?? [])];
}

/** The discs of every change there is: a neck has hundreds of them at each step. */
const WEIGHTS = [null, 'guide', 'chord', 'colour'] as const;
const CHANGES: ReadonlyMap<Weight | null, ReadonlyMap<Weight | null, readonly Disc[]>> = new Map(
  WEIGHTS.map((now) => [now, new Map(WEIGHTS.map((next) => [next, discsOfChange(now, next)]))]),
);

function discsOfPlain(weight: Weight | 'blue', changed: boolean): readonly Disc[] {
  const r = RADIUS[weight];
  const moved = changed ? [{ r: r + 4, width: 3.5, class: 'fill-none stroke-next' }] : [];
  if (weight === 'blue') return [...moved, { r, width: 1.7, class: DASHED }];
  return [...moved, ...edged(r, 1.7, 'fill-ink', pale(weight) ? 'fill-sheet' : 'fill-ink')];
}

/** The discs of a mark from the lowest up. */
function discsOf(mark: DrawnMark): readonly Disc[] {
  switch (mark.kind) {
    case 'change':
      return CHANGES.get(mark.now)?.get(mark.next) ?? KNOWN;
    case 'sounding':
      return SOUNDING;
    case 'coming':
      return COMING;
    case 'asked':
      return ASKED;
    case 'ground':
      return GROUND[mark.weight === 'colour' ? 'colour' : 'chord'];
    case 'plain':
      return discsOfPlain(mark.weight, mark.changed);
  }
}

/** The colour of a mark's label. */
export function labelClass(mark: DrawnMark): string {
  switch (mark.kind) {
    case 'change':
      if (mark.now) return mark.now === 'colour' ? 'fill-ink' : 'fill-on-now';
      return mark.next ? 'fill-next-text' : 'fill-ink-soft';
    case 'sounding':
      return 'fill-on-now';
    case 'coming':
      return 'fill-next-text';
    case 'asked':
    case 'ground':
      return 'fill-ink';
    case 'plain':
      return pale(mark.weight) ? 'fill-ink' : 'fill-paper';
  }
}

const short = (value: number): number => Math.round(value * 100) / 100;

/** A circle round where the pen stands. */
const circle = (r: number): string =>
  `m${-r} 0a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0z`;

/** Discs that a ring of what comes is made of. */
const RINGS = 2;
/** How far along the neck one path reaches, in units of its picture. */
const REACH = 256;

/**
 * The discs of marks on a laid-out neck, from the lowest up; `grown` is the size of what comes
 * beside its usual one.
 */
export function discPaths(
  marks: readonly DrawnMark[],
  layout: Pick<NeckLayout, 'finger' | 'string' | 'noteScale'>,
  grown = 1,
): readonly DiscPath[] {
  const circles = new Map<Disc, string>();
  const circleOf = (disc: Disc): string => {
    const drawn =
      circles.get(disc) ?? circle(short(disc.r * layout.noteScale * (disc.coming ? grown : 1)));
    circles.set(disc, drawn);
    return drawn;
  };
  const paths = new Map<string, { disc: Disc; level: number; d: string }>();
  for (const mark of marks) {
    const x = layout.finger(mark.fret);
    const cell = Math.floor(x / REACH);
    const pen = `M${short(x)} ${short(layout.string(mark.string))}`;
    // Whatever sounds lies over every ring, also over those of its neighbours.
    let under = 0;
    let over = RINGS;
    for (const disc of discsOf(mark)) {
      const level = disc.coming ? under++ : over++;
      const id = `${level} ${disc.class} ${cell}`;
      const path = paths.get(id);
      if (path) path.d += pen + circleOf(disc);
      else paths.set(id, { disc, level, d: pen + circleOf(disc) });
    }
  }
  return [...paths]
    .sort(([, a], [, b]) => a.level - b.level)
    .map(([id, { disc, level, d }]) => ({
      id,
      level,
      d,
      class: disc.class,
      width: disc.width && short(disc.width * layout.noteScale),
      dash: disc.class === DASHED ? '3 3' : undefined,
    }));
}
