/**
 * The blues lens: what the tonic's blues gives over I, IV and V. Within one dominant the flat third
 * rises to the third; from I to IV the third of I falls a half step to the seventh of IV.
 */
import type { Chord } from '../chords/chords';
import { collection } from '../collections/collections';
import { isMinorKey } from '../keys/keys';
import { degree } from '../notes/degrees';
import { halfSteps, intervalBetween } from '../notes/notes';
import type { LensAnswer, Suggestion } from './lens';
import { arpeggio, chordOn, collectionMaterial, type Material } from './material';

const SHARP_NINTH = degree('#2');

const say = (material: Material, why: string, common = false): Suggestion => ({
  lens: 'blues',
  material,
  why,
  common,
});

const on = (root: Chord['root'], name: string): Material =>
  collectionMaterial(collection(root, name));

/** A dominant that is the whole chart: the blues of its root, and over a sharp ninth before all. */
function overVamp({ root, quality }: Chord): readonly Suggestion[] {
  const minor = on(root, 'minor blues');
  const blended = say(on(root, 'blended blues'), 'major and minor blues in one', true);
  if (!quality.degrees.includes(SHARP_NINTH)) {
    const major = say(on(root, 'major blues'), 'the blue third pushes up into the third', true);
    return [blended, major, say(minor, 'the minor blues of the chord’s own root')];
  }
  const why = 'its flat third is the sharp ninth of the chord';
  return [
    { ...say(on(root, 'minor pentatonic'), why, true), front: true },
    { ...say(minor, why, true), front: true },
    blended,
  ];
}

export const bluesLens: LensAnswer = ({ chord, key, blues, settings }) => {
  if (settings.includes('vamp') && chord.quality.family === 'dominant') return overVamp(chord);
  if (key === null) return [];
  const { tonic } = key;
  const above = halfSteps(intervalBetween(tonic, chord.root));
  const tonicMinor = on(tonic, 'minor blues');
  if (isMinorKey(key)) {
    const five =
      above === 7 ? [say(arpeggio(chord), 'the V’s own arpeggio, its third above all')] : [];
    return [...five, say(tonicMinor, 'the tonic’s minor blues', above === 0)];
  }
  if (!blues) {
    return [
      say(on(tonic, 'major blues'), 'the tonic’s major blues', above === 0),
      say(tonicMinor, 'the tonic’s minor blues, against the major key'),
    ];
  }
  const minor = say(tonicMinor, 'the tonic’s minor blues', above === 5);
  switch (above) {
    case 0:
      return [
        say(on(tonic, 'major blues'), 'the blue third pushes up into the third', true),
        say(on(tonic, 'blended blues'), 'major and minor blues in one', true),
        minor,
      ];
    case 5:
      return [
        minor,
        say(
          on(tonic, 'minor sixth blues'),
          'the tonic’s blues with this chord’s third in place of the tonic’s seventh',
          true,
        ),
        say(on(chord.root, 'major blues'), 'the shape of I moved up to IV'),
      ];
    case 7:
      return [
        say(arpeggio({ ...chord, bass: null }), 'the V’s own arpeggio, its third above all', true),
        say(
          arpeggio(chordOn(chord.root, '7#5', chord)),
          'an augmented V for an old-time turn: its #5 is the tonic’s blue third',
        ),
        say(on(chord.root, 'major blues'), 'the shape of I moved up to V'),
        minor,
      ];
    default:
      return [minor, say(on(chord.root, 'major blues'), 'the shape of I moved to this root')];
  }
};
