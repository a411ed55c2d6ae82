import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { readFeel } from './feel';
import { meantBeat } from './meant';
import { barsOf, barTicks, TIME_UNITS } from './metre';
import { valuesFor } from './noteValues';
import { notesPerBeat, SUBDIVISIONS } from './subdivision';
import { tempoMap } from './tempo';

describe('tempo', () => {
  const changes = fc
    .array(
      fc.record({
        length: fc.integer({ min: 1, max: 16 }),
        bpm: fc.integer({ min: 20, max: 400 }),
      }),
      { minLength: 1, maxLength: 6 },
    )
    .map((steps) => {
      let beat = 0;
      return steps.map(({ length, bpm }) => {
        const here = { beat, bpm };
        beat += length;
        return here;
      });
    });

  test('seconds and beats lead back to one another, before the beginning too', () => {
    fc.assert(
      fc.property(changes, fc.double({ min: -8, max: 100, noNaN: true }), (steps, beat) => {
        const map = tempoMap(steps);
        expect(map.beatAt(map.secondsAt(beat))).toBeCloseTo(beat, 6);
      }),
    );
  });

  test('each tempo holds from its beat on', () => {
    const map = tempoMap([
      { beat: 0, bpm: 60 },
      { beat: 4, bpm: 120 },
    ]);
    expect([-2, 0, 4, 6].map(map.secondsAt)).toEqual([-2, 0, 4, 5]);
  });
});

describe('metre', () => {
  test('bars follow one another from the pick-up to the end', () => {
    const time = fc.record({
      beats: fc.integer({ min: 1, max: 12 }),
      unit: fc.constantFrom(...TIME_UNITS),
    });
    fc.assert(
      fc.property(
        time,
        time,
        fc.integer({ min: 1, max: 40 }),
        fc.boolean(),
        (first, then, beats, up) => {
          const bars = barsOf(first, [{ beat: 2 * first.beats, time: then }], beats, up ? 0.5 : 0);
          expect(bars[0]?.number).toBe(up ? 0 : 1);
          bars.slice(1).forEach((bar, index) => {
            const before = bars[index];
            expect(bar.beat).toBeCloseTo((before?.beat ?? 0) + (before?.beats ?? 0));
            expect(bar.number).toBe((before?.number ?? 0) + 1);
          });
          const last = bars.at(-1);
          expect((last?.beat ?? 0) + (last?.beats ?? 0)).toBeGreaterThanOrEqual(beats - 1e-6);
        },
      ),
    );
  });

  test('a subdivision is of quarters, whatever the unit', () => {
    for (const subdivision of SUBDIVISIONS) {
      const inQuarters = notesPerBeat(subdivision, 4);
      expect(notesPerBeat(subdivision, 8)).toBe(inQuarters / 2);
    }
    expect(12 * notesPerBeat('eighths', 8)).toBe(12);
  });
});

test.each([
  [48, 'whole', 0, false],
  [36, 'half', 1, false],
  [24, 'half', 0, false],
  [18, 'quarter', 1, false],
  [12, 'quarter', 0, false],
  [9, 'eighth', 1, false],
  [8, 'quarter', 0, true],
  [6, 'eighth', 0, false],
  [4, 'eighth', 0, true],
  [3, '16th', 0, false],
  [2, '16th', 0, true],
  [1, '32nd', 0, true],
] as const)('%i ticks from the beat are one value', (ticks, type, dots, triplet) => {
  expect(valuesFor(0, ticks)).toEqual([{ ticks, type, dots, triplet }]);
});

test('note values fill any stretch of a bar on the grid', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: 47 }),
      fc.integer({ min: 1, max: 48 }),
      (from, length) => {
        const filled = valuesFor(from, length).reduce((sum, { ticks }) => sum + ticks, 0);
        expect(filled).toBe(length);
      },
    ),
  );
  expect(barTicks({ beats: 6, unit: 8 })).toBe(36);
});

test.each([
  ['swing', 'swing', 2],
  ['medium shuffle', 'shuffle', 2],
  ['straight eighths', 'straight', null],
  ['bossa', 'bossa', null],
  ['16th funk', 'funk', null],
  ['jazz waltz', 'jazz waltz', 1.6],
  ['slow 12/8', 'slow 12/8', null],
  ['something of ours', 'straight', null],
])('“%s” is felt as %s', (words, kind, ratio) => {
  const feel = readFeel(words);
  expect(feel?.kind).toBe(kind);
  expect(feel?.swing?.ratio ?? null).toBe(ratio);
  expect(readFeel('  ')).toBeNull();
});

describe('a beat that was written as a decimal', () => {
  const parts = [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 12, 14, 16, 32, 64];

  test.each([3, 4, 6, 12])('of %i digits is the division of a beat that was meant', (digits) => {
    const scale = 10 ** digits;
    for (const of of parts)
      for (let count = 1; count <= 3 * of; count += 1) {
        const exact = count / of;
        // Three digits that were only cut off still say a third.
        for (const cut of digits > 3 || of === 3 ? [Math.round, Math.trunc] : [Math.round]) {
          expect(meantBeat(cut(exact * scale) / scale)).toBe(exact);
          expect(meantBeat(-cut(exact * scale) / scale)).toBe(-exact);
        }
      }
  });

  test('is itself where it misses every division by more than cut digits, and where nothing would be left', () => {
    for (const played of [0.37, 0.665, 0.334_01, 1.251, 4 / 11, 0.000_5, 0, -0.000_5])
      expect(meantBeat(played)).toBe(played);
  });
});
