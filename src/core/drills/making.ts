/** What the makers of drills share: drawing by the seed, the chords to ask about, and how they are named. */
import { type Chord, chordName } from '../chords/chords';
import { parseChord } from '../chords/symbols';
import { at } from '../lists';
import { type Note, noteName } from '../notes/notes';
import type { Drill, DrillKind, DrillSetting } from './kinds';

/** What a question is made from. */
export interface Making extends DrillSetting {
  /** A number from 0 up to 1, the next of the seed's. */
  readonly draw: () => number;
}

/** One of a list, by the next number of the seed. */
export const pick = <T>({ draw }: Pick<Making, 'draw'>, from: readonly T[]): T =>
  at(from, Math.min(from.length - 1, Math.floor(draw() * from.length)));

/** A list in an order of the seed’s. */
export function shuffled<T>(making: Pick<Making, 'draw'>, items: readonly T[]): readonly T[] {
  return items
    .map((item) => ({ item, by: making.draw() }))
    .toSorted((a, b) => a.by - b.by)
    .map(({ item }) => item);
}

const GENERAL = 'Dm7 G7 Cmaj7 Fmaj7 Bm7b5 E7 Am7 Ebmaj7 Bb7 Gm7 C7 F#m7b5 B7 Abmaj7 Em7 A7';

/** Chords that are asked about where there is no chart. */
export const GENERAL_CHORDS: readonly Chord[] = GENERAL.split(' ').flatMap((symbol) => {
  const chord = parseChord(symbol);
  return chord ? [chord] : [];
});

/** Chords to ask about: the chart's own, each as often as it comes; general ones where it has none. */
export function chordsOf({ chords }: DrillSetting): readonly Chord[] {
  const own = chords.map(({ chord }) => ({ ...chord, bass: null }));
  return own.length > 0 ? own : GENERAL_CHORDS;
}

/** A chord by its name, without its bass. */
export const named = (chord: Chord): string => chordName({ ...chord, bass: null });
export function plain(
  making: Making,
  kind: DrillKind,
  rest: Omit<Drill, 'kind' | 'zone' | 'shown' | 'heard'> & Partial<Pick<Drill, 'shown' | 'heard'>>,
): Drill {
  return { kind, shown: [], heard: [], zone: making.zone, ...rest };
}

/** Notes by their names. */
export const spelled = (notes: readonly Note[]): string => notes.map(noteName).join(' ');
