/**
 * Whether “80 % heard” is right eight times in ten: lines and melodies over charts whose chords are known,
 * with the band muted, every probability beside how often that chord was the right one.
 */
import { type Chart, readChart } from '$core/chart/form';
import { transposeChart } from '$core/chart/rewrite';
import { sameChord } from '$core/chords/chords';
import { readHarmony } from '$core/harmony/reading';
import { propose, STYLES } from '$core/lenses/styles';
import { hearChanges } from '$core/licks/heard';
import type { LickNote } from '$core/licks/sounding';
import { lineOf } from '$core/lines/lines';
import { lineMetre } from '$core/lines/rhythm';
import { spansOf } from '$core/lines/spans';
import { at, range } from '$core/lists';
import { inZone, pitchAt, placesOf, STANDARD_NECK, type Zone } from '$core/neck/neck';
import { note } from '$core/notes/notes';
import { isTone } from '$core/phrases/landing';
import { seeded } from '$core/random';
import { solveRoutes } from '$core/targets/route';
import type { Figure } from './report';
import { BEAT } from 'corvel-core';

/** Made up for this, in C; each is heard in several keys. */
const CHARTS = [
  '| Dm7 | G7 | Cmaj7 | % | Em7 | A7 | Dm7 G7 | Cmaj7 |',
  '| C7 | F7 | C7 | % | F7 | % | C7 | A7 | Dm7 | G7 | C7 A7 | Dm7 G7 |',
  '| C | F | Am | G |',
  '| Cm7 | Fm7 | Dm7b5 | G7b9 | Cm7 | Ab7 | Dm7b5 G7b9 | Cm6 |',
  '| Cmaj7 Am7 | Dm7 G7 | Em7 A7b9 | Dm7 G7alt | C6 | Fm6 | Cmaj7 | G7sus4 |',
  '| Dm7 | % | Ebm7 | Dm7 |',
  '| Cmaj7 | Ebmaj7 | Abmaj7 | Dbmaj7 | Gm7 | C7 | Fmaj7 | Bb7 |',
  '| Am | F | C | E7 |',
] as const;
const KEYS = ['C', 'Eb', 'F', 'G', 'A', 'B', 'Db', 'Ab'] as const;
const ZONES: readonly Zone[] = [
  { low: 2, high: 6 },
  { low: 5, high: 9 },
  { low: 8, high: 12 },
];
const VALUES = ['eighths', 'triplets', 'sixteenths'] as const;
const FOUR = { beats: 4, unit: 4 };

function lineOver(chart: Chart, seed: number): readonly LickNote[] {
  const zone = at(ZONES, seed % ZONES.length);
  const style = at(STYLES, seed % STYLES.length);
  const plan = propose(chart, readHarmony(chart), style);
  const [route] = solveRoutes({
    neck: STANDARD_NECK,
    zone,
    prefer: ['3', '7'],
    contour: null,
    loop: true,
    count: 1,
    chords: chart.chords.map(({ chord }, index) => ({
      chord,
      intent: at(plan, index).intent,
      material: at(plan, index).material,
      pin: null,
    })),
  });
  const subdivision = at(VALUES, seed % VALUES.length);
  const line = lineOf({
    neck: STANDARD_NECK,
    zone,
    seed,
    targets: route?.stops ?? [],
    spans: spansOf(
      chart,
      plan.map(({ material }) => material),
      plan.map(() => 'outline'),
    ),
    metre: lineMetre(FOUR, subdivision),
    style: 'bop',
  });
  return (line?.notes ?? []).map(({ beat, beats, string, fret, techniques }) => ({
    beat,
    beats,
    string,
    fret,
    techniques,
  }));
}

/** A tune: steps and small leaps of what is played over each chord, its tones where they are strong. */
function melodyOver(chart: Chart, seed: number): readonly LickNote[] {
  const draw = seeded(seed);
  const zone = at(ZONES, seed % ZONES.length);
  const plan = propose(chart, readHarmony(chart), 'modes');
  const notes: LickNote[] = [];
  let pitch = 60 + Math.floor(draw() * 8);
  for (const { index, chord, beat, beats } of chart.chords) {
    const own = placesOf(STANDARD_NECK, at(plan, index).material.notes).filter((place) =>
      inZone(zone, place.fret),
    );
    for (let from = 0; from < beats;) {
      const drawn = at([0.5, 1, 1, 1.5, 2, 3], Math.floor(draw() * 6));
      const lasts = Math.min(beats - from, drawn * BEAT);
      const tonal = from % (2 * BEAT) === 0 && draw() < 0.75;
      const of = (place: (typeof own)[number]) => pitchAt(STANDARD_NECK, place);
      const near = own
        .filter((place) => !tonal || isTone(chord, of(place)))
        .toSorted((a, b) => Math.abs(of(a) - pitch) - Math.abs(of(b) - pitch));
      const chosen = near[Math.floor(draw() ** 2 * Math.min(6, near.length))];
      if (chosen && draw() < 0.88) {
        pitch = of(chosen);
        const { string, fret } = chosen;
        notes.push({ beat: beat + from, beats: lasts, string, fret, techniques: [] });
      }
      from += lasts;
    }
  }
  return notes;
}

interface Bin {
  count: number;
  said: number;
  right: number;
}

/** How often a chord was the right one, by how probable it was said to be, in tenths. */
export function calibration(count: number): readonly Bin[] {
  const bins = range(0, 10).map((): Bin => ({ count: 0, said: 0, right: 0 }));
  for (const which of range(0, count)) {
    const text = at(CHARTS, which % CHARTS.length);
    const key = at(KEYS, Math.floor(which / CHARTS.length) % KEYS.length);
    const read = readChart(transposeChart(text, note('C'), note(key)) ?? text);
    if (!read.ok) throw new Error(read.problems[0]?.message);
    const { chart } = read;
    // As many of one kind as of the other over each chart in each key.
    const made = (which + Math.floor(which / CHARTS.length)) % 2 === 0 ? lineOver : melodyOver;
    for (const heard of hearChanges(chart, STANDARD_NECK, made(chart, which)).chords) {
      for (const { chord, probability } of heard.likeliest) {
        const bin = at(bins, Math.min(9, Math.floor(10 * probability)));
        bin.count += 1;
        bin.said += probability;
        if (sameChord(chord, heard.chord)) bin.right += 1;
      }
    }
  }
  return bins;
}

/** How far, on average, what is said is from what is right, each chord counted alike; 0 to 1. */
export function distance(bins: readonly Bin[]): number {
  const all = bins.reduce((sum, { count }) => sum + count, 0);
  return bins.reduce((sum, { said, right }) => sum + Math.abs(said - right), 0) / all;
}

export function* heardFigures(): Generator<Figure> {
  const bins = calibration(512);
  for (const { count, said, right } of bins) {
    if (count === 0) continue;
    const percent = Math.round((100 * said) / count);
    const bar = '▪'.repeat(Math.round((20 * right) / count));
    const what = `a chord said to be ${percent} % probable, ${count} times: right`;
    yield { what: `${what.padEnd(58)} ${bar}`, value: (100 * right) / count, unit: '%' };
  }
  yield {
    what: 'from what is said to what is right, on average',
    value: 100 * distance(bins),
    unit: 'points',
    most: 5,
  };
}
