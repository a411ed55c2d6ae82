import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { transposeChart } from '../chart/rewrite';
import { chordNotes } from '../chords/chords';
import { readOver } from '../chords/over';
import { parseChord } from '../chords/symbols';
import { collection, collectionName } from '../collections/collections';
import { readHarmony } from '../harmony/reading';
import { at } from '../lists';
import { degreeName } from '../notes/degrees';
import { note, noteName, pitchClass, transpose } from '../notes/notes';
import { stackedOver, triadsIn } from './arpeggios';
import { assess, NOWHERE } from './assess';
import { bluesChains, type Chain, chainsThrough } from './chains';
import { coverageOf } from './coverage';
import type { Lens } from './table';
import { collectionMaterial, parseMaterial } from './material';
import { modesFor } from './modes';
import { nameByParent } from './modeWords';
import {
  lensContexts,
  type Option,
  optionsFor,
  reasonFor,
  tensionsOver,
  withFlatFifths,
} from './options';
import { rankSum } from './ranking';
import { propose, proposeIntents, type Style, STYLES } from './styles';
import { chartOf, runs } from '$tests/laws';

const chord = (symbol: string) => {
  const parsed = parseChord(symbol);
  if (!parsed) throw new Error(symbol);
  return parsed;
};

const material = (name: string) => {
  const parsed = parseMaterial(name);
  if (!parsed) throw new Error(name);
  return parsed;
};

function optionsAt(text: string, index: number, lens?: Lens): readonly Option[] {
  const chart = chartOf(text);
  const context = at(lensContexts(chart, readHarmony(chart)), index);
  return optionsFor(context, undefined, lens ? [lens] : undefined);
}

const names = (options: readonly Option[]) => options.map((option) => option.material.name);
const find = (options: readonly Option[], name: string): Option => {
  const found = options.find((option) => option.material.name === name);
  if (!found) throw new Error(`${name} is not among ${names(options).join(', ')}`);
  return found;
};
const written = (notes: readonly Parameters<typeof noteName>[0][]) => notes.map(noteName).join(' ');

describe('what a note is over a chord', () => {
  const over = (symbol: string, name: string) =>
    readOver(chord(symbol), material(name).notes)
      .map(({ degree }) => degreeName(degree))
      .join(' ');

  test.each([
    ['Eb7alt', 'Eb altered', '1 b2 #2 3 b5 b6 b7'],
    ['C7', 'C altered', '1 b2 #2 3 b5 b6 b7'],
    ['C7', 'C minor pentatonic', '1 b3 4 5 b7'],
    ['Cdim7', 'C whole-half diminished', '1 2 b3 4 b5 b6 bb7 7'],
    ['C7#5', 'C whole tone', '1 2 3 #4 #5 b7'],
    ['Am7', 'E minor pentatonic', '5 b7 1 2 4'],
    ['Cm', 'Ab triad', 'b6 1 b3'],
  ])('over %s %s reads %s', (symbol, name, expected) => {
    expect(over(symbol, name)).toBe(expected);
  });

  test('every degree has a name players use, whatever the spelling', () => {
    const usual = new Set('1 b2 2 #2 b3 3 b4 4 #4 b5 5 #5 b6 6 bb7 b7 7'.split(' '));
    const roots = fc.integer({ min: -8, max: 10 });
    const symbols = fc.constantFrom('C7', 'Cm7', 'Cmaj7', 'C7alt', 'Cm7b5', 'Cdim7', 'C7sus4');
    fc.assert(
      fc.property(symbols, fc.array(roots, { minLength: 1, maxLength: 8 }), (symbol, notes) => {
        const degrees = readOver(chord(symbol), notes as unknown as ReturnType<typeof note>[]).map(
          ({ degree }) => degree,
        );
        expect(degrees.every((one) => usual.has(degreeName(one)))).toBe(true);
      }),
    );
  });
});

describe('materials by name', () => {
  test.each([
    'F lydian dominant',
    'Abmaj7 arpeggio',
    'Gb triad',
    'Bbm triad',
    'C minor sixth blues',
  ])('%s is read back as itself', (name) => {
    expect(material(name).name).toBe(name);
  });

  test.each(['', 'C', 'C wobbly', 'H triad', 'C/E arpeggio', 'arpeggio'])(
    '“%s” names nothing to play',
    (name) => {
      expect(parseMaterial(name)).toBeNull();
    },
  );
});

