/** What the makers of drills share: drawing by the seed, the chords to ask about, and how they are named. */
import { type Chord, chordName } from '../chords/chords';
import { parseChord } from '../chords/symbols';
import { at } from '../lists';
import { type Note, noteName } from '../notes/notes';
import type { Drill, DrillKind, DrillSetting } from './kinds';

export interface Making extends DrillSetting {
  /** A number from 0 up to 1, the next of the seed's. */
  readonly draw: () => number;
}

export const pick = <T>({ draw }: Pick<Making, 'draw'>, from: readonly T[]): T =>
  at(from, Math.min(from.length - 1, Math.floor(draw() * from.length)));

export function shuffled<T>(making: Pick<Making, 'draw'>, items: readonly T[]): readonly T[] {
  return items
    .map((item) => ({ item, by: making.draw() }))
    .toSorted((a, b) => a.by - b.by)
    .map(({ item }) => item);
}

const GENERAL = 'Dm7 G7 Cmaj7 Fmaj7 Bm7b5 E7 Am7 Ebmaj7 Bb7 Gm7 C7 F#m7b5 B7 Abmaj7 Em7 A7';
export const GENERAL_CHORDS: readonly Chord[] = GENERAL.split(' ').flatMap((symbol) => {
  const chord = parseChord(symbol);
  return chord ? [chord] : [];
});

/** Chords to ask about: the chart's own, each as often as it comes; general ones where it has none. */
export function chordsOf({ chords }: DrillSetting): readonly Chord[] {
  const own = chords.map(({ chord }) => ({ ...chord, bass: null }));
  return own.length > 0 ? own : GENERAL_CHORDS;
}

export const named = (chord: Chord): string => chordName({ ...chord, bass: null });
export function plain(
  making: Making,
  kind: DrillKind,
  rest: Omit<Drill, 'kind' | 'zone' | 'shown' | 'heard'> & Partial<Pick<Drill, 'shown' | 'heard'>>,
): Drill {
  return { kind, shown: [], heard: [], zone: making.zone, ...rest };
}

export const spelled = (notes: readonly Note[]): string => notes.map(noteName).join(' ');
