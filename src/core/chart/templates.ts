/** Forms to start a chart from, in Roman numerals so that they serve every key. */
import { type Key, writeKey } from '../keys/keys';
import { toSymbols } from './rewrite';

/** A progression to begin from, in any key. */
export interface Template {
  readonly id: string;
  readonly group:
    'Loops' | 'Blues' | 'Turnarounds' | 'ii–V chains' | 'Vamps' | 'Keys in order' | 'Longer forms';
  readonly name: string;
  readonly mode: 'major' | 'minor' | 'dorian' | 'mixolydian' | 'lydian';
  readonly bars: readonly string[];
}

/** The progressions a chart may begin from: common forms, and no tune. */
export const TEMPLATES: readonly Template[] = [
  {
    id: 'loop-1564',
    group: 'Loops',
    name: 'I V vi IV',
    mode: 'major',
    bars: ['|: I | V | vi | IV :| x4'],
  },
  {
    id: 'loop-1645',
    group: 'Loops',
    name: 'I vi IV V',
    mode: 'major',
    bars: ['|: I | vi | IV | V :| x4'],
  },
  {
    id: 'loop-1464',
    group: 'Loops',
    name: 'I IV vi V',
    mode: 'major',
    bars: ['|: I | IV | vi | V :| x4'],
  },
  {
    id: 'loop-minor-down',
    group: 'Loops',
    name: 'Minor: i ♭VII ♭VI V',
    mode: 'minor',
    bars: ['|: i | bVII | bVI | V :| x4'],
  },
  {
    id: 'loop-minor-6',
    group: 'Loops',
    name: 'Minor: i ♭VI ♭III ♭VII',
    mode: 'minor',
    bars: ['|: i | bVI | bIII | bVII :| x4'],
  },
  {
    id: 'loop-flat-seven',
    group: 'Loops',
    name: 'I ♭VII IV I',
    mode: 'major',
    bars: ['|: I | bVII | IV | I :| x4'],
  },
  {
    id: 'loop-flat-three',
    group: 'Loops',
    name: 'I ♭III ♭VII IV',
    mode: 'major',
    bars: ['|: I | bIII | bVII | IV :| x4'],
  },
  {
    id: 'loop-minor-four',
    group: 'Loops',
    name: 'I III7 IV iv',
    mode: 'major',
    bars: ['|: I | III7 | IV | iv :| x4'],
  },
  {
    id: 'blues-12',
    group: 'Blues',
    name: '12-bar blues',
    mode: 'major',
    bars: ['| I7 | % | % | % |', '| IV7 | % | I7 | % |', '| V7 | IV7 | I7 | V7 |'],
  },
  {
    id: 'blues-12-quick',
    group: 'Blues',
    name: '12-bar blues, quick change',
    mode: 'major',
    bars: ['| I7 | IV7 | I7 | % |', '| IV7 | % | I7 | % |', '| V7 | IV7 | I7 IV7 | I7 V7 |'],
  },
  {
    id: 'blues-12-jazz',
    group: 'Blues',
    name: '12-bar blues with ii–V’s',
    mode: 'major',
    bars: [
      '| I7 | IV7 | I7 | v7 I7 |',
      '| IV7 | #ivo7 | I7 | iiiø7 VI7b9 |',
      '| ii7 | V7 | I7 VI7b9 | ii7 V7 |',
    ],
  },
  {
    id: 'blues-12-minor',
    group: 'Blues',
    name: '12-bar minor blues',
    mode: 'minor',
    bars: ['| i7 | iv7 | i7 | % |', '| iv7 | % | i7 | % |', '| bVI7 | V7 | i7 | iiø7 V7 |'],
  },
  {
    id: 'blues-8',
    group: 'Blues',
    name: '8-bar blues',
    mode: 'major',
    bars: ['| I7 | V7 | IV7 | % |', '| I7 | V7 | I7 IV7 | I7 V7 |'],
  },
  {
    id: 'blues-16',
    group: 'Blues',
    name: '16-bar blues',
    mode: 'major',
    bars: [
      '| I7 | % | % | % |',
      '| I7 | % | % | % |',
      '| IV7 | % | I7 | % |',
      '| V7 | IV7 | I7 | V7 |',
    ],
  },
  {
    id: 'turnaround-1625',
    group: 'Turnarounds',
    name: 'I vi ii V',
    mode: 'major',
    bars: ['| Imaj7 vi7 | ii7 V7 |'],
  },
  {
    id: 'turnaround-3625',
    group: 'Turnarounds',
    name: 'iii VI ii V',
    mode: 'major',
    bars: ['| iii7 VI7 | ii7 V7 |'],
  },
  {
    id: 'turnaround-diminished',
    group: 'Turnarounds',
    name: 'With passing diminished chords',
    mode: 'major',
    bars: ['| Imaj7 #io7 | ii7 #iio7 | iii7 VI7 | ii7 V7 |'],
  },
  {
    id: 'turnaround-tritone',
    group: 'Turnarounds',
    name: 'With tritone substitutes',
    mode: 'major',
    bars: ['| Imaj7 bIII7 | bVImaj7 bII7 |'],
  },
  {
    id: 'turnaround-minor',
    group: 'Turnarounds',
    name: 'Minor: i vi ii V',
    mode: 'minor',
    bars: ['| i6 viø7 | iiø7 V7b9 |'],
  },
  {
    id: 'two-five-one',
    group: 'ii–V chains',
    name: 'ii V I',
    mode: 'major',
    bars: ['| ii7 | V7 | Imaj7 | % |'],
  },
  {
    id: 'two-five-one-minor',
    group: 'ii–V chains',
    name: 'iiø V i',
    mode: 'minor',
    bars: ['| iiø7 | V7b9 | i6 | % |'],
  },
  {
    id: 'two-fives-down',
    group: 'ii–V chains',
    name: 'Falling by whole steps',
    mode: 'major',
    bars: ['| ii7 V7 | Imaj7 | i7 IV7 | bVIImaj7 |', '| bvii7 bIII7 | bVImaj7 | iiø7 V7 | Imaj7 |'],
  },
  {
    id: 'two-fives-chromatic',
    group: 'ii–V chains',
    name: 'Falling by half steps',
    mode: 'major',
    bars: ['| iii7 VI7 | biii7 bVI7 | ii7 V7 | Imaj7 |'],
  },
  {
    id: 'dominant-cycle',
    group: 'ii–V chains',
    name: 'Dominants round the cycle',
    mode: 'major',
    bars: ['| III7 | % | VI7 | % |', '| II7 | % | V7 | % |'],
  },
  {
    id: 'vamp-dorian',
    group: 'Vamps',
    name: 'Dorian: i7 IV7',
    mode: 'dorian',
    bars: ['|: i7 | IV7 :| x4'],
  },
  {
    id: 'vamp-mixolydian',
    group: 'Vamps',
    name: 'Mixolydian: I7 ♭VII',
    mode: 'mixolydian',
    bars: ['|: I7 | bVII :| x4'],
  },
  {
    id: 'vamp-aeolian',
    group: 'Vamps',
    name: 'Minor: i ♭VI ♭VII',
    mode: 'minor',
    bars: ['|: i | bVI | bVII | i :| x2'],
  },
  {
    id: 'vamp-lydian',
    group: 'Vamps',
    name: 'Lydian: I II',
    mode: 'lydian',
    bars: ['|: Imaj7 | II :| x4'],
  },
  {
    id: 'vamp-one',
    group: 'Vamps',
    name: 'One minor chord',
    mode: 'dorian',
    bars: ['|: i7 | % | % | % :| x2'],
  },
  {
    id: 'vamp-1-4',
    group: 'Vamps',
    name: 'I IV',
    mode: 'major',
    bars: ['|: I | % | IV | % :| x2'],
  },
  {
    id: 'vamp-1-4-dominant',
    group: 'Vamps',
    name: 'I7 IV7',
    mode: 'major',
    bars: ['|: I7 | % | IV7 | % :| x2'],
  },
  {
    id: 'vamp-one-dominant',
    group: 'Vamps',
    name: 'One dominant chord',
    mode: 'mixolydian',
    bars: ['|: I7 | % | % | % :| x2'],
  },
  {
    id: 'vamp-one-major',
    group: 'Vamps',
    name: 'One major chord',
    mode: 'major',
    bars: ['|: Imaj7 | % | % | % :| x2'],
  },
  {
    id: 'key-triads',
    group: 'Keys in order',
    name: 'Triads of a major key',
    mode: 'major',
    bars: ['| I | ii | iii | IV |', '| V | vi | viio | I |'],
  },
  {
    id: 'key-sevenths',
    group: 'Keys in order',
    name: 'Seventh chords of a major key',
    mode: 'major',
    bars: ['| Imaj7 | ii7 | iii7 | IVmaj7 |', '| V7 | vi7 | viiø7 | Imaj7 |'],
  },
  {
    id: 'key-minor',
    group: 'Keys in order',
    name: 'Seventh chords of a minor key',
    mode: 'minor',
    bars: ['| i7 | iiø7 | bIIImaj7 | iv7 |', '| v7 | bVImaj7 | bVII7 | i7 |'],
  },
  {
    id: 'key-circle',
    group: 'Keys in order',
    name: 'Seventh chords of a major key, falling by fifths',
    mode: 'major',
    bars: ['| Imaj7 | IVmaj7 | viiø7 | iii7 |', '| vi7 | ii7 | V7 | Imaj7 |'],
  },
  {
    id: 'form-32',
    group: 'Longer forms',
    name: '32 bars AABA, the bridge round the cycle',
    mode: 'major',
    bars: [
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
  },
  {
    id: 'form-16',
    group: 'Longer forms',
    name: '16 bars',
    mode: 'major',
    bars: [
      '| Imaj7 | vi7 | ii7 | V7 |',
      '| iii7 | VI7 | ii7 | V7 |',
      '| v7 | I7 | IVmaj7 | bVII7 |',
      '| Imaj7 VI7 | ii7 V7 | Imaj7 | % |',
    ],
  },
  {
    id: 'form-16-minor',
    group: 'Longer forms',
    name: '16 bars in minor',
    mode: 'minor',
    bars: [
      '| i7 | iv7 | i7 | % |',
      '| iv7 | bVII7 | bIIImaj7 | bVImaj7 |',
      '| iiø7 | V7b9 | i7 | % |',
      '| iv7 | V7b9 | i7 | iiø7 V7b9 |',
    ],
  },
];

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
