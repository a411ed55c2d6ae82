import { describe, expect, test } from 'vitest';
import { degreeOver } from '../../chords/over';
import {
  inZone,
  parseTuning,
  pitchAt,
  placesOfPitch,
  STANDARD_NECK,
  type Neck,
} from '../../neck/neck';
import { degreeName } from '../../notes/degrees';
import { note, noteName, pitchClass } from '../../notes/notes';
import { makeExercise } from '../exercises';
import type { ExerciseRequest } from '../request';
import { at, range } from '../../lists';
import { settingOf } from '$tests/lines';
import { chartOf, pairs, some } from '$tests/laws';
import { propose } from '../../lenses/styles';
import { readHarmony } from '../../harmony/reading';
import { noteLength } from '../../time/subdivision';
import { notesOver, patternFrom } from './from';
import { isOfKind } from './notes';
import { PATTERN_LIMITS } from '../kinds';
import { parsePattern } from './pattern';
import { STARTER_PATTERNS } from './starter';
import { quality } from '../../chords/symbols';
import { BEAT, inBeats } from '../../time/units';

/** A pattern over a chart, in a zone of its key. */
function played(pattern: string, text: string, zone = 0, changed: Partial<ExerciseRequest> = {}) {
  const { chart, request } = settingOf(text, zone, { kind: 'own', pattern, ...changed });
  const exercise = makeExercise(request);
  const { neck } = request;
  return {
    chart,
    request,
    exercise,
    notes: exercise.passage.notes.map((note) => {
      const chord = at(chart.chords, note.chord ?? 0);
      const degree = degreeName(degreeOver(chord.chord, note.note));
      return { ...note, midi: pitchAt(neck, note), degree, name: noteName(note.note) };
    }),
  };
}
const degreesOf = (pattern: string, text: string, changed: Partial<ExerciseRequest> = {}) =>
  played(pattern, text, 0, changed)
    .notes.map(({ degree }) => degree)
    .join(' ');
/** Half steps from note to note. */
const steps = (pattern: string, text: string, changed: Partial<ExerciseRequest> = {}) => {
  const { notes } = played(pattern, text, 2, changed);
  return notes.slice(1).map(({ midi }, index) => midi - at(notes, index).midi);
};
const modesOver = (text: string) => {
  const chart = chartOf(text);
  return propose(chart, readHarmony(chart), 'modes').map(({ material }) => material);
};
const problemsOf = (text: string) => {
  const read = parsePattern(text);
  return read.ok ? [] : read.problems.map(({ from, to }) => text.slice(from, to));
};

describe('a pattern is read', () => {
  test.each([
    ['1 x 5', ['x']],
    ['1 0 5', ['0']],
    ['1 14', ['14']],
    ['<', ['<']],
    ['()1', ['()1']],
    ['(2 q)1', ['(2 q)1']],
    ['1 ~^5', ['~^5']],
    ['on m7 zz: 1', ['zz']],
    ['1 : 2', [':']],
    ['1 _ 2', ['_']],
  ])('with what is wrong at its place: %s', (text, wrong) => {
    expect(problemsOf(text)).toEqual(wrong);
  });

  test.each(['', '  ', 'r r', '…', 'on 7:'])('%j has no notes, which is said', (text) => {
    const read = parsePattern(text);
    expect(read.ok ? '' : at(read.problems, 0).message).toMatch(/^(Write some|Say which)/u);
  });

  test('whatever is written, no longer than it may be', () => {
    expect(parsePattern('1'.padEnd(PATTERN_LIMITS.characters, ' ')).ok).toBe(true);
    expect(parsePattern('1'.padEnd(PATTERN_LIMITS.characters + 1, ' ')).ok).toBe(false);
    expect(parsePattern('1 '.repeat(PATTERN_LIMITS.items)).ok).toBe(true);
    expect(parsePattern('1 '.repeat(PATTERN_LIMITS.items + 1)).ok).toBe(false);
  });

  test.each(['1235', '1 2 3 5', '1-2-3-5', '1–2–3–5', '1, 2, 3, 5', '| 1 2 | 3 5 |'])(
    'as players write it: %s',
    (text) => {
      expect(degreesOf(text, '| C |', { subdivision: 'quarters' })).toBe('1 2 3 5');
    },
  );
});

