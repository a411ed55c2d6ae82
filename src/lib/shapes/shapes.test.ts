import fc from 'fast-check';
import { expect, test } from 'vitest';
import { chordNotes, parseChord } from 'corvel-core';
import { collectionNotes } from '$core/collections/collections';
import { matchingPentatonic } from '$core/collections/pentatonics';
import { alone } from '$core/lenses/modeContext';
import { modeFor } from '$core/lenses/modes';
import { TUNINGS } from '$core/neck/instruments';
import { holds } from '$core/neck/positions';
import { DEFAULT_SETTINGS, instrumentOf, neckOf, readSettings } from '$lib/settings/settings';
import { shapesOf } from './shapes';
import { runs } from '$tests/laws';

const someChord = fc
  .tuple(
    fc.constantFrom('C', 'F#', 'Bb', 'Ab', 'E'),
    fc.constantFrom('', 'm7', '7alt', 'dim7', 'sus4', '6', 'm7b5'),
  )
  .map(([root, quality]) => parseChord(root + quality))
  .filter((chord) => chord !== null);

test('on every instrument each shape lies on the neck and holds its own notes', () => {
  const necks = TUNINGS.map(({ strings }) =>
    neckOf({ ...instrumentOf(DEFAULT_SETTINGS, null), tuning: [...strings] }),
  );
  fc.assert(
    fc.property(someChord, fc.constantFrom(...necks), (chord, neck) => {
      const mode = modeFor(alone(chord));
      const own = [
        ...chordNotes(chord),
        ...collectionNotes(mode),
        ...collectionNotes(matchingPentatonic(chord)),
      ];
      const fifth = chordNotes(chord).length < 4 ? [] : own;
      const groups = shapesOf(neck, chord, mode, 'minor', { low: 3, high: 7 });
      expect(groups.length).toBeGreaterThan(4);
      for (const { title, shapes } of groups) {
        for (const { places, zone } of shapes) {
          expect(places.every(({ fret }) => fret >= neck.capo && fret <= neck.frets)).toBe(true);
          expect(zone.low).toBeLessThanOrEqual(zone.high);
          // A grip of an altered chord borrows the fifth its symbol leaves out.
          if (/Grips|Homes|Triads/u.test(title) && fifth.length === 0) continue;
          expect(
            places.filter((place) => !holds(own, place.note)),
            title,
          ).toEqual([]);
        }
      }
    }),
    runs(25),
  );
});

test('unreadable settings are the defaults, and a lost instrument is the first', () => {
  expect(readSettings('{"instruments":[]}')).toEqual(DEFAULT_SETTINGS);
  expect(readSettings('nonsense')).toEqual(DEFAULT_SETTINGS);
  expect(instrumentOf(DEFAULT_SETTINGS, 'gone').name).toBe('Guitar');
  const short = { ...instrumentOf(DEFAULT_SETTINGS, null), id: 'x', tuning: ['E2', 'A2'] };
  expect(readSettings(JSON.stringify({ instruments: [short] }))).toEqual(DEFAULT_SETTINGS);
});
