import { afterAll, beforeAll, describe, expect, test, vi } from 'vitest';
import { parseKey } from '$core/keys/keys';
import { BEAT, inBeats, type Passage, STANDARD_NECK } from 'corvel-core';
import { note } from '$core/notes/notes';
import { PLAIN_PASSAGE, struck } from '$core/phrases/passage';
import { chartOf } from '$tests/laws';
import { chordUnder, layOutSheet, type SheetOptions } from './systems';

// Node.js has no page: names are taken to be as wide as their letters are many.
beforeAll(() => {
  vi.stubGlobal('document', { createElement: () => ({ getContext: () => null }) });
});
afterAll(() => {
  vi.unstubAllGlobals();
});

const SCREEN: SheetOptions = { width: 1000, medium: 'screen', degrees: true };

/** Eighths of one pitch in so many bars. */
function sheetOf(bars: number, more: Partial<Passage> = {}): Passage {
  const notes = Array.from({ length: 8 * bars }, (_, index) =>
    struck({
      beat: (index * BEAT) / 2,
      beats: BEAT / 2,
      string: 3,
      fret: 5,
      note: note('C'),
      chord: 0,
    }),
  );
  return {
    ...PLAIN_PASSAGE,
    time: { beats: 4, unit: 4 },
    beats: 4 * bars * BEAT,
    neck: STANDARD_NECK,
    notes,
    ...more,
  };
}
const barsIn = (passage: Passage, changed: Partial<SheetOptions> = {}) =>
  layOutSheet(passage, { ...SCREEN, ...changed }).map(({ bars }) => bars.length);

describe('systems', () => {
  test('hold as many bars as have room, and never more than four', () => {
    // A bar of eighths takes 240 on a screen, 136 on paper; the head 74, its time 22.
    expect(barsIn(sheetOf(9), { width: 4000 })).toEqual([4, 4, 1]);
    expect(barsIn(sheetOf(5), { width: 16 + 74 + 22 + 3 * 240 })).toEqual([3, 2]);
    expect(barsIn(sheetOf(5), { width: 16 + 74 + 22 + 3 * 240 - 1 })).toEqual([2, 3]);
    expect(barsIn(sheetOf(5), { width: 16 + 74 + 22 + 3 * 136, medium: 'paper' })).toEqual([3, 2]);
    expect(barsIn(sheetOf(2), { width: 10 })).toEqual([1, 1]);
    // An empty one takes 90 on either.
    const empty = sheetOf(3, { notes: [] });
    for (const medium of ['screen', 'paper'] as const) {
      expect(barsIn(empty, { width: 16 + 74 + 22 + 3 * 90, medium })).toEqual([3]);
      expect(barsIn(empty, { width: 16 + 74 + 22 + 3 * 90 - 1, medium })).toEqual([2, 1]);
    }
  });

  test('a signature takes room, and names of chords do', () => {
    const width = 16 + 74 + 22 + 3 * 240;
    expect(barsIn(sheetOf(3, { key: parseKey('G') }), { width })).toEqual([2, 1]);
    expect(barsIn(sheetOf(3, { key: parseKey('F') }), { width: width + 11 })).toEqual([3]);
    const { chords } = chartOf('| Ebmaj7#11 Abm(maj7) | C |');
    expect(barsIn(sheetOf(3, { chords }), { width })).toEqual([2, 1]);
  });

  test('a bend takes room for the degrees of both its ends, where they are shown', () => {
    const width = 16 + 74 + 22 + 3 * 240;
    const plain = sheetOf(3);
    const [first, ...others] = plain.notes;
    const bent = { ...first, techniques: [{ kind: 'bend', by: 2 }] };
    const passage = { ...plain, notes: [bent, ...others] } as Passage;
    expect(barsIn(passage, { width: width + 13 })).toEqual([2, 1]);
    expect(barsIn(passage, { width: width + 14 })).toEqual([3]);
    expect(barsIn(passage, { width, degrees: false })).toEqual([3]);
  });

  test('say where they begin and end, and whether a note is held into them', () => {
    const notes = [
      struck({ beat: 0, beats: 8 * BEAT, string: 3, fret: 5, note: note('C'), chord: 0 }),
    ];
    const lines = layOutSheet(sheetOf(2, { notes }), { ...SCREEN, width: 120 });
    expect(lines.map(({ from, to, tiedIn }) => [inBeats(from), inBeats(to), tiedIn])).toEqual([
      [0, 4, false],
      [4, 8, true],
    ]);
  });

  test('write a time signature where it changes', () => {
    const metreChanges = [
      { beat: 4 * BEAT, time: { beats: 3, unit: 4 } },
    ] as Passage['metreChanges'];
    const [line] = layOutSheet(sheetOf(4, { metreChanges, beats: 13 * BEAT }), {
      ...SCREEN,
      width: 4000,
    });
    expect(line?.bars.map(({ newTime }) => newTime)).toEqual([true, true, false, false]);
  });

  test('are as high as their notes, strings, signs and degrees ask', () => {
    const heights = (passage: Passage, degrees = true) =>
      layOutSheet(passage, { ...SCREEN, degrees })[0]?.sheet.heights;
    const plain = heights(sheetOf(1));
    expect(plain).toEqual({ staff: 36, tab: 104, degrees: 187, all: 200 });
    expect(heights(sheetOf(1), false)?.all).toBe(187);
    const at = (fret: number, string: number, more: object = {}) =>
      sheetOf(1, {
        notes: [
          struck({ beat: 0, beats: 4 * BEAT, string, fret, chord: 0, note: note('C'), ...more }),
        ],
      });
    expect(heights(at(20, 1))?.staff).toBeGreaterThan(36);
    expect(heights(at(0, 6, { note: note('E') }))?.tab).toBeGreaterThan(104);
    expect(heights(at(5, 3, { techniques: [{ kind: 'bend', by: 2 }] }))?.tab).toBe(118);
    expect(heights(at(5, 3, { techniques: [{ kind: 'pull-off' }] }))?.tab).toBe(112);
  });

  test('know the chord under a note', () => {
    const { chords } = chartOf('| C | G |');
    const under = (beat: number) =>
      chordUnder(sheetOf(2, { chords }), {
        beat: beat * BEAT,
      } as Passage['notes'][number])?.symbol ?? null;
    expect([0, 3.99, 4, 7.9, 8].map(under)).toEqual(['C', 'C', 'G', 'G', null]);
  });
});
