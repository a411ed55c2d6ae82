/** Whether a hand can play what is written, at the tempo it is written for. */
import { DEFAULT_TEMPO, secondsOf } from '../time/tempo';
import type { Passage } from '../phrases/passage';
import { HAND } from '../neck/fingering';
import { at } from '../lists';
import { barOf } from '../time/metre';
import type { Beats } from '../time/units';

/** Frets a hand can jump in a second, once it must leave its position. */
const FRETS_A_SECOND = 24;
/** The fastest single notes a good amateur plays cleanly, a second. */
const NOTES_A_SECOND = 12;

/** Sentences about what is out of reach; none where everything can be played. */
export function playingWarnings({ notes, tempo, time }: Passage): readonly string[] {
  const numberAt = (beat: Beats) => Math.floor(beat / barOf(time)) + 1;
  let jump: string | null = null;
  let hurry: string | null = null;
  notes.slice(1).forEach((note, index) => {
    const before = at(notes, index);
    const seconds = secondsOf(note.beat - before.beat, tempo ?? DEFAULT_TEMPO);
    const frets = note.fret === 0 || before.fret === 0 ? 0 : Math.abs(note.fret - before.fret);
    const beyond = frets - HAND.stretched;
    if (seconds > 0 && beyond > 0 && beyond / seconds > FRETS_A_SECOND) {
      jump ??= `Bar ${numberAt(note.beat)} asks for a jump of ${frets} frets in ${seconds.toFixed(2)} seconds: slow down, or choose another zone.`;
    }
    if (seconds > 0 && 1 / seconds > NOTES_A_SECOND) {
      hurry ??= `Bar ${numberAt(note.beat)} asks for ${Math.round(1 / seconds)} notes a second: slow down, or take a coarser subdivision.`;
    }
  });
  return [jump, hurry].filter((one) => one !== null);
}
