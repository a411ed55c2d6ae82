/** Lines of every style over charts of our own, and what they measure: for the laws and the benchmark. */
import { rememberBy } from '$core/cache';
import type { Chart } from '$core/chart/form';
import { transposeChart } from '$core/chart/rewrite';
import { type Exercise, makeExercise } from '$core/exercises/exercises';
import type { ExerciseRequest } from '$core/exercises/request';
import { readHarmony } from '$core/harmony/reading';
import { signatureTonic } from '$core/keys/keys';
import { defaultMaterial } from '$core/lenses/material';
import { firstOption, lensContexts } from '$core/lenses/options';
import { proposeIntents } from '$core/lenses/styles';
import { at, range } from '$core/lists';
import { lineMetre } from '$core/lines/rhythm';
import { portraitOf, type Portrait } from '$core/lines/portrait';
import { spansOf } from '$core/lines/spans';
import { type LineStyle, SIZES } from '$core/lines/styles';
import { STANDARD_NECK as NECK } from '$core/neck/neck';
import { zonesOf } from '$core/neck/zones';
import { note } from '$core/notes/notes';
import type { Subdivision } from '$core/time/subdivision';
import { chartOf } from './laws';

const BLUES = '| C7 | F7 | C7 | % | F7 | % | C7 | % | G7 | F7 | C7 | G7 |';

/** Changes in C, by the styles that are played over them. */
const CHANGES: Readonly<Record<LineStyle, readonly string[]>> = {
  bop: [
    '| Dm7 | G7 | Cmaj7 | % | Gm7 | C7 | Fmaj7 | Bb7 | Em7 | A7b9 | Dm7 | G7 | Cmaj7 A7 | Dm7 G7 | Cmaj7 | % |',
    '| Cm7 | Fm7 | Dm7b5 | G7b9 | Cm6 | Abmaj7 | Dm7b5 G7alt | Cm6 |',
    '| Cmaj7 A7 | Dm7 G7 | Em7 A7 | Dm7 G7 | Gm7 C7 | Fmaj7 Bb7 | Em7 A7 | Dm7 G7 |',
    '| Cmaj7 | Ebmaj7 | Abmaj7 | Dbmaj7 | Fm7 | Bb7 | Dm7 | G7 |',
  ],
  blues: [
    BLUES,
    '| C7 | % | % | % | F7 | % | C7 | % | Ab7 | G7 | C7 | % |',
    'time: 12/8\n| C7 | F7 | C7 | % | F7 | % | C7 | % | G7 | F7 | C7 | G7 |',
    '| Cm7 | Fm7 | Cm7 | % | Fm7 | % | Cm7 | % | Ab7 | G7 | Cm7 | % |',
  ],
  rock: [
    '| C | Bb | F | C | C | Bb | Ab | G |',
    '| Am | F | C | G | Am | F | G | % |',
    '| C5 | Eb5 | F5 | C5 | Bb | F | C | % |',
    '| Am | G | F | E7 |',
  ],
  pop: [
    '| C | G/B | Am7 | F | C | G | F | % |',
    '| Fmaj7 | G | Em7 | Am7 | Dm7 | G | C | % |',
    '| C | Am | Dm | G7 | Em | Am | F G | C |',
  ],
  bossa: [
    '| Cmaj7 | % | D7 | % | Dm7 | G7 | Cmaj7 | Db7 |',
    '| Am7 | % | Bm7b5 | E7b9 | Am7 | D7 | Gmaj7 | G7 |',
    '| Fmaj7 | % | Gm7 | C7 | Am7 | D7b9 | Gm7 | C7 |',
  ],
  modal: [
    '| Dm7 | % | % | % | % | % | % | % | Ebm7 | % | % | % | Dm7 | % | % | % |',
    '| Cmaj7#11 | % | % | % | Abmaj7#11 | % | % | % |',
    '| G7sus4 | % | % | % | Bb7sus4 | % | G7sus4 | % |',
  ],
  ballad: [
    '| Cmaj7 | Em7 A7 | Dm7 | Fm6 | Em7 | Am7 | Dm7 | G7 |',
    '| Am7 | D7 | Gmaj7 | Cmaj7 | F#m7b5 | B7b9 | Em7 | A7 |',
    '| Fmaj7 | Fm7 Bb7 | Cmaj7 | A7alt | Dm7 | G7sus4 G7 | Cmaj7 | % |',
  ],
  funk: [
    '| C9 | % | % | % | F9 | % | C9 | % |',
    '| Dm7 | G7 | Dm7 | G7 | Dm7 | G7 | Bbmaj7 | A7 |',
    '| Em7 | % | A7 | % | Em7 | % | Cmaj7 | B7 |',
  ],
};

