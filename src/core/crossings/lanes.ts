/** Guide-tone lanes: one note from each chord in a row, by degree, by nearness, or by what defines. */
import type { Chord } from '../chords/chords';
import { at } from '../lists';
import { type Interval, type Note, pitchClass, step, transpose } from '../notes/notes';
import { shortestWay } from './crossing';

/** One chord's note in a lane. */
export interface LaneStop {
  /** Index of the chord among those given. */
  readonly index: number;
  readonly note: Note;
  readonly degree: Interval;
  /** Signed distance from the stop before, by the shortest way; 0 for the first. */
  readonly halfSteps: number;
}

/** The lines through the changes that can be drawn over the bars. */
export const LANES = ['1', '3', '5', '7', 'smooth', 'guideTones'] as const;
type LaneKind = (typeof LANES)[number];

/** A line through the changes: a note for each chord. */
export type Lane = readonly LaneStop[];
export type Lanes = Readonly<Record<LaneKind, Lane>>;

/** Scale steps that stand for a degree, the proper one first: a fourth or second for the third. */
const STANDING_FOR: Readonly<Record<'1' | '3' | '5' | '7', readonly number[]>> = {
  '1': [0],
  '3': [2, 3, 1],
  '5': [4],
  '7': [6, 5],
};

/** The chord's tone of a lane's degree; null where it has none, as a triad has no seventh. */
function toneFor(chord: Chord, lane: keyof typeof STANDING_FOR): Interval | null {
  for (const wanted of STANDING_FOR[lane]) {
    const tone = chord.quality.core.find((one) => step(one) === wanted);
    if (tone !== undefined) return tone;
  }
  return null;
}

type Pick = (chord: Chord, from: Note | null) => Interval | null;

function laneBy(chords: readonly Chord[], pick: Pick): Lane {
  const stops: LaneStop[] = [];
  for (const [index, chord] of chords.entries()) {
    const before = stops.at(-1)?.note ?? null;
    const degree = pick(chord, before);
    if (degree === null) continue;
    const note = transpose(chord.root, degree);
    const halfSteps = before === null ? 0 : shortestWay(before, note);
    stops.push({ index, note, degree, halfSteps });
  }
  return stops;
}

/** The tone nearest to a note; of two equally near the lower, as guide tones fall. */
function nearest(chord: Chord, tones: readonly Interval[], from: Note): Interval {
  const way = (tone: Interval) => shortestWay(from, transpose(chord.root, tone));
  return tones.reduce(
    (best, tone) => {
      const less = Math.abs(way(tone)) - Math.abs(way(best)) || way(tone) - way(best);
      return less < 0 ? tone : best;
    },
    at(tones, 0),
  );
}

const firstOf = (chord: Chord): Interval =>
  toneFor(chord, '3') ?? chord.quality.guideTones[0] ?? at(chord.quality.core, 0);

function startingTone(chord: Chord, start: Note | null): Interval {
  const found = chord.quality.degrees.find(
    (one) => start !== null && pitchClass(transpose(chord.root, one)) === pitchClass(start),
  );
  return found ?? firstOf(chord);
}

/** The smoothest and the guide tones' lane begin on `start`, or on the first chord's third. */
export function lanesOf(chords: readonly Chord[], start: Note | null = null): Lanes {
  const byDegree = (lane: keyof typeof STANDING_FOR) =>
    laneBy(chords, (chord) => toneFor(chord, lane));
  const byNearness = (tones: (chord: Chord) => readonly Interval[]) =>
    laneBy(chords, (chord, from) =>
      from === null ? startingTone(chord, start) : nearest(chord, tones(chord), from),
    );
  return {
    '1': byDegree('1'),
    '3': byDegree('3'),
    '5': byDegree('5'),
    '7': byDegree('7'),
    smooth: byNearness(({ quality }) => quality.core),
    guideTones: byNearness(({ quality }) =>
      quality.guideTones.length > 0 ? quality.guideTones : quality.core,
    ),
  };
}

/** A lane in real pitch: half steps above its first note, stop by stop. */
export function contourOf(lane: Lane): readonly number[] {
  let height = 0;
  return lane.map(({ halfSteps }) => (height += halfSteps));
}
