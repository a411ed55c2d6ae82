/** Notes as they are kept and sent: their times in beats, as people write them. */
import type { Place } from '../neck/neck';
import type { Technique } from '../phrases/techniques';
import { meantBeats } from '../time/meant';
import { inBeats, type WrittenBeats } from '../time/units';
import type { LickNote } from './sounding';

/** A played note in files, in the database and between pages and server. */
export interface KeptNote extends Place {
  readonly beat: WrittenBeats;
  readonly beats: WrittenBeats;
  readonly techniques: readonly Technique[];
}

/** Shorter than this nothing is kept: of less nothing would be left. */
const SHORTEST: WrittenBeats = 1 / 48;

/**
 * Notes to be played, of notes that were kept: a third written as a decimal is a third.
 *
 * @example notesFrom([{ beat: 0.333, beats: 1, string: 2, fret: 5, techniques: [] }])[0].beat; // 6720
 */
export const notesFrom = (kept: readonly KeptNote[]): readonly LickNote[] =>
  kept.map((note) => ({ ...note, beat: meantBeats(note.beat), beats: meantBeats(note.beats) }));

/**
 * Notes to be kept, without what else is known of them.
 *
 * @example notesToKeep([{ beat: BEAT / 4, beats: BEAT, string: 2, fret: 5, techniques: [] }])[0].beat; // 0.25
 */
export const notesToKeep = (notes: readonly LickNote[]) =>
  notes.map(({ beat, beats, string, fret, techniques }) => ({
    beat: inBeats(beat),
    beats: Math.max(SHORTEST, inBeats(beats)),
    string,
    fret,
    techniques: [...techniques],
  }));