describe('the clash rule', () => {
  const clashes = (symbol: string, name: string) =>
    assess(chord(symbol), material(name), NOWHERE).clashes.map(
      ({ degree, above }) => `${degreeName(degree)} over ${noteName(above)}`,
    );

  test.each([
    ['Cmaj7', 'C ionian', ['4 over E']],
    ['Cmaj7', 'C lydian', []],
    ['Em7', 'E phrygian', ['b2 over E', 'b6 over B']],
    ['Am7', 'A aeolian', ['b6 over E']],
    ['Dm7', 'D dorian', []],
    ['Bm7b5', 'B locrian', ['b2 over B']],
    ['Bm7b5', 'B locrian natural 2', []],
    ['G7', 'G mixolydian', ['4 over B']],
    ['G7', 'G altered', []],
    ['G7', 'G phrygian dominant', ['4 over B']],
    ['G7', 'G half-whole diminished', []],
    ['G7', 'G mixolydian b6', ['4 over B', 'b6 over D']],
    // Blue notes are bent and passed through.
    ['C7', 'C blended blues', ['4 over E']],
    ['D9', 'A minor blues', ['4 over F#']],
  ])('over %s %s: %j', (symbol, name, expected) => {
    expect(clashes(symbol, name)).toEqual(expected);
  });

  test('every note is a chord tone, a clash, blue, a colour, or against the symbol, and one only', () => {
    const symbols = ['Cmaj7', 'C7', 'C7alt', 'Cm7', 'Cm7b5', 'Cdim7', 'C7#9', 'C6', 'Csus4', 'C5'];
    for (const symbol of symbols) {
      for (const name of ['C altered', 'F minor blues', 'G ionian', 'B minor pentatonic']) {
        const of = chord(symbol);
        const {
          covered,
          clashes: rubs,
          blue,
          colours,
          against,
        } = assess(of, material(name), NOWHERE);
        const sorts = [
          ...covered.map(pitchClass),
          ...rubs.map((clash) => pitchClass(clash.note)),
          ...[...blue, ...colours, ...against].map(pitchClass),
        ];
        expect(sorts.toSorted((a, b) => a - b)).toEqual(
          material(name)
            .notes.map(pitchClass)
            .toSorted((a, b) => a - b),
        );
      }
    }
  });
});

describe('one scale for the chart', () => {
  test('the price of E flat major pentatonic: no root of IV, no third of V', () => {
    const coverage = coverageOf(
      chartOf('key: Eb\n| Eb | Ab | Bb |'),
      material('Eb major pentatonic'),
    );
    expect(coverage.map(({ assessment }) => written(assessment.missing))).toEqual(['', 'Ab', 'D']);
    expect(coverage.map(({ sentence }) => sentence)).toEqual([
      'Bar 1, Eb: every chord tone is there.',
      'Bar 2, Ab: no root (Ab); the third and fifth are there.',
      'Bar 3, Bb: no third (D): the change will not be heard.',
    ]);
  });

  test('a key gives its pentatonic first; without a key the scales that say most are offered', () => {
    expect(names(optionsAt('key: Eb\n| Ab |', 0, 'key-scale'))).toContain('Eb major pentatonic');
    expect(names(optionsAt('key: F#m\n| Bm7 |', 0, 'key-scale'))).toContain('F# harmonic minor');
    const lost = optionsAt('| D | F | Ab | B |', 0, 'key-scale');
    expect(lost).toHaveLength(3);
    expect(reasonFor(chord('D'), at(lost, 0))).toMatch(/^No key holds this chart/u);
  });

  test('all the diatonic chords’ own pentatonics together are the key’s scale', () => {
    const chart = 'key: Ab\n| Abmaj7 | Bbm7 | Cm7 | Dbmaj7 | Eb7 | Fm7 |';
    const dealt = new Set(
      [0, 1, 2, 3, 4, 5].flatMap((index) =>
        at(optionsAt(chart, index, 'own-pentatonic'), 0).material.notes.map(pitchClass),
      ),
    );
    expect([...dealt].toSorted((a, b) => a - b)).toEqual(
      material('Ab ionian')
        .notes.map(pitchClass)
        .toSorted((a, b) => a - b),
    );
  });
});

