/** `next-session`: what to practise next, from what was practised. */
import { z } from 'zod';
import { type ExerciseKind, STANDARD_NECK } from 'corvel-core';
import { EXERCISE_WORDS } from '$core/exercises/words';
import { practiceChart, PROGRESSION } from '$core/log/practice';
import { nextSession } from '$core/log/session';
import { EXTENTS } from '$core/time/extent';
import { STATES } from '$core/log/stints';
import { question } from '../question';
import { accept, refuse } from '../refusals';
import { requestedChart } from '../requested';
import { chartText } from '../shapes';

const zone = z.object({ low: z.int().min(0).max(36), high: z.int().min(0).max(36) });
const moment = z.iso.datetime({ offset: true, local: false });
const id = z.string().min(1).max(100);

const request = z.object({
  charts: z.array(z.object({ id, text: chartText })).max(500),
  history: z
    .array(
      z.object({
        at: moment,
        chart: id,
        exercise: z.string().min(1).max(60),
        zone,
        tempo: z.number().min(1).max(1_000),
        minutes: z.number().min(0).max(1_440),
        asked: z.int().min(0).max(100_000).optional(),
        landed: z.int().min(0).max(100_000).optional(),
      }),
    )
    .max(20_000),
  minutes: z.number().min(0).max(600),
  now: moment,
});

const answer = z.object({
  blocks: z
    .array(
      z.object({
        minutes: z.number(),
        chart: z.string(),
        exercise: z.string().describe('An exercise, or free'),
        zone,
        extent: z.enum(EXTENTS),
        index: z.int().optional().describe('The chord a short extent begins with'),
        tempo: z.number(),
        reason: z.string(),
      }),
    )
    .describe('Together as long as the minutes asked for'),
  coverage: z.array(
    z.object({
      chart: z.string(),
      exercise: z.string(),
      zone,
      minutes: z.number(),
      last: z.string().nullable(),
      state: z.enum(STATES),
    }),
  ),
});

export const nextSessionQuestion = question({
  summary: 'The next session in blocks with their reasons, and what is covered so far.',
  // Ten years of practice.
  megabytes: 6,
  request,
  answer,
  ask(asked) {
    const charts = [];
    for (const [index, { id: of, text }] of asked.charts.entries()) {
      const chart = requestedChart({ chart: text });
      // Of many charts, which it is.
      if (!chart.ok) return refuse({ ...chart.error, path: `charts.${index}.text` });
      charts.push(practiceChart(of, chart.value, STANDARD_NECK));
    }
    const { blocks, coverage } = nextSession({
      charts,
      exercises: PROGRESSION,
      history: asked.history,
      minutes: asked.minutes,
      now: Date.parse(asked.now),
      nameOf: (name) => EXERCISE_WORDS[name as ExerciseKind]?.name ?? name,
    });
    return accept({
      blocks: [...blocks],
      coverage: coverage.map(({ chart, exercise, zone: where, minutes, last, state }) => ({
        chart,
        exercise,
        zone: where,
        minutes,
        last,
        state,
      })),
    });
  },
});
