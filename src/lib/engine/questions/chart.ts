/** `chart`: a chart read whole. */
import { z } from 'zod';
import { type Chart, noteName } from 'corvel-core';
import { IDIOMS } from '$core/chart/syntax';
import { type Reading, readHarmony } from '$core/harmony/reading';
import { keyName } from '$core/keys/keys';
import { describeChord } from '../described';
import { accept } from '../refusals';
import { requestedChart } from '../requested';
import { chartText, chordAnswer, keyAnswer, keyText, noteText } from '../shapes';
import { question } from '../question';

const request = z.object({ chart: chartText, key: keyText.optional() });

const answer = z.object({
  title: z.string(),
  key: keyAnswer,
  keys: z
    .array(z.object({ tonic: noteText, mode: z.string(), confidence: z.number().min(0).max(1) }))
    .describe('The likeliest two where no key is stated'),
  idiom: z.object({ name: z.enum(IDIOMS), given: z.boolean() }),
  time: z.string(),
  tempo: z.number().nullable(),
  bars: z.int(),
  chords: z.array(chordAnswer),
  cadences: z.array(z.object({ kind: z.string(), from: z.int(), to: z.int(), key: z.string() })),
  form: z.string().nullable(),
});

function describeChart(chart: Chart, reading: Reading): z.infer<typeof answer> {
  const { key, confidence, given, likeliest } = reading.key;
  const { title, time, tempo } = chart.source;
  return {
    title,
    key: {
      tonic: key ? noteName(key.tonic) : null,
      mode: key?.mode ?? null,
      confidence,
      given,
    },
    keys: likeliest.map(({ key: heard, confidence: clear }) => ({
      tonic: noteName(heard.tonic),
      mode: heard.mode,
      confidence: clear,
    })),
    idiom: reading.idiom,
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

export const chart = question({
  summary: 'A chart read whole: chords as played, key, functions, cadences, form.',
  request,
  answer,
  ask: (asked) => {
    const chart = requestedChart(asked);
    return chart.ok ? accept(describeChart(chart.value, readHarmony(chart.value))) : chart;
  },
});
