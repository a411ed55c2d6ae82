import { expect, test } from 'vitest';
import { degreeOver } from '../chords/over';
import { degreeName } from '../notes/degrees';
import { at } from '../lists';
import { pitchAt } from '../neck/neck';
import { reachOf } from '../neck/hand';
import { inZone } from '../neck/neck';
import { settingOf } from '$tests/lines';
import { pairs, some } from '$tests/laws';
import { makeExercise } from './exercises';
import type { ToneKind } from './tones';
import { barOf } from '../time/metre';

const FORMS = [
  'key: C\n| Dm7 | G7 | Cmaj7 | A7b9 |',
  'key: Eb\n| Ebmaj7 Cm7 | Fm7 Bb7 | Ebsus4 | Eb6 |',
  'time: 3/4\nkey: G\n| G | Em | C5 | D7/F# |',
  'time: 12/8\nkey: F#\n| F#7 | B7 | C#7alt | F#dim7 |',
];
const degreesOf = (kind: ToneKind, form: string, zone = 1) => {
  const { chart, request } = settingOf(form, zone, { kind });
  const { notes } = makeExercise(request).passage;
  return {
    chart,
    request,
    notes,
    over: chart.chords.map(({ index, chord }) =>
      notes
        .filter((one) => one.chord === index)
        .map((one) => degreeName(degreeOver(chord, one.note))),
    ),
  };
};

test.each([
  ['roots', [['1'], ['1'], ['1'], ['1']]],
  ['thirds', [['b3'], ['3'], ['3'], ['3']]],
] as const)('%s of every chord', (kind, wanted) => {
  expect(degreesOf(kind, at(FORMS, 0)).over).toEqual(wanted);
});

test('what stands for a third where there is none', () => {
  expect(degreesOf('thirds', at(FORMS, 1)).over[4]).toEqual(['4']);
});

test('guide tones by turns: each way the shorter, one where there is no time for two', () => {
  const { over, notes, request } = degreesOf('guide-tones', at(FORMS, 0));
  expect(over.map((one) => one.toSorted())).toEqual([
    ['b3', 'b7'],
    ['3', 'b7'],
    ['3', '7'],
    ['3', 'b7'],
  ]);
  // C or F to B, F or E: never further than a step where one lies beside.
  const midi = notes.map((one) => pitchAt(request.neck, one));
  for (const first of [2, 4])
    expect(Math.abs(at(midi, first) - at(midi, first - 1))).toBeLessThanOrEqual(2);
  expect(
    degreesOf('guide-tones', 'key: C\n| Dm7 G7 Cmaj7 C6 |').over.map((one) => one.length),
  ).toEqual([1, 1, 1, 1]);
});

test('stand where the chord begins, in each bar, under the hand', () => {
  const cases = pairs(pairs(['roots', 'thirds', 'guide-tones'] as const, FORMS), [0, 1, 2, 3, 4]);
  for (const [[kind, form], zone] of some(cases, 40)) {
    const { chart, notes, request } = degreesOf(kind, form, zone);
    const where = `${kind} ${form} ${zone}`;
    for (const { beat } of chart.chords)
      expect(
        notes.some((one) => one.beat === beat),
        where,
      ).toBe(true);
    for (const { beat } of chart.bars)
      expect(
        notes.some((one) => one.beat === beat),
        where,
      ).toBe(true);
    for (const one of notes)
      expect(inZone(reachOf(request.neck, request.zone), one.fret), where).toBe(true);
  }
});

test('a line with gaps leaves every second bar to the player', () => {
  for (const form of FORMS) {
    const { request, chart } = settingOf(`${form}\n${form.split('\n').at(-1) ?? ''}`, 1, {
      kind: 'line-gaps',
    });
    const whole = makeExercise({ ...request, kind: 'line' }).passage.notes;
    const { passage, line } = makeExercise(request);
    const bar = barOf(chart.source.time);
    expect(line).not.toBeNull();
    expect(passage.notes.length).toBeGreaterThan(0);
    for (const { beat, beats } of passage.notes) {
      const own = Math.floor(Math.max(0, beat) / bar);
      expect(own % 2).toBe(0);
      expect(beat + beats).toBeLessThanOrEqual((own + 1) * bar);
    }
    const kept = whole.filter(({ beat }) => Math.floor(Math.max(0, beat) / bar) % 2 === 0);
    expect(passage.notes.map(({ beat }) => beat)).toEqual(kept.map(({ beat }) => beat));
  }
});