describe('modes by function', () => {
  const modes = (text: string, index: number) => {
    const chart = chartOf(text);
    return modesFor(at(lensContexts(chart, readHarmony(chart)), index)).map(
      ({ collection: { root, kind } }) => `${noteName(root)} ${kind.name}`,
    );
  };

  test.each<[string, number, string[]]>([
    ['key: C\n| Cmaj7 | Dm7 | G7 | Cmaj7 |', 0, ['C ionian', 'C lydian', 'C major pentatonic']],
    ['key: C\n| Cmaj7 | Dm7 | G7 | Cmaj7 |', 1, ['D dorian']],
    [
      'key: C\n| Cmaj7 | Dm7 | G7 | Cmaj7 |',
      2,
      ['G mixolydian', 'G lydian dominant', 'G altered', 'G half-whole diminished'],
    ],
    ['key: C\n| Em7 | Am7 | Fmaj7 |', 0, ['E phrygian', 'E dorian']],
    ['key: C\n| Em7 | Am7 | Fmaj7 |', 1, ['A aeolian', 'A dorian']],
    ['key: C\n| Em7 | Am7 | Fmaj7 |', 2, ['F lydian', 'F ionian']],
    ['key: C\n| Bb7 | C |', 0, ['Bb lydian dominant', 'Bb mixolydian']],
    ['key: C\n| Db7 | C |', 0, ['Db lydian dominant', 'Db mixolydian']],
    ['key: C\n| G7sus4 | C |', 0, ['G mixolydian', 'D dorian']],
    ['key: C\n| G7#5 | C |', 0, ['G whole tone', 'G altered', 'G mixolydian b6']],
    ['key: C\n| G13b9 | C |', 0, ['G half-whole diminished']],
    ['key: C\n| Cmaj7#5 | F |', 0, ['C lydian augmented', 'C ionian #5']],
    ['key: F#m\n| G#m7b5 | C#7 | F#m7 |', 0, ['G# locrian natural 2', 'G# locrian']],
    ['key: F#m\n| G#m7b5 | C#7 | F#m7 |', 1, ['C# phrygian dominant', 'C# altered']],
    ['key: C\n| Bdim7 | C |', 0, ['B whole-half diminished', 'B altered bb7']],
    [
      'key: A\n| A7 | A7 | D7 | A7 | E7 | D7 | A7 |',
      0,
      ['A mixolydian', 'A blended blues', 'A major blues', 'A minor blues'],
    ],
    [
      'key: A\n| A7 | A7 | D7 | A7 | E7 | D7 | A7 |',
      1,
      ['A mixolydian', 'A altered', 'A half-whole diminished', 'A phrygian dominant'],
    ],
    [
      'key: Am\n| Am7 | Dm7 | E7 | Am7 |',
      0,
      ['A aeolian', 'A dorian', 'A harmonic minor', 'A melodic minor'],
    ],
    ['key: Am\n| Am | G | F | E |', 3, ['E phrygian dominant', 'E altered']],
    ['key: Am\n| Am | G | F | E |', 1, ['G mixolydian', 'G lydian']],
    ['key: C\n| C | E | Am | F |', 1, ['E phrygian dominant']],
    ['key: D\n| D | C | G | D |', 0, ['D ionian', 'D mixolydian']],
    ['key: C\n| Dm7b5 | G7 | Cmaj7 |', 1, ['G phrygian dominant', 'G altered']],
    ['key: C\n| C | Gaug | C |', 1, ['G whole tone', 'G altered']],
    ['| G7 |', 0, ['G mixolydian', 'G blended blues']],
    ['| Dm7 |', 0, ['D dorian', 'D aeolian']],
    ['| Dm7 | Ebm7 |', 1, ['Eb dorian', 'Eb aeolian']],
    ['| E | F |', 0, ['E phrygian dominant', 'E phrygian']],
    ['| E | F |', 1, ['F lydian']],
    ['key: Am\n| Am7 | D7 | Bm7 | Am7 |', 0, ['A dorian', 'A aeolian']],
    ['key: Am\n| Am6 | E7 |', 0, ['A melodic minor', 'A dorian']],
  ])('%s at %i', (text, index, expected) => {
    expect(modes(text, index).slice(0, expected.length)).toEqual(expected);
  });

  test('the three melodic minors of a minor ii–V–i spell the iv triad', () => {
    const three = [
      ['G#', 'locrian natural 2'],
      ['C#', 'altered'],
      ['F#', 'melodic minor'],
    ] as const;
    expect(three.map(([root, kind]) => nameByParent(collection(note(root), kind)))).toEqual([
      'B melodic minor from its sixth',
      'D melodic minor from its seventh',
      'F# melodic minor',
    ]);
    expect(written(chordNotes(chord('Bm')))).toBe('B D F#');
  });

  test('a parent hard to read names its easier one', () => {
    expect(nameByParent(collection(note('Eb'), 'altered'))).toBe(
      'Fb melodic minor from its seventh, easier as E melodic minor',
    );
  });
});

