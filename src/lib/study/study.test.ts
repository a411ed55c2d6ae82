import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { transposeChart } from '$core/chart/rewrite';
import { DEFAULT_VIEW, readView, viewInPlan } from './view';
import { STANDARD_NECK, STYLES } from 'corvel-core';
import { degree } from '$core/notes/degrees';
import { note, pitchClass } from '$core/notes/notes';
import { readHarmony } from '$core/harmony/reading';
import { parseMaterial } from '$core/lenses/material';
import { lensContexts } from '$core/lenses/options';
import { alignPlan, transposeMaterial } from './align';
import { choose, planChords, scopeOf, takeProposal } from './choices';
import { contourStops } from '$lib/frame/contour';
import { lanesOf } from '$core/crossings/lanes';
import { planInStyle } from './styles';
import { EMPTY_PLAN, type Plan, type PlanChoice, readPlan, writePlan } from './plan';
import { chartOf } from '$tests/laws';

const choice = (lens: PlanChoice['lens'], name: string): PlanChoice => ({ lens, name, then: null });

function planned(text: string, plan: Plan) {
  const chart = chartOf(text);
  return planChords(chart, lensContexts(chart, readHarmony(chart)), plan);
}

const TEXT = 'key: C\n[A]\n| Cmaj7 | Dm7 G7 |\n[B]\n| Cmaj7 | Am7 |';

describe('reading a kept plan', () => {
  test('one of the first version keeps its choices', () => {
    const old = { version: 1, material: 'chord-tones', choices: { '2': 'own-pentatonic' } };
    const kept = { ...old, labels: 'name', lane: 'definers', layers: ['box'] };
    const plan = readPlan(JSON.stringify(kept));
    expect(plan).toMatchObject({ version: 3, base: 'chord-tones' });
    expect(readView(JSON.stringify(viewInPlan(kept)))).toEqual({
      ...DEFAULT_VIEW,
      labels: 'name',
      lane: 'guideTones',
      layers: ['box'],
    });
    expect(plan.choices['2']).toEqual({ lens: 'own-pentatonic', name: null, then: null });
    expect(
      planned(TEXT, plan)
        .map(({ material }) => material.name)
        .slice(0, 3),
    ).toEqual(['Cmaj7 arpeggio', 'Dm7 arpeggio', 'G major pentatonic']);
  });

  test('one of the second version keeps everything, its view apart', () => {
    const old = {
      version: 2,
      choices: { '0': { lens: 'mode', name: 'C lydian' } },
      strings: [1, 2, 3],
      targets: { shown: true, prefer: ['definers'], free: true },
      pins: { '1': { string: 2, fret: 3 } },
    };
    const plan = readPlan(JSON.stringify(old));
    expect(plan.targets).toEqual({ prefer: ['guideTones'], contour: null, free: true, chosen: 0 });
    expect(plan.pins).toEqual(old.pins);
    expect(viewInPlan(old)).toEqual({ strings: [1, 2, 3], targets: true });
    expect(readView('{"labels":"colours","oneOctave":true}')).toEqual({
      ...DEFAULT_VIEW,
      oneOctave: true,
    });
  });

  test('what is no plan becomes the empty one, and what is written is read back', () => {
    for (const kept of ['', '{', '[]', '{"version":9}', '{"choices":{"0":"wobbly"}}']) {
      expect(readPlan(kept)).toEqual(EMPTY_PLAN);
    }
    expect(readPlan(writePlan(EMPTY_PLAN))).toEqual(EMPTY_PLAN);
  });
});

describe('choosing', () => {
  const chart = chartOf(TEXT);

  test('reaches one chord, its equals, the section or the chart', () => {
    expect(scopeOf(chart, 0, 'chord')).toEqual([0]);
    expect(scopeOf(chart, 0, 'equal')).toEqual([0, 3]);
    expect(scopeOf(chart, 0, 'section')).toEqual([0, 1, 2]);
    expect(scopeOf(chart, 4, 'section')).toEqual([3, 4]);
    expect(scopeOf(chart, 0, 'chart')).toEqual([0, 1, 2, 3, 4]);
  });

  test('a mode goes to other chords as their own first mode, the key’s scale as it is', () => {
    const names = (lens: PlanChoice['lens'], name: string) =>
      planned(TEXT, choose(EMPTY_PLAN, chart, choice(lens, name), 0, [0, 1, 3])).map(
        ({ material }) => material.name,
      );
    expect(names('mode', 'C lydian')).toEqual([
      'C lydian',
      'D dorian',
      'G mixolydian',
      'C lydian',
      'A minor pentatonic',
    ]);
    expect(names('key-scale', 'C ionian').slice(0, 2)).toEqual(['C ionian', 'C ionian']);
  });

  test('a style is taken whole or for a part', () => {
    const proposal = chart.chords.map(() => ({
      lens: 'chord-tones' as const,
      material: parseMaterial('C triad') ?? fail(),
      intent: 'outline' as const,
    }));
    const plan = takeProposal(EMPTY_PLAN, proposal, [3, 4]);
    expect(Object.keys(plan.choices)).toEqual(['3', '4']);
    expect(plan.intents).toEqual({ '3': 'outline', '4': 'outline' });
  });

  test('every style’s plan is read back as the same notes', () => {
    for (const style of STYLES) {
      const plan = planInStyle(chart, readHarmony(chart), style);
      const read = planned(TEXT, readPlan(writePlan(plan)));
      expect(
        read.every(({ chosen, index, material }) => {
          return chosen && plan.choices[String(index)]?.name === material.name;
        }),
      ).toBe(true);
    }
  });
});

