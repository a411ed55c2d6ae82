import { describe, expect, test } from 'vitest';
import { type Chord, chordName } from './chords';
import { renameIn } from './named';
import { renameSpoken, spokenChord } from './spoken';
import { parseChord, parseTyped } from './symbols';
import { range } from '../lists';
import { noteName, type Note } from '../notes/notes';

function read(text: string): Chord {
  const chord = parseChord(text);
  if (!chord) throw new Error(`${text} was not read`);
  return chord;
}

const nameOf = (read: Chord | null) => read && chordName(read);

describe('notes by other names', () => {
  test.each([
    ['Bm7♭5/A', 'Hm7♭5/A', 'Sim7♭5/La'],
    ['B♭△7/D', 'B△7/D', 'Si♭△7/Re'],
    ['B♭♭', 'H♭♭', 'Si♭♭'],
    ['Bb7', 'B7', 'Sib7'],
    ['A', 'A', 'La'],
    ['F♯m', 'F♯m', 'Fa♯m'],
    [
      'B falls a half step to B♭, its third.',
      'H falls a half step to B, its third.',
      'Si falls a half step to Si♭, its third.',
    ],
    [
      'A stays. A chord tone waits. A minor pentatonic.',
      'A stays. A chord tone waits. A minor pentatonic.',
      'La stays. A chord tone waits. La minor pentatonic.',
    ],
    [
      'To A. A half step ahead, over Am7.',
      'To A. A half step ahead, over Am7.',
      'To La. A half step ahead, over Lam7.',
    ],
    [
      'Go on. Do it: Bars 1, Add, Dim, Guide',
      'Go on. Do it: Bars 1, Add, Dim, Guide',
      'Go on. Do it: Bars 1, Add, Dim, Guide',
    ],
    ['G7(♯9) → C6', 'G7(♯9) → C6', 'Sol7(♯9) → Do6'],
  ])('%s', (text, german, solFa) => {
    expect(renameIn(text, 'letters')).toBe(text);
    expect(renameIn(text, 'german')).toBe(german);
    expect(renameIn(text, 'sol-fa')).toBe(solFa);
  });

  test('a chord by any names is typed back as itself, in every key', () => {
    const suffixes = ['', 'm', '7', 'm7b5', 'maj7', 'dim7', 'sus4', 'add9', '7alt', 'm(maj7)'];
    for (const root of range(-8, 10).map((fifths) => noteName(fifths as Note))) {
      for (const symbol of suffixes.map((suffix) => root + suffix)) {
        for (const over of ['', `/${noteName(5 as Note)}`, `/${noteName(-3 as Note)}`]) {
          const written = symbol + over;
          const sung = renameIn(written, 'sol-fa');
          expect([sung, nameOf(parseTyped(sung, true))]).toEqual([
            sung,
            nameOf(parseChord(written)),
          ]);
        }
      }
    }
  });

  test.each([
    ['H7', 'B7'],
    ['h', 'B'],
    ['Hm7b5/Fis', 'Bm7b5/F#'],
    ['Es7', 'Eb7'],
    ['As', 'Ab'],
    ['Cism7', 'C#m7'],
    ['Des△', 'Db△'],
    ['Sol7', 'G7'],
    ['solm7/si', 'Gm7/B'],
    ['Sib', 'Bb'],
    ['Ré-7', 'D-7'],
    // What letters read already is theirs.
    ['Esus4', 'Esus4'],
    ['Asus', 'Asus'],
    ['Fadd9', 'Fadd9'],
    ['Do7', 'Do7'],
  ])('%s is typed for %s', (typed, symbol) => {
    expect(parseTyped(typed)?.symbol).toBe(symbol);
  });

  test.each(['Hello', 'Sold', 'Mist', 'Lamb', 'Resin'])('“%s” is no chord', (word) => {
    expect(parseTyped(word)).toBeNull();
  });

  test('Do is a diminished D, and C in sol-fa', () => {
    expect(parseTyped('Do')?.quality.name).toBe('dim');
    expect(parseTyped('Do', true)?.symbol).toBe('C');
    expect(parseTyped('Do7/Mi', true)?.symbol).toBe('C7/E');
  });

  test('they are spoken', () => {
    const spoken = spokenChord(read('Bb7/B'));
    expect(renameSpoken(spoken, 'letters')).toBe('B flat 7 over B');
    expect(renameSpoken(spoken, 'german')).toBe('B 7 over H');
    expect(renameSpoken(spoken, 'sol-fa')).toBe('Si flat 7 over Si');
    expect(renameSpoken('B double flat', 'german')).toBe('H double flat');
  });
});
