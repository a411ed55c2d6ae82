/** `drill`: one question about chords, degrees and the neck, with its answer. */
import { z } from 'zod';
import { readHarmony } from '$core/harmony/reading';
import { noteName } from 'corvel-core';
import { zoneTonic } from '$core/chart/form';
import { DRILL_KINDS } from '$core/drills/kinds';
import { makeDrill } from '$core/drills/drills';
import { firstZone } from '$core/neck/zones';
import { question } from '../question';
import { accept } from '../refusals';
import { refuseZone, requestedChart, requestedNeck } from '../requested';
import { chartText, keyText, neckRequest } from '../shapes';

const place = z.object({ string: z.int(), fret: z.int() });

const request = z.object({
  kind: z.enum(DRILL_KINDS),
  seed: z.int().min(0).max(2_147_483_647),
  chart: chartText.optional().describe('General chords where it is left out'),
  key: keyText.optional(),
  zone: z.object({ low: z.int(), high: z.int() }).optional(),
  neck: neckRequest.optional(),
});

const answer = z.object({
  kind: z.enum(DRILL_KINDS),
  prompt: z.string(),
  asks: z.enum(['places', 'note', 'degree', 'choice']),
  choices: z.array(z.string()).optional(),
  answer: z.object({
    places: z.array(place).optional(),
    note: z.string().optional(),
    degree: z.string().optional(),
    choice: z.string().optional(),
  }),
  sentence: z.string(),
});

export const drill = question({
  summary: 'One drill of a kind, from a chart and a zone or in general, with its answer.',
  request,
  answer,
  ask(asked) {
    const neck = requestedNeck(asked.neck);
    if (!neck.ok) return neck;
    const off = refuseZone(neck.value, asked.zone);
    if (off) return off;
    const chart =
      asked.chart === undefined ? null : requestedChart({ ...asked, chart: asked.chart });
    if (chart && !chart.ok) return chart;
    const key = chart ? readHarmony(chart.value).key.key : null;
    const tonic = chart && zoneTonic(chart.value, key);
    const { capo, frets } = neck.value;
    const opening =
      tonic === null
        ? { low: Math.min(capo + 5, frets - 1), high: Math.min(capo + 8, frets) }
        : firstZone(neck.value, tonic);
    const made = makeDrill(asked.kind, asked.seed, {
      neck: neck.value,
      zone: asked.zone ?? opening,
      chords: chart?.value.chords ?? [],
      key,
    });
    const { places, note, degree, choice } = made.answer;
    return accept({
      kind: asked.kind,
      prompt: made.prompt,
      asks: made.asks,
      ...(made.choices ? { choices: [...made.choices] } : {}),
      answer: {
        ...(places ? { places: [...places] } : {}),
        ...(note === undefined ? {} : { note: noteName(note) }),
        ...(degree === undefined ? {} : { degree }),
        ...(choice === undefined ? {} : { choice }),
      },
      sentence: made.sentence,
    });
  },
});
