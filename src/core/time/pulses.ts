/**
 * The felt beats of a bar and what lies between them, in every metre: how a pattern written once
 * ("on one, and the off-beat of two") is laid out in 4/4, 5/4, 7/8 or 12/8.
 */
import { at, range } from '../lists';
import type { FeelKind } from './feel';
import type { TimeSignature } from './metre';
import { BEAT, type Beats } from './units';

/** A felt beat. Pulses stand in groups of two or three, whose first is the strong one. */
export interface Pulse {
  /** From the beginning of the bar. */
  readonly beat: Beats;
  readonly beats: Beats;
  /** Its group within the bar, its place in the group, and how many stand there. */
  readonly group: number;
  readonly place: number;
  readonly of: number;
  /** Whether it falls into three. */
  readonly triple: boolean;
}

/** Where in a pulse: on it, its second half, the sixteenths around that, the middle of three. */
export type PulsePart = 'on' | 'e' | '&' | 'a' | 't';

/** Five are felt as three and two; any other odd number ends in a three. */
function groupsOf(count: number): readonly number[] {
  if (count <= 3) return [count];
  if (count === 5) return [3, 2];
  if (count % 3 === 0 && count % 2 === 1) return Array<number>(count / 3).fill(3);
  if (count === 6) return [3, 3];
  const pairs = Array<number>(Math.floor(count / 2)).fill(2);
  return count % 2 === 0 ? pairs : [...pairs.slice(1), 3];
}

/** Lengths of the pulses of a bar, in beats. */
function lengthsOf({ beats, unit }: TimeSignature): readonly number[] {
  if (unit <= 2) return Array<number>(beats * (4 / unit)).fill(unit / 4);
  if (unit === 4) return Array<number>(beats).fill(1);
  if (beats % 3 === 0) return Array<number>(beats / 3).fill(3);
  if (beats === 5) return [3, 2];
  if (unit === 16 && beats % 4 === 0) return Array<number>(beats / 4).fill(4);
  if (beats < 4) return [beats];
  return groupsOf(beats);
}

/**
 *
 * @example pulsesOf({ beats: 7, unit: 8 }).map(({ beats }) => inBeats(beats)); // [2,2,3]
 */
export function pulsesOf(time: TimeSignature): readonly Pulse[] {
  const lengths = lengthsOf(time);
  const groups =
    time.unit <= 2 ? range(0, time.beats).map(() => 4 / time.unit) : groupsOf(lengths.length);
  let beat: Beats = 0;
  let index = 0;
  return groups.flatMap((of, group) =>
    range(0, of).map((place): Pulse => {
      const beats = at(lengths, index) * BEAT;
      const triple = time.unit > 4 && at(lengths, index) === 3;
      const pulse = { beat, beats, group, place, of, triple };
      beat += beats;
      index += 1;
      return pulse;
    }),
  );
}

/** How far into a pulse a part of it is written. */
export function offsetIn({ beats, triple }: Pulse, part: PulsePart, feel: FeelKind): Beats {
  if (part === 'on') return 0;
  if (triple || feel === 'slow 12/8') return (beats * (part === 'e' || part === 't' ? 1 : 2)) / 3;
  if (part === '&') return beats / 2;
  return part === 'e' ? beats / 4 : (3 * beats) / 4;
}
