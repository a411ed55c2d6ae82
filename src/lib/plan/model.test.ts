/** What Plan shows of the chord sounding now and the change to the next. */
import { describe, expect, test } from 'vitest';
import { optionsFor } from '$core/lenses/options';
import { readPlan } from '$lib/study/plan';
import { degreesShown } from '$lib/study/view';
import { standsStill, studyOf } from '$tests/study';
import { createPlanModel } from './model.svelte';

standsStill();

const TEXT = 'key: C\n[A] x2\n| Dm7 G7 | Cmaj7 |\n[B]\n| Fm7 | Fm7 |';

/** Plan opened at a chord: the panels follow a step with a later frame. */
function planAt(index: number, text = TEXT, view: object = {}) {
  const study = studyOf(text, { place: { index, zone: { low: 5, high: 8 } }, view });
  return { study, plan: createPlanModel(study) };
}

describe('the change', () => {
  test('leads to the next other chord, round the form', () => {
    const from = (index: number) => {
      const { now, next } = planAt(index).plan;
      return [now?.chord.symbol, next?.chord.symbol];
    };
    expect(from(0)).toEqual(['Dm7', 'G7']);
    expect(from(6)).toEqual(['Fm7', 'Dm7']);
    expect(from(7)).toEqual(['Fm7', 'Dm7']);
  });

  test('without chords is none, and nothing is offered', () => {
    const { plan } = planAt(0, '');
    expect([plan.now, plan.next, plan.change, plan.crossing, plan.current]).toEqual([
      ...[null, null, null, null, null],
    ]);
    expect([plan.options, plan.marks, plan.layers, plan.remarksNow]).toEqual([[], [], [], []]);
    expect([plan.adviceNow, plan.fast, plan.writtenAt(0)]).toEqual([null, undefined, null]);
  });

  test('is said of the chords, and its notes are those of what is played', () => {
    const { plan, study } = planAt(0);
    expect(plan.change?.clauses.length).toBeGreaterThan(0);
    expect(plan.crossing?.before).toHaveLength(4);
    expect(plan.crossing?.after).toHaveLength(4);
    study.look({ crossing: 'choices' });
    expect(plan.crossing?.before).toEqual(plan.now?.material.notes);
    expect(plan.crossing?.after).toEqual(plan.next?.material.notes);
  });
});

describe('what may be played', () => {
  test('what is looked at is shown over its own chord alone, and chosen with a press', () => {
    const { plan, study } = planAt(0);
    const other = plan.options.find(({ material }) => material.name !== plan.now?.material.name);
    if (!other) throw new Error('There is only one option.');
    plan.look(other);
    expect(plan.preview).toBe(other);
    expect(plan.crossing?.before).toEqual(other.material.notes);
    study.go(1);
    expect(plan.preview).toBeNull();
    study.go(0);
    plan.look(null);
    expect(plan.preview).toBeNull();
    plan.look(other);
    plan.choose(other, 'chord');
    expect([plan.preview, plan.now?.material.name]).toEqual([null, other.material.name]);
    expect(plan.current?.material.name).toBe(other.material.name);
    expect(plan.current?.lens).toBe(other.lens);
  });

  test('is ranked by what it shares with the chords before and after, round the form', () => {
    for (const index of [0, 3, 7]) {
      const { plan, study } = planAt(index);
      const before = study.planned[(index + 7) % 8];
      const neighbours = [before, plan.next].flatMap((one) => (one ? [one.material] : []));
      const context = study.contexts[index];
      if (!context) throw new Error('There is no chord here.');
      const { preferred } = study.plan;
      expect(plan.options).toEqual(optionsFor(context, { neighbours, preferred }));
    }
  });

  test('a lens gives its first answer over the chord the player is at by now', () => {
    const { plan, study } = planAt(0);
    study.go(1);
    plan.chooseLens('chord-tones');
    expect(Object.keys(readPlan(study.document.plan).choices)).toEqual(['1']);
    expect(study.planned[1]?.material.name).toBe('G7 arpeggio');
    study.document.undo();
    plan.chooseLens('blues');
    expect(study.planned[1]?.lens).toBe('blues');
  });
});