describe('stacked arpeggios', () => {
  test('over F minor seven in E flat each step up trades a chord tone for a tension', () => {
    const stacked = optionsAt('key: Eb\n| Fm7 | Bb7 | Ebmaj7 |', 0, 'stacked-arpeggio');
    const over = chord('Fm7');
    const read = (name: string) => tensionsOver(over, find(stacked, name)).join(' ');
    expect(read('Abmaj7 arpeggio')).toBe('b3 5 b7 9');
    expect(read('Cm7 arpeggio')).toBe('5 b7 9 11');
    expect(read('Ebmaj7 arpeggio')).toBe('b7 9 11 13');
  });

  test('on a I maj7 the one off the fifth is the maj7 with the sharp eleventh', () => {
    const stacked = stackedOver(chord('Abmaj7'), collection(note('Ab'), 'ionian'));
    expect(stacked.map((one) => one.chord.symbol)).toEqual(['Cm7', 'Ebmaj7', 'Gm7b5']);
    const options = optionsAt('key: Ab\n| Abmaj7 |', 0, 'stacked-arpeggio');
    const raised = find(options, 'Ebmaj7 arpeggio');
    expect(tensionsOver(chord('Abmaj7'), raised)).toEqual(['5', '7', '9', '#11']);
    expect(written(raised.assessment.outsideKey)).toBe('D');
  });
});

describe('borrowed pentatonics', () => {
  test.each([
    ['Cm7', 'C minor pentatonic', '1 b3 11 5 b7'],
    ['Cm7', 'D minor pentatonic', '9 11 5 13 1'],
    ['Cm7', 'G minor pentatonic', '5 b7 1 9 11'],
    ['Cmaj7', 'E minor pentatonic', '3 5 13 7 9'],
    ['Cmaj7', 'A minor pentatonic', '13 1 9 3 5'],
    ['Cmaj7', 'B minor pentatonic', '7 9 3 #11 13'],
    ['C7alt', 'Eb minor pentatonic', '#9 b5 b13 b7 b9'],
    ['C7alt', 'F minor pentatonic', '11 b13 b7 1 #9'],
    ['C7alt', 'Bb minor pentatonic', 'b7 b9 #9 11 b13'],
    ['C7', 'A minor pentatonic', '13 1 9 3 5'],
    ['C7', 'D minor pentatonic', '9 11 5 13 1'],
    ['C7', 'G minor pentatonic', '5 b7 1 9 11'],
    ['Cm7b5', 'Eb minor sixth pentatonic', 'b3 b5 b13 b7 1'],
    ['Cm7b5', 'Eb major flat-third pentatonic', 'b3 11 b5 b7 1'],
  ])('over %s %s gives %s, and is in common use', (symbol, name, expected) => {
    const option = find(optionsAt(`| ${symbol} |`, 0, 'borrowed-pentatonic'), name);
    expect(tensionsOver(chord(symbol), option).join(' ')).toBe(expected);
    expect(option.common).toBe(true);
  });

  test('all twelve roots of four kinds are computed over every chord', () => {
    for (const symbol of ['C', 'Cm6', 'C7alt', 'Cdim7', 'C7sus4', 'Caug', 'C5']) {
      const options = optionsAt(`| ${symbol} |`, 0, 'borrowed-pentatonic');
      for (const kind of [
        'minor pentatonic',
        'minor sixth pentatonic',
        'dominant pentatonic',
        'major flat-sixth pentatonic',
      ]) {
        const roots = options.filter((option) => option.material.kind === kind);
        expect(new Set(roots.map((option) => pitchClass(option.material.root))).size).toBe(12);
      }
    }
  });
});

