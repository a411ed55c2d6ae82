/** `chart`: a chart read whole. */
import type { z } from 'zod';
import { type Chart, type PlayedChord, readChart } from '$core/chart/form';
import { chordNotes } from '$core/chords/chords';
import { type Key, keyName, parseKey } from '$core/harmony/keys';
import { type ChordReading, type Reading, readHarmony } from '$core/harmony/reading';
import { degreeName } from '$core/notes/degrees';
import { noteName, transpose } from '$core/notes/notes';
import { accept, type EngineResult, refuse, refuseChart } from './refusals';
import type { chartAnswer, chartRequest, chordAnswer } from './schemas';

/** The chart of a request, read against the key the request states, if any. */
export function requestedChart(request: {
  readonly chart: string;
  readonly key?: string | undefined;
}): EngineResult<Chart> {
  let key: Key | null = null;
  if (request.key !== undefined) {
    key = parseKey(request.key);
    if (key === null) {
      const message = `“${request.key}” is not a key: write it like Eb, F#m or D dorian.`;
      return refuse({ code: 'invalid_request', message, path: 'key' });
    }
  }
  const result = readChart(request.chart, key === null ? {} : { key });
  if (result.ok) return accept(result.chart);
  const [problem] = result.problems;
  return problem
    ? refuseChart(problem)
    : refuse({ code: 'invalid_chart', message: 'This chart cannot be read.' });
}

export function describeChord(
  { index, chord, bar, beat, beats }: PlayedChord,
  reading: ChordReading | undefined,
): z.infer<typeof chordAnswer> {
  return {
    index,
    symbol: chord.symbol,
    root: noteName(chord.root),
    quality: chord.quality.name,
    ...(chord.bass === null ? {} : { bass: noteName(chord.bass) }),
    notes: chordNotes(chord).map(noteName),
    degrees: chord.quality.degrees.map(degreeName),
    definers: chord.quality.definers.map((degree) => noteName(transpose(chord.root, degree))),
    bar,
    beat,
    beats,
    roman: reading?.numeral ?? null,
    diatonic: reading?.diatonic ?? null,
    ...(reading?.role ? { role: reading.role } : {}),
    ...(reading?.cadence === null || reading?.cadence === undefined
      ? {}
      : { cadence: reading.cadence }),
  };
}

export function describeChart(chart: Chart, reading: Reading): z.infer<typeof chartAnswer> {
  const { key, confidence, given } = reading.key;
  const { title, time, tempo } = chart.source;
  return {
    title,
    key: {
      tonic: key ? noteName(key.tonic) : null,
      mode: key?.mode ?? null,
      confidence,
      given,
    },
    time: `${time.beats}/${time.unit}`,
    tempo,
    bars: chart.bars.length,
    chords: chart.chords.map((chord) => describeChord(chord, reading.chords[chord.index])),
    cadences: reading.cadences.map(({ kind, from, to, key: home }) => ({
      kind,
      from,
      to,
      key: keyName(home),
    })),
    form: reading.form,
  };
}

export function answerChart(
  request: z.infer<typeof chartRequest>,
): EngineResult<z.infer<typeof chartAnswer>> {
  const chart = requestedChart(request);
  return chart.ok ? accept(describeChart(chart.value, readHarmony(chart.value))) : chart;
}
