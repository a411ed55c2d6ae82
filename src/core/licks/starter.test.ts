import { describe, expect, test } from 'vitest';
import { readChart } from '../chart/form';
import { readHarmony } from '../harmony/reading';
import { at } from '../lists';
import { needsStretch } from '../neck/fingering';
import { pitchAt, STANDARD_NECK } from '../neck/neck';
import { playingWarnings } from '../exercises/playable';
import { lickPassage } from './lick';
import { readLick } from './reading';
import { STARTER_LICKS } from './starter';
import { notesFrom, notesToKeep } from './kept';

const FRETS_UNDER_HAND = 6;

describe('the starter book', () => {
  test('holds some sixty lines, no two alike', () => {
    expect(STARTER_LICKS.length).toBeGreaterThanOrEqual(55);
    expect(new Set(STARTER_LICKS.map(({ title }) => title)).size).toBe(STARTER_LICKS.length);
    // Told apart by rhythm and intervals, in whatever key they stand.
    const shapes = STARTER_LICKS.map(({ notes }) => {
      const first = pitchAt(STANDARD_NECK, at(notes, 0));
      return notes
        .map((note) => `${note.beat.toFixed(2)}:${pitchAt(STANDARD_NECK, note) - first}`)
        .join();
    });
    expect(new Set(shapes).size).toBe(STARTER_LICKS.length);
  });

  test.each(STARTER_LICKS.map((lick) => [lick.title, lick] as const))(
    '%s: in its zone, playable, heard',
    (_, lick) => {
      const result = readChart(lick.chart);
      if (!result.ok) throw new Error(result.problems[0]?.message);
      const { chart } = result;
      const { key } = readHarmony(chart).key;
      const played = notesFrom(lick.notes);
      const frets = played.map(({ fret }) => fret).filter((fret) => fret > 0);
      expect(Math.max(...frets) - Math.min(...frets) + 1).toBeLessThanOrEqual(FRETS_UNDER_HAND);
      if (frets.length < 6) expect(needsStretch(played)).toBe(false);
      for (const [index, { beat, beats }] of played.entries()) {
        expect(beats).toBeGreaterThan(0);
        expect(beat + beats).toBeLessThanOrEqual(played[index + 1]?.beat ?? Infinity);
      }
      const passage = lickPassage({ title: lick.title, notes: played }, chart, key, STANDARD_NECK);
      expect(playingWarnings(passage)).toEqual([]);
      expect(notesFrom(notesToKeep(played))).toEqual(played);
      const { heard, last, notes } = readLick(chart, key, STANDARD_NECK, played);
      // One chord alone has nothing to be told from.
      expect(heard.share ?? 1).toBeGreaterThan(0.8);
      expect(last).not.toBeNull();
      expect(at(notes, notes.length - 1).role).toBe('chord tone');
    },
  );
});
