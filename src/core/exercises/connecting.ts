/**
 * Runs that join the five boxes of a pentatonic: up the neck by one way and back by another, in diagonals over
 * the strings, or along one string after another.
 */
import { sameChord } from '../chords/chords';
import { collectionNotes } from '../collections/collections';
import type { ChordSpan } from '../lines/spans';
import { at, range } from '../lists';
import { boxesOf, nearestTo } from '../neck/boxes';
import { ascending, onNeck, type Placed } from '../neck/fingering';
import { type Neck, openPitch, pitchAt, placesOf, samePlace, stringCount } from '../neck/neck';
import type { ExerciseKind } from './kinds';
import { goingOn, ladder, type Moment } from './rungs';
import { pentatonicOf } from './shapes';

/** The exercises for which a chord that goes on is one stretch. */
export const CONNECTING_KINDS: ReadonlySet<ExerciseKind> = new Set<ExerciseKind>([
  'connecting',
  'connecting-strings',
]);

/** Chords one after another that are the same, and what is played over them, as one that lasts as long. */
export function stretchesOf(spans: readonly ChordSpan[]): readonly (readonly ChordSpan[])[] {
  const stretches: ChordSpan[][] = [];
  for (const span of spans) {
    const stretch = stretches.at(-1);
    const before = stretch?.at(-1);
    const goesOn =
      before !== undefined &&
      sameChord(before.chord, span.chord) &&
      before.material.name === span.material.name;
    if (stretch && goesOn) stretch.push(span);
    else stretches.push([span]);
  }
  return stretches;
}

/** A way up and another down, each in the order it is played. */
interface Run {
  readonly up: readonly Placed[];
  readonly down: readonly Placed[];
}

/** Notes to each string, by turns from the lowest string on the way up, from the highest on the way down. */
interface Diagonal {
  readonly up: readonly number[];
  readonly down: (strings: number) => readonly number[];
}

const SHORT: Diagonal = {
  up: [3, 2],
  // With an even number of strings the way back would else be the way up.
  down: (strings) => (strings % 2 === 0 ? [3, 2] : [2, 3]),
};
/** Three to a string climb a box with every string. */
const LONG: Diagonal = { up: [3], down: () => [4, 2] };
/** So many notes take a run through all five boxes. */
const ALL_FIVE = 16;
/** Notes on the lowest string from which a run may begin. */
const STARTS = 12;

/** Notes laid on strings in the order given, so many to each and the rest on the last. */
function laid(
  neck: Neck,
  notes: readonly { readonly midi: number; readonly note: Placed['note'] }[],
  strings: readonly number[],
  perString: readonly number[],
): readonly Placed[] {
  let turn = 0;
  let there = 0;
  return notes.map(({ midi, note }) => {
    if (there >= at(perString, turn % perString.length) && turn < strings.length - 1) {
      turn += 1;
      there = 0;
    }
    there += 1;
    const string = at(strings, turn);
    return { string, fret: midi - openPitch(neck, string), note };
  });
}

/** A pentatonic laid diagonally over the strings, from the box nearest to the zone upward, and back. */
function diagonally(moment: Moment): Run | null {
  const { neck, zone, count } = moment;
  const pentatonic = pentatonicOf(moment);
  const notes = collectionNotes(pentatonic);
  const { up, down } = count >= ALL_FIVE ? LONG : SHORT;
  const strings = range(1, stringCount(neck) + 1);
  const climbing = strings.toReversed();
  const long = climbing.reduce((sum, _, turn) => sum + at(up, turn % up.length), 0);
  const box = nearestTo(zone, boxesOf(neck, pentatonic));
  const lowest = box?.places[0];
  if (!lowest) return null;
  const runFrom = (midi: number): Run => {
    const climb = ascending(notes, midi, long);
    return {
      up: laid(neck, climb, climbing, up),
      down: laid(neck, climb.toReversed(), strings, down(strings.length)),
    };
  };
  // Where the neck ends before the run does, it begins in a lower box; else in a higher one.
  const open = openPitch(neck, strings.length) + neck.capo;
  const from = pitchAt(neck, lowest);
  const starts = ascending(notes, open, STARTS).map(({ midi }) => midi);
  const below = starts.filter((midi) => midi <= from).toReversed();
  const above = starts.filter((midi) => midi > from);
  return (
    [...below, ...above].map(runFrom).find((run) => onNeck(neck, [...run.up, ...run.down])) ?? null
  );
}

/** Frets between two notes of one name on a string. */
const OCTAVE = 12;

/** Up one string through all five boxes, down the next, and so on to the last; then back. */
function alongStrings(moment: Moment): Run {
  const { neck, zone } = moment;
  const notes = collectionNotes(pentatonicOf(moment));
  const low = Math.max(neck.capo, Math.min(zone.low, neck.frets - OCTAVE));
  const window = { low, high: Math.min(neck.frets, low + OCTAVE) };
  const places = placesOf(neck, notes, window);
  const on = (string: number, rising: boolean) =>
    places
      .filter((place) => place.string === string)
      .sort((a, b) => (rising ? a.fret - b.fret : b.fret - a.fret));
  const strings = range(1, stringCount(neck) + 1).toReversed();
  const up = strings.flatMap((string, turn) => on(string, turn % 2 === 0));
  const last = strings.length - 1;
  // The last string was left at the end where the next begins.
  const down = strings
    .slice(1, -1)
    .toReversed()
    .flatMap((string, turn) => on(string, (last + 1 + turn) % 2 === 0));
  return { up, down };
}

/** A run over one stretch: up over one and down over the next, round and round while it lasts. */
export function connectingRun(moment: Moment, way: 'diagonal' | 'along'): readonly Placed[] {
  const { count, turn, last } = moment;
  const run = way === 'diagonal' ? diagonally(moment) : alongStrings(moment);
  const rungs = ladder(moment, collectionNotes(pentatonicOf(moment)));
  const { up, down } = run ?? { up: rungs, down: rungs.toReversed() };
  // Where it turns, a note is played once.
  const ends = [at(up, 0), at(up, up.length - 1)];
  const back = down.filter((place) => !ends.some((end) => samePlace(end, place)));
  const rising = turn % 2 === 0 || back.length === 0;
  const part = rising ? up : back;
  const from = (last ? goingOn(moment, part, rising) : 0) + (rising ? 0 : up.length);
  const round = [...up, ...back];
  return range(0, count).map((step) => at(round, (from + step) % round.length));
}
