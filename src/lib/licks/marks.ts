/** The notes of a lick as marks of the neck: what each is over its chord, and what sounds. */
import type { Chart } from 'corvel-core';
import { degreeOver, weightOver } from '$core/chords/over';
import type { NoteRead } from '$core/licks/reading';
import type { PlayedNote } from '$core/phrases/passage';
import { placeId } from '$core/neck/neck';
import type { DrawnMark } from '$lib/neck/drawn';
import { showDegree, showNote } from '$lib/ui/glyphs';

export function lickMarks(
  notes: readonly NoteRead[],
  chart: Chart | null,
  sounding: readonly PlayedNote[],
): readonly DrawnMark[] {
  const places = new Map<string, DrawnMark>();
  for (const note of notes) {
    const { string, fret } = note;
    const chord = chart?.chords[note.chord ?? -1]?.chord;
    const own = chord ? weightOver(chord, degreeOver(chord, note.note)) : 'colour';
    const weight = note.role === 'blue' ? 'blue' : own;
    const label = note.degree === null ? showNote(note.note) : showDegree(note.degree);
    places.set(placeId(note), { kind: 'plain', string, fret, label, weight, changed: false });
  }
  for (const note of sounding) {
    const { string, fret } = note;
    const label = places.get(placeId(note))?.label ?? showNote(note.note);
    places.set(placeId(note), { kind: 'sounding', string, fret, label });
  }
  return [...places.values()];
}