describe('a degree is the chord’s own', () => {
  test.each([
    ['1 3 5 7', '| Dm7 |', '1 b3 5 b7'],
    ['1 3 5 7', '| Cmaj7 |', '1 3 5 7'],
    ['1 3 5 7', '| Bm7b5 |', '1 b3 b5 b7'],
    ['1 3 5 7', '| Bdim7 |', '1 b3 b5 bb7'],
    ['1 4 5 7', '| G7sus4 |', '1 4 5 b7'],
    ['1 b3 n7 #4', '| Cmaj7 |', '1 b3 7 #4'],
    ['1 n7 3 5', '| Cm7 |', '1 7 b3 5'],
    ['9 7 5 3', '| Dm7 |', '2 b7 5 b3'],
  ])('%s over %s', (pattern, text, wanted) => {
    expect(degreesOf(pattern, text, { subdivision: 'quarters' })).toBe(wanted);
  });
});

test('where it is no tone of the chord, of what is played over it, else of the key', () => {
  const text = 'key: C\n| Em7 | Am7 | Dm7 | G7 | Cmaj7 |';
  const { request } = settingOf(text, 0);
  const over = (notes: string) =>
    degreesOf('1 2 3 6', text, {
      subdivision: 'quarters',
      materials: request.materials.map((material) => ({
        ...material,
        notes: notes.split(' ').map(note),
      })),
    })
      .split(' ')
      .slice(0, 4)
      .join(' ');
  expect(over('E G A B D')).toBe('1 b2 b3 b6');
  expect(over('E F# G A B C# D')).toBe('1 2 b3 6');
});

describe('a note is reached', () => {
  test.each([
    // On the shorter way, of two as near upwards.
    ['5 3 1 7', '| Dm7 |', [-4, -3, -2]],
    ['1 #4', '| C |', [6]],
    // By a leap down or up, and octaves further.
    ['1 ~3 5 7', '| Cmaj7 |', [-8, 3, 4]],
    ['1 ~7 5 3', '| Cmaj7 |', [-1, -4, -3]],
    ['1 ^7', '| Cmaj7 |', [11]],
    ['1 ^1 ~1', '| C |', [12, -12]],
    ['1 ^^2', '| C |', [14]],
    // A ninth lies above the octave.
    ['1 9', '| Cmaj9 |', [14]],
    ['3 5 7 9', '| Cmaj9 |', [3, 4, 3]],
    ['9 7 5 3', '| Cmaj9 |', [-3, -4, -3]],
    // From one side or both.
    ['<1', '| C |', [1]],
    ['>1', 'key: C\n| Cmaj7 |', [-2]],
    ['>3', 'key: C\n| Cmaj7 |', [-1]],
    ['(2 7)1', '| Cmaj7 |', [-3, 1]],
    ['(b2 7)<1', '| Cmaj7 |', [-2, 0, 1]],
    ['(2-7)1', '| Cmaj7 |', [-3, 1]],
  ])('%s over %s', (pattern, text, wanted) => {
    const all = steps(pattern, text, { subdivision: 'quarters' });
    expect(all.slice(0, wanted.length)).toEqual(wanted);
  });

  test('low in the zone, or where the last ended', () => {
    const text = '| Cmaj7 | Fmaj7 | Cmaj7 | Fmaj7 |';
    const first = (pattern: string) =>
      played(pattern, text, 1)
        .notes.filter(({ beat }) => beat % (4 * BEAT) === 0)
        .map(({ midi }) => midi);
    const again = first('1 2 3 5');
    expect(again[2]).toBe(again[0]);
    const { notes } = played('… 1 2 3 5', text, 1);
    notes.forEach(({ midi, beat }, index) => {
      if (index === 0 || beat % (2 * BEAT) !== 0) return;
      expect(Math.abs(midi - at(notes, index - 1).midi)).toBeLessThanOrEqual(14);
    });
    expect(first('… 1 2 3 5')).not.toEqual(again);
  });
});

test('before anything is typed there is something to play', () => {
  const { request } = settingOf('| C |', 0, { kind: 'own', pattern: null });
  expect(makeExercise(request)).toMatchObject({
    warnings: [],
    passage: { notes: [{}, {}, {}, {}, {}, {}, {}, {}] },
  });
});

