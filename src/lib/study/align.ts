/** Keeps choices with their chords while the chart is edited. */
import { diffArrays } from 'diff/lib/diff/array.js';
import { type Chart, chordName, type Neck, parseChord, pitchAt } from 'corvel-core';
import { transposeChord } from '$core/chords/chords';
import { transposeCollection } from '$core/collections/collections';
import { arpeggio, collectionMaterial, parseMaterial, triad } from '$core/lenses/material';
import { range } from '$core/lists';
import { fretFor, type Place, stringCount } from '$core/neck/neck';
import { shiftSlides } from '$core/phrases/techniques';
import { halfSteps, type Interval } from '$core/notes/notes';
import type { Plan, PlanChoice, SetAside } from './plan';

/** The chords of a chart by name, as played: what a plan's indices count. */
const playedNames = (chart: Chart): readonly string[] =>
  chart.chords.map(({ chord }) => chordName(chord));

/** The interval by which every chord has moved, where nothing else has changed; null otherwise. */
function shiftBetween(before: readonly string[], after: readonly string[]): Interval | null {
  if (before.length !== after.length || before.length === 0) return null;
  let shift: Interval | null = null;
  for (const [index, name] of before.entries()) {
    const from = parseChord(name);
    const to = parseChord(after[index] ?? '');
    if (!from || !to || from.quality.name !== to.quality.name) return null;
    const interval = (to.root - from.root) as Interval;
    // The same transposition may be spelled either way round the circle.
    if (shift !== null && (interval - shift) % 12 !== 0) return null;
    shift ??= interval;
  }
  return shift;
}

/** A material's name an interval higher. */
export function transposeMaterial(name: string, interval: Interval): string {
  const material = parseMaterial(name);
  if (material?.collection) {
    return collectionMaterial(transposeCollection(material.collection, interval)).name;
  }
  const [symbol = '', kind] = name.split(' ');
  const chord = parseChord(symbol);
  if (!chord) return name;
  const moved = transposeChord(chord, interval);
  return (kind === 'triad' ? triad(moved) : arpeggio(moved)).name;
}

const transposeChoice = (choice: PlanChoice, interval: Interval): PlanChoice => ({
  ...choice,
  name: choice.name === null ? null : transposeMaterial(choice.name, interval),
  then: choice.then && {
    ...choice.then,
    name: transposeMaterial(choice.then.name, interval),
  },
});

/** Where each chord of a plan stands in the chart now: by its old index. */
function matches(before: readonly string[], after: readonly string[]): ReadonlyMap<number, number> {
  const found = new Map<number, number>();
  let old = 0;
  let now = 0;
  for (const { value, added, removed } of diffArrays([...before], [...after])) {
    if (added) now += value.length;
    else if (removed) old += value.length;
    else {
      for (let offset = 0; offset < value.length; offset++) found.set(old + offset, now + offset);
      old += value.length;
      now += value.length;
    }
  }
  return found;
}

function moveKeys<T>(
  record: Readonly<Record<string, T>>,
  to: (index: number) => number | undefined,
) {
  return Object.fromEntries(
    Object.entries(record).flatMap(([index, value]) => {
      const moved = to(Number(index));
      return moved === undefined ? [] : [[String(moved), value] as const];
    }),
  );
}

const MOST_SET_ASIDE = 512;

/** The same place of the neck for a pitch moved so far: its own string where it can be. */
function movedPlace(neck: Neck, { string, fret }: Place, by: number): Place | null {
  const midi = pitchAt(neck, { string, fret }) + by;
  const onString = fretFor(neck, string, midi);
  if (onString !== null) return { string, fret: onString };
  const elsewhere = range(1, stringCount(neck) + 1).flatMap((other): readonly Place[] => {
    const there = fretFor(neck, other, midi);
    return there === null ? [] : [{ string: other, fret: there }];
  });
  const off = (place: Place) => Math.abs(place.fret - fret);
  return elsewhere.sort((a, b) => off(a) - off(b))[0] ?? null;
}

