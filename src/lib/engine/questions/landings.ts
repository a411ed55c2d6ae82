/** `landings`: what was heard, held against the targets asked for. */
import { z } from 'zod';
import { landingsOf, VERDICTS } from '$core/listening/landings';
import { HOWS } from '$core/phrases/landing';
import { question } from '../question';
import { accept } from '../refusals';
import { noChord, requestedChart } from '../requested';
import { chartText, keyText } from '../shapes';
import { BEAT, inBeats } from 'corvel-core';

const midi = z.int().min(0).max(127);
const beat = z.number().min(-64).max(100_000);

const request = z.object({
  chart: chartText,
  key: keyText.optional(),
  targets: z.array(z.object({ index: z.int(), midi })).max(8_192),
  heard: z
    .array(
      z.object({
        beat,
        beats: z.number().min(0).max(1_024).optional(),
        midi,
        cents: z.number().min(-600).max(600).optional(),
        grace: z.boolean().optional().describe('Whether it belongs to the note after it'),
      }),
    )
    .max(8_192),
});

const heardAnswer = z.object({
  beat: z.number(),
  beats: z.number().optional(),
  midi: z.int(),
  cents: z.number().optional(),
  grace: z.boolean().optional(),
});

const answer = z.object({
  landings: z.array(
    z.object({
      index: z.int().describe('Index of the chord'),
      asked: z.int().describe('The target as a MIDI number'),
      heard: heardAnswer.nullable(),
      beatsLate: z.number().nullable().describe('Below 0 where it came before its moment'),
      verdict: z.enum(VERDICTS),
      how: z.enum(HOWS).optional().describe('How it landed; left out where it did not'),
      sentence: z.string(),
    }),
  ),
  landed: z.int(),
  asked: z.int(),
  sentence: z.string(),
});

export const landings = question({
  summary:
    'What was heard at each target: landed, near it, or missed; and what to listen for next.',
  request,
  answer,
  ask(asked) {
    const chart = requestedChart(asked);
    if (!chart.ok) return chart;
    const wrong = asked.targets.findIndex(({ index }) => !chart.value.chords[index]);
    if (wrong >= 0) return noChord(chart.value, `targets.${wrong}.index`);
    const heard = asked.heard.map((note) => ({
      ...note,
      beat: note.beat * BEAT,
      beats: note.beats === undefined ? null : note.beats * BEAT,
      cents: note.cents ?? 0,
    }));
    const found = landingsOf(chart.value, asked.targets, heard);
    return accept({
      ...found,
      landings: found.landings.map(({ how, beatsLate, ...one }) => {
        const given = one.heard === null ? null : asked.heard[heard.indexOf(one.heard)];
        return {
          ...one,
          beatsLate: beatsLate === null ? null : inBeats(beatsLate),
          ...(how ? { how } : {}),
          heard: given ?? null,
        };
      }),
    });
  },
});