describe('triads, simplifying, blues', () => {
  test('over an altered dominant the major triads on b9 and b13', () => {
    const options = optionsAt('key: Ab\n| Eb7alt | Abmaj7 |', 0, 'triads');
    const read = (name: string) => tensionsOver(chord('Eb7alt'), find(options, name)).join(' ');
    expect(read('E triad')).toBe('b9 11 b13');
    expect(read('B triad')).toBe('b13 1 #9');
  });

  test('a mode’s major and minor triads, from the chord’s root up', () => {
    const triads = triadsIn(chord('Dm7'), collection(note('D'), 'dorian'));
    expect(triads.map(({ symbol }) => symbol)).toEqual(['Dm', 'Em', 'F', 'G', 'Am', 'C']);
  });

  test('ii–V under the IV, which gives way to the I inside the V', () => {
    const chart = 'key: Ab\n| Bbm7 | Eb7 | Abmaj7 |';
    const two = find(optionsAt(chart, 0, 'simplify'), 'Dbmaj7 arpeggio');
    expect(two.covers).toEqual({ before: 0, after: 2 });
    const five = find(optionsAt(chart, 1, 'simplify'), 'Dbmaj7 arpeggio');
    expect(five.then?.to.name).toBe('Abmaj7 arpeggio');
  });

  test('over a minor ii–V the iv minor, its fifth falling to the third of V', () => {
    const chart = 'key: Cm\n| Dm7b5 | G7b9 | Cm7 |';
    const two = find(optionsAt(chart, 0, 'simplify'), 'Fm6 arpeggio');
    const five = find(optionsAt(chart, 1, 'simplify'), 'Fdim7 arpeggio');
    expect(two.assessment.missing).toEqual([]);
    const pitches = (option: Option) => option.material.notes.map(pitchClass);
    const changed = pitches(two).filter((pitch) => !pitches(five).includes(pitch));
    const arrived = pitches(five).filter((pitch) => !pitches(two).includes(pitch));
    expect([changed, arrived]).toEqual([[pitchClass(note('C'))], [pitchClass(note('B'))]]);
  });

  test('a diminished seventh is four dominants without their roots', () => {
    const options = optionsAt('key: C\n| Bdim7 | C |', 0, 'simplify');
    expect(names(options).toSorted()).toEqual([
      'Bb7b9 arpeggio',
      'Db7b9 arpeggio',
      'E7b9 arpeggio',
      'G7b9 arpeggio',
    ]);
    expect(find(options, 'G7b9 arpeggio').common).toBe(true);
  });

  const BLUES = 'key: A\n| A7 | D9 | A7 | % |\n| D9 | % | A7 | % |\n| E7 | D9 | A7 | E7 |';

  test('on IV the tonic’s blues takes IV’s third for the tonic’s seventh', () => {
    const options = optionsAt(BLUES, 1, 'blues');
    const taken = find(options, 'A minor sixth blues');
    expect(written(taken.material.notes)).toBe('A C D Eb E F#');
    expect(written(taken.assessment.blue)).toBe('Eb');
    expect(taken.intent).toBe('outline');
  });

  test('on I the flat third is blue and no clash; on V its own arpeggio comes first', () => {
    const one = find(optionsAt(BLUES, 0, 'blues'), 'A major blues');
    expect(written(one.assessment.blue)).toBe('C');
    expect(one.assessment.clashes).toEqual([]);
    expect(names(optionsAt(BLUES, 8, 'blues'))[0]).toBe('E7 arpeggio');
    expect(names(optionsAt(BLUES, 8, 'blues'))).toContain('E7#5 arpeggio');
  });
});