/** Pins moved with a transposed chart to the notes they were; set aside where the neck has none. */
function movedPins(plan: Plan, neck: Neck, shift: Interval) {
  const up = halfSteps(shift);
  const by = up > 6 ? up - 12 : up;
  const pins: Record<string, { string: number; fret: number }> = {};
  const setAside: SetAside[] = [];
  for (const [index, pin] of Object.entries(plan.pins)) {
    const moved = movedPlace(neck, pin, by);
    if (moved) pins[index] = { ...moved };
    else {
      const chord = plan.chords[Number(index)] ?? '';
      const bar = plan.bars[Number(index)] ?? 0;
      setAside.push({ chord, bar, choice: null, intent: null, pin });
    }
  }
  return { pins, setAside };
}

/** The melody moved with a transposed chart; notes the neck has no place for keep theirs an octave away. */
function movedMelody({ melody }: Plan, neck: Neck, shift: Interval): Plan['melody'] {
  if (melody === null) return null;
  const up = halfSteps(shift);
  const by = up > 6 ? up - 12 : up;
  return melody.map((note) => {
    const place =
      movedPlace(neck, note, by) ?? movedPlace(neck, note, by > 0 ? by - 12 : by + 12) ?? note;
    const onString = { low: 0, high: neck.frets };
    const techniques = [...shiftSlides(note.techniques, place.fret - note.fret, onString)];
    return { ...note, string: place.string, fret: place.fret, techniques };
  });
}

/**
 * The plan with its choices on the chords as the chart has them now: kept with every chord that did
 * not change, moved with a transposed chart, set aside with the chord's name where it is gone.
 */
export function alignPlan(plan: Plan, chart: Chart, neck: Neck): Plan {
  const chords = playedNames(chart);
  const bars = chart.chords.map(({ bar }) => bar);
  const anchored = plan.chords.length > 0;
  const unchanged =
    !anchored ||
    (plan.chords.length === chords.length &&
      plan.chords.every((name, index) => name === chords[index]));
  if (unchanged) return { ...plan, chords: [...chords], bars };
  const shift = shiftBetween(plan.chords, chords);
  if (shift !== null) {
    const choices = Object.entries(plan.choices).map(
      ([index, choice]) => [index, transposeChoice(choice, shift)] as const,
    );
    const moved = movedPins(plan, neck, shift);
    return {
      ...plan,
      chords: [...chords],
      bars,
      pins: moved.pins,
      melody: movedMelody(plan, neck, shift),
      choices: Object.fromEntries(choices),
      setAside: [...plan.setAside, ...moved.setAside].slice(-MOST_SET_ASIDE),
    };
  }
  const places = matches(plan.chords, chords);
  const pins = moveKeys(plan.pins, (index) => places.get(index));
  const lost = new Set(
    [plan.choices, plan.intents, plan.pins].flatMap((record) => Object.keys(record).map(Number)),
  );
  const setAside = [...lost]
    .filter((index) => !places.has(index))
    .sort((a, b) => a - b)
    .map((index): SetAside => ({
      chord: plan.chords[index] ?? '',
      bar: plan.bars[index] ?? 0,
      choice: plan.choices[String(index)] ?? null,
      intent: plan.intents[String(index)] ?? null,
      pin: plan.pins[String(index)] ?? null,
    }));
  return {
    ...plan,
    chords: [...chords],
    bars,
    pins,
    choices: moveKeys(plan.choices, (index) => places.get(index)),
    intents: moveKeys(plan.intents, (index) => places.get(index)),
    // Intents alone are proposed anew with one click; what was picked is not.
    setAside: [
      ...plan.setAside,
      ...setAside.filter(({ choice, pin }) => choice !== null || pin !== null),
    ].slice(-MOST_SET_ASIDE),
  };
}
