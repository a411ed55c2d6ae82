/** `fit`: every place in some charts where a lick, moved, is right. */
import { z } from 'zod';
import { fitLick, MATCHES } from '$core/licks/fit';
import { STANDARD_NECK } from 'corvel-core';
import { question } from '../question';
import { accept } from '../refusals';
import { requestedChart, requestedNotes } from '../requested';
import { chartText, playedNotes } from '../shapes';

const request = z.object({
  lick: z.object({ chart: chartText, notes: playedNotes }),
  charts: z.array(chartText).max(1_000),
});

const answer = z.object({
  fits: z.array(
    z.object({
      chart: z.int().describe('Position in charts'),
      index: z.int().describe('The chord the lick starts on'),
      semitones: z.int().describe('How far it is moved, −5 to 6'),
      match: z.enum(MATCHES),
      share: z.number().describe('How much of its time is at home there, 0 to 1'),
      sentence: z.string(),
    }),
  ),
});

export const fit = question({
  summary: 'Every place of some charts where a lick, moved, is right; the best first.',
  request,
  answer,
  ask({ lick, charts: texts }) {
    const own = requestedChart(lick);
    if (!own.ok) return own;
    const notes = requestedNotes(STANDARD_NECK, lick.notes, 'lick.notes');
    if (!notes.ok) return notes;
    const charts = [];
    for (const chart of texts) {
      const read = requestedChart({ chart });
      if (!read.ok) return read;
      charts.push(read.value);
    }
    const ordered = notes.value.toSorted((a, b) => a.beat - b.beat);
    return accept({
      fits: [...fitLick({ chart: own.value, notes: ordered }, charts, STANDARD_NECK)],
    });
  },
});
