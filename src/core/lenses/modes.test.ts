import { describe, expect, test } from 'vitest';
import { readChart } from '../chart/form';
import { transposeChart } from '../chart/rewrite';
import { type Chord, chordNotes } from '../chords/chords';
import { parseChord } from '../chords/symbols';
import { COLLECTION_KINDS, collectionNotes } from '../collections/collections';
import { readHarmony } from '../harmony/reading';
import { at } from '../lists';
import { note, pitchClass } from '../notes/notes';
import { alone, modeContextAt } from './modeContext';
import { MODE_RULES, SETTINGS } from './modeRules';
import { type ModeChoice, modeFor, modesFor } from './modes';
import { modeWhy } from './modeWords';

/** Every mode over a chord of a chart, the default first, as `read` has it. */
function choicesAt(
  text: string,
  index: number,
  read: (choice: ModeChoice, chord: Chord) => string,
): readonly string[] {
  const result = readChart(text);
  if (!result.ok) throw new Error(result.problems[0]?.message);
  const context = modeContextAt(result.chart, readHarmony(result.chart), index);
  return context ? modesFor(context).map((choice) => read(choice, context.chord)) : [];
}

const modesAt = (text: string, index: number) =>
  choicesAt(text, index, ({ collection }) => collection.kind.name);

const MINOR_DOMINANT = ['phrygian dominant', 'altered', 'half-whole diminished'];

/** The defaults of chord-scale teaching and their alternatives, as charts. */
const TABLE: readonly (readonly [chart: string, index: number, modes: readonly string[]])[] = [
  ['key: C\n| Cmaj7 | Dm7 | G7 | Cmaj7 |', 0, ['ionian', 'lydian', 'major pentatonic']],
  ['key: C\n| C | Bb | F | C |', 0, ['ionian', 'mixolydian']],
  ['key: C\n| Cmaj7 | Fmaj7 | Cmaj7 |', 1, ['lydian', 'ionian']],
  ['key: C\n| Cmaj7 | Dbmaj7 | Cmaj7 |', 1, ['lydian', 'ionian']],
  ['key: C\n| Cmaj7 | Ebmaj7 | Cmaj7 |', 1, ['lydian', 'ionian']],
  ['key: C\n| Cmaj7 | Abmaj7 | Cmaj7 |', 1, ['lydian', 'ionian']],
  ['key: Cm\n| Cm | Bb | Ab | Cm |', 1, ['mixolydian', 'lydian', 'ionian']],
  ['key: C\n| Cmaj7 | Dm7 | G7 | Cmaj7 |', 1, ['dorian']],
  ['key: C\n| Cmaj7 | Em7 | Am7 | Dm7 | G7 |', 1, ['phrygian', 'dorian']],
  ['key: C\n| Cmaj7 | Em7 | Am7 | Dm7 | G7 |', 2, ['aeolian', 'dorian']],
  [
    'key: Cm\n| Cm7 | Fm7 | G7 | Cm7 |',
    0,
    ['aeolian', 'dorian', 'harmonic minor', 'melodic minor'],
  ],
  ['key: Cm\n| Cm7 | F7 | Dm7 | Cm7 |', 0, ['dorian', 'aeolian', 'melodic minor']],
  ['key: Cm\n| Cm6 | G7 | Cm6 |', 0, ['melodic minor', 'dorian']],
  ['key: Cm\n| Cm(maj7) | G7 | Cm6 |', 0, ['melodic minor', 'harmonic minor']],
  [
    'key: C\n| Dm7 | G7 | Cmaj7 |',
    1,
    ['mixolydian', 'lydian dominant', 'altered', 'half-whole diminished'],
  ],
  ['key: Cm\n| Dm7b5 | G7 | Cm7 |', 1, MINOR_DOMINANT],
  ['key: Cm\n| Cm | Bb | Ab | G |', 3, ['phrygian dominant', 'altered']],
  ['key: C\n| C | E7 | Am7 | Dm7 | G7 |', 1, MINOR_DOMINANT],
  ['key: C\n| C | E | Am | F |', 1, ['phrygian dominant', 'altered']],
  ['key: C\n| C | A7 | Dm7 | G7 |', 1, MINOR_DOMINANT],
  ['key: C\n| Dm7b5 | G7 | Cmaj7 | Am7 |', 1, MINOR_DOMINANT],
  ['key: C\n| Db7 | Cmaj7 |', 0, ['lydian dominant', 'mixolydian', 'altered']],
  ['key: C\n| Bb7 | Cmaj7 | Fmaj7 |', 0, ['lydian dominant', 'mixolydian', 'altered']],
  ['key: C\n| Cmaj7 | F7 | Em7 | Dm7 | G7 |', 1, ['lydian dominant', 'mixolydian', 'altered']],
  ['key: C\n| C7 | C7 | F7 | C7 | G7 | C7 |', 0, ['mixolydian', 'blended blues', 'major blues']],
  [
    'key: C\n| C7 | C7 | F7 | C7 | G7 | C7 |',
    1,
    ['mixolydian', 'altered', 'half-whole diminished', 'phrygian dominant'],
  ],
  ['| C7 |', 0, ['mixolydian', 'blended blues', 'major blues', 'minor blues']],
  ['| C | Db |', 0, ['phrygian dominant', 'phrygian']],
  ['| C | Db |', 1, ['lydian', 'ionian']],
  ['| Cm7 |', 0, ['dorian', 'aeolian']],
  ['| Cm7 | Dbm7 |', 0, ['dorian', 'aeolian']],
  ['key: C\n| C | G7#5 | C |', 1, ['whole tone', 'altered', 'mixolydian b6']],
  ['key: C\n| C | Gaug | C |', 1, ['whole tone', 'altered', 'mixolydian b6']],
  ['key: C\n| C | G13b9 | C |', 1, ['half-whole diminished', 'altered']],
  ['key: C\n| C | G7sus4 | C |', 1, ['mixolydian', 'dorian']],
  ['key: C\n| C | Bm7b5 | C |', 1, ['locrian natural 2', 'locrian']],
  ['key: C\n| C | C#dim7 | Dm7 |', 1, ['whole-half diminished', 'altered bb7']],
  ['key: C\n| Cmaj7#5 | F |', 0, ['lydian augmented', 'ionian #5']],
  ['key: C\n| Cmaj7#11 | F |', 0, ['lydian']],
];

