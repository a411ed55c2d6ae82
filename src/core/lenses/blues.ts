/**
 * The blues lens: what the tonic's blues gives over I, IV and V. Within one dominant the flat third
 * rises to the third; from I to IV the third of I falls a half step to the seventh of IV.
 */
import type { Chord } from '../chords/chords';
import { collection } from '../collections/collections';
import { isMinorKey } from '../keys/keys';
import { degree } from '../notes/degrees';
import { halfSteps, intervalBetween } from '../notes/notes';
import type { LensAnswer, LensContext, Suggestion } from './lens';
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
    { ...say(on(root, 'minor pentatonic'), why, true), front: 1 },
    { ...say(minor, why, true), front: 2 },
    blended,
  ];
}

const MAJOR_THIRD = degree('3');
const MAJOR_SEVENTH = degree('7');
const FLAT_SEVENTH = degree('b7');

/** Chords a blues or a rock song has at home: plain ones, and dominants. */
function isHomely({ quality }: Chord, minorKey: boolean): boolean {
  if (quality.degrees.includes(MAJOR_SEVENTH)) return false;
  if (quality.family === 'minor') return minorKey;
  return ['major', 'dominant', 'power', 'suspended'].includes(quality.family);
}

const ownTones = (five: Chord): Suggestion =>
  say(arpeggio({ ...five, bass: null }), 'the V’s own arpeggio, its third above all', true);

/** In blues and rock: the tonic's minor pentatonic and blues before all else, on I, IV and V. */
function ofTheTonic({ chord, key, idiom }: LensContext): readonly Suggestion[] {
  if (key === null || idiom.name === 'jazz') return [];
  const { tonic } = key;
  const above = halfSteps(intervalBetween(tonic, chord.root));
  const minorKey = isMinorKey(key);
  if (![0, 5, 7].includes(above) || !isHomely(chord, minorKey)) return [];
  const { degrees } = chord.quality;
  const pentatonic = say(
    on(tonic, 'minor pentatonic'),
    'the tonic’s minor pentatonic, on I, IV and V alike',
    true,
  );
  const blues = say(on(tonic, 'minor blues'), 'the tonic’s blues', true);
  // Over a dominant IV the third of I would be its major seventh: its own third stands instead.
  const third =
    above === 5 && degrees.includes(FLAT_SEVENTH)
      ? say(on(tonic, 'minor sixth blues'), 'the tonic’s blues with this chord’s third', true)
      : say(on(tonic, 'blended blues'), 'major and minor blues in one', true);
  const led = say(
    on(tonic, 'major-seventh minor pentatonic'),
    'the tonic’s pentatonic with this chord’s third',
    true,
  );
  // Where an idiom is only guessed, a dominant V is spelled before all: it is what turns round.
  const spelled = above === 7 && degrees.includes(FLAT_SEVENTH) && !idiom.given;
  return [
    ...(spelled ? [ownTones(chord)] : []),
    pentatonic,
    blues,
    ...(minorKey ? [] : [third]),
    ...(above === 7 && degrees.includes(MAJOR_THIRD) ? [led] : []),
  ].map((one, place) => ({ ...one, front: place + 1 }));
}

/** Blues scales of the tonic, and what players put over the chords of a blues. */
export const bluesLens: LensAnswer = (context) => {
  const before = ofTheTonic(context);
  const heard = new Set(before.map(({ material }) => material.mask));
  return [...before, ...atHome(context).filter(({ material }) => !heard.has(material.mask))];
};

function atHome({ chord, key, blues, settings }: LensContext): readonly Suggestion[] {
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
        ownTones(chord),
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
}
