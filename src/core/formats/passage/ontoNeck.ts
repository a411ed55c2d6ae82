/** Notes of a file laid on a neck: those that lie off it are moved by octaves, and that is said. */
import { rememberBy } from '../../cache';
import { placePitches } from '../../licks/refinger';
import { type Neck, type Place, placesOfPitch } from '../../neck/neck';
import type { Midi } from '../../notes/pitch';
import { counted } from '../../words';

const OCTAVE = 12;
/** Octaves that are tried for all notes together, the nearest first. */
const TRIED = [0, -1, 1, -2, 2, -3, 3] as const;

interface OnNeck {
  readonly places: readonly Place[];
  /** Half steps each note was moved by. */
  readonly moved: readonly number[];
  readonly remarks: readonly string[];
}

const octaves = (count: number): string =>
  `${Math.abs(count) === 1 ? 'an octave' : `${Math.abs(count)} octaves`} ${count < 0 ? 'lower' : 'higher'}`;

/** Places for all pitches, all of them in one octave where the neck has room for them; null where a neck has none. */
export function ontoNeck(neck: Neck, pitches: readonly Midi[]): OnNeck | null {
  const there = rememberBy(String, (midi: Midi) => placesOfPitch(neck, midi).length > 0);
  const off = (by: number) => pitches.filter((midi) => !there(midi + OCTAVE * by)).length;
  const whole = TRIED.reduce((best: number, one) => (off(one) < off(best) ? one : best), 0);
  let single = 0;
  const moved = pitches.map((midi) => {
    const by = [whole, ...TRIED].find((octave) => there(midi + OCTAVE * octave));
    if (by !== undefined && by !== whole) single += 1;
    return OCTAVE * (by ?? whole);
  });
  const places = placePitches(
    neck,
    pitches.map((midi, index) => midi + (moved[index] ?? 0)),
  );
  if (!places) return null;
  return {
    places,
    moved,
    remarks: [
      ...(whole === 0 ? [] : [`The melody lies off the neck: it was moved ${octaves(whole)}.`]),
      ...(single === 0
        ? []
        : [
            `${counted(single, 'note lies', 'notes lie')} off the neck and ${single === 1 ? 'was' : 'were'} moved by octaves.`,
          ]),
    ],
  };
}
