import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { completeChord } from './complete';
import { degreeName } from '../notes/degrees';
import { type Interval, note, noteName, pitchClass } from '../notes/notes';
import { type Chord, chordName, chordNotes, sameChord, transposeChord } from './chords';
import { degreeOver, readOver, spellingsOver } from './over';
import { spokenChord } from './spoken';
import { explainUnreadable, parseChord } from './symbols';

function read(text: string): Chord {
  const chord = parseChord(text);
  if (!chord) throw new Error(`${text} was not read`);
  return chord;
}

const tones = (text: string) => read(text).quality.degrees.map(degreeName).join(' ');
const guideTones = (text: string) => read(text).quality.guideTones.map(degreeName).join(' ');

/** Every spelling players write, with its tones from the textbook and not from the code. */
const SPELLINGS: readonly (readonly [string, string])[] = [
  ['C', '1 3 5'],
  ['C- Cm Cmin Cmi', '1 b3 5'],
  ['CM7 Cmaj7 Cma7 CΔ CΔ7 CMAJ7 C△', '1 3 5 7'],
  ['C7', '1 3 5 b7'],
  ['C9', '1 3 5 b7 2'],
  ['C13', '1 3 5 b7 2 6'],
  ['Cm7 C-7 Cmi7 CMIN7', '1 b3 5 b7'],
  ['Cm9', '1 b3 5 b7 2'],
  ['Cm11', '1 b3 5 b7 2 4'],
  ['Cm6 C-6', '1 b3 5 6'],
  ['C6', '1 3 5 6'],
  ['C69 C6/9', '1 3 5 6 2'],
  ['Cm7b5 C-7b5 Cø Cø7 Cm7(b5) Cm7-5', '1 b3 b5 b7'],
  ['Co Cdim C°', '1 b3 b5'],
  ['C°7 Cdim7 Co7', '1 b3 b5 bb7'],
  ['C+ Caug', '1 3 #5'],
  ['C7#5 C+7 Caug7 C7+5', '1 3 #5 b7'],
  ['Cmaj7#5 C+maj7', '1 3 #5 7'],
  ['Cmaj7#11', '1 3 5 7 #4'],
  ['CmMaj7 Cm(maj7) C-Δ7 CmM7 Cmin(maj7)', '1 b3 5 7'],
  ['Csus2', '1 2 5'],
  ['Csus4 Csus CSUS4', '1 4 5'],
  ['C7sus4 C7sus', '1 4 5 b7'],
  ['C9sus C9sus4', '1 4 5 b7 2'],
  ['Cadd9 CADD9', '1 3 5 2'],
  ['Cmadd9 Cm(add9)', '1 b3 5 2'],
  ['C5', '1 5'],
  ['C7b9 C7-9', '1 3 5 b7 b2'],
  ['C7#9 C7+9', '1 3 5 b7 #2'],
  ['C7b5', '1 3 b5 b7'],
  ['C7#11', '1 3 5 b7 #4'],
  ['C7b13', '1 3 5 b7 b6'],
  ['C7b9b13 C7(b9,b13)', '1 3 5 b7 b2 b6'],
  ['C7(b9,#11) C7b9#11', '1 3 5 b7 b2 #4'],
  ['C13b9', '1 3 5 b7 b2 6'],
  ['C7alt Calt C7ALT', '1 3 b7'],
];

describe('chord spellings', () => {
  test.each(
    SPELLINGS.flatMap(([names, expected]) => names.split(' ').map((name) => [name, expected])),
  )('%s is %s', (name, expected) => {
    expect(tones(name)).toBe(expected);
  });

  test.each([
    ['Abm', 'Ab Cb Eb'],
    ['G#m7b5', 'G# B D F#'],
    ['Cbmaj7', 'Cb Eb Gb Bb'],
    ['D#7', 'D# Fx A# C#'],
    ['Bbdim7', 'Bb Db Fb Abb'],
    ['F♯7', 'F# A# C# E'],
    ['B♭maj7', 'Bb D F A'],
  ])('%s is spelled %s', (name, expected) => {
    expect(chordNotes(read(name)).map(noteName).join(' ')).toBe(expected);
  });

  test('slash basses stay apart from the chord', () => {
    expect(noteName(read('C7/Bb').bass as Chord['root'])).toBe('Bb');
    expect(read('C/C').bass).toBeNull();
    expect(tones('C/E')).toBe('1 3 5');
  });

  test.each([
    'Ebmja7',
    'c7',
    'H7',
    'C7b7',
    'Cm7alt',
    'C((b9)',
    'C7b9b9',
    'X',
    'Cmm',
    'C9maj',
    'C2',
    'C/H',
  ])('%s is refused, and said why in a sentence', (text) => {
    expect(parseChord(text)).toBeNull();
    expect(explainUnreadable(text)).toMatch(/^“.*\.$/u);
  });

  test('an ambiguous spelling names both readings', () => {
    expect(explainUnreadable('Db2')).toContain('Dbsus2 or Dbadd9');
  });
});