describe('ranking', () => {
  const chart = 'key: Eb\n| Ebmaj7 | Cm7 | Fm7 | Bb7 |';

  test('is the order of the sums, which are sums of their parts', () => {
    const sums = optionsAt(chart, 3).map(({ parts }) => rankSum(parts));
    expect(sums).toEqual(sums.toSorted((a, b) => b - a));
    expect(optionsAt(chart, 3).map(({ rank }) => rank)).toEqual(sums.map((_, index) => index + 1));
  });

  test('a preferred lens and a neighbour’s notes lift an option', () => {
    const read = chartOf(chart);
    const context = at(lensContexts(read, readHarmony(read)), 3);
    const rankOf = (name: string, weighing?: Parameters<typeof optionsFor>[1]) =>
      find(optionsFor(context, weighing), name).rank;
    const plain = rankOf('Dm7b5 arpeggio');
    expect(
      rankOf('Dm7b5 arpeggio', { neighbours: [], preferred: ['stacked-arpeggio'] }),
    ).toBeLessThan(plain);
    const beside = {
      neighbours: [collectionMaterial(collection(note('Eb'), 'ionian'))],
      preferred: [],
    };
    const parts = find(optionsFor(context, beside), 'Bb mixolydian').parts;
    expect(parts.shared).toBe(2);
  });

  test('the reason says what is missing where the change would not be heard', () => {
    const option = find(optionsAt('key: Eb\n| Bb |', 0), 'Eb major pentatonic');
    expect(reasonFor(chord('Bb'), option)).toContain('no third (D): the change will not be heard');
  });
});

describe('chains', () => {
  const chains = (text: string) =>
    chainsThrough(chartOf(text).chords.map((played) => played.chord)).map(
      ({ step, stops }) =>
        `${step}: ${stops.map((stop) => `${noteName(stop.collection.root)} from ${degreeName(stop.relation)}`).join(', ')}`,
    );

  test('a major ii–V–I climbs by half steps: fifth, flat third, seventh', () => {
    expect(chains('| Bbm7 | Eb7alt | Abmaj7 |')).toContain('1: F from 5, Gb from b3, G from 7');
    expect(chains('| Bbm7 | Eb7 | Abmaj7 |')).toContain('1: F from 5, Gb from b3, G from 7');
  });

  test('a chord that goes on sounding is one stop, and none is left to go on from', () => {
    expect(chains('| Dm7 | % | G7 | Cmaj7 |')).toEqual(chains('| Dm7 | G7 | Cmaj7 |'));
  });

  test('a chain of minor pentatonics is one of blues scales with the flat fifth', () => {
    const chords = chartOf('key: Ab\n| Bbm7 | Eb7alt | Abmaj7 | % |').chords.map(
      ({ chord }) => chord,
    );
    const told = (chains: readonly Chain[]) =>
      chains.map(({ step, stops }) => [
        step,
        ...stops.map((one) => collectionName(one.collection)),
      ]);
    const chains = chainsThrough(chords);
    expect(told(chains)).toContainEqual([
      1,
      ...['F', 'Gb', 'G'].map((one) => `${one} minor pentatonic`),
    ]);
    expect(told(bluesChains(chains))).toContainEqual([
      1,
      ...['F', 'Gb', 'G'].map((one) => `${one} minor blues`),
    ]);
    const [context] = lensContexts(chartOf('| Dm7 |'), readHarmony(chartOf('| Dm7 |')));
    if (!context) throw new Error('no context');
    const borrowed = optionsFor(context, undefined, ['borrowed-pentatonic']);
    const blues = withFlatFifths(context, borrowed);
    // Twelve roots of two kinds.
    expect(blues).toHaveLength(24);
    for (const { material: one, lens } of blues) {
      expect(lens).toBe('borrowed-pentatonic');
      expect(one.notes).toHaveLength(6);
      expect(one.kind).toMatch(/^minor (?:sixth )?blues$/u);
    }
  });

  test('every chain is even, of one shape, and as long as it can be', () => {
    const chords = chartOf('| Dm7 | G7alt | Cmaj7 | A7 | Dm7 | G7 | Cmaj7 | Fmaj7 |').chords;
    for (const { step, stops } of chainsThrough(chords.map((played) => played.chord))) {
      expect(new Set(stops.map((stop) => stop.collection.kind)).size).toBe(1);
      stops.slice(1).forEach((stop, index) => {
        const from = pitchClass(at(stops, index).collection.root);
        expect((from + step + 12) % 12).toBe(pitchClass(stop.collection.root));
      });
    }
  });
});

