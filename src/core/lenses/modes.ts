/**
 * The mode to play over a chord by what it does in its key: the usual first choices of
 * chord-scale teaching, after Nettles and Graf, "The Chord Scale Theory and Jazz Harmony" (1997).
 */
import { type Chart, nextChange, writtenKeyAt } from '../chart/form';
import type { Chord } from '../chords/chords';
import {
  type Collection,
  collection,
  collectionNotes,
  modesOf,
  pitchMask,
} from '../collections/collections';
import { isMinorKey, type Key, keyScale } from '../harmony/keys';
import { FALLING_FIFTH, isMinorChord, rootMotion } from '../harmony/changes';
import { isDiatonic } from '../harmony/membership';
import type { Reading } from '../harmony/reading';
import { degreeName } from '../notes/degrees';
import { halfSteps, intervalBetween, transpose } from '../notes/notes';

export interface ModeContext {
  readonly chord: Chord;
  /** The chord it goes to; null where nothing follows. */
  readonly next: Chord | null;
  readonly key: Key | null;
  readonly blues: boolean;
}

/** Qualities whose own alterations choose the mode, whatever the key. */
const BY_QUALITY: Readonly<Record<string, string>> = {
  '7alt': 'altered',
  '7#9': 'altered',
  '7(b9,#9)': 'altered',
  '7#5': 'whole tone',
  '9#5': 'whole tone',
  aug: 'lydian augmented',
  '7b5': 'lydian dominant',
  '9b5': 'lydian dominant',
  '7#11': 'lydian dominant',
  '9#11': 'lydian dominant',
  '13#11': 'lydian dominant',
  '7b13': 'mixolydian b6',
  '9b13': 'mixolydian b6',
  '7(b9,b13)': 'phrygian dominant',
  '7b9': 'phrygian dominant',
  '13b9': 'half-whole diminished',
  '7(b9,#11)': 'half-whole diminished',
  'maj7#11': 'lydian',
  'maj9#11': 'lydian',
  'maj7#5': 'lydian augmented',
  m6: 'melodic minor',
  m69: 'melodic minor',
  'm(maj7)': 'melodic minor',
  'm(maj9)': 'melodic minor',
  dim: 'locrian natural 2',
  dim7: 'whole-half diminished',
};

/** The major scale's modes over minor chords, by half steps above the tonic of a major key. */
const MINOR_IN_MAJOR: Readonly<Record<number, string>> = {
  2: 'dorian',
  4: 'phrygian',
  9: 'aeolian',
};

function dominantMode({ chord, next, key, blues }: ModeContext): string {
  if (blues) return 'mixolydian';
  if (next && rootMotion(chord, next) === FALLING_FIFTH) {
    return isMinorChord(next) ? 'phrygian dominant' : 'mixolydian';
  }
  const above = key === null ? null : halfSteps(intervalBetween(key.tonic, chord.root));
  if (above === 7) return key && isMinorKey(key) ? 'phrygian dominant' : 'mixolydian';
  if (next === null && key === null) return 'mixolydian';
  return 'lydian dominant';
}

function majorMode({ chord, next, key }: ModeContext): string {
  if (key === null) return 'ionian';
  const above = halfSteps(intervalBetween(key.tonic, chord.root));
  const triad = chord.quality.core.length === 3;
  if (above === 0) return 'ionian';
  // The relative major of a minor key rests as a tonic does.
  if (above === 3 && isMinorKey(key)) return 'ionian';
  if (above === 7) return triad ? 'mixolydian' : 'ionian';
  if (triad && next && rootMotion(chord, next) === FALLING_FIFTH) return 'mixolydian';
  return 'lydian';
}

function minorMode({ chord, key }: ModeContext): string {
  if (key === null) return 'dorian';
  const above = halfSteps(intervalBetween(key.tonic, chord.root));
  if (!isMinorKey(key)) return MINOR_IN_MAJOR[above] ?? 'dorian';
  if (above === 0) return 'aeolian';
  return above === 7 ? 'phrygian' : 'dorian';
}

/** In a modal key a chord at home takes the key's own notes from its root. */
function modalMode(chord: Chord, key: Key): Collection | null {
  if (key.mode === 'major' || key.mode === 'minor' || !isDiatonic(chord, key)) return null;
  const notes = keyScale(key).map((degree) => transpose(key.tonic, degree));
  const mask = pitchMask(notes);
  return (
    modesOf(collection(chord.root, 'ionian'))
      .map(({ kind }) => ({ root: chord.root, kind }))
      .find((mode) => pitchMask(collectionNotes(mode)) === mask) ?? null
  );
}

/** One seven-note collection (eight or six where the chord is symmetric) for a chord. */
export function modeFor(context: ModeContext): Collection {
  const { chord, key } = context;
  const own = BY_QUALITY[chord.quality.name];
  const on = (name: string) => collection(chord.root, name);
  if (own !== undefined) return on(own);
  const modal = key ? modalMode(chord, key) : null;
  if (modal) return modal;
  switch (chord.quality.family) {
    case 'dominant':
      return on(dominantMode(context));
    case 'half-diminished':
      return on('locrian natural 2');
    case 'diminished':
      return on('whole-half diminished');
    case 'minor':
      return on(minorMode(context));
    case 'suspended':
      return on(chord.quality.core.map(degreeName).includes('7') ? 'lydian' : 'mixolydian');
    case 'augmented':
      return on('lydian augmented');
    default:
      return on(majorMode(context));
  }
}

/** The mode to play over a chord of a chart; null where the chart has no such chord. */
export function modeAt(chart: Chart, reading: Reading, index: number): Collection | null {
  const played = chart.chords[index];
  if (!played) return null;
  const next = nextChange(chart, index);
  return modeFor({
    chord: played.chord,
    next: next === null ? null : (chart.chords[next]?.chord ?? null),
    key: writtenKeyAt(chart, played) ?? reading.key.key,
    blues: reading.blues,
  });
}