describe('guide tones', () => {
  test.each([
    ['C7', '3 b7'],
    ['Cm7', 'b3 b7'],
    ['Cmaj9', '3 7'],
    ['C', '3'],
    ['Cdim', 'b3 b5'],
    ['Caug', '3 #5'],
    ['Csus4', '4'],
    ['Csus2', '2'],
    ['C7sus4', '4 b7'],
    ['C6', '3 6'],
    ['Cm6', 'b3 6'],
    ['Cdim7', 'b3 bb7'],
    ['C5', ''],
  ])('of %s are %s', (name, expected) => {
    expect(guideTones(name)).toBe(expected);
  });
});

const someSymbol = fc
  .tuple(
    fc.constantFrom('C', 'Db', 'F#', 'Bb', 'E', 'Ab'),
    fc.constantFrom(
      ...SPELLINGS.flatMap(([names]) => names.split(' ')).map((name) => name.slice(1)),
    ),
    fc.constantFrom('', '/G', '/Bb'),
  )
  .map((parts) => parts.join(''));

describe('laws', () => {
  test('a tidy name reads back as the same chord', () => {
    fc.assert(
      fc.property(someSymbol, (symbol) => {
        const chord = read(symbol);
        const again = read(chordName(chord));
        expect(again.quality).toEqual(chord.quality);
        expect(again.bass).toBe(chord.bass);
        expect(sameChord(again, chord)).toBe(true);
      }),
    );
  });

  test('transposing a chord transposes its notes', () => {
    fc.assert(
      fc.property(someSymbol, fc.integer({ min: -6, max: 6 }), (symbol, fifths) => {
        const chord = read(symbol);
        const moved = transposeChord(chord, fifths as Interval);
        expect(chordNotes(moved)).toEqual(chordNotes(chord).map((tone) => tone + fifths));
      }),
    );
  });

  test('any text is read or refused, never thrown on', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 30 }), (text) => {
        const chord = parseChord(text);
        expect(chord === null || chord.symbol === text).toBe(true);
        expect(explainUnreadable(text).length).toBeGreaterThan(10);
      }),
    );
  });
});

describe('a note over a chord', () => {
  test.each([
    ['G#m7', 'C', '3'],
    ['D#dim7', 'G', 'b4'],
    ['Eb7', 'A', '#4'],
    ['F#maj7', 'F', '7'],
    ['C7alt', 'Eb', '#2'],
    ['C7', 'Eb', 'b3'],
    ['Bm7b5', 'C#', '2'],
  ])('by itself over %s, %s is %s', (symbol, name, expected) => {
    expect(degreeName(degreeOver(read(symbol), note(name)))).toBe(expected);
  });

  test.each([
    ['F#maj7', 'F Ab Bb C Eb', '7 2 3 #4 6', 'E# G# A# B# D#'],
    ['Ebm7', 'B C# D# F# A', 'b6 b7 1 b3 b5', 'Cb Db Eb Gb Bbb'],
    ['Cmaj7', 'B D E F# A', '7 2 3 #4 6', 'B D E F# A'],
    ['G7alt', 'G Ab Bb Cb Db Eb F', '1 b2 #2 3 b5 b6 b7', 'G Ab Bb B Db Eb F'],
  ])('together over %s, %s are %s', (symbol, names, expected, spelled) => {
    const notes = names.split(' ').map(note);
    const over = readOver(read(symbol), notes);
    expect(over.map(({ degree }) => degreeName(degree)).join(' ')).toBe(expected);
    const known = spellingsOver(read(symbol), notes);
    expect(notes.map((one) => noteName(known.get(pitchClass(one)) ?? one)).join(' ')).toBe(spelled);
  });
});

test('chords are spoken in words', () => {
  expect(
    ['Am7', 'Ebmaj7/G', 'F#m7b5', 'C7(b9,#11)', 'Bdim7', 'C'].map((name) =>
      spokenChord(read(name)),
    ),
  ).toEqual([
    'A minor 7',
    'E flat major 7 over G',
    'F sharp minor 7 flat 5',
    'C 7 flat 9 sharp 11',
    'B diminished 7',
    'C major',
  ]);
  expect(['Bbb7', 'Fxm7', 'Ab/Ebb'].map((name) => spokenChord(read(name)))).toEqual([
    ...['B double flat 7', 'F double sharp minor 7', 'A flat major over E double flat'],
  ]);
});

describe('completing', () => {
  test('the chart’s own chords come first, then the usual ones on the root', () => {
    expect(completeChord('', ['Ebmaj7', 'Cm7', 'Ebmaj7'])).toEqual(['Ebmaj7', 'Cm7']);
    expect(completeChord('Eb', ['Ebmaj9', 'Cm7']).slice(0, 3)).toEqual(['Ebmaj9', 'Ebm', 'Eb7']);
    expect(completeChord('Ebm', []).slice(0, 2)).toEqual(['Ebm7', 'Ebm6']);
  });

  test('each goes on from what is typed, and can be read', () => {
    for (const typed of ['A', 'F#m', 'Bb7', 'Cmaj', 'G7s', 'D-']) {
      for (const offered of completeChord(typed, [])) {
        expect(offered.startsWith(typed)).toBe(true);
        expect(parseChord(offered)).not.toBeNull();
      }
    }
    expect(completeChord('Q', [])).toEqual([]);
  });
});
