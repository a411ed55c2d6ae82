/** A zone of the neck as a picture: plain SVG text, for pages and papers of any kind. */
import { range } from '../lists';
import { degreeName } from '../notes/degrees';
import { type Interval, intervalBetween, type Note, noteName, pitchClass } from '../notes/notes';
import { underHand } from './hand';
import { type Neck, stringCount, type Zone } from './neck';

interface ZonePicture {
  readonly neck: Neck;
  readonly zone: Zone;
  /** The notes that are drawn, wherever they lie under the hand. */
  readonly notes: readonly Note[];
  /** What degrees are counted from; its own notes are drawn filled. */
  readonly root: Note;
  readonly labels?: 'degrees' | 'notes';
}

/** Sizes in units of the picture. */
const SIZE = { fret: 56, string: 28, margin: 24, disc: 11, text: 11 } as const;

const escaped = (text: string): string =>
  text.replace(/[&<>"]/gu, (sign) => `&#${sign.charCodeAt(0)};`);

/**
 * The notes of a set in a zone, as SVG: strings as lines with the highest on top, roots filled, degrees or names
 * in the discs.
 *
 * @example
 * const root = parseNote('A');
 * const notes = chordNotes(parseChord('Am7'));
 * zoneSvg({ neck: STANDARD_NECK, zone: { low: 5, high: 8 }, notes, root }).startsWith('<svg'); // true
 */
export function zoneSvg({ neck, zone, notes, root, labels = 'degrees' }: ZonePicture): string {
  const places = underHand(neck, notes, zone);
  const low = Math.min(zone.low, ...places.map(({ fret }) => fret));
  const high = Math.max(zone.high, ...places.map(({ fret }) => fret));
  const frets = range(low, high + 1);
  const strings = range(1, stringCount(neck) + 1);
  const x = (fret: number) => SIZE.margin + (fret - low + 0.5) * SIZE.fret;
  const y = (string: number) => SIZE.margin + (string - 1) * SIZE.string;
  const width = 2 * SIZE.margin + frets.length * SIZE.fret;
  const bottom = y(strings.length);
  const height = bottom + 2 * SIZE.margin;
  const edge = (fret: number) => x(fret) - SIZE.fret / 2;
  const lines = [
    ...strings.map(
      (string) => `<path d="M${edge(low)} ${y(string)}H${edge(high + 1)}" stroke-width="1.2"/>`,
    ),
    ...range(low, high + 2).map(
      (fret) =>
        `<path d="M${edge(fret)} ${y(1)}V${bottom}" stroke-width="${fret === 0 ? 4 : 0.8}"/>`,
    ),
  ];
  const label = (note: Note, degree: Interval) =>
    escaped(labels === 'notes' ? noteName(note) : degreeName(degree));
  const discs = places.map(({ string, fret, note }) => {
    const own = pitchClass(note) === pitchClass(root);
    const at = `cx="${x(fret)}" cy="${y(string)}" r="${SIZE.disc}"`;
    const text = label(note, intervalBetween(root, note));
    return `<circle ${at} fill="${own ? 'currentColor' : 'Canvas'}" stroke="currentColor"/><text x="${x(fret)}" y="${y(string) + 4}" fill="${own ? 'Canvas' : 'currentColor'}">${text}</text>`;
  });
  const numbers = frets.map(
    (fret) => `<text x="${x(fret)}" y="${bottom + SIZE.margin}">${fret}</text>`,
  );
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${width}" height="${height}" role="img" font-family="sans-serif" font-size="${SIZE.text}" text-anchor="middle" fill="currentColor"><g stroke="currentColor" fill="none">${lines.join('')}</g>${discs.join('')}${numbers.join('')}</svg>`;
}
