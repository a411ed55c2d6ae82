/** Tunings players use, and what an instrument may be. */
import { type Midi, parsePitch } from '../notes/pitch';
import { parseNote } from '../notes/notes';
import { type Neck, NECK_LIMITS, parseTuning, STANDARD_NECK } from './neck';

/** A tuning by its name. */
export interface Tuning {
  readonly name: string;
  /** Open strings, lowest first. */
  readonly strings: readonly string[];
}

/** Tunings to choose from; a player may write others. */
export const TUNINGS: readonly Tuning[] = [
  { name: 'Standard', strings: ['E2', 'A2', 'D3', 'G3', 'B3', 'E4'] },
  { name: 'Half step down', strings: ['Eb2', 'Ab2', 'Db3', 'Gb3', 'Bb3', 'Eb4'] },
  { name: 'Whole step down', strings: ['D2', 'G2', 'C3', 'F3', 'A3', 'D4'] },
  { name: 'Drop D', strings: ['D2', 'A2', 'D3', 'G3', 'B3', 'E4'] },
  { name: 'Double drop D', strings: ['D2', 'A2', 'D3', 'G3', 'B3', 'D4'] },
  { name: 'DADGAD', strings: ['D2', 'A2', 'D3', 'G3', 'A3', 'D4'] },
  { name: 'Open G', strings: ['D2', 'G2', 'D3', 'G3', 'B3', 'D4'] },
  { name: 'All fourths', strings: ['E2', 'A2', 'D3', 'G3', 'C4', 'F4'] },
  { name: 'Seven-string', strings: ['B1', 'E2', 'A2', 'D3', 'G3', 'B3', 'E4'] },
  { name: 'Eight-string', strings: ['F#1', 'B1', 'E2', 'A2', 'D3', 'G3', 'B3', 'E4'] },
  { name: 'Four strings, as a bass', strings: ['E1', 'A1', 'D2', 'G2'] },
];

const CAPO_LIMIT = 12;
const PITCHES = { low: 12, high: 96 } as const;

interface NeckRequest {
  readonly tuning?: readonly string[] | undefined;
  readonly frets?: number | undefined;
  readonly capo?: number | undefined;
}

type NeckResult =
  | { readonly ok: true; readonly neck: Neck }
  | {
      readonly ok: false;
      readonly kind: 'unreadable' | 'out of range';
      readonly message: string;
      readonly field: keyof NeckRequest;
    };

const refuse = (
  field: keyof NeckRequest,
  message: string,
  kind: 'unreadable' | 'out of range' = 'out of range',
): NeckResult => ({
  ok: false,
  kind,
  message,
  field,
});

const inRange = (midi: Midi): boolean => midi >= PITCHES.low && midi <= PITCHES.high;

/**
 * A neck as it is asked for, standard where it says nothing; or why there is no such neck.
 *
 * @example
 * makeNeck({ tuning: ["E1", "A1", "D2", "G2"], frets: 20 }).neck.tuning.length; // 4
 * makeNeck({ frets: 99 }).ok; // false
 */
export function makeNeck({ tuning, frets, capo }: NeckRequest): NeckResult {
  const pitches = tuning ? parseTuning(tuning) : STANDARD_NECK.tuning;
  if (pitches === null) {
    const wrong =
      tuning?.find((name) => parsePitch(name) === null && parseNote(name) === null) ??
      tuning?.find((name) => parsePitch(name) === null) ??
      '';
    const message = `“${wrong}” is not an open string: write it like E2 or F#1.`;
    return refuse('tuning', message, 'unreadable');
  }
  const { strings, frets: range } = NECK_LIMITS;
  if (pitches.length < strings.low || pitches.length > strings.high) {
    return refuse('tuning', `A neck has ${strings.low} to ${strings.high} strings.`);
  }
  if (!pitches.every(inRange)) return refuse('tuning', 'Open strings lie between C0 and C7.');
  const count = frets ?? STANDARD_NECK.frets;
  if (!Number.isInteger(count) || count < range.low || count > range.high) {
    return refuse('frets', `A neck has ${range.low} to ${range.high} frets.`);
  }
  const behind = capo ?? 0;
  if (!Number.isInteger(behind) || behind < 0 || behind > Math.min(CAPO_LIMIT, count - 5)) {
    return refuse('capo', `The capo sits at fret 0 to ${Math.min(CAPO_LIMIT, count - 5)}.`);
  }
  return { ok: true, neck: { tuning: pitches, frets: count, capo: behind } };
}

/** Half steps between neighbouring strings of a guitar in standard tuning, from the highest down. */
const STANDARD_INTERVALS = [5, 4, 5, 5, 5, 5, 5] as const;

/** Whether the strings lie apart as on a guitar in standard tuning, at whatever pitch. */
export function hasStandardIntervals({ tuning }: Neck): boolean {
  const fromHighest = [...tuning].reverse();
  return fromHighest
    .slice(1)
    .every((midi, index) => (fromHighest[index] ?? 0) - midi === STANDARD_INTERVALS[index]);
}
