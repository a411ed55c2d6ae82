/** What each note of a line is for: chord tone, tension, blue note, approach, passing, outside. */
import type { Chord } from '../chords/chords';
import { modulo } from '../lists';
import { halfSteps, type Note, pitchClass } from '../notes/notes';
import type { Midi } from '../notes/pitch';
import { onBeat } from '../time/metre';
import type { Beats } from '../time/units';
import { isPlainDominant } from './sounding';

/** What a note does over its chord. */
export const NOTE_ROLES = [
  'chord tone',
  'tension',
  'blue',
  'approach',
  'passing',
  'outside',
] as const;
export type NoteRole = (typeof NOTE_ROLES)[number];

/** A note as its role is judged by. */
export interface Judged {
  readonly midi: Midi;
  readonly beat: Beats;
  readonly beats: Beats;
  readonly strong: boolean;
  readonly chord: Chord | null;
  /** The chord that most of it sounds over, where it comes ahead of it. */
  readonly ahead?: Chord | null;
}

/** Half steps of the blue notes above a root: the flat third and the flat fifth. */
const BLUE: readonly number[] = [3, 6];
/** A whole step. */
const STEP = 2;

const sizeOver = (chord: Chord, midi: Midi): number => modulo(midi - pitchClass(chord.root), 12);

/**
 * What a pitch is over a chord by itself; null where only its neighbours can say.
 *
 * @example standing(parseChord('C7'), 63, null); // "blue"
 */
export function standing(
  chord: Chord,
  midi: Midi,
  bluesTonic: Note | null,
): 'chord tone' | 'tension' | 'blue' | null {
  const { quality } = chord;
  const size = sizeOver(chord, midi);
  if (quality.degrees.some((tone) => halfSteps(tone) === size)) return 'chord tone';
  // Over an altered dominant they are its sharp ninth and its flat fifth.
  if (quality.family === 'dominant' && !isPlainDominant(chord) && BLUE.includes(size))
    return 'tension';
  const ofTonic = bluesTonic !== null && BLUE.includes(modulo(midi - pitchClass(bluesTonic), 12));
  if (ofTonic || (quality.family === 'dominant' && BLUE.includes(size))) return 'blue';
  return quality.tensions.some((tone) => halfSteps(tone) === size) ? 'tension' : null;
}

/**
 * The role of each note among its neighbours; what anticipates a tone of the chord that comes is one. An approach leads by a half or whole step into the
 * next note, which is longer or stands on a stronger beat; a passing note is left or come to by
 * step; what is none of these is outside.
 */
export function rolesOf(notes: readonly Judged[], bluesTonic: Note | null): readonly NoteRole[] {
  return notes.map((note, index) => {
    if (!note.chord) return 'outside';
    const own = standing(note.chord, note.midi, bluesTonic);
    if (own) return own;
    if (note.ahead && standing(note.ahead, note.midi, bluesTonic) === 'chord tone')
      return 'chord tone';
    const later = notes.slice(index + 1).find(({ beat }) => beat > note.beat);
    const earlier = notes.slice(0, index).findLast(({ beat }) => beat < note.beat);
    const into = later ? Math.abs(later.midi - note.midi) : Infinity;
    if (later && into > 0 && into <= STEP) {
      const longer = note.beats < later.beats;
      const weaker = weightAt(note) < weightAt(later);
      if (longer || weaker) return 'approach';
    }
    const from = earlier ? Math.abs(earlier.midi - note.midi) : Infinity;
    const stepwise = (size: number) => size > 0 && size <= STEP;
    return stepwise(into) || stepwise(from) ? 'passing' : 'outside';
  });
}

/** How strong the place of a note is: strong beats, other beats, between them. */
const weightAt = ({ strong, beat }: Judged): number => (strong ? 2 : onBeat(beat) ? 1 : 0);
