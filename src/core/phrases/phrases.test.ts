import { describe, expect, test } from 'vitest';
import { STANDARD_NECK } from '../neck/neck';
import { note } from '../notes/notes';
import { measuresOf } from './measures';
import { inTime, type Passage, passageOf, PLAIN_PASSAGE, struck } from './passage';
import { bendBy, inOrder, lostTechniques, shiftSlides, type Technique } from './techniques';
import { chartOf } from '$tests/laws';
import { BEAT, inBeats } from '../time/units';

const TIME = { beats: 4, unit: 4 } as const;

const played = (beat: number, beats: number, techniques: readonly Technique[] = [], string = 3) =>
  struck({
    beat: beat * BEAT,
    beats: beats * BEAT,
    string,
    fret: 5,
    note: note('C'),
    chord: 0,
    techniques,
  });

const passage = (notes: Passage['notes'], more: Partial<Passage> = {}): Passage => ({
  ...PLAIN_PASSAGE,
  time: TIME,
  beats: 8 * BEAT,
  neck: STANDARD_NECK,
  notes,
  ...more,
});

/** A bar's events: when, how long, what; `~` where it is tied on. */
const barsOf = (of: Passage) =>
  measuresOf(of).map(({ number, events }) => [
    number,
    events
      .map(({ start, length, notes, graces, tiedFrom, tiedTo }) =>
        [
          `${inBeats(start)}+${inBeats(length)}`,
          notes.length === 0 ? 'rest' : notes.length,
          ...(graces.length > 0 ? [`grace ${graces.length}`] : []),
          ...(tiedFrom ? ['from~'] : []),
          ...(tiedTo ? ['to~'] : []),
        ].join(' '),
      )
      .join(', '),
  ]);

describe('measures', () => {
  test('a note over the bar line is tied, and its grace is written once', () => {
    const notes = [played(2.5, 0.125, [{ kind: 'grace' }]), played(3, 2)];
    expect(barsOf(passage(notes))).toEqual([
      [1, '0+3 rest, 3+1 1 grace 1 to~'],
      [2, '0+1 1 from~, 1+3 rest'],
    ]);
  });

  test('a note of two values in a bar carries its grace on the first', () => {
    const notes = [played(0, 0.125, [{ kind: 'grace' }]), played(0.5, 2.5)];
    const [[, first] = []] = barsOf(passage(notes, { beats: 4 * BEAT }));
    expect(String(first).match(/grace/gu)).toHaveLength(1);
    expect(first).toBe('0+0.5 rest, 0.5+0.5 1 grace 1 to~, 1+2 1 from~, 3+1 rest');
  });

  test('a grace that leads nowhere is a note', () => {
    expect(
      barsOf(passage([played(0, 1), played(1, 1, [{ kind: 'grace' }])], { beats: 4 * BEAT })),
    ).toEqual([[1, '0+1 1, 1+1 1, 2+2 rest']]);
  });

  test('notes of one moment stand together and end with the longest; the next ends what sounds', () => {
    const notes = [played(0, 1), played(0, 2, [], 2), played(1.5, 1)];
    expect(barsOf(passage(notes, { beats: 4 * BEAT }))).toEqual([
      [1, '0+1.5 2, 1.5+0.5 1 to~, 2+0.5 1 from~, 2.5+0.5 rest, 3+1 rest'],
    ]);
  });

  test('a pick-up is a bar 0, its beats as they fall in a full one', () => {
    const notes = [played(-1.5, 0.5), played(-1, 1), played(0, 4)];
    expect(barsOf(passage(notes, { beats: 4 * BEAT, pickUp: 1.5 * BEAT }))).toEqual([
      [0, '0+0.5 1, 0.5+1 1'],
      [1, '0+4 1'],
    ]);
  });
});

describe('a passage', () => {
  test('is in time, lower strings first, and fills whole bars', () => {
    const chart = chartOf('time: 3/4\n| C | G7 |');
    const late = [played(2, 1), played(0, 1, [], 2), played(0, 1, [], 4)];
    expect(inTime(late).map(({ beat, string }) => [inBeats(beat), string])).toEqual([
      ...[
        [0, 4],
        [0, 2],
        [2, 3],
      ],
    ]);
    const lengths = [5, 6, 6.5].map(
      (end) => passageOf(chart, null, STANDARD_NECK, 'x', [played(0, end)]).beats,
    );
    expect(lengths.map(inBeats)).toEqual([6, 6, 9]);
    expect(passageOf(chart, null, STANDARD_NECK, 'x', [played(-0.5, 1)]).pickUp).toBe(BEAT / 2);
    expect(passageOf(chart, null, STANDARD_NECK, 'x', [played(1, 1)]).pickUp).toBe(0);
  });
});

describe('techniques', () => {
  test.each([
    [0.2, 1],
    [1.4, 1],
    [1.5, 2],
    [3.6, 4],
    [9, 4],
  ])('a bend of %d half steps is one of %i', (asked, by) => {
    expect(bendBy(asked, false)).toEqual({ kind: 'bend', by });
  });

  test('stand in one order, one of each kind', () => {
    const many: Technique[] = [
      ...[{ kind: 'vibrato' } as const, { kind: 'bend', by: 1 } as const],
      ...[{ kind: 'bend', by: 2 } as const, { kind: 'grace' } as const],
    ];
    expect(inOrder(many)).toEqual([
      { kind: 'grace' },
      { kind: 'bend', by: 1 },
      { kind: 'vibrato' },
    ]);
  });

  test('slides move with their note and stay on the string', () => {
    const moved = shiftSlides([{ kind: 'slide', from: 3, to: 20 }, { kind: 'mute' }], 5, {
      low: 0,
      high: 22,
    });
    expect(moved).toEqual([{ kind: 'slide', from: 8, to: 22 }, { kind: 'mute' }]);
    expect(shiftSlides([{ kind: 'slide', from: 3 }], -5, { low: 2, high: 22 })).toEqual([
      { kind: 'slide', from: 2 },
    ]);
  });

  test('what a format does not hold is said', () => {
    const notes = [{ techniques: [{ kind: 'bend', by: 1 }, { kind: 'mute' }] as Technique[] }];
    expect(lostTechniques(notes, ['bend'], 'MIDI')).toEqual([
      'MIDI cannot hold muting: the notes are written without.',
    ]);
    expect(lostTechniques(notes, ['bend', 'mute'], 'MIDI')).toEqual([]);
  });
});
