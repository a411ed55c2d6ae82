/** What is heard of played notes: their pitches in time, with what a bend or a slide makes of them. */
import type { Chart } from '../chart/form';
import type { Chord } from '../chords/chords';
import { spellingsOver, spellOver } from '../chords/over';
import { type Key, keyScale } from '../keys/keys';
import { modulo } from '../lists';
import { type Neck, pitchAt, type Place } from '../neck/neck';
import { degree } from '../notes/degrees';
import { halfSteps, type Note, transpose } from '../notes/notes';
import type { Midi } from '../notes/pitch';
import type { PlayedNote } from '../phrases/passage';
import { type Technique, techniqueOf } from '../phrases/techniques';
import type { Beats } from '../time/units';

/** A note as a player writes it down: when, how long, where, and how. */
export interface LickNote extends Place {
  readonly beat: Beats;
  readonly beats: Beats;
  readonly techniques: readonly Technique[];
}

const BLUE_THIRD = degree('b3');

/**
 * The chord of a chart sounding at a beat, as an index; null where none does.
 *
 * @example chordIndexAt(read('| C | F |'), 4 * BEAT); // 1
 */
export function chordIndexAt({ chords }: Chart, beat: Beats): number | null {
  // Before the first bar it is the first chord that is led into.
  const from = Math.max(0, beat);
  const found = chords.findLast((one) => one.beat <= from);
  return found && from < found.beat + found.beats ? found.index : null;
}

/** Half steps above a root that make a dominant an altered one: its ninths and fifths, raised or lowered. */
const ALTERED: readonly number[] = [1, 3, 6, 8];

/**
 * Whether a chord is a dominant with no altered ninth or fifth: there a minor third is a blue note.
 *
 * @example isPlainDominant(parseChord('G7b9')); // false
 */
export const isPlainDominant = ({ quality }: Chord): boolean =>
  quality.family === 'dominant' &&
  !quality.altered &&
  !quality.degrees.some((tone) => ALTERED.includes(halfSteps(tone)));

/**
 * One spelling for every pitch over a chord: its own tones, then the key's, then the usual. The
 * minor third over a plain dominant is the blue third, and no sharp ninth.
 *
 * @example noteName(speller(parseChord('A7'), null)(60)); // "C"
 */
export function speller(chord: Chord, key: Key | null): (midi: Midi) => Note {
  const scale = key ? keyScale(key).map((one) => transpose(key.tonic, one)) : [];
  const home = isPlainDominant(chord) ? [...scale, transpose(chord.root, BLUE_THIRD)] : scale;
  const known = spellingsOver({ ...chord, bass: null }, home);
  return (midi) => known.get(modulo(midi, 12)) ?? spellOver(chord, midi);
}

/** The pitch of a note where it is bent to; where it is struck, if it is not. */
export const heardPitch = (
  neck: Neck,
  note: Place & { readonly techniques: readonly Technique[] },
): Midi => pitchAt(neck, note) + (techniqueOf(note.techniques, 'bend')?.by ?? 0);

/** The pitch a note lands on: where a bend arrives, where a slide ends. */
export function landingPitch(
  neck: Neck,
  note: Place & { readonly techniques: readonly Technique[] },
): Midi {
  const to = techniqueOf(note.techniques, 'slide')?.to;
  return heardPitch(neck, to === undefined ? note : { ...note, fret: to });
}

/**
 * What a note of a passage lands on over a chord: its pitch, and the note as the chord spells it. It is as it is
 * written where it is neither bent nor slid away.
 */
export function landedOn(
  neck: Neck,
  key: Key | null,
  chord: Chord,
  played: PlayedNote,
): { readonly midi: Midi; readonly note: Note } {
  const midi = landingPitch(neck, played);
  const still = midi === pitchAt(neck, played);
  return { midi, note: still ? played.note : speller(chord, key)(midi) };
}

/** A pitch for some time. */
export interface Sound {
  readonly midi: Midi;
  readonly beat: Beats;
  readonly beats: Beats;
}

/** How much of a bent note is spent on the way up, and how much once it is let down again. */
const BEND_SHARES = { up: 0.25, released: 0.4 } as const;

/** What sounds of a note: nothing where it is muted, both ends where it is bent. */
export function soundsOf(neck: Neck, note: LickNote): readonly Sound[] {
  const { techniques, beat, beats } = note;
  if (techniqueOf(techniques, 'mute')) return [];
  const midi = pitchAt(neck, note);
  const bend = techniqueOf(techniques, 'bend');
  if (!bend) return [{ midi, beat, beats }];
  const up = Math.round(beats * BEND_SHARES.up);
  const down = bend.release ? Math.round(beats * BEND_SHARES.released) : 0;
  return [
    { midi, beat, beats: up },
    { midi: midi + bend.by, beat: beat + up, beats: beats - up - down },
    ...(down > 0 ? [{ midi, beat: beat + beats - down, beats: down }] : []),
  ];
}
