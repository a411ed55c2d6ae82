/** How fast the harmony moves, and what to hold on to where it moves too fast. */
import type { PlayedChord } from '../chart/form';
import { type Chord, chordName } from '../chords/chords';
import { quality } from '../chords/symbols';
import { at } from '../lists';
import { degree } from '../notes/degrees';
import { transpose } from '../notes/notes';
import { FALLING_FIFTH, isDominantSeventh, isSupertonic, rootMotion } from './changes';
import type { Key } from '../keys/keys';
import { isDiatonic } from './membership';
import type { BeatsPerMinute, Seconds } from '../time/units';
import { secondsOf } from '../time/tempo';

/** A stretch of chords too short to outline one by one, and what covers them together. */
export interface FastStretch {
  readonly from: number;
  readonly to: number;
  /** Length of the shortest chord in seconds. */
  readonly seconds: number;
  readonly cover: string;
}

/** Below this many seconds a chord has no room for more than two or three eighth notes. */
const SHORTEST_OUTLINED_SECONDS = 0.9;

const chordSeconds = ({ beats }: PlayedChord, tempo: BeatsPerMinute): Seconds =>
  secondsOf(beats, tempo);

const named = (root: Chord['root'], suffix: string): string =>
  chordName({ symbol: '', root, quality: quality(suffix), bass: null });

function coverFor(chords: readonly Chord[], key: Key | null): string {
  const last = at(chords, chords.length - 1);
  const before = chords.at(-2);
  if (chords.length === 2 && before && isSupertonic(before) && isDominantSeventh(last)) {
    if (rootMotion(before, last) === FALLING_FIFTH) {
      return `${named(last.root, '7sus4')} over both`;
    }
  }
  if (key && chords.every((chord) => isDiatonic(chord, key))) {
    const tonic = named(key.tonic, key.mode === 'major' ? 'maj7' : 'm7');
    const dominant = named(transpose(key.tonic, degree('5')), '7');
    return isDominantSeventh(last)
      ? `${tonic}, giving way to ${dominant} on the last chord`
      : `${tonic} over all of them`;
  }
  return `${named(at(chords, 0).root, at(chords, 0).quality.name)} first, then ${named(last.root, last.quality.name)}`;
}

/** Stretches of a chart whose chords pass too fast for each to be outlined. */
export function fastStretches(
  chords: readonly PlayedChord[],
  tempo: number,
  keyAt: (index: number) => Key | null,
): readonly FastStretch[] {
  const stretches: FastStretch[] = [];
  let run: PlayedChord[] = [];
  const close = () => {
    const first = run[0];
    const last = run.at(-1);
    if (first && last && run.length > 1) {
      stretches.push({
        from: first.index,
        to: last.index,
        seconds: Math.min(...run.map((chord) => chordSeconds(chord, tempo))),
        cover: coverFor(
          run.map(({ chord }) => chord),
          keyAt(first.index),
        ),
      });
    }
    run = [];
  };
  for (const chord of chords) {
    const fast = chordSeconds(chord, tempo) < SHORTEST_OUTLINED_SECONDS;
    // A stretch is a bar at the most: beyond it the ear wants a new chord anyway.
    if (!fast || run.at(-1)?.bar !== chord.bar) close();
    if (fast) run.push(chord);
  }
  close();
  return stretches;
}
