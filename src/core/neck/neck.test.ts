import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { Chord } from '../chords/chords';
import { chordNotes } from '../chords/chords';
import { parseChord } from '../chords/symbols';
import { cross, shortestWay } from '../crossings/crossing';
import { arpeggio, defaultMaterial } from '../lenses/material';
import { ownPentatonic } from '../collections/pentatonics';
import { degreeName } from '../notes/degrees';
import { collectionName } from '../collections/collections';
import { note, noteName, pitchClass } from '../notes/notes';
import { at } from '../lists';
import { fingerPosition, fretAtPosition, wiresOf } from './geometry';
import { markNeck } from './marks';
import {
  fitZone,
  fretFor,
  type Neck,
  parseTuning,
  pitchAt,
  placesOf,
  sameZone,
  slideZone,
  STANDARD_NECK,
  stringCount,
  wholeNeck,
} from './neck';

function chord(text: string): Chord {
  const read = parseChord(text);
  if (!read) throw new Error(text);
  return read;
}

const someNeck = fc.record({
  tuning: fc.array(fc.integer({ min: 28, max: 67 }), { minLength: 4, maxLength: 8 }),
  frets: fc.integer({ min: 12, max: 27 }),
  capo: fc.integer({ min: 0, max: 5 }),
});

describe('the neck', () => {
  test('string 1 is the highest', () => {
    expect(pitchAt(STANDARD_NECK, { string: 1, fret: 0 })).toBe(64);
    expect(pitchAt(STANDARD_NECK, { string: 6, fret: 3 })).toBe(43);
  });

  test('tunings are read by pitch names', () => {
    expect(parseTuning(['D2', 'A2', 'D3', 'G3', 'A3', 'D4'])).toEqual([38, 45, 50, 55, 57, 62]);
    expect(parseTuning(['D2', 'X'])).toBeNull();
  });

  test('places hold exactly the notes asked for, all of them, within the zone', () => {
    fc.assert(
      fc.property(someNeck, fc.integer({ min: 0, max: 11 }), (neck: Neck, fifths) => {
        const wanted = note('C') + fifths;
        const zone = fitZone(neck, 3, 9);
        const places = placesOf(neck, [wanted as ReturnType<typeof note>], zone);
        let expected = 0;
        for (let string = 1; string <= stringCount(neck); string++) {
          for (let fret = zone.low; fret <= zone.high; fret++) {
            if (
              pitchAt(neck, { string, fret }) % 12 ===
              pitchClass(wanted as ReturnType<typeof note>)
            )
              expected += 1;
          }
        }
        expect(places).toHaveLength(expected);
      }),
    );
  });

  test('nothing lies behind the capo', () => {
    const neck = { ...STANDARD_NECK, capo: 3 };
    expect(placesOf(neck, [note('E')]).every(({ fret }) => fret >= 3)).toBe(true);
    expect(fretFor(neck, 6, 41)).toBeNull();
    expect(fretFor(neck, 6, 43)).toBe(3);
  });

  test('zones stay on the neck at their width', () => {
    fc.assert(
      fc.property(someNeck, fc.integer({ min: -30, max: 30 }), (neck: Neck, frets) => {
        const zone = fitZone(neck, 5, 9);
        const moved = slideZone(neck, zone, frets);
        expect(moved.high - moved.low).toBe(zone.high - zone.low);
        expect(moved.low).toBeGreaterThanOrEqual(neck.capo);
        expect(moved.high).toBeLessThanOrEqual(neck.frets);
      }),
    );
  });

  test('a finger stands between its wire and the one before', () => {
    for (let fret = 1; fret <= 22; fret++) {
      for (const zone of [null, { low: 5, high: 8 }, { low: 0, high: 3 }]) {
        const wires = wiresOf(22, zone);
        const finger = fingerPosition(fret, wires);
        expect(finger).toBeGreaterThan(at(wires, fret - 1));
        expect(finger).toBeLessThan(at(wires, fret));
        expect(fretAtPosition(finger, wires)).toBe(fret);
      }
    }
  });

  test('the zone has more room than the rest, and the neck its whole length', () => {
    const zone = { low: 7, high: 10 };
    const even = wiresOf(22);
    const wires = wiresOf(22, zone);
    expect(wires.at(-1)).toBe(1);
    const room = (of: readonly number[], fret: number) => at(of, fret) - at(of, fret - 1);
    expect(room(wires, 8)).toBeGreaterThan(1.6 * room(even, 8));
    expect(room(wires, 3)).toBeLessThan(room(even, 3));
  });
});

test('two zones are one where both their frets are', () => {
  const zone = { low: 5, high: 8 };
  expect(sameZone(zone, { ...zone })).toBe(true);
  expect([sameZone(zone, { low: 5, high: 9 }), sameZone(zone, { low: 4, high: 8 })]).toEqual([
    false,
    false,
  ]);
});