describe('a pattern sounds in time', () => {
  const timesOf = (pattern: string, text: string, changed: Partial<ExerciseRequest> = {}) =>
    played(pattern, text, 0, changed).notes.map(({ beat, beats }) => [
      inBeats(beat),
      inBeats(beats),
    ]);

  test('in the notes of the exercise, or in values of its own, holds and rests', () => {
    expect(timesOf('1 2 3 5', '| C |').slice(0, 2)).toEqual([
      [0, 0.5],
      [0.5, 0.5],
    ]);
    expect(timesOf('1_ r 3:q 5:q. 1:et', '| C |').slice(0, 4)).toEqual([
      [0, 1],
      [1.5, 1],
      [2.5, 1.5],
    ]);
    // What leads to a long note is as short as the exercise's notes; to a shorter one, as short.
    expect(timesOf('(2 7)1:q <5:s', '| C |').slice(0, 5)).toEqual([
      ...[
        [0, 0.5],
        [0.5, 0.5],
      ],
      ...[
        [1, 1],
        [2, 0.25],
        [2.25, 0.25],
      ],
    ]);
    expect(timesOf('1:et 3:et 5:et', 'time: 2/4\n| C |')[1]?.[0]).toBeCloseTo(1 / 3);
    // A quarter is two beats of 12/8.
    expect(timesOf('1:q 3:e', 'time: 12/8\n| C |').slice(0, 2)).toEqual([
      [0, 2],
      [2, 1],
    ]);
  });

  test('again and again while a chord lasts, cut where it ends', () => {
    expect(degreesOf('1 2 3', '| C F |', { subdivision: 'quarters' })).toBe('1 2 1 2');
    expect(timesOf('1:h. 5', '| C F |')).toEqual([
      [0, 2],
      [2, 2],
    ]);
  });

  test('only over the chords it is for', () => {
    const { notes, chart } = played('on m7: 1 3', '| Dm9 | G7 | Am7 | Cm(maj7) |');
    const over = new Set(notes.map(({ chord }) => at(chart.chords, chord ?? 0).chord.symbol));
    expect([...over]).toEqual(['Dm9', 'Am7']);
    expect(played('on dim7: 1', '| C |').exercise.warnings).toEqual([
      'No chord of this chart is one the pattern is for.',
    ]);
    const seventh = at(played('1', '| G13 |').chart.chords, 0).chord;
    expect(isOfKind(seventh, quality('7'))).toBe(true);
    expect(isOfKind(seventh, quality('maj7'))).toBe(false);
  });
});

describe('a pattern has a direction', () => {
  const quarters = { subdivision: 'quarters' } as const;
  test('as typed, backward, or the one and the other over chords in turn', () => {
    const text = '| Cmaj7 | Fmaj7 | Cmaj7 |';
    const way = (direction: 'forward' | 'backward' | 'by turns' | null) =>
      degreesOf('1 2 3 5', text, { ...quarters, direction });
    expect(way(null)).toBe('1 2 3 5 1 2 3 5 1 2 3 5');
    expect(way('forward')).toBe(way(null));
    expect(way('backward')).toBe('5 3 2 1 5 3 2 1 5 3 2 1');
    expect(way('by turns')).toBe('1 2 3 5 5 3 2 1 1 2 3 5');
  });

  test('backward, every note keeps its pitch, its length and what leads to it', () => {
    const forward = played('1:h <5 r ~3', '| C | C |', 1, quarters);
    const backward = played('1:h <5 r ~3', '| C | C |', 1, { ...quarters, direction: 'backward' });
    const pitches = ({ notes }: typeof forward) =>
      notes.filter(({ chord }) => chord === 0).map(({ midi, beats }) => [midi, inBeats(beats)]);
    expect(pitches(forward)).toHaveLength(3);
    // 1 for two beats, what leads to 5, 5; backward 3, a rest, what leads to 5, 5.
    expect(pitches(backward).map(([, beats]) => beats)).toEqual([1, 1, 1]);
    const [, led, five] = pitches(forward);
    expect(pitches(backward).slice(1)).toEqual([led, five]);
  });

  test('goes on from where the last one ended, backward too', () => {
    const text = '| Cmaj7 | Fmaj7 | Bbmaj7 | Cmaj7 |';
    const { notes } = played('… 1 2 3 5', text, 1, { ...quarters, direction: 'backward' });
    notes.forEach(({ midi, beat }, index) => {
      if (index === 0 || beat % (4 * BEAT) !== 0) return;
      expect(Math.abs(midi - at(notes, index - 1).midi)).toBeLessThanOrEqual(14);
    });
  });
});

