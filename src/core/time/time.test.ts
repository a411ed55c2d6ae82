import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { readFeel } from './feel';
import { asMeant, meantBeats } from './meant';
import { barOf, barsOf, onBeat, quarterOf, TIME_UNITS } from './metre';
import { lengthOf, onPaper, shortestOf, valuesFor } from './noteValues';
import { shared } from './shares';
import { noteLength, SUBDIVISIONS } from './subdivision';
import { beatsIn, secondsOf, tempoMap } from './tempo';
import { BEAT, inBeats } from './units';

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
        beat += length * BEAT;
        return here;
      });
    });

  test('seconds and beats lead back to one another, before the beginning too', () => {
    fc.assert(
      fc.property(changes, fc.integer({ min: -8 * BEAT, max: 100 * BEAT }), (steps, beat) => {
        const map = tempoMap(steps);
        expect(map.beatAt(map.secondsAt(beat))).toBe(beat);
      }),
    );
  });

  test('each tempo holds from its beat on', () => {
    const map = tempoMap([
      { beat: 0, bpm: 60 },
      { beat: 4 * BEAT, bpm: 120 },
    ]);
    expect([-2, 0, 4, 6].map((beat) => map.secondsAt(beat * BEAT))).toEqual([-2, 0, 4, 5]);
    expect(secondsOf(6 * BEAT, 90)).toBe(4);
    expect(beatsIn(1 / 7, 100)).toBe(Math.round((100 / 60 / 7) * BEAT));
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
          const changes = [{ beat: 2 * barOf(first), time: then }];
          const bars = barsOf(first, changes, beats * BEAT, up ? BEAT / 2 : 0);
          expect(bars[0]?.number).toBe(up ? 0 : 1);
          bars.slice(1).forEach((bar, index) => {
            const before = bars[index];
            expect(bar.beat).toBe((before?.beat ?? 0) + (before?.beats ?? 0));
            expect(Number.isInteger(bar.beat)).toBe(true);
            expect(bar.number).toBe((before?.number ?? 0) + 1);
          });
          const last = bars.at(-1);
          expect((last?.beat ?? 0) + (last?.beats ?? 0)).toBeGreaterThanOrEqual(beats * BEAT);
        },
      ),
    );
  });

  test('a subdivision is of quarters, whatever the unit', () => {
    const toQuarter = { quarters: 1, eighths: 2, triplets: 3, sixteenths: 4 } as const;
    for (const unit of TIME_UNITS)
      for (const subdivision of SUBDIVISIONS)
        expect(noteLength(subdivision, unit) * toQuarter[subdivision]).toBe(quarterOf(unit));
    expect(noteLength('eighths', 8)).toBe(BEAT);
  });
});

test.each([
  [4, 'whole', 0, false],
  [3, 'half', 1, false],
  [2, 'half', 0, false],
  [3 / 2, 'quarter', 1, false],
  [1, 'quarter', 0, false],
  [3 / 4, 'eighth', 1, false],
  [2 / 3, 'quarter', 0, true],
  [1 / 2, 'eighth', 0, false],
  [1 / 3, 'eighth', 0, true],
  [1 / 4, '16th', 0, false],
  [1 / 6, '16th', 0, true],
  [1 / 12, '32nd', 0, true],
] as const)(
  '%d quarters from the beat are one value in every unit',
  (quarters, type, dots, triplet) => {
    for (const unit of TIME_UNITS) {
      const length = Math.round(quarters * quarterOf(unit));
      const [value, ...more] = valuesFor(0, length, unit);
      expect(value).toEqual({ inQuarters: Math.round(quarters * BEAT), type, dots, triplet });
      expect(value && lengthOf(value, unit)).toBe(length);
      expect(more).toEqual([]);
    }
  },
);

test('note values fill any stretch of a bar on the grid', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: 47 }),
      fc.integer({ min: 1, max: 48 }),
      fc.constantFrom(...TIME_UNITS),
      (from, count, unit) => {
        const [start, length] = [from * shortestOf(unit), count * shortestOf(unit)];
        const values = valuesFor(start, length, unit);
        expect(values.reduce((sum, value) => sum + lengthOf(value, unit), 0)).toBe(length);
      },
    ),
  );
});

