/** Notes on the neck in words. */
import { type Chord, degreeOver } from '$core/chords/chords';
import { spokenChord } from '$core/chords/spoken';
import type { Mark } from '$core/neck/marks';
import { spokenDegree } from '$core/notes/degrees';
import { speakNote } from '$lib/ui/glyphs';

export interface Around {
  readonly now: Chord;
  readonly next: Chord | null;
}

const steps = (halfSteps: number): string => {
  const size = Math.abs(halfSteps) === 1 ? 'a half step' : 'a whole step';
  return `${halfSteps > 0 ? 'up' : 'down'} ${size}`;
};

/** What the change does to a note: "moves down a half step to B". */
export function speakFate({ fate }: Mark): string {
  switch (fate?.kind) {
    case 'holds':
      return 'holds';
    case 'leaves':
      return 'leaves';
    case 'arrives':
      return 'arrives new';
    case 'moves':
      return `moves ${steps(fate.halfSteps)} to ${speakNote(fate.to)}`;
    case 'reached':
      return `reached from ${speakNote(fate.from)}, ${steps(fate.halfSteps)}`;
    default:
      return '';
  }
}

/** "string 3, fret 5, C, flat third of A minor 7, moves down a half step to B". */
export function speakMark(mark: Mark, { now, next }: Around): string {
  const parts = [`string ${mark.string}`, mark.fret === 0 ? 'open' : `fret ${mark.fret}`];
  parts.push(speakNote(mark.note));
  if (mark.now) parts.push(`${spokenDegree(mark.now.degree)} of ${spokenChord(now)}`);
  if (mark.next && next) {
    const of = `${spokenDegree(mark.next.degree)} of ${spokenChord(next)}`;
    parts.push(mark.now ? `then ${of}` : `next, ${of}`);
  }
  if (!mark.now && !mark.next)
    parts.push(`${spokenDegree(degreeOver(now, mark.note))} over ${spokenChord(now)}`);
  const fate = speakFate(mark);
  if (fate !== '') parts.push(fate);
  return parts.join(', ');
}
