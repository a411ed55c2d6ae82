import { afterEach, describe, expect, test } from 'vitest';
import { COLLECTION_KINDS } from '$core/collections/collections';
import { nameInRoom } from '$lib/frame/material';
import { columnsFor, linesOf, showCadence } from '$lib/frame/strip';
import { type Chord, parseChord } from 'corvel-core';
import { degree } from '$core/notes/degrees';
import { note } from '$core/notes/notes';
import { quality } from '$core/chords/symbols';
import { NAMINGS } from '$core/notes/naming';
import { nearestMark } from '../neck/roving';
import { readPlace, writeEditing, writePlace } from '$lib/study/place';
import { EMPTY_PLAN, readPlan, writePlan } from '$lib/study/plan';
import { bytesName, clockName } from './amounts';
import {
  asTyped,
  fromTyped,
  showDegree,
  showNote,
  showSymbol,
  showOver,
  speakChord,
  speakNote,
  speakSentence,
} from './glyphs';
import { nameAs } from './names.svelte';
import { chartOf } from '$tests/laws';

const dominant: Chord = { symbol: 'C7', root: note('C'), quality: quality('7'), bass: null };

describe('amounts', () => {
  test.each([
    [0, '1 kB'],
    [60_000, '59 kB'],
    [400_000, '0.4 MB'],
    [5.6 * 2 ** 20, '5.6 MB'],
    [12.4 * 2 ** 20, '12 MB'],
  ])('%d bytes are %s', (bytes, said) => {
    expect(bytesName(bytes)).toBe(said);
  });

  test.each([
    [0, '0:00'],
    [7.9, '0:07'],
    [187, '3:07'],
    [3_661, '61:01'],
  ])('%d seconds are %s', (seconds, said) => {
    expect(clockName(seconds)).toBe(said);
  });
});

describe('the player’s own names', () => {
  afterEach(() => nameAs({ notes: 'letters', numerals: 'roman' }));
  const chord = parseChord('Bb7/B');

  test('German: shown, spoken and typed', () => {
    nameAs({ notes: 'german', numerals: 'roman' });
    expect([showNote(note('B')), showNote(note('Bb')), showSymbol('Bb7/B')]).toEqual([
      'H',
      'B',
      'B7/H',
    ]);
    expect(showSymbol('V7 of Bm')).toBe('V7 of Hm');
    expect([speakNote(note('B')), speakNote(note('Eb'))]).toEqual(['H', 'E flat']);
    expect(chord && speakChord(chord)).toBe('B 7 over H');
    expect(speakSentence('B falls to Bb. Eb stays.')).toBe('H falls to B. E flat stays.');
    const typed = ['B7', 'Bb7', 'H7', 'Hm7b5/B', 'B3', 'E', 'Esus4', 'b7'];
    expect(typed.map(fromTyped)).toEqual([
      'Bb7',
      'Bb7',
      'B7',
      'Bm7b5/Bb',
      'Bb3',
      'E',
      'Esus4',
      'Bb7',
    ]);
    expect(['Bb7', 'B3', 'Bb', 'E2', 'B7'].map(asTyped)).toEqual(['B7', 'H3', 'B', 'E2', 'H7']);
  });

  test('sol-fa: shown, spoken and typed', () => {
    nameAs({ notes: 'sol-fa', numerals: 'roman' });
    expect([showNote(note('Bb')), showSymbol('F#m7b5/C')]).toEqual(['Si♭', 'Fa♯m7♭5/Do']);
    expect(speakSentence('B falls to Bb.')).toBe('Si falls to Si flat.');
    expect(['Do7', 'Solm7', 'Sib3', 'C7'].map(fromTyped)).toEqual(['C7', 'Gm7', 'Bb3', 'C7']);
    expect(['C7', 'G3', 'Bb', 'Eb2'].map(asTyped)).toEqual(['Do7', 'Sol3', 'Sib', 'Mib2']);
  });

  test('figures instead of Roman numerals', () => {
    nameAs({ notes: 'letters', numerals: 'decimal' });
    expect(showSymbol('V7')).toBe('5⁷');
    expect(showSymbol('bVIImaj7')).toBe('♭7maj7');
    expect(showSymbol('C7 is the dominant of ii.')).toBe('C7 is the dominant of 2m.');
  });

  test('what is typed comes back as it is kept, whatever the names', () => {
    for (const notes of NAMINGS) {
      nameAs({ notes, numerals: 'roman' });
      for (const text of ['B', 'Bb', 'Bbm7', 'B7/Bb', 'Cmaj7', 'D7/F#', 'Abm', 'Gb', 'Fadd9', 'E5'])
        expect([notes, fromTyped(asTyped(text))]).toEqual([notes, text]);
    }
  });
});

