/** What is played over one chord: a named set of notes. */
import { rememberBy } from '../cache';
import { type Chord, chordName, chordNotes } from '../chords/chords';
import { parseChord, quality } from '../chords/symbols';
import {
  type Collection,
  collectionName,
  collectionNotes,
  parseCollection,
  pitchMask,
} from '../collections/collections';
import { ownPentatonic } from '../collections/pentatonics';
import { type Note, simpleRoot } from '../notes/notes';

/** Notes to play over a chord, whatever they are: a scale, an arpeggio, a triad. */
export interface Material {
  /** `F lydian dominant`, `Abmaj7 arpeggio`, `Gb triad`; {@link parseMaterial} reads it back. */
  readonly name: string;
  readonly root: Note;
  /** The collection's name, `arpeggio` or `triad`. */
  readonly kind: string;
  readonly notes: readonly Note[];
  /** Its pitch classes, one bit each, C lowest. */
  readonly mask: number;
  /** Null when the notes are an arpeggio or a triad. */
  readonly collection: Collection | null;
}

/** A collection as something to play. */
export const collectionMaterial = rememberBy(collectionName, (chosen: Collection): Material => {
  const notes = collectionNotes(chosen);
  return {
    name: collectionName(chosen),
    root: chosen.root,
    kind: chosen.kind.name,
    notes,
    mask: pitchMask(notes),
    collection: chosen,
  };
});

const chordMaterialName = (chord: Chord, kind: 'arpeggio' | 'triad'): string =>
  `${chordName({ ...chord, bass: null })} ${kind}`;

const chordMaterial = rememberBy(chordMaterialName, (chord, kind): Material => {
  const notes = chordNotes({ ...chord, bass: null });
  const name = chordMaterialName(chord, kind);
  return { name, root: chord.root, kind, notes, mask: pitchMask(notes), collection: null };
});

/** All tones of a chord, one after another. */
export const arpeggio = (chord: Chord): Material => chordMaterial(chord, 'arpeggio');

/** Three notes as a small movable shape. */
export const triad = (chord: Chord): Material => chordMaterial(chord, 'triad');

/**
 * A chord by root and quality, for materials of the program's own making: on a simple root, unless
 * the chord it is played over is spelled so.
 */
export function chordOn(on: Note, qualityName: string, over: Chord | null = null): Chord {
  const root = simpleRoot(on, over?.root);
  const bare = { symbol: '', root, quality: quality(qualityName), bass: null };
  return { ...bare, symbol: chordName(bare) };
}

/** Reads a name as {@link Material} gives it; null when it names nothing to play. */
export function parseMaterial(text: string): Material | null {
  const scale = parseCollection(text);
  if (scale) return collectionMaterial(scale);
  const match = /^(\S+) (arpeggio|triad)$/u.exec(text.trim());
  const chord = parseChord(match?.[1] ?? '');
  if (!chord || chord.bass !== null) return null;
  return match?.[2] === 'triad' ? triad(chord) : arpeggio(chord);
}

/** A chord's own pentatonic, or its tones where it has none. */
export function defaultMaterial(chord: Chord): Material {
  const own = ownPentatonic(chord);
  return own ? collectionMaterial(own) : arpeggio(chord);
}
