/** What the notes on the neck are labelled with. */
import { type Chord, intervalBetween, type Note, type Zone } from 'corvel-core';
import { degreeOver, usualDegree } from '$core/chords/over';
import { type Collection, degreeIn } from '$core/collections/collections';
import type { Key } from '$core/keys/keys';
import { fingerFor } from '$core/neck/fingering';
import type { Mark, Tone } from '$core/neck/marks';
import type { Labels } from './labelKinds';
import { showDegree, showNote, showOver } from '$lib/ui/glyphs';

interface LabelContext {
  readonly now: Chord;
  readonly next: Chord | null;
  readonly key: Key | null;
  readonly collection: Collection | null;
  readonly zone: Zone;
}

/** The label of a mark; by degree where the wider view asked for is not to be had. */
export function labelMark(mark: Mark, labels: Labels, context: LabelContext): string {
  const { now, next, key, collection, zone } = context;
  const over = (tone: Tone | null, chord: Chord) =>
    showOver(chord, tone?.degree ?? degreeOver(chord, mark.note));
  // The note is spelled by its chord, which may call it otherwise than the key or the collection does.
  const above = (root: Note) => usualDegree(intervalBetween(root, mark.note));
  switch (labels) {
    case 'name':
      return showNote(mark.note);
    case 'finger':
      return String(fingerFor(mark.fret, Math.max(1, zone.low)).finger);
    case 'key':
      return showDegree(above(key?.tonic ?? now.root));
    case 'collection':
      return showDegree(
        (collection && degreeIn(collection, mark.note)) ?? above(collection?.root ?? now.root),
      );
    case 'next':
      return mark.next && next ? over(mark.next, next) : over(mark.now, now);
    default:
      // A note only of the chord coming is named by what it will be.
      return mark.next && !mark.now && next ? over(mark.next, next) : over(mark.now, now);
  }
}
