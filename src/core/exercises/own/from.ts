/** What is played over a chord, written as a pattern: the way back from notes to what a player would type. */
import type { Chord } from '../../chords/chords';
import { type Neck, pitchAt } from '../../neck/neck';
import { degreeName } from '../../notes/degrees';
import { intervalBetween, type Note, pitchClass } from '../../notes/notes';
import type { PlayedNote } from '../../phrases/passage';
import { type Beats, NEAR } from '../../time/units';
import { degreeMeant, reached } from './notes';
import { type DegreeAsked, parsePattern, PATTERN_LIMITS, type Way } from './pattern';

interface FromRequest {
  readonly neck: Neck;
  readonly chord: Chord;
  /** What a plain number may mean besides the chord's own tones. */
  readonly scale: readonly Note[];
  /** Where the chord begins. */
  readonly beat: Beats;
  /** What is played over it, one note after another. */
  readonly notes: readonly PlayedNote[];
  readonly perBeat: number;
  readonly quarter: Beats;
}

const VALUES: readonly (readonly [value: string, quarters: number])[] = [
  ...(
    [
      ['w', 4],
      ['h', 2],
      ['q', 1],
      ['e', 1 / 2],
      ['s', 1 / 4],
    ] as const
  ).flatMap(
    ([letter, quarters]) =>
      [
        [letter, quarters],
        [`${letter}.`, (quarters * 3) / 2],
        [`${letter}t`, (quarters * 2) / 3],
      ] as const,
  ),
];

/** A length as a pattern writes it; null where it has none for it. */
function lengthSign(beats: Beats, { perBeat, quarter }: FromRequest): string | null {
  const units = beats * perBeat;
  const whole = Math.round(units);
  const held = Math.abs(units - whole) < NEAR && whole >= 1 ? '_'.repeat(whole - 1) : null;
  if (held !== null && whole <= 3) return held;
  const found = VALUES.find(([, quarters]) => Math.abs(quarters * quarter - beats) < NEAR);
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
    if (one.beat > now + NEAR) {
      const rest = lengthSign(one.beat - now, request);
      if (rest === null) return null;
      words.push(`r${rest}`);
    } else if (one.beat < now - NEAR) return null;
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
): readonly PlayedNote[] =>
  notes.filter((one) => one.beat >= beat - NEAR && one.beat < beat + beats - NEAR);
