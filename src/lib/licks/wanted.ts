/** What a lick asks of who plays it, and which of the notes heard belong to it. */
import { BEAT, type Chart, type Neck, pitchAt } from 'corvel-core';
import { heardPitch, type LickNote } from '$core/licks/sounding';
import type { ToPlay } from '$core/listening/simulated';
import { halfSteps } from '$core/notes/notes';
import { type Midi, pitchAtOrAbove } from '$core/notes/pitch';
import type { Beats } from '$core/time/units';

/** How long before the first beat a note still belongs to it. */
const EARLY: Beats = BEAT / 2;
/** Where the simulated guitarist plays what has no notes yet. */
const LOW: Midi = 48;

/**
 * What is asked for, with the index of each note; of two at once the higher, as an ear follows one line.
 *
 * @param played where a written beat is played
 */
export const wantedOf = (neck: Neck, notes: readonly LickNote[], played: (beat: Beats) => Beats) =>
  notes.flatMap((note, index) => {
    const midi = pitchAt(neck, note);
    const over = notes.some(
      (other, place) =>
        other.beat === note.beat &&
        (pitchAt(neck, other) > midi || (pitchAt(neck, other) === midi && place < index)),
    );
    const muted = note.techniques.some(({ kind }) => kind === 'mute');
    return over || muted
      ? []
      : [{ index, beat: played(note.beat), midi, bent: heardPitch(neck, note) - midi }];
  });

/** The notes of a time through that are the lick's, which ends at a beat. */
export const ofLick = <N extends { readonly beat: Beats }>(
  heard: readonly N[],
  end: Beats,
): readonly N[] => heard.filter(({ beat }) => beat > -EARLY && beat < end);

/** Tones of chords to be played where nothing is written: each root, and its guide tone after a beat. */
export const tonesOf = (chords: Chart['chords']): readonly ToPlay[] =>
  chords.flatMap(({ beat, beats, chord }): readonly ToPlay[] => {
    const tone = chord.quality.guideTones[0] ?? chord.quality.degrees[0];
    const root = pitchAtOrAbove(chord.root, LOW);
    const third = root + (tone === undefined ? 0 : halfSteps(tone));
    return beats < 2 * BEAT
      ? [{ beat, beats, midi: third }]
      : [
          { beat, beats: BEAT, midi: root },
          { beat: beat + BEAT, beats: beats - BEAT, midi: third },
        ];
  });
