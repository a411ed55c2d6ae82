/** What is played over a chord, written as a pattern: the way back from notes to what a player would type. */
import type { Chord } from '../../chords/chords';
import { type Neck, pitchAt } from '../../neck/neck';
import { degreeName } from '../../notes/degrees';
import { intervalBetween, type Note, pitchClass } from '../../notes/notes';
import type { PlayedNote } from '../../phrases/passage';
import type { Beats } from '../../time/units';
import { degreeMeant, reached } from './notes';
import { type DegreeAsked, parsePattern, signed, VALUES, type Way } from './pattern';
import { PATTERN_LIMITS } from '../kinds';

interface FromRequest {
  readonly neck: Neck;
  readonly chord: Chord;
  /** What a plain number may mean besides the chord's own tones. */
  readonly scale: readonly Note[];
  /** Where the chord begins. */
  readonly beat: Beats;
  /** What is played over it, one note after another. */
  readonly notes: readonly PlayedNote[];
  /** How long a note without a length of its own lasts. */
  readonly long: Beats;
  /** What beats are counted in: 4 for quarters. */
  readonly unit: number;
}

/** What a pattern calls its lengths, where a quarter note is a beat. */
const SIGNS: readonly (readonly [sign: string, length: Beats])[] = Object.entries(VALUES).flatMap(
  ([letter, value]) =>
    ['', '.', 't'].map((mark) => [`${letter}${mark}`, signed(value, mark)] as const),
);

/** A length as a pattern writes it; null where it has none for it. */
function lengthSign(beats: Beats, { long, unit }: FromRequest): string | null {
  const held = beats > 0 && beats % long === 0 ? '_'.repeat(beats / long - 1) : null;
  if (held !== null && held.length < 3) return held;
  const found = SIGNS.find(([, length]) => (length * unit) / 4 === beats);
  return found ? `:${found[0]}` : held;
}

const plain = (name: string): string => name.replace(/^[b#]+/u, '');

/** A note's degree as short as it can be said: a plain number where that is what it means. */
function degreeSign({ chord, scale }: FromRequest, note: Note): string {
  const interval = intervalBetween(chord.root, note);
  const name = degreeName(interval);
  const number = Number(plain(name));
  const asked: DegreeAsked = { step: (number - 1) % 7, exact: null, high: false };
  if (degreeMeant(chord, scale, asked) === interval) return String(number);
  return plain(name) === name ? `n${name}` : name;
}

const WAYS: readonly (readonly [sign: string, way: Way])[] = [
  ['', { to: 'near', further: 0 }],
  ...[0, 1, 2].flatMap((further) => [
    ['~'.repeat(further + 1), { to: 'below', further }] as const,
    ['^'.repeat(further + 1), { to: 'above', further }] as const,
  ]),
];

/** The pattern that plays these notes over their chord; null where none does. */
export function patternFrom(request: FromRequest): string | null {
  const { neck, notes } = request;
  const words: string[] = [];
  let now = request.beat;
  for (const [index, one] of notes.entries()) {
    if (one.beat > now) {
      const rest = lengthSign(one.beat - now, request);
      if (rest === null) return null;
      words.push(`r${rest}`);
    } else if (one.beat < now) return null;
    const length = lengthSign(one.beats, request);
    if (length === null) return null;
    const midi = pitchAt(neck, one);
    const before = notes[index - 1];
    const way =
      before &&
      WAYS.find(([, to]) => reached(pitchAt(neck, before), pitchClass(one.note), to) === midi);
    if (before && !way) return null;
    words.push(`${way?.[0] ?? ''}${degreeSign(request, one.note)}${length}`);
    now = one.beat + one.beats;
  }
  const text = words.join(' ');
  return words.length <= PATTERN_LIMITS.items && parsePattern(text).ok ? text : null;
}

/** The notes of a passage that begin while a chord lasts. */
export const notesOver = (
  notes: readonly PlayedNote[],
  beat: Beats,
  beats: Beats,
): readonly PlayedNote[] => notes.filter((one) => one.beat >= beat && one.beat < beat + beats);
