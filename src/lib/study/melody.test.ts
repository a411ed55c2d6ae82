import { describe, expect, test } from 'vitest';
import { transposeChart } from '$core/chart/rewrite';
import { BEAT, makeNeck, noteName, pitchAt, STANDARD_NECK } from 'corvel-core';
import { note } from '$core/notes/notes';
import { laneOfMelody } from '$lib/plan/melodyLane';
import { alignPlan } from './align';
import { melodyOn, melodyOver } from './melody';
import { asMelody, EMPTY_PLAN, type Plan, readPlan, writePlan } from './plan';
import { chartOf } from '$tests/laws';

const TEXT = 'key: C\n| Cmaj7 | Am7 | Dm7 G7 |';
const MELODY: NonNullable<Plan['melody']> = [
  { beat: 0, beats: 3, string: 2, fret: 5, techniques: [] },
  { beat: 3.5, beats: 2, string: 2, fret: 10, techniques: [{ kind: 'slide', from: 8 }] },
  { beat: 11, beats: 1, string: 1, fret: 1, techniques: [] },
];
const plan: Plan = { ...EMPTY_PLAN, melody: MELODY };

describe('the melody of a tune', () => {
  test('is the lane of what each chord is met with', () => {
    const chart = chartOf(TEXT);
    const lane = laneOfMelody(chart, STANDARD_NECK, melodyOver(plan, chart, null, STANDARD_NECK));
    // Over D minor nothing sounds; over G7 the F comes late.
    expect(
      lane.map(({ index, note: met, halfSteps }) => [index, noteName(met), halfSteps]),
    ).toEqual([
      [0, 'E', 0],
      [1, 'A', 5],
      [3, 'F', -4],
    ]);
  });

  test('moves with a transposed chart, its slides with it', () => {
    const chords = alignPlan(plan, chartOf(TEXT), STANDARD_NECK);
    const up = chartOf(transposeChart(TEXT, note('C'), note('D')) ?? '');
    const moved = alignPlan(chords, up, STANDARD_NECK).melody ?? [];
    expect(moved.map((one) => pitchAt(STANDARD_NECK, one))).toEqual(
      MELODY.map((one) => pitchAt(STANDARD_NECK, one) + 2),
    );
    expect(moved[1]?.techniques).toEqual([{ kind: 'slide', from: 10 }]);
  });

  test('leaves out what another instrument has no place for', () => {
    const bass = makeNeck({ tuning: ['E1', 'A1', 'D2', 'G2'], frets: 12 });
    if (!bass.ok) throw new Error(bass.message);
    const high = {
      ...plan,
      melody: [...MELODY, { beat: 10, beats: 1, string: 5, fret: 3, techniques: [] }],
    };
    expect(melodyOn(high, bass.neck)).toHaveLength(3);
  });

  test('is kept up to 2,048 notes, none shorter than a forty-eighth of a beat', () => {
    const one = { beat: 0, beats: BEAT / 64, string: 2, fret: 5, techniques: [] };
    expect(asMelody([])).toBeNull();
    expect(
      asMelody([one, { ...one, beat: BEAT, beats: BEAT / 32 }])?.map(({ beats }) => beats),
    ).toEqual([1 / 48, 1 / 32]);
    const most = Array.from({ length: 2_048 }, (_, beat) => ({ ...one, beat: beat * BEAT }));
    expect(asMelody([...most, one])).toBeNull();
    const kept = asMelody(most);
    expect(kept).toHaveLength(2_048);
    expect(readPlan(writePlan({ ...EMPTY_PLAN, melody: kept })).melody).toEqual(kept);
  });
});
