/** What stands on a drawn neck: one kind of mark for each thing a place can be. */
import type { Weight } from '$core/chords/over';
import type { Mark } from '$core/neck/marks';
import type { Place } from '$core/neck/neck';

interface Labelled extends Place {
  readonly label: string;
}

export type DrawnMark = Labelled &
  (
    | {
        /** Of the chord sounding now, of the one coming next, of both, or only to know of. */
        readonly kind: 'change';
        readonly now: Weight | null;
        readonly next: Weight | null;
        readonly mark: Mark;
      }
    /** Sounding at this moment of a passage, or coming at its next. */
    | { readonly kind: 'sounding' | 'coming' }
    /** What a question asks for. */
    | { readonly kind: 'asked' }
    /** What lies under the hand round a shape: of the arpeggio, or only of the scale. */
    | { readonly kind: 'ground'; readonly weight: Weight }
    /** A note of a shape; `blue` for a blue note, which bends the shape it lies in. */
    | {
        readonly kind: 'plain';
        readonly weight: Weight | 'blue';
        /** Whether it has just moved. */
        readonly changed: boolean;
      }
  );

/** How large each weight is drawn, in units of the large neck. */
export const RADIUS: Readonly<Record<Weight | 'blue', number>> = {
  guide: 13.9,
  chord: 12.3,
  colour: 9.2,
  blue: 9.2,
};

/** A mark of the change as it is drawn. */
export const drawnChange = (mark: Mark, label: string): DrawnMark => ({
  kind: 'change',
  string: mark.string,
  fret: mark.fret,
  now: mark.now?.weight ?? null,
  next: mark.next?.weight ?? null,
  mark,
  label,
});
