/** Forms to start a chart from, in Roman numerals so that they serve every key. */
import { type Key, writeKey } from '../keys/keys';
import { toSymbols } from './rewrite';

/** A progression to begin from, in any key. */
export interface Template {
  readonly name: string;
  readonly mode: 'major' | 'minor' | 'dorian' | 'mixolydian' | 'lydian';
  readonly bars: readonly string[];
}

/** Name, mode, lines of bars. */
type Row = readonly [name: string, mode: Template['mode'], ...bars: string[]];

const templates = (rows: readonly Row[]): readonly Template[] =>
  rows.map(([name, mode, ...bars]) => ({ name, mode, bars }));

/** The progressions a chart may begin from, group by group: common forms, and no tune. */
export const TEMPLATES: Readonly<Record<string, readonly Template[]>> = {
  Loops: templates([
    ['I V vi IV', 'major', '|: I | V | vi | IV :| x4'],
    ['I vi IV V', 'major', '|: I | vi | IV | V :| x4'],
    ['I IV vi V', 'major', '|: I | IV | vi | V :| x4'],
    ['Minor: i ♭VII ♭VI V', 'minor', '|: i | bVII | bVI | V :| x4'],
    ['Minor: i ♭VI ♭III ♭VII', 'minor', '|: i | bVI | bIII | bVII :| x4'],
    ['I ♭VII IV I', 'major', '|: I | bVII | IV | I :| x4'],
    ['I ♭III ♭VII IV', 'major', '|: I | bIII | bVII | IV :| x4'],
    ['I III7 IV iv', 'major', '|: I | III7 | IV | iv :| x4'],
  ]),
  Blues: templates([
    [
      '12-bar blues',
      'major',
      '| I7 | % | % | % |',
      '| IV7 | % | I7 | % |',
      '| V7 | IV7 | I7 | V7 |',
    ],
    [
      '12-bar blues, quick change',
      'major',
      '| I7 | IV7 | I7 | % |',
      '| IV7 | % | I7 | % |',
      '| V7 | IV7 | I7 IV7 | I7 V7 |',
    ],
    [
      '12-bar blues with ii–V’s',
      'major',
      '| I7 | IV7 | I7 | v7 I7 |',
      '| IV7 | #ivo7 | I7 | iiiø7 VI7b9 |',
      '| ii7 | V7 | I7 VI7b9 | ii7 V7 |',
    ],
    [
      '12-bar minor blues',
      'minor',
      '| i7 | iv7 | i7 | % |',
      '| iv7 | % | i7 | % |',
      '| bVI7 | V7 | i7 | iiø7 V7 |',
    ],
    ['8-bar blues', 'major', '| I7 | V7 | IV7 | % |', '| I7 | V7 | I7 IV7 | I7 V7 |'],
    [
      '16-bar blues',
      'major',
      '| I7 | % | % | % |',
      '| I7 | % | % | % |',
      '| IV7 | % | I7 | % |',
      '| V7 | IV7 | I7 | V7 |',
    ],
  ]),
  Turnarounds: templates([
    ['I vi ii V', 'major', '| Imaj7 vi7 | ii7 V7 |'],
    ['iii VI ii V', 'major', '| iii7 VI7 | ii7 V7 |'],
    ['With passing diminished chords', 'major', '| Imaj7 #io7 | ii7 #iio7 | iii7 VI7 | ii7 V7 |'],
    ['With tritone substitutes', 'major', '| Imaj7 bIII7 | bVImaj7 bII7 |'],
    ['Minor: i vi ii V', 'minor', '| i6 viø7 | iiø7 V7b9 |'],
  ]),
  'ii–V chains': templates([
    ['ii V I', 'major', '| ii7 | V7 | Imaj7 | % |'],
    ['iiø V i', 'minor', '| iiø7 | V7b9 | i6 | % |'],
    [
      'Falling by whole steps',
      'major',
      '| ii7 V7 | Imaj7 | i7 IV7 | bVIImaj7 |',
      '| bvii7 bIII7 | bVImaj7 | iiø7 V7 | Imaj7 |',
    ],
    ['Falling by half steps', 'major', '| iii7 VI7 | biii7 bVI7 | ii7 V7 | Imaj7 |'],
    ['Dominants round the cycle', 'major', '| III7 | % | VI7 | % |', '| II7 | % | V7 | % |'],
  ]),
  Vamps: templates([
    ['Dorian: i7 IV7', 'dorian', '|: i7 | IV7 :| x4'],
    ['Mixolydian: I7 ♭VII', 'mixolydian', '|: I7 | bVII :| x4'],
    ['Minor: i ♭VI ♭VII', 'minor', '|: i | bVI | bVII | i :| x2'],
    ['Lydian: I II', 'lydian', '|: Imaj7 | II :| x4'],
    ['One minor chord', 'dorian', '|: i7 | % | % | % :| x2'],
    ['I IV', 'major', '|: I | % | IV | % :| x2'],
    ['I7 IV7', 'major', '|: I7 | % | IV7 | % :| x2'],
    ['One dominant chord', 'mixolydian', '|: I7 | % | % | % :| x2'],
    ['One major chord', 'major', '|: Imaj7 | % | % | % :| x2'],
  ]),
  'Keys in order': templates([
    ['Triads of a major key', 'major', '| I | ii | iii | IV |', '| V | vi | viio | I |'],
    [
      'Seventh chords of a major key',
      'major',
      '| Imaj7 | ii7 | iii7 | IVmaj7 |',
      '| V7 | vi7 | viiø7 | Imaj7 |',
    ],
    [
      'Seventh chords of a minor key',
      'minor',
      '| i7 | iiø7 | bIIImaj7 | iv7 |',
      '| v7 | bVImaj7 | bVII7 | i7 |',
    ],
    [
      'Seventh chords of a major key, falling by fifths',
      'major',
      '| Imaj7 | IVmaj7 | viiø7 | iii7 |',
      '| vi7 | ii7 | V7 | Imaj7 |',
    ],
  ]),
  'Longer forms': templates([
    [
      '32 bars AABA, the bridge round the cycle',
      'major',
      '[A] x2',
      '| Imaj7 VI7 | ii7 V7 | iii7 VI7 | ii7 V7 |',
      '| I7 | IV7 #ivo7 | Imaj7 VI7 | ii7 V7 |',
      '[B]',
      '| III7 | % | VI7 | % |',
      '| II7 | % | V7 | % |',
      '[A]',
      '| Imaj7 VI7 | ii7 V7 | iii7 VI7 | ii7 V7 |',
      '| I7 | IV7 #ivo7 | Imaj7 V7 | Imaj7 |',
    ],
    [
      '16 bars',
      'major',
      '| Imaj7 | vi7 | ii7 | V7 |',
      '| iii7 | VI7 | ii7 | V7 |',
      '| v7 | I7 | IVmaj7 | bVII7 |',
      '| Imaj7 VI7 | ii7 V7 | Imaj7 | % |',
    ],
    [
      '16 bars in minor',
      'minor',
      '| i7 | iv7 | i7 | % |',
      '| iv7 | bVII7 | bIIImaj7 | bVImaj7 |',
      '| iiø7 | V7b9 | i7 | % |',
      '| iv7 | V7b9 | i7 | iiø7 V7b9 |',
    ],
  ]),
};

/** The chart text of a template on a tonic, in chord symbols. */
export function fromTemplate(template: Template, tonic: Key['tonic']): string {
  const key = writeKey({ tonic, mode: template.mode });
  const text = [
    `title: ${template.name} in ${key}`,
    `key: ${key}`,
    'tempo: 100',
    ...template.bars,
    '',
  ].join('\n');
  return toSymbols(text) ?? text;
}
