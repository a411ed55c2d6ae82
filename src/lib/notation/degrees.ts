/** The degrees under the tablature: what each note of an event is over its chord. */
import type { Passage } from 'corvel-core';
import { degreeOver } from '$core/chords/over';
import { landedOn } from '$core/licks/sounding';
import type { NotatedEvent } from '$core/phrases/measures';
import { techniqueOf } from '$core/phrases/techniques';
import { showOver } from '$lib/ui/glyphs';
import { chordUnder } from './systems';

/** The highest string first; of a bend where it begins and where it arrives. */
export const degreesOf = (
  passage: Passage,
  { notes, tiedFrom }: Pick<NotatedEvent, 'notes' | 'tiedFrom'>,
): readonly string[] =>
  tiedFrom
    ? []
    : [...notes]
        .sort((a, b) => a.string - b.string)
        .map((played) => {
          const chord = chordUnder(passage, played);
          if (!chord) return '';
          const own = showOver(chord, degreeOver(chord, played.note));
          if (!techniqueOf(played.techniques, 'bend')) return own;
          const { note } = landedOn(passage.neck, passage.key, chord, played);
          return `${own}→${showOver(chord, degreeOver(chord, note))}`;
        });
