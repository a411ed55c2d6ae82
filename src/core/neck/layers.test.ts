import { describe, expect, test } from 'vitest';
import { chordNotes } from '../chords/chords';
import { parseChord } from '../chords/symbols';
import { collection, collectionNotes } from '../collections/collections';
import { note, noteName } from '../notes/notes';
import { filterMarks, LAYER_KINDS, layersFor, type LayerKind, withGround } from './layers';
import { markNeck } from './marks';
import { STANDARD_NECK } from './neck';
import { holds } from './positions';

const chord = parseChord('Ebmaj7') ?? fail();
const next = parseChord('Cm7') ?? fail();
const mode = collection(note('Eb'), 'ionian');
const zone = { low: 3, high: 6 };

function fail(): never {
  throw new Error('unreadable');
}

const make = (kinds: readonly LayerKind[], strings: readonly number[] | null = null) =>
  layersFor(kinds, { neck: STANDARD_NECK, zone, chord, mode, strings });
const [now, coming] = [chord, next].map((one) => ({ chord: one, notes: chordNotes(one) }));
const marks = now && coming ? markNeck(STANDARD_NECK, zone, now, coming) : [];

describe('layers', () => {
  test('come in their fixed order, whatever order they are asked for in', () => {
    expect(make(['grip', 'box', 'scale']).map(({ kind }) => kind)).toEqual([
      'box',
      'scale',
      'grip',
    ]);
    expect(make(LAYER_KINDS)).toHaveLength(LAYER_KINDS.length);
    expect(make([])).toEqual([]);
  });

  test('each holds only notes of what it is named for', () => {
    const own = [...collectionNotes(mode), note('Gb')];
    for (const { places } of make(LAYER_KINDS)) {
      expect(places.length).toBeGreaterThan(0);
      expect(places.filter((place) => !holds(own, place.note))).toEqual([]);
    }
  });

  test('the box is the one under the hand, with its blue note', () => {
    const [box] = make(['box']);
    expect(box?.name).toBe('Eb major pentatonic');
    expect(box?.box).toEqual({ minor: 4, major: 3, letter: 'C' });
    expect(box?.places.map((place) => noteName(place.note))).toContain('Gb');
  });

  test('a triad and a grip are joined from the lowest note up, on the strings asked for', () => {
    const [triad] = make(['triad'], [1, 2, 3]);
    expect(triad?.joined.map(({ string }) => string)).toEqual([3, 2, 1]);
    const [grip] = make(['grip']);
    expect(grip?.joined).toHaveLength(4);
  });
});

describe('marks with layers', () => {
  test('what is neither now nor next is added once, and nothing is lost', () => {
    const all = withGround(STANDARD_NECK, marks, make(['scale', 'home']));
    const ids = all.map(({ string, fret }) => `${string}-${fret}`);
    expect(new Set(ids).size).toBe(ids.length);
    expect(marks.every((mark) => all.includes(mark))).toBe(true);
    const added = all.filter((mark) => !marks.includes(mark));
    expect(added.length).toBeGreaterThan(0);
    expect(added.every((mark) => mark.now === null && mark.next === null)).toBe(true);
    expect(withGround(STANDARD_NECK, marks, [])).toBe(marks);
  });

  test('filters keep a set of strings, or one octave from the lowest root', () => {
    const top = filterMarks(marks, { strings: [1, 2], octaveFrom: null });
    expect(new Set(top.map(({ string }) => string))).toEqual(new Set([1, 2]));
    const octave = filterMarks(marks, { strings: null, octaveFrom: chord.root });
    const pitches = octave.map(({ midi }) => midi);
    expect(Math.max(...pitches) - Math.min(...pitches)).toBe(12);
    expect(octave.some(({ midi }) => midi === 51)).toBe(true);
    const none = filterMarks(marks, { strings: null, octaveFrom: note('F#') });
    expect(none).toBe(marks);
  });
});
