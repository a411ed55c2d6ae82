/** `band`: what a bass, a comping instrument and drums play over a chart. */
import { z } from 'zod';
import { bandOf, feelFor } from '$core/band/band';
import { BAND_PARTS, DRUMS } from '$core/band/events';
import { bandForm } from '$core/band/form';
import { type Feel, FEEL_KINDS, knownFeel, readFeel } from '$core/time/feel';
import { feelAt, offBeatOf } from '$core/time/swing';
import { DEFAULT_TEMPO } from '$core/time/tempo';
import { question } from '../question';
import { accept, refuse } from '../refusals';
import { requestedChart } from '../requested';
import { chartText, keyText } from '../shapes';
import { counted } from '$core/words';
import { inBeats } from 'corvel-core';

/** Bars of all choruses together. */
const BAR_LIMIT = 2_048;

const request = z.object({
  chart: chartText,
  key: keyText.optional(),
  feel: z
    .string()
    .min(1)
    .max(60)
    .optional()
    .describe(`The chart's own when left out: ${FEEL_KINDS.join(', ')}`),
  choruses: z.int().min(1).max(16).default(1),
  seed: z.int().min(0).max(2_147_483_647).default(1),
  parts: z
    .array(z.enum(BAND_PARTS))
    .min(1)
    .max(BAND_PARTS.length)
    .default([...BAND_PARTS]),
  intro: z
    .boolean()
    .default(false)
    .describe('Whether the last bars of the form lead in, before beat 0'),
  ending: z.boolean().default(false).describe('Whether the tonic is held for a bar after the form'),
});

const answer = z.object({
  beats: z.number().describe('Beats of all choruses, in the unit of the time signature'),
  feel: z.enum(FEEL_KINDS),
  swing: z
    .number()
    .describe('Where the off-beat sounds, as a share of the beat: 0.5 where eighths are even'),
  events: z.array(
    z.object({
      part: z.enum(BAND_PARTS),
      beat: z.number().describe('Where it is written'),
      beats: z.number(),
      late: z
        .number()
        .optional()
        .describe('Milliseconds it is played after that, swing apart; below 0 before it'),
      midi: z.int().optional(),
      drum: z.enum(DRUMS).optional(),
      velocity: z.number().describe('Loudness, 0–1'),
    }),
  ),
});

export const band = question({
  summary: 'What a band plays over a chart: bass, comping and drums, the same for the same seed.',
  request,
  answer,
  ask(asked) {
    const chart = requestedChart(asked);
    if (!chart.ok) return chart;
    const { source, bars } = chart.value;
    let feel: Feel = feelFor(readFeel(source.feel), source.time);
    if (asked.feel !== undefined) {
      const known = knownFeel(asked.feel);
      if (known === null) {
        const message = `“${asked.feel}” is no feel Corvel plays: ask for ${FEEL_KINDS.join(', ')}.`;
        return refuse({ code: 'invalid_request', message, path: 'feel' });
      }
      feel = known;
    }
    if (bars.length * asked.choruses > BAR_LIMIT) {
      const message = `${counted(asked.choruses, 'chorus', 'choruses')} of ${counted(bars.length, 'bar')} are more than the ${BAR_LIMIT} bars played at once.`;
      return refuse({ code: 'out_of_range', message, path: 'choruses' });
    }
    feel = feelAt(feel, source.tempo ?? DEFAULT_TEMPO);
    const form = bandForm(chart.value);
    const { choruses, seed, parts, intro, ending } = asked;
    const events = bandOf(form, { feel: feel.kind, choruses, seed, parts, intro, ending });
    return accept({
      beats: inBeats(choruses * form.beats),
      feel: feel.kind,
      swing: rounded(offBeatOf(feel)),
      events: events.map(({ part, beat, beats, velocity, late = 0, ...what }) => ({
        part,
        beat: rounded(inBeats(beat)),
        beats: rounded(inBeats(beats)),
        late: Math.round(late * 10) / 10,
        ...('midi' in what ? { midi: what.midi } : { drum: what.drum }),
        velocity: rounded(velocity),
      })),
    });
  },
});

/** A ten-thousandth of a beat is finer than anything sounds. */
const rounded = (value: number): number => Math.round(value * 10_000) / 10_000;