function fail(): never {
  throw new Error('There is no such material.');
}

describe('choices and the chart’s edits', () => {
  const anchored = (text: string, choices: Plan['choices']): Plan => ({
    ...alignPlan(EMPTY_PLAN, chartOf(text), STANDARD_NECK),
    choices,
    intents: { '2': 'outline' },
  });
  const G7 = choice('mode', 'G altered');

  test('a bar put in before moves them along', () => {
    const plan = anchored(TEXT, { '2': G7 });
    const aligned = alignPlan(
      plan,
      chartOf(TEXT.replace('[A]\n', '[A]\n| Em7 | A7 ')),
      STANDARD_NECK,
    );
    expect(aligned.choices).toEqual({ '4': G7 });
    expect(aligned.intents).toEqual({ '4': 'outline' });
    expect(aligned.setAside).toEqual([]);
  });

  test('a chord that is changed sets its choice aside, with its name and bar', () => {
    const plan = anchored(TEXT, { '0': choice('mode', 'C lydian'), '2': G7 });
    const aligned = alignPlan(plan, chartOf(TEXT.replace('G7', 'Db7')), STANDARD_NECK);
    expect(Object.keys(aligned.choices)).toEqual(['0']);
    expect(aligned.setAside).toEqual([
      { chord: 'G7', bar: 2, choice: G7, intent: 'outline', pin: null },
    ]);
    // Once written it stays, and a further edit loses nothing more.
    const again = alignPlan(aligned, chartOf('| Cmaj7 |'), STANDARD_NECK);
    expect(again.setAside).toHaveLength(1);
  });

  test('transposing moves what was chosen', () => {
    const plan = anchored(TEXT, { '1': choice('chord-tones', 'Dm7 arpeggio'), '2': G7 });
    const moved = transposeChart(TEXT, note('C'), note('Eb')) ?? '';
    const aligned = alignPlan(plan, chartOf(moved), STANDARD_NECK);
    expect(aligned.choices).toEqual({
      '1': choice('chord-tones', 'Fm7 arpeggio'),
      '2': choice('mode', 'Bb altered'),
    });
    expect(transposeMaterial('Bbm triad', degree('2'))).toBe('Cm triad');
  });

  test('pins follow a transposition to the same note, or are set aside', () => {
    const pins = { '0': { string: 2, fret: 5 }, '3': { string: 1, fret: 20 } };
    const plan = { ...anchored(TEXT, {}), pins };
    const up = alignPlan(
      plan,
      chartOf(transposeChart(TEXT, note('C'), note('D')) ?? ''),
      STANDARD_NECK,
    );
    expect(up.pins).toEqual({ '0': { string: 2, fret: 7 }, '3': { string: 1, fret: 22 } });
    const low = alignPlan(
      { ...plan, pins: { '0': { string: 6, fret: 0 }, '1': { string: 5, fret: 1 } } },
      chartOf(transposeChart(TEXT, note('C'), note('Bb')) ?? ''),
      STANDARD_NECK,
    );
    // Bb2 a whole step lower is Ab2, on the low string; D2 is nowhere.
    expect(low.pins).toEqual({ '1': { string: 6, fret: 4 } });
    expect(low.setAside).toMatchObject([{ bar: 1, choice: null, pin: { string: 6, fret: 0 } }]);
  });

  test('never are choices lost: each is kept, moved or set aside', () => {
    const bars = fc.array(fc.constantFrom('C', 'Am7', 'D7', 'G7', 'Em7'), {
      minLength: 1,
      maxLength: 8,
    });
    fc.assert(
      fc.property(bars, bars, (before, after) => {
        const text = `| ${before.join(' | ')} |`;
        const choices = Object.fromEntries(
          before.map((symbol, index) => [index, choice('chord-tones', `${symbol} arpeggio`)]),
        );
        const aligned = alignPlan(
          anchored(text, choices),
          chartOf(`| ${after.join(' | ')} |`),
          STANDARD_NECK,
        );
        const kept = Object.keys(aligned.choices).length + aligned.setAside.length;
        expect(kept).toBe(before.length);
        if (before.length !== after.length) {
          for (const [index, { name }] of Object.entries(aligned.choices)) {
            expect(name).toBe(`${after[Number(index)]} arpeggio`);
          }
        }
      }),
    );
  });
});

test('a lane’s contour stands within its bars, higher pitches higher up', () => {
  const chart = chartOf(TEXT);
  const lanes = lanesOf(chart.chords.map(({ chord }) => chord));
  const stops = [...contourStops(chart, lanes['3']).values()];
  expect(stops.map(({ from, to }) => [from, to])).toEqual([
    [0, 1],
    [0, 0.5],
    [0.5, 1],
    [0, 1],
    [0, 1],
  ]);
  // E, F, B, E, C: up a half step, down a tritone or up, …
  const [first, second] = stops;
  expect(pitchClass(first?.note ?? note('C'))).toBe(4);
  expect((second?.y ?? 0) < (first?.y ?? 0)).toBe(true);
  expect(first?.onward?.halfSteps).toBe(1);
  expect(stops.at(-1)?.onward).toBeNull();
});
