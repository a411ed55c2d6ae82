import { describe, expect, test } from 'vitest';
import { readChart } from '$core/chart/form';
import { readHarmony } from '$core/harmony/reading';
import { lensContexts, optionsFor } from '$core/lenses/options';
import {
  changeTargets,
  chooseOption,
  dropSetAside,
  dropSheet,
  keepSheet,
  pin,
  putBack,
  setInstrument,
  setIntent,
  setMelody,
  setZone,
  switchAfter,
  thenPlay,
  togglePreferred,
  unpin,
} from './edits';
import { planChords } from './choices';
import { planDifferences } from './differences';
import { EMPTY_PLAN, isNewerPlan, type Plan, readPlan, writePlan } from './plan';

const chart = (() => {
  const result = readChart('key: C\n[A]\n| Dm7 | G7 | Cmaj7 | Dm7 |');
  if (!result.ok) throw new Error(result.problems[0]?.message);
  return result.chart;
})();
const contexts = lensContexts(chart, readHarmony(chart));
const first = (index: number) => {
  const [context] = contexts.slice(index);
  const [option] = context ? optionsFor(context) : [];
  if (!option) throw new Error('no option');
  return option;
};

const SHEET: Plan['sheets'][number] = {
  id: 's',
  name: 'Mine',
  kind: 'line',
  subdivision: 'eighths',
  extent: 'whole',
  from: 0,
  zone: { low: 3, high: 7 },
  strings: [1, 2, 3],
  group: 4,
  seed: 1,
  style: null,
  octave: null,
  pattern: null,
  begin: null,
  direction: null,
  passage: null,
};

describe('every edit', () => {
  const edits: Readonly<Record<string, (plan: Plan) => Plan>> = {
    chooseOption: chooseOption(chart, 0, first(0), 'equal'),
    setIntent: setIntent(chart, 0, 'outline', 'chart'),
    togglePreferred: togglePreferred('mode'),
    setZone: setZone({ low: 5, high: 9 }),
    setInstrument: setInstrument('bass'),
    changeTargets: changeTargets({ free: true }),
    pin: pin(1, { string: 2, fret: 3 }),
    keepSheet: keepSheet(SHEET),
    setMelody: setMelody([{ beat: 0, beats: 1, string: 3, fret: 5, techniques: [] }]),
  };

  test.each(Object.entries(edits))(
    '%s leaves the plan it was given, and is read back',
    (_, edit) => {
      const before = structuredClone(EMPTY_PLAN);
      const after = edit(EMPTY_PLAN);
      expect(EMPTY_PLAN).toEqual(before);
      expect(after).not.toEqual(before);
      expect(readPlan(writePlan(after))).toEqual(after);
    },
  );
});