/** All of them. */
export const CHARTS: readonly string[] = Object.values(CHANGES).flat();

const KEYS = ['C', 'Eb', 'F#', 'A', 'Bb', 'E', 'Db', 'G', 'B', 'Ab', 'D', 'F'].map(note);

export interface Played {
  readonly chart: Chart;
  readonly request: ExerciseRequest;
  readonly exercise: Exercise;
  readonly portrait: Portrait;
}

/** What is asked for a chart, in one of its zones. */
export function settingOf(
  text: string,
  zone: number,
  changed: Partial<ExerciseRequest> = {},
): { readonly chart: Chart; readonly request: ExerciseRequest } {
  const chart = chartOf(text);
  const reading = readHarmony(chart);
  const { key } = reading.key;
  const contexts = lensContexts(chart, reading);
  const zones = zonesOf(NECK, key ? signatureTonic(key) : at(chart.chords, 0).chord.root);
  const materials = chart.chords.map(({ index, chord }) => {
    const context = contexts[index];
    return (context && firstOption(context)?.material) ?? defaultMaterial(chord);
  });
  const request: ExerciseRequest = {
    chart,
    key,
    kind: 'line',
    subdivision: 'eighths',
    neck: NECK,
    zones,
    materials,
    zone: at(zones, zone % zones.length),
    intents: proposeIntents(chart, reading, 'chord-tones'),
    prefer: ['3', '7'],
    pins: {},
    extent: 'whole',
    from: 0,
    strings: [1, 2, 3],
    group: 4,
    seed: 1,
    pattern: '<1 ~3 5 (2 7)1',
    ...changed,
  };
  return { chart, request };
}

/** A line with what it measures. */
export function playedOver(text: string, zone: number, changed: Partial<ExerciseRequest>): Played {
  const { chart, request } = settingOf(text, zone, changed);
  const exercise = makeExercise(request);
  const portrait = portraitOf({
    neck: NECK,
    notes: exercise.passage.notes,
    spans: spansOf(chart, request.materials, request.intents),
    metre: lineMetre(chart.source.time, request.subdivision),
    end: exercise.passage.beats,
    home: request.key?.tonic ?? null,
  });
  return { chart, request, exercise, portrait };
}

const VALUES: readonly Subdivision[] = ['eighths', 'eighths', 'triplets', 'sixteenths'];

const lineOf = rememberBy(
  (style: LineStyle, which: number, only?: Subdivision) => `${style} ${which} ${only ?? ''}`,
  (style: LineStyle, which: number, only?: Subdivision): Played => {
    const texts = CHANGES[style];
    const text = at(texts, which % texts.length);
    const written = transposeChart(text, note('C'), at(KEYS, (which * 5) % KEYS.length)) ?? text;
    const free = only ?? at(VALUES, Math.floor(which / texts.length) % VALUES.length);
    const subdivision = written.includes('12/8') && free === 'triplets' ? 'eighths' : free;
    return playedOver(written, which * 2 + Math.floor(which / 5), {
      style,
      subdivision,
      seed: which + 1,
    });
  },
);

/** So many lines of a style over all its charts, in every key, zone and value in turn. */
export const linesOf = (style: LineStyle, count: number, only?: Subdivision): readonly Played[] =>
  range(0, count).map((which) => lineOf(style, which, only));

const FLAT = ['crossed', 'phrase', 'short', 'onOne', 'tones', 'strongTones', 'chromatic'] as const;

/** The mean of each figure of many lines. */
export function meansOf(lines: readonly Played[]): Readonly<Record<string, number>> {
  const mean = (read: (portrait: Portrait) => number) =>
    lines.reduce((sum, { portrait }) => sum + read(portrait), 0) / lines.length;
  return Object.fromEntries([
    ...FLAT.map((name) => [name, mean((one) => one[name])] as const),
    ...SIZES.map((size) => [size, mean(({ sizes }) => sizes[size])] as const),
    ['late peaks', mean(({ peak }) => (peak >= 1 / 3 ? 1 : 0))],
    ['held clashes', mean(({ heldClashes }) => heldClashes)],
    ['longest outside', Math.max(...lines.map(({ portrait }) => portrait.longestOutside))],
    ...(['range', 'rests', 'low', 'gestures', 'density'] as const).map(
      (name) => [name, mean((one) => one[name])] as const,
    ),
  ]);
}
