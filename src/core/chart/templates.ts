/** Forms to start a chart from, in Roman numerals so that they serve every key. */
import { type Key, writeKey } from '../keys/keys';
import { toSymbols } from './rewrite';

export interface Template {
  readonly id: string;
  readonly group: 'Blues' | 'Turnarounds' | 'ii–V chains' | 'Vamps';
  readonly name: string;
  readonly mode: 'major' | 'minor' | 'dorian' | 'mixolydian' | 'lydian';
  readonly bars: readonly string[];
}

export const TEMPLATES: readonly Template[] = [
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
