/** Rhythms: where notes may begin in a metre, and the cells they are chosen from. */
import { range } from '../lists';
import type { TimeSignature } from '../time/metre';
import { notesPerBeat, type Subdivision } from '../time/subdivision';
import { type Beats, NEAR } from '../time/units';
import { type Chance, weighed } from './chance';
import type { Cells, Pattern } from './cells';
import type { StyleRow } from './styles';

/** What a line's time is divided by. */
export interface LineMetre {
  /** Beats to a bar. */
  readonly bar: Beats;
  /** Notes to a beat. */
  readonly per: number;
  /** Whether two notes may give way to three: eighths of a quarter do. */
  readonly triplets: boolean;
}

/** Some of a bar's time that is felt as one: a beat of eighths, a beat of triplets. */
export interface Pulse {
  readonly beat: Beats;
  readonly slots: 1 | 2 | 3 | 4;
}

/** How a line in notes of a value is divided in a metre. */
export function lineMetre({ beats, unit }: TimeSignature, subdivision: Subdivision): LineMetre {
  const triplets = subdivision === 'eighths' && unit === 4;
  return { bar: beats, per: notesPerBeat(subdivision, unit), triplets };
}

/** How many notes are felt together: threes in compound metres and triplets, else twos or fours. */
function together({ bar, per }: LineMetre): 2 | 3 | 4 {
  if (per % 3 === 0 || per === 1.5) return 3;
  if (per === 1 && bar % 3 === 0 && bar > 3) return 3;
  if (per >= 4) return 4;
  return 2;
}

/** Three eighths to a beat, as in 6/8 and 12/8, whatever they are divided into. */
const isCompound = ({ bar, per, triplets }: LineMetre): boolean =>
  bar % 3 === 0 && bar > 3 && per < 3 && !triplets;
const COMPOUND: Beats = 3;

/** How long what is felt as one lasts. */
export const pulseOf = (metre: LineMetre): Beats =>
  isCompound(metre) ? COMPOUND : together(metre) / metre.per;

/** The longest a note in passing lasts: an eighth, or the note of the grid that is no longer. */
export const passingOf = (metre: LineMetre): Beats => {
  const eighth = isCompound(metre) ? 1 : pulseOf(metre) / 2;
  return Math.floor(eighth * metre.per + NEAR) / metre.per;
};

/** On the nearest moment a note may begin at. */
export const onGrid = (beat: Beats, per: number): Beats => Math.round(beat * per) / per;

/** The pulses of the bars between two beats. */
export function pulsesOf(metre: LineMetre, from: Beats, to: Beats): readonly Pulse[] {
  const slot = 1 / metre.per;
  const size = together(metre);
  const length = size * slot;
  const first = Math.floor((from + NEAR) / metre.bar);
  const last = Math.ceil((to - NEAR) / metre.bar);
  const pulses = range(first, last).flatMap((bar) => {
    const start = bar * metre.bar;
    return range(0, Math.ceil(metre.bar / length - NEAR)).map((which): Pulse => {
      const beat = start + which * length;
      const left = Math.ceil((start + metre.bar - beat) / slot - NEAR);
      return { beat, slots: Math.min(size, left) as Pulse['slots'] };
    });
  });
  return pulses.filter(({ beat, slots }) => beat + slots * slot > from + NEAR && beat < to - NEAR);
}

const ALONE: Cells = {
  busy: [['x', 1]],
  calm: [
    ['x', 3],
    ['.', 1],
  ],
};

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

const has = (beats: readonly Beats[], beat: Beats): boolean =>
  beats.some((one) => Math.abs(one - beat) < NEAR);

/**
 * When notes begin in a pulse: a cell drawn by how much is said, of those that keep to the bounds; where
 * none does, what is asked for and nothing else.
 */
function cellIn(
  pulse: Pulse,
  { per, triplets }: LineMetre,
  { cells }: StyleRow,
  density: number,
  { struck, silent }: Bounds,
  chance: Chance,
): readonly Beats[] {
  const slot = 1 / per;
  const end = pulse.beat + pulse.slots * slot;
  const wanted = struck.filter((beat) => beat >= pulse.beat - NEAR && beat < end - NEAR);
  const { busy, calm } = pulse.slots === 1 ? ALONE : cells[pulse.slots];
  const choices = [
    ...busy.map(([pattern, weight]) => [pattern, weight * density] as const),
    ...calm.map(([pattern, weight]) => [pattern, weight * (1 - density)] as const),
  ].filter(([pattern, weight]) => {
    if (weight <= 0 || (pattern === 'ttt' && !triplets)) return false;
    const times = timesIn(pattern, pulse, slot);
    return wanted.every((beat) => has(times, beat)) && !times.some((beat) => has(silent, beat));
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

/** Whether a moment is one a hand counts: the beginning of a pulse. */
export function isStrong(beat: Beats, metre: LineMetre): boolean {
  const within = beat - Math.floor((beat + NEAR) / metre.bar) * metre.bar;
  const pulses = within / pulseOf(metre);
  return Math.abs(pulses - Math.round(pulses)) < NEAR;
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
    const whole = pulse.beat >= from - NEAR && pulse.beat + pulse.slots / metre.per <= to + NEAR;
    const found = cellIn(
      pulse,
      whole ? metre : { ...metre, triplets: false },
      style,
      density,
      bounds,
      chance,
    );
    return found.filter((beat) => beat >= from - NEAR && beat < to - NEAR);
  });
}
