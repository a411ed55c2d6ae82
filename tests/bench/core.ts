/** How fast the core reads. */
import { range } from '$core/lists';
import { practiceChart, PROGRESSION } from '$core/log/practice';
import { nextSession } from '$core/log/session';
import type { Stint } from '$core/log/stints';
import { Chord as TonalChord, Scale as TonalScale } from 'tonal';
import { bandOf } from '../../src/core/band/band';
import { bandForm } from '../../src/core/band/form';
import { readChart } from '../../src/core/chart/form';
import { chordNotes } from '../../src/core/chords/chords';
import { parseChord } from '../../src/core/chords/symbols';
import { collectionNotes, parseCollection } from '../../src/core/collections/collections';
import { readHarmony } from '../../src/core/harmony/reading';
import { collectionMaterial } from '../../src/core/lenses/material';
import { modesFor } from '../../src/core/lenses/modes';
import { lensContexts, optionsFor } from '../../src/core/lenses/options';
import { propose, STYLES } from '../../src/core/lenses/styles';
import { STANDARD_NECK } from '../../src/core/neck/neck';
import { noteName } from '../../src/core/notes/notes';
import { FEEL_KINDS } from '../../src/core/time/feel';
import { fitLick } from '$core/licks/fit';
import { notesFrom } from '$core/licks/kept';
import { STARTER_LICKS } from '$core/licks/starter';
import { lineOf } from '$core/lines/lines';
import { lineMetre } from '$core/lines/rhythm';
import { spansOf } from '$core/lines/spans';
import { solveRoutes } from '../../src/core/targets/route';
import { type Figure, median, rate, time } from './report';

/** Sixty-four bars, a chord in each, wandering through keys. */
export const LONG_CHART = [
  'title: Sixty-Four Rooms',
  'tempo: 132',
  ...['Eb', 'Ab', 'C', 'F', 'Bb', 'G', 'Db', 'A'].map(
    (root, index) =>
      `[${String.fromCharCode(65 + index)}]\n| ${root}maj7 | Gm7 C7b9 | Fm9 | Bb13 | Ebmaj7 | ` +
      `${root}m7 | D7alt | Gm7b5 |`,
  ),
].join('\n');

const SYMBOLS = ['C', 'F#', 'Bb', 'Eb', 'G#', 'Db', 'A', 'E'].flatMap((root) =>
  ['maj7', 'm7', '7', 'm7b5', 'dim7', '9', 'm', 'sus4'].map((quality) => root + quality),
);
const SCALES = ['C', 'F#', 'Bb', 'Eb'].flatMap((root) =>
  ['dorian', 'lydian', 'major pentatonic', 'harmonic minor', 'altered', 'minor pentatonic'].map(
    (name) => `${root} ${name}`,
  ),
);

