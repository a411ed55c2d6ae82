import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { degree, degreeName, degrees, parseDegree, spokenDegree, tensionName } from './degrees';
import {
  alteration,
  halfSteps,
  type Interval,
  intervalBetween,
  note,
  noteName,
  parseNote,
  pitchClass,
  simplify,
  spellNear,
  step,
  transpose,
} from './notes';
import { octaveOf, parsePitch, pitchName } from './pitch';

const anyNote = fc
  .integer({ min: -15, max: 19 })
  .map((fifths) => fifths as ReturnType<typeof note>);
const anyInterval = fc.integer({ min: -12, max: 12 }).map((fifths) => fifths as Interval);

describe('notes', () => {
  test.each([
    ['C', 0],
    ['B#', 0],
    ['Dbb', 0],
    ['Fx', 7],
    ['Cb', 11],
    ['E♭', 3],
    ['F♯', 6],
  ])('%s sounds as pitch class %i', (name, expected) => {
    expect(pitchClass(note(name))).toBe(expected);
  });

  test.each(['H', 'c', 'Cbbb', '', 'C4', 'bB'])('%j is no note', (text) => {
    expect(parseNote(text)).toBeNull();
  });

  test('names and spelling agree both ways', () => {
    fc.assert(
      fc.property(anyNote, (given) => {
        expect(parseNote(noteName(given))).toBe(given);
      }),
    );
  });

  test('transposing up and back is the same note, and keeps the count of half steps', () => {
    fc.assert(
      fc.property(anyNote, anyInterval, (given, interval) => {
        const moved = transpose(given, interval);
        expect(intervalBetween(given, moved)).toBe(interval);
        expect((pitchClass(moved) - pitchClass(given) + 12) % 12).toBe(halfSteps(interval));
        expect(step(moved)).toBe((step(given) + step(interval)) % 7);
      }),
    );
  });

  test('a third above A flat minor is C flat', () => {
    expect(noteName(transpose(note('Ab'), degree('b3')))).toBe('Cb');
    expect(noteName(transpose(note('G#'), degree('7')))).toBe('Fx');
  });

  test('simplify keeps the sound and leaves at most one accidental', () => {
    fc.assert(
      fc.property(anyNote, (given) => {
        const simple = simplify(given);
        expect(pitchClass(simple)).toBe(pitchClass(given));
        expect(Math.abs(alteration(simple))).toBeLessThanOrEqual(1);
      }),
    );
  });

  test('spellNear stays within six fifths of its centre', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 11 }), anyNote, (pitch, centre) => {
        const spelled = spellNear(pitch, centre);
        expect(pitchClass(spelled)).toBe(pitch);
        expect(Math.abs(spelled - centre)).toBeLessThanOrEqual(6);
      }),
    );
  });
});

describe('degrees', () => {
  const ALL = '1 b2 2 #2 b3 3 b4 4 #4 b5 5 #5 b6 6 bb7 b7 7'.split(' ');

  test.each(ALL)('%s reads back as written', (name) => {
    expect(degreeName(degree(name))).toBe(name);
  });

  test('tensions are the same degrees above the octave', () => {
    expect(
      ['b9', '9', '#9', '11', '#11', 'b13', '13'].map((name) => tensionName(degree(name))),
    ).toEqual(['b9', '9', '#9', '11', '#11', 'b13', '13']);
    expect(degree('b9')).toBe(degree('b2'));
    expect(tensionName(degree('b3'))).toBe('b3');
  });

  test('half steps of each degree', () => {
    expect(degrees('1 b2 2 #2 b3 3 b4 4 #4 b5 5 #5 b6 6 bb7 b7 7').map(halfSteps)).toEqual([
      0, 1, 2, 3, 3, 4, 4, 5, 6, 6, 7, 8, 8, 9, 9, 10, 11,
    ]);
  });

  test.each(['', '0', '14', 'b#3', 'x', '3b'])('%j is no degree', (text) => {
    expect(parseDegree(text)).toBeNull();
  });

  test('are spoken as players say them', () => {
    expect(['1', 'b3', '7', 'b7', '#4', 'bb7'].map((name) => spokenDegree(degree(name)))).toEqual([
      'root',
      'flat third',
      'major seventh',
      'flat seventh',
      'sharp fourth',
      'diminished seventh',
    ]);
  });
});

describe('pitch', () => {
  test.each([
    ['E2', 40],
    ['E4', 64],
    ['C4', 60],
    ['Cb4', 59],
    ['B#3', 60],
    ['A0', 21],
  ])('%s is MIDI %i', (name, midi) => {
    expect(parsePitch(name)).toBe(midi);
  });

  test('the octave follows the letter, not the sound', () => {
    expect(octaveOf(note('Cb'), 59)).toBe(4);
    expect(pitchName(note('B#'), 60)).toBe('B#3');
  });
});
