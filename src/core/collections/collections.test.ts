import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { degreeName } from '../notes/degrees';
import { halfSteps, type Interval, letter, noteName, note, pitchClass } from '../notes/notes';
import {
  collection,
  COLLECTION_KINDS,
  collectionName,
  collectionNotes,
  collectionsHolding,
  degreeIn,
  easierName,
  findCollectionKind,
  modesOf,
  parentCollection,
  parseCollection,
  pitchMask,
  relativeOf,
  transposeCollection,
} from './collections';

const notesOf = (root: string, kind: string) =>
  collectionNotes(collection(note(root), kind))
    .map(noteName)
    .join(' ');

const someRoot = fc.integer({ min: -7, max: 7 }).map((fifths) => fifths as ReturnType<typeof note>);
const someCollection = fc
  .tuple(someRoot, fc.constantFrom(...COLLECTION_KINDS))
  .map(([root, kind]) => ({ root, kind }));

describe('collections', () => {
  test.each([
    ['Eb', 'major pentatonic', 'Eb F G Bb C'],
    ['F#', 'altered', 'F# G A Bb C D E'],
    ['Db', 'lydian dominant', 'Db Eb F G Ab Bb Cb'],
    ['Ab', 'melodic minor', 'Ab Bb Cb Db Eb F G'],
    ['G#', 'harmonic minor', 'G# A# B C# D# E Fx'],
    ['C', 'altered bb7', 'C Db Eb Fb Gb Ab Bbb'],
    ['A', 'minor blues', 'A C D Eb E G'],
    ['C', 'half-whole diminished', 'C Db D# E F# G A Bb'],
    ['G', 'bebop dominant', 'G A B C D E F F#'],
  ])('%s %s is %s', (root, kind, expected) => {
    expect(notesOf(root, kind)).toBe(expected);
  });

  test('the modal families are the modes of their first row', () => {
    for (const family of ['major', 'melodic minor', 'harmonic minor', 'harmonic major']) {
      const rows = COLLECTION_KINDS.filter((kind) => kind.family === `${family} modes`);
      const [first] = rows;
      if (!first) throw new Error(family);
      const modes = modesOf({ root: note('C'), kind: first });
      expect(modes.map((mode) => mode.kind.name)).toEqual(rows.map((kind) => kind.name));
    }
  });

  test('aliases and letter case find the same kind', () => {
    expect(findCollectionKind('Super Locrian')?.name).toBe('altered');
    expect(findCollectionKind('mixolydian b2 b6')?.name).toBe('phrygian dominant');
    expect(parseCollection('E♭ Major Pentatonic')).toEqual(parseCollection('Eb major pentatonic'));
    expect(findCollectionKind('purple')).toBeNull();
  });

  test('the parent of D flat lydian dominant is A flat melodic minor', () => {
    const parent = parentCollection(collection(note('Db'), 'lydian dominant'));
    expect(parent && collectionName(parent)).toBe('Ab melodic minor');
    expect(parentCollection(collection(note('C'), 'minor pentatonic'))).toBeNull();
  });

  test('relatives share their notes', () => {
    const relative = relativeOf(collection(note('Eb'), 'major pentatonic'));
    expect(relative && collectionName(relative)).toBe('C minor pentatonic');
    const back = relative && relativeOf(relative);
    expect(back && collectionName(back)).toBe('Eb major pentatonic');
  });

  test.each([
    ['Cb', 'melodic minor', 'B melodic minor'],
    ['Bb', 'altered', 'B melodic minor'],
    ['C#', 'ionian', 'Db ionian'],
    ['Gb', 'ionian', null],
    ['G#', 'harmonic minor', 'Ab harmonic minor'],
  ])('%s %s is easier as %s', (root, kind, expected) => {
    const easier = easierName(collection(note(root), kind));
    expect(easier && collectionName(easier)).toBe(expected);
  });

  test('C E G B lies in C ionian, and the smallest collection comes first', () => {
    const found = collectionsHolding(['C', 'E', 'G', 'B'].map(note));
    const names = found.map(collectionName);
    expect(names).toContain('C ionian');
    expect(names).toContain('G ionian');
    expect(names).not.toContain('F ionian');
    const sizes = found.map((each) => each.kind.degrees.length);
    expect(sizes).toEqual([...sizes].sort((a, b) => a - b));
  });
});

describe('laws', () => {
  test('seven notes use each letter once', () => {
    fc.assert(
      fc.property(someCollection, (given) => {
        fc.pre(given.kind.degrees.length === 7);
        expect(new Set(collectionNotes(given).map(letter)).size).toBe(7);
      }),
    );
  });

  test('transposing commutes with building', () => {
    fc.assert(
      fc.property(someCollection, fc.integer({ min: -5, max: 5 }), (given, fifths) => {
        const moved = collectionNotes(transposeCollection(given, fifths as Interval));
        expect(moved).toEqual(collectionNotes(given).map((each) => each + fifths));
      }),
    );
  });

  test('a mode has the same notes, and a mode of a mode is a mode', () => {
    fc.assert(
      fc.property(someCollection, (given) => {
        for (const mode of modesOf(given)) {
          expect(pitchMask(collectionNotes(mode))).toBe(pitchMask(collectionNotes(given)));
          const names = (list: typeof given) =>
            modesOf(list)
              .map((each) => `${pitchClass(each.root)} ${each.kind.name}`)
              .sort();
          expect(names(mode)).toEqual(names(given));
        }
      }),
    );
  });

  test('degrees rise from the root within the octave', () => {
    for (const { degrees } of COLLECTION_KINDS) {
      const sizes = degrees.map(halfSteps);
      expect(sizes[0]).toBe(0);
      expect(sizes).toEqual([...new Set(sizes)].sort((a, b) => a - b));
    }
  });

  test('degreeIn answers a degree exactly for the notes inside', () => {
    fc.assert(
      fc.property(someCollection, someRoot, (given, other) => {
        const found = degreeIn(given, other);
        const inside = collectionNotes(given).some(
          (each) => pitchClass(each) === pitchClass(other),
        );
        expect(found !== null).toBe(inside);
        if (found !== null) expect(given.kind.degrees.map(degreeName)).toContain(degreeName(found));
      }),
    );
  });
});
