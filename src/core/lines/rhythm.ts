/** Rhythms: where notes may begin in a metre, and the cells they are chosen from. */
import { range } from '../lists';
import { barOf, type TimeSignature } from '../time/metre';
import { noteLength, type Subdivision } from '../time/subdivision';
import { BEAT, type Beats } from '../time/units';
import { byName, type Chance, weighed } from './chance';
import type { Cells, Pattern } from './cells';
import type { StyleRow } from './styles';

/** What a line's time is divided by. */
export interface LineMetre {
  readonly bar: Beats;
  /** How long a note of the line lasts. */
  readonly slot: Beats;
  /** Whether two notes may give way to three: eighths of a quarter do. */
  readonly triplets: boolean;
}

/** Some of a bar's time that is felt as one: a beat of eighths, a beat of triplets. */
export interface Pulse {
  readonly beat: Beats;
  readonly slots: 1 | 2 | 3 | 4;
}

/**
 * How a line in notes of a value is divided in a metre.
 *
 * @example inBeats(lineMetre({ beats: 4, unit: 4 }, 'eighths').slot); // 0.5
 */
export function lineMetre(time: TimeSignature, subdivision: Subdivision): LineMetre {
  const triplets = subdivision === 'eighths' && time.unit === 4;
  return { bar: barOf(time), slot: noteLength(subdivision, time.unit), triplets };
}

const COMPOUND: Beats = 3 * BEAT;

/** How many notes are felt together: threes in compound metres and triplets, else twos or fours. */
function together({ bar, slot }: LineMetre): 2 | 3 | 4 {
  if (BEAT % (3 * slot) === 0 || 3 * slot === 2 * BEAT) return 3;
  if (slot === BEAT && bar % COMPOUND === 0 && bar > COMPOUND) return 3;
  if (4 * slot <= BEAT) return 4;
  return 2;
}

/** Three eighths to a beat, as in 6/8 and 12/8, whatever they are divided into. */
const isCompound = ({ bar, slot, triplets }: LineMetre): boolean =>
  bar % COMPOUND === 0 && bar > COMPOUND && 3 * slot > BEAT && !triplets;

/**
 * How long what is felt as one lasts.
 *
 * @example inBeats(pulseOf(lineMetre({ beats: 12, unit: 8 }, 'eighths'))); // 3
 */
export const pulseOf = (metre: LineMetre): Beats =>
  isCompound(metre) ? COMPOUND : together(metre) * metre.slot;

/**
 * The longest a note in passing lasts: an eighth, or the note of the grid that is no longer.
 *
 * @example inBeats(passingOf(lineMetre({ beats: 4, unit: 4 }, 'sixteenths'))); // 0.5
 */
export const passingOf = (metre: LineMetre): Beats => {
  const eighth = isCompound(metre) ? BEAT : pulseOf(metre) / 2;
  return Math.floor(eighth / metre.slot) * metre.slot;
};

/** On the nearest moment a note may begin at. */
export const onGrid = (beat: Beats, slot: Beats): Beats => Math.round(beat / slot) * slot;

/** The pulses of the bars between two beats. */
export function pulsesOf(metre: LineMetre, from: Beats, to: Beats): readonly Pulse[] {
  const { slot } = metre;
  const size = together(metre);
  const length = size * slot;
  const first = Math.floor(from / metre.bar);
  const last = Math.ceil(to / metre.bar);
  const pulses = range(first, last).flatMap((bar) => {
    const start = bar * metre.bar;
    return range(0, Math.ceil(metre.bar / length)).map((which): Pulse => {
      const beat = start + which * length;
      const left = Math.ceil((start + metre.bar - beat) / slot);
      return { beat, slots: Math.min(size, left) as Pulse['slots'] };
    });
  });
  return pulses.filter(({ beat, slots }) => beat + slots * slot > from && beat < to);
}

const ALONE: Cells = { busy: byName({ x: 1 }), calm: byName({ x: 3, '.': 1 }) };

/** When the notes of a pattern begin. */
const timesIn = (pattern: Pattern, { beat, slots }: Pulse, slot: Beats): readonly Beats[] =>
  pattern === 'ttt'
    ? range(0, 3).map((third) => beat + (third * slots * slot) / 3)
    : [...pattern].flatMap((sign, index) =>
        sign === 'x' && index < slots ? [beat + index * slot] : [],
      );

/** What a rhythm has to keep to: moments that must be struck, and those that must not. */
export interface Bounds {
  readonly struck: readonly Beats[];
  readonly silent: readonly Beats[];
}

/**
 * When notes begin in a pulse: a cell drawn by how much is said, of those that keep to the bounds; where
 * none does, what is asked for and nothing else.
 */
function cellIn(
  pulse: Pulse,
  { slot, triplets }: LineMetre,
  { cells }: StyleRow,
  density: number,
  { struck, silent }: Bounds,
  chance: Chance,
): readonly Beats[] {
  const end = pulse.beat + pulse.slots * slot;
  const wanted = struck.filter((beat) => beat >= pulse.beat && beat < end);
  const { busy, calm } = pulse.slots === 1 ? ALONE : cells[pulse.slots];
  const choices = [
    ...busy.map(([pattern, weight]) => [pattern, weight * density] as const),
    ...calm.map(([pattern, weight]) => [pattern, weight * (1 - density)] as const),
  ].filter(([pattern, weight]) => {
    if (weight <= 0 || (pattern === 'ttt' && !triplets)) return false;
    const times = timesIn(pattern, pulse, slot);
    return (
      wanted.every((beat) => times.includes(beat)) && !times.some((beat) => silent.includes(beat))
    );
  });
  const drawn = chance();
  return choices.length === 0
    ? wanted
    : timesIn(
        weighed(choices, () => drawn),
        pulse,
        slot,
      );
}

/**
 * Whether a moment is one a hand counts: the beginning of a pulse.
 *
 * @example isStrong(BEAT / 2, lineMetre({ beats: 4, unit: 4 }, 'eighths')); // false
 */
export function isStrong(beat: Beats, metre: LineMetre): boolean {
  const within = beat - Math.floor(beat / metre.bar) * metre.bar;
  return within % pulseOf(metre) === 0;
}

/** Moments of a rhythm between two beats, drawn pulse by pulse. */
export function rhythmIn(
  metre: LineMetre,
  style: StyleRow,
  from: Beats,
  to: Beats,
  density: number,
  bounds: Bounds,
  chance: Chance,
): readonly Beats[] {
  const pulses = pulsesOf(metre, from, to);
  return pulses.flatMap((pulse) => {
    // A pulse that is begun within has no triplet.
    const whole = pulse.beat >= from && pulse.beat + pulse.slots * metre.slot <= to;
    const found = cellIn(
      pulse,
      whole ? metre : { ...metre, triplets: false },
      style,
      density,
      bounds,
      chance,
    );
    return found.filter((beat) => beat >= from && beat < to);
  });
}