describe('on the neck', () => {
  test('the zone is marked, or all of it', () => {
    const { plan } = planAt(0);
    const frets = () => plan.marks.map(({ fret }) => fret);
    const inZone = frets();
    expect(Math.max(...inZone) - Math.min(...inZone)).toBeLessThan(6);
    plan.toggleWhole();
    expect(plan.whole).toBe(true);
    expect(frets().length).toBeGreaterThan(2 * inZone.length);
    plan.toggleWhole();
    expect(frets()).toEqual(inZone);
  });

  test('only some degrees are marked, where that is asked for', () => {
    const { plan, study } = planAt(0);
    const all = plan.marks.length;
    study.look({ only: '3' });
    expect(degreesShown('3')).not.toBeNull();
    const thirds = plan.marks;
    expect(thirds.length).toBeGreaterThan(0);
    expect(thirds.length).toBeLessThan(all / 2);
  });

  test('a shape is laid over the notes and taken off, and shows the same again', () => {
    const { plan, study } = planAt(0);
    expect(plan.layers).toEqual([]);
    plan.toggleLayer('box');
    const [box] = plan.layers;
    expect(box?.kind).toBe('box');
    plan.toggleLayer('arpeggio');
    expect(study.view.layers).toEqual(['box', 'arpeggio']);
    plan.toggleLayer('box');
    expect(study.view.layers).toEqual(['arpeggio']);
  });

  test('a target that is set by hand is kept and shown', () => {
    const { plan, study } = planAt(0);
    study.look({ targets: false });
    plan.pin(1, { string: 2, fret: 6 });
    expect(readPlan(study.document.plan).pins).toEqual({ '1': { string: 2, fret: 6 } });
    expect(study.view.targets).toBe(true);
  });
});

describe('around the chord', () => {
  test('the lane is the one that is chosen', () => {
    const { plan, study } = planAt(0);
    study.look({ lane: 'none' });
    expect(plan.lane).toBeNull();
    study.look({ lane: '1' });
    expect(plan.lane?.map(({ degree }) => degree).length).toBe(8);
    study.look({ lane: 'melody' });
    expect(plan.lane).toBeNull();
    study.look({ lane: 'route' });
    expect(plan.lane).toBeNull();
  });

  test('cadences and what is too fast hold their first and their last chord', () => {
    const fastText = 'key: C\n| Cmaj7 | Dm7 Em7 Fmaj7 G7 | Cmaj7 |';
    const fast = [0, 1, 2, 3, 4, 5].map((index) => planAt(index, fastText).plan.fast !== undefined);
    const stretch = planAt(2, fastText).plan.fast ?? { from: -1, to: -1 };
    expect(fast).toEqual([0, 1, 2, 3, 4, 5].map((at) => stretch.from <= at && at <= stretch.to));
    expect(fast.filter(Boolean).length).toBeGreaterThan(2);
    const two = 'key: C\n| Fmaj7 | Dm7 | G7 | Cmaj7 | Am7 |';
    const held = [0, 1, 2, 3, 4].map((index) =>
      planAt(index, two).plan.cadencesNow.some(({ kind }) => kind === 'ii-V-I major'),
    );
    expect(held).toEqual([false, true, true, true, false]);
  });

  test('remarks are of changes that hold the chord, those said of fewest chords first', () => {
    const text = '| C | Am | F | Cm7 |';
    const spans = [0, 1, 2, 3].map((index) =>
      planAt(index, text).plan.remarksNow.map(({ kind, from, to }) => `${kind} ${from}–${to}`),
    );
    expect(spans[0]).toEqual(['one note changes 0–1', 'common tone 0–3']);
    expect(spans[2]?.at(-1)).toBe('common tone 0–3');
    expect(spans[3]).toEqual([]);
  });

  test('a chord has its place on paper, the same each time through a section', () => {
    const { plan } = planAt(0);
    const places = [0, 1, 2, 3, 4, 5, 6, 7].map((index) => plan.writtenAt(index));
    expect(places.map((place) => [place?.bar, place?.slot])).toEqual([
      ...[
        [0, 0],
        [0, 1],
        [1, 0],
      ],
      ...[
        [0, 0],
        [0, 1],
        [1, 0],
      ],
      ...[
        [2, 0],
        [3, 0],
      ],
    ]);
    expect(plan.writtenAt(8)).toBeNull();
  });
});