test('from a triplet’s place only triplets lead on', () => {
  const values = valuesFor(BEAT / 3, BEAT / 2, 4);
  expect(values.map(({ type, triplet }) => [type, triplet])).toEqual([
    ['eighth', true],
    ['16th', true],
  ]);
});

test('what cannot be written stands at the nearest moment that can', () => {
  expect(onPaper(BEAT / 5, 4)).toBe(2 * shortestOf(4));
  expect(onPaper(-BEAT / 16, 4)).toBe(-shortestOf(4));
  expect(shortestOf(8)).toBe(BEAT / 6);
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
          expect(meantBeats(cut(exact * scale) / scale)).toBe(count * (BEAT / of));
          expect(meantBeats(-cut(exact * scale) / scale)).toBe(-count * (BEAT / of));
        }
      }
  });

  test('is the nearest tick where it misses every division by more than cut digits, and where nothing would be left', () => {
    for (const played of [0.37, 0.665, 0.334_01, 1.251, 4 / 11, 0.000_5, 0, -0.000_5])
      expect(meantBeats(played)).toBe(Math.round(played * BEAT) + 0);
  });
});

test.each([
  [0.333, 1 / 3],
  [-0.6667, -2 / 3],
  [0.833, 5 / 6],
  [0.5, 0.5],
  [0.37, 0.37],
  [0.000_01, 0.000_01],
  [0, 0],
])('%d has the digits of what it stands for', (written, meant) => {
  expect(asMeant(written)).toBe(meant);
});

test('what is written of any ticks is read as those ticks', () => {
  fc.assert(
    fc.property(fc.integer({ min: -64 * BEAT, max: 5_000 * BEAT }), (ticks) => {
      expect(meantBeats(inBeats(ticks))).toBe(ticks);
    }),
  );
});

test('a moment falls on a beat or beside it', () => {
  expect([0, BEAT, -3 * BEAT].map(onBeat)).toEqual([true, true, true]);
  expect([1, BEAT - 1, BEAT / 2].map(onBeat)).toEqual([false, false, false]);
});

describe('a length that is shared out', () => {
  const shares = fc.array(fc.integer({ min: 1, max: 12 }), { minLength: 1, maxLength: 12 });
  const whole = fc.integer({ min: 1, max: 16 }).map((beats) => beats * BEAT);

  test('is tiled by its parts, none a tick away from what each of its shares is due', () => {
    fc.assert(
      fc.property(whole, shares, (length, held) => {
        const parts = shared(length, held);
        const all = held.reduce((sum, one) => sum + one, 0);
        let end = 0;
        parts.forEach(({ begins, beats }, index) => {
          const count = held[index] ?? 0;
          expect(begins).toBe(end);
          expect(beats).toBeGreaterThanOrEqual(count * Math.floor(length / all));
          expect(beats).toBeLessThanOrEqual(count * Math.ceil(length / all));
          end = begins + beats;
        });
        expect(end).toBe(length);
      }),
    );
  });

  test('is cut alike where two shares are held by one part', () => {
    fc.assert(
      fc.property(whole, shares, (length, held) => {
        const single = shared(
          length,
          held.flatMap((count) => Array<number>(count).fill(1)),
        );
        let place = 0;
        for (const [index, { begins }] of shared(length, held).entries()) {
          expect(begins).toBe(single[place]?.begins);
          place += held[index] ?? 0;
        }
      }),
    );
  });

  test('gives the ticks that are left over to the first', () => {
    const lengths = (held: readonly number[]) => shared(4 * BEAT, held).map(({ beats }) => beats);
    expect(lengths(Array<number>(11).fill(1))).toEqual([...Array<number>(10).fill(7331), 7330]);
    expect(lengths([1, 1, 2])).toEqual([BEAT, BEAT, 2 * BEAT]);
  });
});
