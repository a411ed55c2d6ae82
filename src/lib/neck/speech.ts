/** Notes on the neck in words. */
import { degreeOver, spokenOver } from '$core/chords/over';
import type { Chord } from 'corvel-core';
import type { Mark } from '$core/neck/marks';
import { placeWords } from '$core/neck/neck';
import { speakChord, speakNote } from '$lib/ui/glyphs';

export interface Around {
  readonly now: Chord;
  readonly next: Chord | null;
}

const steps = (halfSteps: number): string => {
  const size = Math.abs(halfSteps) === 1 ? 'a half step' : 'a whole step';
  return `${halfSteps > 0 ? 'up' : 'down'} ${size}`;
};

/** What the change does to a note: "moves down a half step to B". */
function speakMotion({ motion }: Mark): string {
  switch (motion?.kind) {
    case 'holds':
      return 'holds';
    case 'leaves':
      return 'leaves';
    case 'arrives':
      return 'arrives new';
    case 'moves':
      return `moves ${steps(motion.halfSteps)} to ${speakNote(motion.to)}`;
    case 'reached':
      return `reached from ${speakNote(motion.from)}, ${steps(motion.halfSteps)}`;
    default:
      return '';
  }
}

/** "string 3, fret 5, C, flat third of A minor 7, moves down a half step to B". */
export function speakMark(mark: Mark, { now, next }: Around): string {
  const parts = [placeWords(mark), speakNote(mark.note)];
  if (mark.now) parts.push(`${spokenOver(now, mark.now.degree)} of ${speakChord(now)}`);
  if (mark.next && next) {
    const of = `${spokenOver(next, mark.next.degree)} of ${speakChord(next)}`;
    parts.push(mark.now ? `then ${of}` : `next, ${of}`);
  }
  if (!mark.now && !mark.next)
    parts.push(`${spokenOver(now, degreeOver(now, mark.note))} over ${speakChord(now)}`);
  const motion = speakMotion(mark);
  if (motion !== '') parts.push(motion);
  return parts.join(', ');
}
