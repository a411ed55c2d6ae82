/** How answers write down what the core gives. */
import type { z } from 'zod';
import { type Chord, chordNotes, degreeName, inBeats, type Note, noteName } from 'corvel-core';
import type { PlayedChord } from '$core/chart/form';
import { readOver, spellingsOver } from '$core/chords/over';
import type { ChordReading } from '$core/harmony/reading';
import { roleName } from '$core/harmony/roleWords';
import type { Clash } from '$core/lenses/assess';
import type { Placed } from '$core/neck/fingering';
import { at } from '$core/lists';
import { pitchClass, transpose } from '$core/notes/notes';
import type { chordAnswer } from './shapes';
import type { Beats } from '$core/time/units';
/** When something begins and how long it lasts, in beats. */
export const timesOf = ({ beat, beats }: { readonly beat: Beats; readonly beats: Beats }) => ({
  beat: inBeats(beat),
  beats: inBeats(beats),
});

export function describeChord(
  { index, chord, bar, beat, beats }: PlayedChord,
  reading: ChordReading | undefined,
): z.infer<typeof chordAnswer> {
  return {
    index,
    symbol: chord.symbol,
    root: noteName(chord.root),
    quality: chord.quality.name,
    ...(chord.bass === null ? {} : { bass: noteName(chord.bass) }),
    notes: chordNotes(chord).map(noteName),
    degrees: chord.quality.degrees.map(degreeName),
    guideTones: chord.quality.guideTones.map((degree) => noteName(transpose(chord.root, degree))),
    bar,
    ...timesOf({ beat, beats }),
    roman: reading?.numeral ?? null,
    diatonic: reading?.diatonic ?? null,
    ...(reading?.role ? { role: roleName(reading.role) } : {}),
    ...(reading?.cadence === null || reading?.cadence === undefined
      ? {}
      : { cadence: reading.cadence }),
  };
}

/** Places on the neck with their notes as they are spelled and read over a chord. */
export function placesOver(chord: Chord, places: readonly Placed[]) {
  const notes = places.map(({ note }) => note);
  const spelled = spellingsOver({ ...chord, bass: null }, notes);
  return readOver(chord, notes).map(({ note, degree }, index) => {
    const { string, fret } = at(places, index);
    const name = noteName(spelled.get(pitchClass(note)) ?? note);
    return { string, fret, note: name, degree: degreeName(degree) };
  });
}

export const describeClash = ({ note, degree, above }: Clash) => ({
  note: noteName(note),
  degree: degreeName(degree),
  above: noteName(above),
});

export const tonesOf = (chord: Chord, notes: readonly Note[]) =>
  readOver(chord, notes).map(({ note, degree }) => ({
    note: noteName(note),
    degree: degreeName(degree),
  }));