describe('music signs', () => {
  test.each([
    ['Ebmaj7', 'E♭maj7'],
    ['F#m7b5', 'F♯m7♭5'],
    ['C7(b9,#11)', 'C7(♭9,♯11)'],
    ['Db/Ab', 'D♭/A♭'],
    ['bVII7', '♭VII7'],
    ['#ivo7', '♯ivo7'],
    ['V7b9/ii', 'V7♭9/ii'],
    ['Bb major pentatonic', 'B♭ major pentatonic'],
    ['Babybass', 'Babybass'],
    ['CΔ7', 'C△7'],
  ])('%s is shown %s', (text, expected) => {
    expect(showSymbol(text)).toBe(expected);
  });

  test('notes and degrees', () => {
    expect(['Bb', 'F#', 'Fx', 'Abb'].map((name) => showNote(note(name)))).toEqual([
      'B♭',
      'F♯',
      'F𝄪',
      'A♭♭',
    ]);
    expect([showDegree(degree('b3')), showOver(dominant, degree('#11'))]).toEqual(['♭3', '♯11']);
    expect(['Bb', 'F#', 'C', 'Bbb', 'F##'].map((name) => speakNote(note(name)))).toEqual([
      ...['B flat', 'F sharp', 'C', 'B double flat', 'F double sharp'],
    ]);
  });

  test('notes within a sentence are spoken, and no other letters', () => {
    expect(speakSentence('Bb stays and becomes its third, A#. B falls to Fx.')).toBe(
      'B flat stays and becomes its third, A sharp. B falls to F double sharp.',
    );
    expect(speakSentence('Abbb goes. To Ebb, its root.')).toBe(
      'Abbb goes. To E double flat, its root.',
    );
  });
});

describe('walking the neck', () => {
  const marks = [
    [6, 3],
    [6, 5],
    [5, 3],
    [5, 7],
    [3, 4],
  ].map(([string = 0, fret = 0]) => ({ string, fret }));
  test.each([
    ['along the string', { string: 6, fret: 3 }, 0, 1, { string: 6, fret: 5 }],
    [
      'to the nearest fret of the next string',
      { string: 6, fret: 5 },
      -1,
      0,
      { string: 5, fret: 3 },
    ],
    ['over a string without marks', { string: 5, fret: 3 }, -1, 0, { string: 3, fret: 4 }],
    ['not off the edge', { string: 6, fret: 5 }, 0, 1, null],
  ])('%s', (_, from, across, along, expected) => {
    expect(nearestMark(marks, from, across, along)).toEqual(expected);
  });
});

describe('what is kept', () => {
  test('the address holds the place', () => {
    const url = writePlace(new URL('http://x/plan/a?edit=text'), {
      index: 4,
      zone: { low: 3, high: 7 },
    });
    expect(url.search).toBe('?edit=text&at=5&zone=3-7');
    expect(writeEditing(url, null).search).toBe('?at=5&zone=3-7');
    expect(readPlace(url)).toEqual({ index: 4, zone: { low: 3, high: 7 } });
    expect(readPlace(new URL('http://x/?at=-3&zone=wide'))).toEqual({ index: 0, zone: null });
  });

  test('a plan reads back, and an unreadable one is the empty plan', () => {
    const plan = { ...EMPTY_PLAN, zone: { low: 3, high: 7 }, base: 'mode' as const };
    expect(readPlan(writePlan(plan))).toEqual(plan);
    expect(readPlan('{broken')).toEqual(EMPTY_PLAN);
    expect(readPlan('{"base":"colours"}')).toEqual(EMPTY_PLAN);
  });
});

describe('the strip', () => {
  const eight = chartOf('| C | F | G | C | Am | Dm | G | C |');

  test('puts eight bars in a line where they fit, and fewer where they do not', () => {
    expect([1248, 700, 330, 90].map((width) => columnsFor(eight, width))).toEqual([8, 8, 4, 1]);
    const full = chartOf('| F#m(maj7) G#m7b5 C#7alt F#m(maj9) |' + ' C |'.repeat(7));
    expect(columnsFor(full, 1248)).toBe(4);
  });

  test('a section begins a new line, and more than 32 bars stand in long ones', () => {
    const two = chartOf(`[A]\n${'| C '.repeat(6)}|\n[B]\n${'| F '.repeat(9)}|`);
    expect(linesOf(two, 8)).toEqual([0, 0, 0, 0, 0, 0, 1, 1, 1, 1, 1, 1, 1, 1, 2]);
    expect(columnsFor(chartOf(`${'| C '.repeat(64)}|`), 1248)).toBe(16);
  });

  test('names are shortened by rule until they fit, and never cut', () => {
    expect(nameInRoom('F minor pentatonic', 200)).toBe('F minor pentatonic');
    expect(nameInRoom('F minor pentatonic', 60)).toBe('Fm pent');
    expect(nameInRoom('B♭ altered', 50)).toBe('B♭ alt');
    expect(nameInRoom('C mixolydian', 45)).toBe('C mixo');
    for (const { name } of COLLECTION_KINDS) {
      const whole = `F♯ ${name}`;
      for (const room of [20, 34, 60, 100, 300]) {
        expect(nameInRoom(whole, room).length * 6.2).toBeLessThanOrEqual(room);
      }
    }
  });

  test('names what it brackets', () => {
    const key = { tonic: note('Ab'), mode: 'major' } as const;
    expect(showCadence({ kind: 'ii-V-I major', from: 0, to: 2, key })).toBe('ii–V–I in A♭ major');
  });
});
