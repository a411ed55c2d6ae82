/** `open`: what a file holds, as the Book's Import and the lick editor's Open read it. */
import { z } from 'zod';
import { noteName, pitchAt, STANDARD_NECK } from 'corvel-core';
import { readChart } from '$core/chart/form';
import type { PlayedNote } from '$core/phrases/passage';
import { chartFormatOf, openChart } from '$lib/formats/charts';
import { openPassage, passageFormatOf } from '$lib/formats/passages';
import { lickOfPassage } from '$core/licks/lick';
import { melodyPassage } from '$lib/study/melody';
import { readPlan } from '$lib/study/plan';
import { question } from '../question';
import { accept, refuse } from '../refusals';
import { noteText } from '../shapes';
import { timesOf } from '../described';

const notes = z.array(
  z.object({
    beat: z.number().describe('From the beginning, in beats of the time'),
    beats: z.number(),
    string: z.int().describe('1 is the highest'),
    fret: z.int(),
    midi: z.int(),
    note: noteText,
  }),
);
const remarks = z.array(z.string()).describe('What was left out or guessed, in sentences');

const answer = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('chart'),
    format: z.string().describe('What the file is'),
    text: z.string().describe('Chart text'),
    remarks,
    melody: notes.optional(),
  }),
  z.object({
    kind: z.literal('passage'),
    format: z.string(),
    chart: z.string().optional().describe('The bars and chords under it, as chart text'),
    notes,
    remarks,
  }),
]);

const told = (played: readonly PlayedNote[]) =>
  played.map(({ beat, beats, string, fret, note }) => ({
    ...timesOf({ beat, beats }),
    string,
    fret,
    midi: pitchAt(STANDARD_NECK, { string, fret }),
    note: noteName(note),
  }));

export const open = question({
  summary: 'What a file holds: a chart (text, MusicXML, ABC, ChordPro, MIDI) or a passage.',
  takes: 'file',
  request: z.instanceof(Uint8Array),
  answer,
  async ask(bytes) {
    const opened = await openChart(bytes);
    const read = opened.ok ? readChart(opened.chart.text) : null;
    if (opened.ok && read?.ok) {
      const { text, plan, remarks: said } = opened.chart;
      const more = (opened.choices?.length ?? 1) - 1;
      const kept = plan === null ? null : readPlan(plan);
      const sung = kept?.melody ? melodyPassage(kept, read.chart).notes : [];
      return accept({
        kind: 'chart' as const,
        format: chartFormatOf(bytes),
        text,
        remarks: [
          ...said,
          ...(more > 0 ? [`The file offers ${more + 1} charts; this is the first.`] : []),
        ],
        ...(sung.length > 0 ? { melody: told(sung) } : {}),
      });
    }
    const passage = await openPassage(bytes, STANDARD_NECK);
    if (passage.ok && passage.passage.notes.length > 0) {
      const { chords } = passage.passage;
      return accept({
        kind: 'passage' as const,
        format: passageFormatOf(bytes),
        ...(chords.length > 0 ? { chart: lickOfPassage(passage.passage, '').chart } : {}),
        notes: told(passage.passage.notes),
        remarks: [...passage.remarks],
      });
    }
    // Chart text with a slip in it is kept, as Import keeps it; it has bars.
    if (opened.ok && opened.chart.text.includes('|'))
      return accept({
        kind: 'chart' as const,
        format: chartFormatOf(bytes),
        text: opened.chart.text,
        remarks: [...opened.chart.remarks],
      });
    const message = opened.ok
      ? 'This is text, but neither a chart with bars nor tablature.'
      : opened.message;
    return refuse({ code: 'invalid_request', message });
  },
});