describe('an exercise is turned into a pattern and back', () => {
  const FORM = 'key: C\n| Dm7 | G7 | Cmaj7 | A7b9 |';
  /** The pattern of what is played over the first chord. */
  const patternOf = (text: string, changed: Partial<ExerciseRequest>) => {
    const { chart, request, notes } = played('1', text, 1, changed);
    const { chord, beat, beats } = at(chart.chords, 0);
    const { unit } = chart.source.time;
    return {
      chart,
      request,
      pattern: patternFrom({
        neck: request.neck,
        chord,
        beat,
        unit,
        scale: at(request.materials, 0).notes,
        notes: notesOver(notes, beat, beats),
        long: noteLength(request.subdivision, unit),
      }),
    };
  };

  test.each([
    ['five-notes', '1 2 3 4 5 4 3 2'],
    ['root-to-ninth', '1 3 5 7 2 7 5 3'],
    ['approach-arpeggio', 'n7 1 3 5 7 1 3 5'],
    ['in-thirds', '1 3 2 4 3 5 4 6'],
    ['in-sixths', '1 ^6 ~2 ^7 ~3 ^1 ~4 ^2'],
    ['targets', '7:w'],
  ] as const)('%s is %s', (kind, wanted) => {
    const { pattern } = patternOf(FORM, { kind, materials: modesOver(FORM) });
    expect(pattern).toBe(wanted);
  });

  test('what is played is what the exercise played, in every key and value', () => {
    const kinds = [
      ...(['ascending', 'descending', 'five-notes', 'degrees', 'in-fourths', 'groups'] as const),
      ...(['one-octave', 'enclosures', 'line', 'own'] as const),
    ];
    const cases = pairs(pairs(kinds, ['C', 'Eb', 'F#', 'B']), [
      ...(['quarters', 'eighths', 'triplets', 'sixteenths'] as const),
    ]);
    let written = 0;
    for (const [[kind, key], subdivision] of some(cases, 60)) {
      const text = `key: ${key}\n| ${key}maj7 | ${key}7 |`;
      const { chart, request, pattern } = patternOf(text, { kind, subdivision });
      if (pattern === null) continue;
      written += 1;
      const { beats } = at(chart.chords, 0);
      const over = (one: Partial<ExerciseRequest>) =>
        makeExercise({ ...request, ...one })
          .passage.notes.filter(({ chord, beat }) => chord === 0 && beat >= 0 && beat < beats)
          .map((each) => [each.beat, each.beats, pitchAt(request.neck, each)] as const);
      const first = over({});
      const again = over({ kind: 'own', pattern });
      const where = `${kind} ${key} ${subdivision}: ${pattern}`;
      expect(
        again.slice(0, first.length).map(([beat, length]) => [beat, length]),
        where,
      ).toEqual(first.map(([beat, length]) => [beat, length]));
      // The same tune: in the octave of its lowest first note, unless the zone has no room for it there.
      const classes = (notes: typeof first) => notes.map(([, , midi]) => midi % 12);
      expect(classes(again).slice(0, first.length), where).toEqual(classes(first));
    }
    expect(written).toBeGreaterThan(40);
  });

  test('what has no sign for it is none', () => {
    const { chart, request, notes } = played('1', '| C |');
    const off = notes.map((one) => ({ ...one, beat: one.beat + 262 }));
    const { chord, beat } = at(chart.chords, 0);
    const asked = { neck: request.neck, chord, beat, unit: 4, long: BEAT / 2, scale: [] };
    expect(patternFrom({ ...asked, notes: off })).toBeNull();
  });
});

describe('every pattern of ours', () => {
  const FORMS = [
    '| Dm7 | G7 | Cmaj7 | A7b9 |',
    'time: 3/4\n| Cm7 | F7 | Bbmaj7 | Ebmaj7 | Am7b5 | D7 | Gm6 | % |',
    'time: 7/8\n| C5 | Ebsus4 | Faug | Bdim7 |',
    'time: 12/8\n| F#7 | B7 | C#7alt | F#7 |',
  ];
  const DROPPED: Neck = {
    ...STANDARD_NECK,
    tuning: parseTuning(['D2', 'A2', 'D3', 'G3', 'A3', 'D4']) ?? [],
  };
  const FOUR: Neck = { ...STANDARD_NECK, tuning: parseTuning(['E1', 'A1', 'D2', 'G2']) ?? [] };
  const CASES = pairs(pairs(STARTER_PATTERNS, FORMS), range(0, 5));

  test('is played under the hand, in time, on its chords', () => {
    for (const [[{ text }, form], zone] of some(CASES, 80))
      for (const neck of [STANDARD_NECK, DROPPED, FOUR]) {
        const { exercise, notes, request, chart } = played(text, form, zone, { neck });
        const where = `${text} over ${form}, ${request.zone.low}–${request.zone.high}`;
        expect(notes.length > 0 || text.startsWith('on '), where).toBe(true);
        let end = 0;
        for (const note of notes) {
          expect(note.beat, where).toBeGreaterThanOrEqual(end);
          end = note.beat + note.beats;
          const chord = at(chart.chords, note.chord ?? 0);
          expect(end, where).toBeLessThanOrEqual(chord.beat + chord.beats);
          const near = { low: request.zone.low - 1, high: request.zone.high + 1 };
          // Strings tuned wide leave gaps that only a stretch fills.
          const reached = placesOfPitch(neck, note.midi).some(({ fret }) => inZone(near, fret));
          expect(inZone(near, note.fret) || !reached, `${where}: fret ${note.fret}`).toBe(true);
          expect(pitchClass(note.note), where).toBe(note.midi % 12);
        }
        expect(exercise.title).toMatch(/^Your own pattern/u);
      }
  });
});
