/** The simplifying lens: several chords under one sound, or a chord heard as an easier one. */
import { type Chord, chordName } from '../chords/chords';
import { FALLING_FIFTH, rootMotion } from '../harmony/changes';
import { degree } from '../notes/degrees';
import { halfSteps, intervalBetween, keptNear, note, transpose } from '../notes/notes';
import type { CadenceAround, LensAnswer, LensContext, Suggestion, Switch } from './lens';
import { arpeggio, chordOn, type Material } from './material';

const up = (chord: Chord, by: string) => transpose(chord.root, degree(by));

const say = (
  material: Material,
  why: string,
  rest: {
    readonly covers?: Suggestion['covers'];
    readonly then?: Switch;
    readonly common?: boolean;
  } = {},
): Suggestion => {
  const { covers, then, common = false } = rest;
  return {
    lens: 'simplify',
    material,
    why,
    common,
    ...(covers ? { covers } : {}),
    ...(then ? { then } : {}),
  };
};

const CADENCES: readonly CadenceAround['kind'][] = ['ii-V-I major', 'ii-V-I minor', 'ii-V'];

/** Over ii–V one sound of the subdominant; at home it gives way to the tonic. */
function overCadence({ chord, cadences, settings }: LensContext): readonly Suggestion[] {
  const cadence = cadences.find(({ kind }) => CADENCES.includes(kind));
  if (!cadence) return [];
  const { tonic } = cadence.key;
  const above = halfSteps(intervalBetween(tonic, chord.root));
  const covers = { before: cadence.before, after: cadence.after };
  const four = transpose(tonic, degree('4'));
  // A half-diminished ii makes it a minor cadence, though a major chord comes.
  const prepared =
    chord.quality.family === 'half-diminished' || settings.includes('after half-diminished');
  if (cadence.key.mode === 'minor' || prepared) {
    const sixth = chordOn(four, 'm6');
    if (above === 2) {
      const why = `the iv minor with a sixth: the same four notes, held through to the V`;
      return [say(arpeggio(sixth), why, { covers, common: true })];
    }
    if (above === 7) {
      const why = `${chordName(sixth)} again with one note changed: its fifth falls to the third of ${chordName({ ...chord, bass: null })}`;
      return [say(arpeggio(chordOn(four, 'dim7')), why, { covers, common: true })];
    }
    return [];
  }
  const subdominant = arpeggio(chordOn(four, 'maj7'));
  const home = arpeggio(chordOn(tonic, 'maj7'));
  if (above === 2) {
    return [say(subdominant, 'the ii and the V under one sound, the IV', { covers, common: true })];
  }
  if (above === 7) {
    const why = 'the IV still, giving way to the I inside the bar';
    return [say(subdominant, why, { covers, common: true, then: { to: home, after: 1 } })];
  }
  return [];
}

/** Roots a half step below the notes of a diminished seventh: of its root, third, fifth and seventh. */
const HALF_STEPS_BELOW = ['7', '2', '4', 'b6'] as const;

/** A chord that holds another, easier one. */
function heardAs({ chord, next }: LensContext): readonly Suggestion[] {
  const { name, family } = chord.quality;
  if (family === 'dominant' && chord.quality.core.includes(degree('5'))) {
    const why = 'a dominant heard as the minor seventh on its fifth';
    return [say(arpeggio(chordOn(up(chord, '5'), 'm7')), why)];
  }
  if (name === 'dim7') {
    return HALF_STEPS_BELOW.map((below) => {
      const dominant = chordOn(keptNear(up(chord, below), note('C')), '7b9');
      const leads = next !== null && rootMotion(dominant, next) === FALLING_FIFTH;
      const why = `${chordName(dominant)} without its root, a half step below one of the notes`;
      return say(arpeggio(dominant), why, { common: leads });
    });
  }
  if (name === 'm7' || name === 'm9' || name === 'm11') {
    const why = 'a minor seventh is the major sixth a minor third up: the same notes';
    return [say(arpeggio(chordOn(up(chord, 'b3'), '6')), why)];
  }
  if (name === 'm7b5') {
    const why = 'a half-diminished is the minor sixth a minor third up: the same notes';
    return [say(arpeggio(chordOn(up(chord, 'b3'), 'm6')), why)];
  }
  if (name === '6' || name === '69') {
    const why = 'a major sixth is the minor seventh on its sixth: the same notes';
    return [say(arpeggio(chordOn(up(chord, '6'), 'm7')), why)];
  }
  if (name === 'm6' || name === 'm69') {
    const why = 'a minor sixth is the half-diminished on its sixth: the same notes';
    return [say(arpeggio(chordOn(up(chord, '6'), 'm7b5')), why)];
  }
  if (family === 'suspended' && chord.quality.core.includes(degree('b7'))) {
    const why = 'a sus dominant is the minor seventh on its fifth over its root';
    return [say(arpeggio(chordOn(up(chord, '5'), 'm7')), why, { common: true })];
  }
  return [];
}

/** One thing over several chords, as players simplify fast changes. */
export const simplifyLens: LensAnswer = (context) => {
  const found = [...overCadence(context), ...heardAs(context)];
  return found.filter(
    ({ material }, index) =>
      found.findIndex((other) => other.material.name === material.name) === index,
  );
};