export function* coreFigures(): Generator<Figure> {
  const read = time(() => {
    const result = readChart(LONG_CHART);
    if (!result.ok) throw new Error(result.problems[0]?.message);
    return readHarmony(result.chart);
  });
  yield { what: 'reading a 72-chord chart of 64 bars', value: read, unit: 'ms', most: 10 };

  const long = readChart(LONG_CHART);
  if (!long.ok) throw new Error(long.problems[0]?.message);
  const { chart } = long;
  const options = time(() => {
    const contexts = lensContexts(chart, readHarmony(chart));
    const modes = contexts.map((context) => modesFor(context)[0]?.collection);
    return contexts.map((context, index) => {
      const beside = [modes[index - 1], modes[index + 1]];
      const neighbours = beside.flatMap((mode) => (mode ? [collectionMaterial(mode)] : []));
      return optionsFor(context, { neighbours, preferred: [] });
    });
  });
  yield {
    what: 'reading 72 chords with all options of every chord',
    value: options,
    unit: 'ms',
    most: 50,
  };
  const reading = readHarmony(chart);
  for (const style of STYLES) {
    const value = time(() => propose(chart, reading, style), 10);
    yield { what: `a plan for 72 chords, ${style}`, value, unit: 'ms' };
  }

  const form = bandForm(chart);
  const slowest = Math.max(
    ...FEEL_KINDS.map((kind) => time(() => bandOf(form, { feel: kind }), 10)),
  );
  yield {
    what: 'the band, 64 bars, in the slowest of its feels',
    value: slowest,
    unit: 'ms',
    most: 20,
  };
  const plan = propose(chart, reading, 'modes');
  const routed = chart.chords.map(({ chord }, index) => ({
    chord,
    intent: plan[index]?.intent ?? 'lean',
    material: plan[index]?.material ?? null,
    pin: null,
  }));
  const asked = { neck: STANDARD_NECK, prefer: ['3', '7'], contour: null, loop: true } as const;
  const sixtyFour = routed.slice(0, 64);
  const routes = time(() => solveRoutes({ ...asked, chords: sixtyFour, zone: null, count: 5 }), 10);
  const fullNeck = 'best five routes, 64 chords, whole neck, loop closed';
  yield { what: fullNeck, value: routes, unit: 'ms', most: 100 };
  const bars = chart.chords.filter(({ bar }) => bar <= 32).length;
  const spans = spansOf(
    chart,
    plan.map(({ material }) => material),
    plan.map(() => 'outline'),
  ).slice(0, bars);
  const zone = { low: 3, high: 7 };
  const targets = solveRoutes({ ...asked, chords: routed.slice(0, bars), zone, count: 1 })[0]
    ?.stops;
  const line = time(
    () =>
      lineOf({
        neck: STANDARD_NECK,
        zone,
        spans,
        targets: targets ?? [],
        seed: 1,
        metre: lineMetre({ beats: 4, unit: 4 }, 'eighths'),
        style: 'bop',
      }),
    10,
  );
  yield { what: 'a filled line, 32 bars of eighths', value: line, unit: 'ms', most: 150 };

  const lick = STARTER_LICKS.find(({ title }) => title.startsWith('ii–V–I'));
  const own = lick && readChart(lick.chart);
  const charts = Array.from({ length: 200 }, () => chart);
  if (lick && own?.ok) {
    const searched = { chart: own.chart, notes: notesFrom(lick.notes) };
    const fits = time(() => fitLick(searched, charts, STANDARD_NECK), 10);
    const what = 'a lick searched in 200 charts of 64 bars';
    yield { what, value: fits, unit: 'ms', most: 100 };
  }

  const practised = range(0, 20).map((index) => practiceChart(`${index}`, chart, STANDARD_NECK));
  const history = range(0, 10_000).map((index): Stint => {
    const day = new Date(Date.UTC(2020, 0, 1) + index * 5 * 3_600_000).toISOString();
    const of = practised[index % practised.length] ?? fail('chart');
    const zone = of.zones[index % of.zones.length] ?? { low: 5, high: 8 };
    const exercise = PROGRESSION[index % PROGRESSION.length] ?? 'targets';
    return {
      at: day,
      chart: of.id,
      exercise,
      zone,
      tempo: 90,
      minutes: 5,
      asked: 20,
      landed: 10 + (index % 11),
    };
  });
  const wanted = { charts: practised, exercises: PROGRESSION, history, minutes: 20 };
  const session = time(() => nextSession({ ...wanted, now: Date.UTC(2025, 8, 1) }), 10);
  yield { what: 'a session over 10,000 stints', value: session, unit: 'ms', most: 50 };

  const ours = {
    chords: () => SYMBOLS.map((text) => chordNotes(parseChord(text) ?? fail(text)).map(noteName)),
    scales: () =>
      SCALES.map((text) => collectionNotes(parseCollection(text) ?? fail(text)).map(noteName)),
  };
  const theirs = {
    chords: () => SYMBOLS.map((text) => TonalChord.get(text).notes),
    scales: () => SCALES.map((text) => TonalScale.get(text).notes),
  };
  for (const [what, count] of [
    ['chords', SYMBOLS.length],
    ['scales', SCALES.length],
  ] as const) {
    // Turn and turn about, so that both meet the same machine.
    const rounds = Array.from({ length: 7 }, () => ({
      ours: rate(ours[what], count),
      theirs: rate(theirs[what], count),
    }));
    const value = median(rounds.map((round) => round.ours));
    yield { what: `${what} read and spelled`, value, unit: '/s' };
    const ratio = median(rounds.map((round) => round.ours / round.theirs));
    const beside = `${what}, beside a general music-theory package`;
    yield { what: beside, value: ratio, unit: '×', least: 10 };
  }
}

function fail(text: string): never {
  throw new Error(`“${text}” is not read.`);
}
