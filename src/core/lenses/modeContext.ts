/** What decides the mode of a chord: the chord, where it goes, its key, and what the chart does. */
import { type Chart, nextChange, type PlayedChord, writtenKeyAt } from '../chart/form';
import { type Chord, chordNotes, sameChord } from '../chords/chords';
import { FALLING_FIFTH, isMinorChord, rootMotion, swayOf } from '../harmony/changes';
import { isDiatonic, isInScale } from '../harmony/membership';
import type { Reading } from '../harmony/reading';
import { isMinorKey, type Key } from '../keys/keys';
import { rememberBy, rememberOf } from '../cache';
import { modulo } from '../lists';
import { halfSteps, intervalBetween } from '../notes/notes';
import type { Goal, Setting } from './modeRules';
import type { Beats } from '../time/units';

/** All a mode is chosen by. */
export interface ModeContext {
  readonly chord: Chord;
  /** The chord it goes to; null where nothing follows. */
  readonly next: Chord | null;
  /** The key in force for the modes: that of a local tonic while one is home, else the chart's. */
  readonly moment: Key | null;
  readonly key: Key | null;
  readonly blues: boolean;
  /** What the chart does around it. */
  readonly settings: readonly Setting[];
}

/** A chord by itself, in no key and going nowhere. */
export const alone = (chord: Chord): ModeContext => ({
  chord,
  next: null,
  moment: null,
  key: null,
  blues: false,
  settings: [],
});

/** Half steps of a chord's root above the tonic; null without a key. */
export const aboveTonic = ({ chord, moment: key }: ModeContext): number | null =>
  key === null ? null : halfSteps(intervalBetween(key.tonic, chord.root));

/** Where a chord goes: a fifth down to a minor or a major chord, elsewhere, or nowhere. */
export function goalOf({ chord, next }: ModeContext): Goal {
  if (next === null) return 'nowhere';
  if (rootMotion(chord, next) !== FALLING_FIFTH) return 'elsewhere';
  return isMinorChord(next) ? 'fifth to minor' : 'fifth to major';
}

/** How long chords other than the tonic hold a note this far above the tonic. */
const beatsWith = (chords: readonly PlayedChord[], key: Key, size: number): Beats =>
  chords.reduce((sum, { chord, beats }) => {
    const tonic = halfSteps(intervalBetween(key.tonic, chord.root)) === 0;
    const holds = chordNotes(chord).some(
      (note) => halfSteps(intervalBetween(key.tonic, note)) === size,
    );
    return sum + (holds && !tonic ? beats : 0);
  }, 0);

const FLAT_THIRD = 3;
const FLAT_SIXTH = 8;
const NATURAL_SIXTH = 9;
const FLAT_SEVENTH = 10;

const keyWord = (key: Key): string => `${key.tonic} ${key.mode}`;

/** What a chart does in a key, wherever one stands in it. */
const settingsIn = rememberOf(({ chords }: Chart) =>
  rememberBy(keyWord, (key: Key): readonly Setting[] => {
    const settings: Setting[] = [];
    if (
      isMinorKey(key) &&
      beatsWith(chords, key, NATURAL_SIXTH) > beatsWith(chords, key, FLAT_SIXTH)
    ) {
      settings.push('natural sixth');
    }
    const flatSeventh = chords.some(
      ({ chord }) =>
        chord.quality.family === 'major' &&
        halfSteps(intervalBetween(key.tonic, chord.root)) === FLAT_SEVENTH,
    );
    if (!isMinorKey(key) && flatSeventh) settings.push('flat seventh');
    const fromMinor = chords.some(
      ({ chord }) =>
        chord.quality.family === 'major' &&
        [FLAT_THIRD, FLAT_SIXTH].includes(halfSteps(intervalBetween(key.tonic, chord.root))),
    );
    if (!isMinorKey(key) && fromMinor) settings.push('flat third or sixth');
    return settings;
  }),
);

const distinctOf = rememberOf((chart: Chart): readonly Chord[] =>
  chart.chords.reduce<readonly Chord[]>(
    (found, { chord }) =>
      found.length > 2 || found.some((one) => sameChord(one, chord)) ? found : [...found, chord],
    [],
  ),
);

/**
 * A minor seventh beside another one that its key does not hold, or in no key. A ii, iii or vi stays what
 * it is beside a chromatic neighbour.
 */
function isParallel(chord: Chord, around: readonly (Chord | null)[], key: Key | null): boolean {
  if (chord.quality.family !== 'minor') return false;
  if (key === null) return true;
  if (!isMinorKey(key) && isDiatonic(chord, key)) return false;
  return around.some(
    (other) =>
      other !== null &&
      other.quality.name === chord.quality.name &&
      other.root !== chord.root &&
      !isDiatonic(other, key),
  );
}

/** What decides the mode of a chord of a chart; null where the chart has no such chord. */
export function modeContextAt(chart: Chart, reading: Reading, index: number): ModeContext | null {
  const { chords } = chart;
  const played = chords[index];
  if (!played) return null;
  const { chord } = played;
  const nextIndex = nextChange(chart, index);
  const next = nextIndex === null ? null : (chords[nextIndex]?.chord ?? null);
  const previous = chords[modulo(index - 1, chords.length)]?.chord ?? null;
  const following = chords[modulo(index + 1, chords.length)]?.chord ?? null;
  const key = writtenKeyAt(chart, played) ?? reading.key.key;
  const moment = reading.chords[index]?.moment ?? key;
  const distinct = distinctOf(chart);
  const sway = swayOf(distinct);
  const settings: Setting[] = moment === null ? [] : [...settingsIn(chart)(moment)];
  if (distinct.length === 1) settings.push('vamp');
  if (sway) settings.push(sameChord(sway[0], chord) ? 'lower of two' : 'upper of two');
  if (isParallel(chord, [previous, next], moment)) settings.push('parallel');
  if (following && sameChord(following, chord)) settings.push('stays');
  if (chart.source.key !== null && moment !== null && isInScale(chord, moment, 0))
    settings.push('in the stated key');
  const prepared =
    previous?.quality.family === 'half-diminished' && rootMotion(previous, chord) === FALLING_FIFTH;
  if (prepared) settings.push('after half-diminished');
  return { chord, next, moment, key, blues: reading.blues, settings };
}