describe('material', () => {
  test.each([
    ['Abmaj7', 'Ab major pentatonic'],
    ['Bb7', 'Bb major pentatonic'],
    ['Cm7', 'C minor pentatonic'],
    ['F7sus4', 'C minor pentatonic'],
    ['Dm7b5', 'F minor sixth pentatonic'],
  ])('over %s the own pentatonic is %s', (symbol, expected) => {
    const own = ownPentatonic(chord(symbol));
    expect(own && collectionName(own)).toBe(expected);
  });

  test.each(['Abmaj7', 'Bb7', 'Cm7', 'F7sus4', 'Dm7b5', 'Gm6', 'C', 'Dm', 'G7#5', 'Bdim7', 'Caug'])(
    'over %s it holds the triad',
    (symbol) => {
      const { root, quality } = chord(symbol);
      const notes = new Set(defaultMaterial(chord(symbol)).notes.map(pitchClass));
      const triad = quality.core
        .slice(0, 3)
        .map((degree) => pitchClass((root + degree) as typeof root));
      expect(triad.every((pitch) => notes.has(pitch))).toBe(true);
    },
  );

  test('a chord whose triad no pentatonic holds keeps to its chord tones', () => {
    expect(defaultMaterial(chord('G7b5')).notes.map(noteName)).toEqual(['G', 'B', 'Db', 'F']);
    expect(defaultMaterial(chord('G7alt')).name).toBe('G7alt arpeggio');
  });
});

describe('crossings', () => {
  test('D minor seven to G seven: two hold, C falls to B, A falls to G', () => {
    const crossing = cross(['D', 'F', 'A', 'C'].map(note), ['G', 'B', 'D', 'F'].map(note));
    expect(crossing.held.map(noteName)).toEqual(['D', 'F']);
    expect(
      crossing.moves.map(({ from, to, halfSteps }) => [noteName(from), noteName(to), halfSteps]),
    ).toEqual([
      ['C', 'B', -1],
      ['A', 'G', -2],
    ]);
    expect([...crossing.leaves, ...crossing.arrives]).toEqual([]);
  });

  test('every note has exactly one motion', () => {
    const pool = fc.uniqueArray(fc.integer({ min: -5, max: 6 }), { minLength: 1, maxLength: 7 });
    fc.assert(
      fc.property(pool, pool, (before, after) => {
        type Notes = Parameters<typeof cross>[0];
        const { held, moves, leaves, arrives } = cross(
          before as unknown as Notes,
          after as unknown as Notes,
        );
        expect([...held, ...moves.map(({ from }) => from), ...leaves].sort()).toEqual(
          [...before].sort(),
        );
        expect([...held, ...moves.map(({ to }) => to), ...arrives].sort()).toEqual(
          [...after].sort(),
        );
        expect(moves.every(({ from, to, halfSteps }) => shortestWay(from, to) === halfSteps)).toBe(
          true,
        );
      }),
    );
  });
});

describe('marks', () => {
  const sounding = (symbol: string) => ({
    chord: chord(symbol),
    notes: arpeggio(chord(symbol)).notes,
  });
  const marks = markNeck(STANDARD_NECK, wholeNeck(STANDARD_NECK), sounding('Dm7'), sounding('G7'));
  const at = (string: number, fret: number) =>
    marks.find((mark) => mark.string === string && mark.fret === fret);

  test('a held note carries both degrees', () => {
    const mark = at(1, 1);
    expect(mark?.now && degreeName(mark.now.degree)).toBe('b3');
    expect(mark?.next && degreeName(mark.next.degree)).toBe('b7');
    expect(mark?.now?.weight).toBe('guide');
    expect(mark?.motion).toEqual({ kind: 'holds' });
  });

  test('a moving note says where it goes, and its goal where from', () => {
    expect(at(2, 1)?.motion).toEqual({ kind: 'moves', to: note('B'), halfSteps: -1 });
    expect(at(2, 0)?.motion).toEqual({ kind: 'reached', from: note('C'), halfSteps: -1 });
    expect(at(2, 0)?.now).toBeNull();
  });

  test('with nothing coming there is only now', () => {
    const alone = markNeck(STANDARD_NECK, wholeNeck(STANDARD_NECK), sounding('Dm7'), null);
    expect(
      alone.every(({ now, next, motion }) => now !== null && next === null && motion === null),
    ).toBe(true);
  });
});

test('in a zone the neck shows every chord tone a hand reaches: the middle B of Cmaj7', () => {
  const notes = chordNotes(chord('Cmaj7'));
  for (const next of [null, { chord: chord('Dm7'), notes: chordNotes(chord('Dm7')) }]) {
    const marks = markNeck(
      STANDARD_NECK,
      { low: 5, high: 8 },
      { chord: chord('Cmaj7'), notes },
      next,
    );
    const now = marks.filter((mark) => mark.now !== null);
    expect(now.map(({ string, fret }) => `${string}:${fret}`)).toEqual(
      '6:7 6:8 5:7 4:5 3:4 3:5 2:5 2:8 1:7 1:8'.split(' '),
    );
  }
});
