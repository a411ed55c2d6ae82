import { describe, expect, it } from 'vitest';
import { chordNotes } from '../chords/chords';
import { parseChord } from '../chords/symbols';
import { range } from '../lists';
import { type Interval, type Note, pitchClass, transpose } from '../notes/notes';
import { markNeck } from './marks';
import { inZone, placesOf, STANDARD_NECK } from './neck';
import { DEGREES, onlyDegree, withDegree } from './only';

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
        notes: withDegree(chord, [chord.root], '3'),
      });
      const marks = onlyDegree(markNeck(STANDARD_NECK, zone, bare(now), bare(next)), '3');
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
    expect(withDegree(sus, [sus.root], '3')).toEqual([sus.root]);
    const minor = chordOf('Cm7');
    for (const degree of DEGREES) {
      const classes = withDegree(minor, chordNotes(minor), degree).map(pitchClass);
      expect(new Set(classes).size).toBe(classes.length);
    }
  });

  it('keeps of a note only what was asked for', () => {
    const now = { chord: chordOf('C7'), notes: chordNotes(chordOf('C7')) };
    const next = { chord: chordOf('Am7'), notes: chordNotes(chordOf('Am7')) };
    const [mark] = onlyDegree(markNeck(STANDARD_NECK, { low: 1, high: 3 }, now, next), '3').filter(
      ({ note }) => note === chordOf('C7').root,
    );
    // C is the root of C7 and the third of Am7: only the third is shown.
    expect(mark?.now).toBeNull();
    expect(mark?.next).not.toBeNull();
  });
});
