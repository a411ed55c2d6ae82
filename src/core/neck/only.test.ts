import { describe, expect, it } from 'vitest';
import { chordNotes } from '../chords/chords';
import { parseChord } from '../chords/symbols';
import { range } from '../lists';
import { type Interval, type Note, pitchClass, transpose } from '../notes/notes';
import { markNeck } from './marks';
import { inZone, placesOf, STANDARD_NECK } from './neck';
import { DEGREES, onlyDegrees, withDegrees } from './only';

const chordOf = (symbol: string) => {
  const chord = parseChord(symbol);
  if (!chord) throw new Error(symbol);
  return chord;
};

describe('one degree alone', () => {
  it('shows every third of both chords in the zone, in every key', () => {
    const zone = { low: 5, high: 8 };
    for (const root of range(-5, 7)) {
      const by = (root - chordOf('C7').root) as Interval;
      const now = { ...chordOf('C7'), root: root as Note };
      const next = { ...chordOf('Fm7'), root: transpose(chordOf('Fm7').root, by) };
      // A choice over each that lacks the third.
      const bare = (chord: typeof now) => ({
        chord,
        notes: withDegrees(chord, [chord.root], ['3']),
      });
      const marks = onlyDegrees(markNeck(STANDARD_NECK, zone, bare(now), bare(next)), ['3']);
      const third = (chord: typeof now) => chordNotes(chord)[1] as Note;
      const places = (chord: typeof now) =>
        placesOf(STANDARD_NECK, [third(chord)], zone).map(
          ({ string, fret }) => `${string}-${fret}`,
        );
      const shown = (time: 'now' | 'next') =>
        marks
          .filter((mark) => mark[time] !== null && inZone(zone, mark.fret))
          .map(({ string, fret }) => `${string}-${fret}`);
      expect(shown('now').sort()).toEqual([...places(now)].sort());
      expect(shown('next').sort()).toEqual([...places(next)].sort());
    }
  });

  it('adds nothing where the chord has no such tone, and nothing twice', () => {
    const sus = chordOf('C7sus4');
    expect(withDegrees(sus, [sus.root], ['3'])).toEqual([sus.root]);
    const minor = chordOf('Cm7');
    for (const degree of DEGREES) {
      const classes = withDegrees(minor, chordNotes(minor), [degree]).map(pitchClass);
      expect(new Set(classes).size).toBe(classes.length);
    }
  });

  it('keeps of a note only what was asked for', () => {
    const now = { chord: chordOf('C7'), notes: chordNotes(chordOf('C7')) };
    const next = { chord: chordOf('Am7'), notes: chordNotes(chordOf('Am7')) };
    const [mark] = onlyDegrees(markNeck(STANDARD_NECK, { low: 1, high: 3 }, now, next), [
      '3',
    ]).filter(({ note }) => note === chordOf('C7').root);
    // C is the root of C7 and the third of Am7: only the third is shown.
    expect(mark?.now).toBeNull();
    expect(mark?.next).not.toBeNull();
  });

  it('shows two together, each only as what was asked for', () => {
    const [now, next] = ['G7', 'Cmaj7'].map((symbol) => {
      const chord = chordOf(symbol);
      return { chord, notes: withDegrees(chord, [chord.root], ['3', '7']) };
    });
    if (!now || !next) return;
    const marks = onlyDegrees(markNeck(STANDARD_NECK, { low: 2, high: 6 }, now, next), ['3', '7']);
    const told = (time: 'now' | 'next') =>
      [...new Set(marks.flatMap((mark) => (mark[time] ? [pitchClass(mark.note)] : [])))].sort();
    // B and F, then E and B.
    expect(told('now')).toEqual([11, 5]);
    expect(told('next')).toEqual([11, 4]);
  });
});