describe('edits', () => {
  test('a choice reaches as far as its scope', () => {
    const plan = chooseOption(chart, 0, first(0), 'equal')(EMPTY_PLAN);
    expect(Object.keys(plan.choices)).toEqual(['0', '3']);
    const one = chooseOption(chart, 0, first(0), 'chord')(EMPTY_PLAN);
    expect(Object.keys(one.choices)).toEqual(['0']);
  });

  test('the same pin again lets it go, another place moves it', () => {
    const pinned = pin(1, { string: 2, fret: 3 })(EMPTY_PLAN);
    expect(pinned.pins).toEqual({ '1': { string: 2, fret: 3 } });
    expect(pin(1, { string: 2, fret: 3 })(pinned).pins).toEqual({});
    expect(pin(1, { string: 1, fret: 3 })(pinned).pins).toEqual({ '1': { string: 1, fret: 3 } });
    expect(unpin(pinned).pins).toEqual({});
  });

  test('a pin solves the routes anew from the best', () => {
    const chosen = changeTargets({ chosen: 2 })(EMPTY_PLAN);
    expect(pin(0, { string: 1, fret: 1 })(chosen).targets.chosen).toBe(0);
  });

  test('another instrument lets the zone go', () => {
    const plan = setInstrument('bass')(setZone({ low: 5, high: 9 })(EMPTY_PLAN));
    expect([plan.instrument, plan.zone]).toEqual(['bass', null]);
  });

  test('a lens is preferred, and no longer', () => {
    const once = togglePreferred('blues')(togglePreferred('mode')(EMPTY_PLAN));
    expect(once.preferred).toEqual(['mode', 'blues']);
    expect(togglePreferred('mode')(once).preferred).toEqual(['blues']);
  });

  test('what was set aside is put on another chord with its pin, or dropped', () => {
    const aside = {
      chord: 'G7',
      bar: 2,
      intent: null,
      pin: { string: 3, fret: 4 },
      choice: { lens: 'mode' as const, name: 'G altered', then: null },
    };
    const plan = { ...EMPTY_PLAN, setAside: [aside] };
    const back = putBack(2, aside)(plan);
    expect(back.choices['2']).toEqual(aside.choice);
    expect(back.pins['2']).toEqual(aside.pin);
    expect(back.setAside).toEqual([]);
    expect(dropSetAside(plan).setAside).toEqual([]);
  });

  test('a switch inside a chord moves only where there is one', () => {
    const choice = { lens: 'simplify' as const, name: 'Fmaj7 arpeggio' };
    const plan: Plan = {
      ...EMPTY_PLAN,
      choices: { '0': { ...choice, then: { name: 'Cmaj7 arpeggio', after: 1 } } },
    };
    expect(switchAfter(0, 3)(plan).choices['0']?.then?.after).toBe(3);
    const [planned] = planChords(chart, contexts, EMPTY_PLAN);
    if (!planned) throw new Error('no chord');
    const both = thenPlay(planned, first(0), 1)(EMPTY_PLAN);
    expect(both.choices['0']).toEqual({
      lens: planned.lens,
      name: planned.material.name,
      then: { name: first(0).material.name, after: 1 },
    });
    expect(thenPlay(planned, null, 1)(both).choices['0']?.then).toBeNull();
    expect(switchAfter(1, 3)(plan)).toBe(plan);
  });

  test('a sheet kept again takes the place of the old, and is dropped by its id', () => {
    const plan = keepSheet({ ...SHEET, name: 'Anew' })(keepSheet(SHEET)(EMPTY_PLAN));
    expect(plan.sheets.map(({ name }) => name)).toEqual(['Anew']);
    expect(dropSheet('s')(plan).sheets).toEqual([]);
  });
});

describe('two plans in conflict', () => {
  test('differ in words, chord by chord, and are never written over by an older Corvel', () => {
    const mine = {
      ...EMPTY_PLAN,
      chords: ['Dm7', 'G7'],
      bars: [1, 2],
      choices: { '1': { lens: 'mode' as const, name: 'G altered', then: null } },
    };
    const theirs = {
      ...mine,
      choices: {},
      intents: { '0': 'coast' as const },
      base: 'mode' as const,
    };
    expect(planDifferences(writePlan(mine), writePlan(theirs))).toEqual([
      'Bar 1, Dm7: proposed here, coast there.',
      'Bar 2, G7: G altered here, no choice there.',
      'Different too: the lens of all chords.',
    ]);
    expect(planDifferences(writePlan(mine), writePlan(mine))).toEqual([]);
    expect(isNewerPlan('{"version":4,"choices":{"0":"more"}}')).toBe(true);
    expect(isNewerPlan(writePlan(EMPTY_PLAN))).toBe(false);
    expect(isNewerPlan('{')).toBe(false);
  });

  test('twice the same sheet is one', () => {
    const sheet = {
      id: 'a',
      name: 'A',
      kind: 'ascending',
      subdivision: 'eighths',
      extent: 'whole',
      from: 0,
      zone: { low: 2, high: 5 },
      strings: [1],
      seed: 1,
    };
    const kept = { version: 3, sheets: [sheet, sheet, { ...sheet, id: 'b' }] };
    expect(readPlan(JSON.stringify(kept)).sheets.map(({ id }) => id)).toEqual(['a', 'b']);
    const many = Array.from({ length: 300 }, (_, index) => ({ ...sheet, id: `sheet ${index}` }));
    expect(readPlan(JSON.stringify({ ...kept, sheets: many })).sheets).toHaveLength(300);
  });
});