describe('the table of modes', () => {
  test.each(TABLE)('%s at %i, in all twelve keys', (chart, index, expected) => {
    for (const to of ['C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B']) {
      const text = transposeChart(chart, note('C'), note(to)) ?? '';
      expect(modesAt(text, index).slice(0, expected.length), text).toEqual(expected);
    }
  });

  test('names only modes there are, and every setting decides something', () => {
    const known = new Set(COLLECTION_KINDS.map(({ name }) => name));
    for (const { offers } of MODE_RULES) {
      expect(offers.length).toBeGreaterThan(0);
      for (const { mode } of offers) expect(known.has(mode), mode).toBe(true);
    }
    for (const setting of SETTINGS) {
      expect(
        MODE_RULES.some((rule) => rule.setting === setting),
        setting,
      ).toBe(true);
    }
  });

  test('has a row for every chord, whose default holds its tones or is altered', () => {
    const symbols = [
      'C',
      'Cm',
      'Cdim',
      'Caug',
      'C5',
      'Csus2',
      'Csus4',
      'C6',
      'Cm6',
      'C7',
      'C9',
    ].concat(
      ...[
        'C13',
        'Cmaj7',
        'Cmaj9',
        'Cm7',
        'Cm9',
        'Cm11',
        'Cm7b5',
        'Cdim7',
        'C7b5',
        'C7#9',
        'C7sus4',
      ],
      ...[
        'C7alt',
        'C7b9',
        'C7#11',
        'C7b13',
        'C13b9',
        'Cm(maj7)',
        'Cmaj7#5',
        'Cadd9',
        'C69',
        'Cm69',
      ],
    );
    for (const symbol of symbols) {
      const chord = parseChord(symbol);
      if (!chord) throw new Error(symbol);
      const mode = modeFor(alone(chord));
      const notes = new Set(collectionNotes(mode).map(pitchClass));
      const missing = chordNotes(chord).filter((tone) => !notes.has(pitchClass(tone)));
      if (mode.kind.name !== 'altered') expect(missing, `${symbol} ${mode.kind.name}`).toEqual([]);
    }
  });
});

describe('the reasons for modes', () => {
  const reasonsAt = (text: string, index: number) =>
    choicesAt(text, index, (choice, chord) => modeWhy(chord, choice));

  test('“does not fall a fifth” is said only where it does not', () => {
    const charts = TABLE.map(([chart]) => chart);
    for (const text of charts) {
      const result = readChart(text);
      if (!result.ok) continue;
      const { chords } = result.chart;
      for (const { index, chord } of chords) {
        const says = reasonsAt(text, index).some((why) => why.includes('does not fall a fifth'));
        if (!says) continue;
        const next = at(chords, (index + 1) % chords.length).chord;
        expect((pitchClass(next.root) - pitchClass(chord.root) + 12) % 12, text).not.toBe(5);
      }
    }
  });

  test('a leading note over a minor seventh says what it raises, over a triad nothing', () => {
    const [, , harmonic] = reasonsAt('key: Cm\n| Cm7 | Fm7 | G7 | Cm7 |', 0);
    expect(harmonic).toContain('raises the chord’s own b7');
    for (const why of reasonsAt('key: Cm\n| Cm | Fm | G7 | Cm |', 0)) {
      expect(why).not.toContain('raises');
    }
  });

  test('a mode of the melodic minor names its parent', () => {
    const [first] = reasonsAt('key: C\n| Db7 | Cmaj7 |', 0);
    expect(first).toContain('(Ab melodic minor from its fourth)');
  });
});

test('in any key the mode holds every tone of the chord', () => {
  const roots = 'C Db D Eb E F F# G Ab A Bb B'.split(' ');
  for (const suffix of ['', 'm', '7', 'maj7', 'm7', 'm7b5', 'dim7', '6', 'm6', '7sus4', '7#9']) {
    for (const root of roots) {
      const chord = parseChord(root + suffix);
      if (!chord) throw new Error(root + suffix);
      for (const tonic of roots.map(note)) {
        const home = { tonic, mode: 'major' } as const;
        const scale = modeFor({ ...alone(chord), key: home, moment: home });
        const held = new Set(collectionNotes(scale).map(pitchClass));
        const missing = chordNotes(chord).filter((tone) => !held.has(pitchClass(tone)));
        if (scale.kind.name !== 'altered')
          expect([root + suffix, tonic, missing]).toEqual([root + suffix, tonic, []]);
      }
    }
  }
});