describe('styles', () => {
  const CHART = 'key: Ab\n| Abmaj7 | Bbm7 Eb7 | Cm7 | Fm7 | Bbm7 | Eb7b9 | Abmaj7 | % |';
  const read = chartOf(CHART);
  const reading = readHarmony(read);

  test('every style answers for every chord, and they differ', () => {
    const plans = STYLES.map((style) => propose(read, reading, style));
    expect(plans.every((plan) => plan.length === read.chords.length)).toBe(true);
    const said = plans.map((plan) => plan.map((choice) => choice.material.name).join());
    expect(new Set(said).size).toBe(STYLES.length);
  });

  test('a minor ii–V–i takes one harmonic minor, or three melodic minors whose roots spell the iv', () => {
    const names = (style: Style, up: string) => {
      const text = transposeChart('key: F#m\n| G#m7b5 | C#7 | F#m7 | % |', note('F#'), note(up));
      const chart = chartOf(text ?? '');
      return propose(chart, readHarmony(chart), style).map(({ material }) => material.name);
    };
    expect(names('harmonic-minor', 'F#').slice(0, 3)).toEqual(Array(3).fill('F# harmonic minor'));
    expect(names('melodic-minors', 'F#').slice(0, 3)).toEqual([
      ...['B melodic minor', 'D melodic minor', 'F# melodic minor'],
    ]);
    for (const up of ['C', 'Eb', 'F', 'G', 'A', 'Bb', 'D']) {
      const roots = names('melodic-minors', up)
        .slice(0, 3)
        .map((name) => pitchClass(note(name.split(' ')[0] ?? '')) - pitchClass(note(up)));
      // The fourth, the flat sixth and the root of the key: its iv.
      expect(roots.map((one) => (one + 12) % 12)).toEqual([5, 8, 0]);
    }
  });

  test('one scale is one scale; own pentatonics hold each chord’s triad where they outline it', () => {
    const one = propose(read, reading, 'one-scale').map((choice) => choice.material.name);
    expect(new Set(one).size).toBe(1);
    propose(read, reading, 'own-pentatonics').forEach(({ material: chosen, intent }, index) => {
      const tones = chordNotes(at(read.chords, index).chord).slice(0, 3).map(pitchClass);
      const pitches = chosen.notes.map(pitchClass);
      if (intent !== 'coast') expect(tones.every((tone) => pitches.includes(tone))).toBe(true);
    });
  });

  test('a chord that only goes on sounding is coasted, and not every change is outlined', () => {
    const intents = proposeIntents(read, reading, 'modes');
    expect(intents.at(-1)).toBe('coast');
    expect(new Set(intents).size).toBe(3);
  });

  test('an empty chart has an empty plan', () => {
    const empty = chartOf('| N.C. |');
    expect(propose(empty, readHarmony(empty), 'modes')).toEqual([]);
  });
});

describe('transposing', () => {
  const TEXT = 'key: C\n| Cmaj7 | A7b9 | Dm7 | G7alt | Cm6 | Bdim7 |';

  test('moves every option by the interval, its degrees and its rank unmoved', () => {
    const to = fc.constantFrom('Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B');
    fc.assert(
      fc.property(to, fc.integer({ min: 0, max: 5 }), (root, index) => {
        const moved = transposeChart(TEXT, note('C'), note(root)) ?? '';
        const by = (note(root) - note('C')) as Parameters<typeof transpose>[1];
        const here = optionsAt(TEXT, index, 'mode');
        const there = optionsAt(moved, index, 'mode');
        expect(there.map((option) => option.material.kind)).toEqual(
          here.map((option) => option.material.kind),
        );
        expect(there.map((option) => pitchClass(option.material.root))).toEqual(
          here.map((option) => pitchClass(transpose(option.material.root, by))),
        );
        const degrees = (options: readonly Option[]) =>
          options.map((option) => option.assessment.degrees.map(degreeName).join(' '));
        expect(degrees(there)).toEqual(degrees(here));
      }),
      runs(40),
    );
  });
});
