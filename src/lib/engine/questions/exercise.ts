/** `exercise`: an exercise of the drill book. */
import { z } from 'zod';
import { degreeName, EXERCISES, noteName } from 'corvel-core';
import { chartBeats } from '$core/chart/form';
import { degreeOver } from '$core/chords/over';
import { makeExercise } from '$core/exercises/exercises';
import { BEGINNINGS, DIRECTIONS, LINE_KINDS, PATTERN_LIMITS } from '$core/exercises/kinds';
import { parsePattern } from '$core/exercises/own/pattern';
import { techniqueSchema } from '$core/formats/passage/techniqueSchema';
import { overChart } from '$core/licks/lick';
import { EXTENTS } from '$core/lines/spans';
import { LINE_STYLES } from '$core/lines/styles';
import { stringCount } from '$core/neck/neck';
import { inTime } from '$core/phrases/passage';
import { noteLength, SUBDIVISIONS } from '$core/time/subdivision';
import { accept, refuse } from '../refusals';
import { noChord, requestedNotes, requestedSetting } from '../requested';
import {
  chartText,
  choiceNames,
  degreeText,
  intents,
  keyText,
  neckRequest,
  noteText,
  playedNotes,
  prefer,
  zone,
} from '../shapes';
import { question } from '../question';
import { barOf } from '$core/time/metre';
import { timesOf } from '../described';

const request = z.object({
  chart: chartText,
  key: keyText.optional(),
  kind: z.enum(EXERCISES),
  subdivision: z.enum(SUBDIVISIONS).default('eighths'),
  zone: zone.optional().describe('The first clear zone of the key when left out'),
  choices: choiceNames.optional(),
  intents: intents.optional(),
  prefer,
  extent: z.enum(EXTENTS).default('whole').describe('The whole form, one chord, or two in turn'),
  index: z.int().default(0).describe('The chord that is isolated, or that a pair begins with'),
  strings: z.array(z.int()).min(1).max(8).default([1, 2, 3]),
  group: z
    .union([z.literal(3), z.literal(4)])
    .default(4)
    .describe('Notes to a group, in groups'),
  seed: z.int().min(0).max(4_294_967_295).default(1),
  style: z
    .enum(LINE_STYLES)
    .optional()
    .describe('How a line is played; by the feel and idiom of the chart when left out'),
  switchAt: z
    .int()
    .min(0)
    .max(64)
    .optional()
    .describe('Half bars after the ii at which IV gives way to I, in switch; on I when left out'),
  melody: playedNotes.optional().describe('The tune’s melody, for melody and melody-varied'),
  octave: z
    .int()
    .min(-2)
    .max(2)
    .optional()
    .describe(
      'Octaves the melody is moved by; when left out it is varied as written, and melody takes the nearest',
    ),
  pattern: z
    .string()
    .max(PATTERN_LIMITS.characters)
    .optional()
    .describe('Degrees as players type them, for own: 1 ~3 5 7, <1, (2 7)1, r, 1:q'),
  direction: z
    .enum(DIRECTIONS)
    .optional()
    .describe('How own is played: as typed, backward, or both over chords in turn'),
  begin: z
    .enum(BEGINNINGS)
    .optional()
    .describe(
      'The tone of each chord to begin on, where an exercise begins on a root; the root when left out',
    ),
  neck: neckRequest.optional(),
});

const answer = z.object({
  title: z.string(),
  goal: z.string(),
  notes: z.array(
    z.object({
      beat: z.number(),
      beats: z.number(),
      string: z.int(),
      fret: z.int(),
      note: noteText,
      degree: degreeText.describe('Over the chord sounding'),
      chord: z.int().describe('Index of the chord'),
      techniques: z.array(techniqueSchema).optional(),
    }),
  ),
  targets: z
    .array(z.object({ index: z.int(), string: z.int(), fret: z.int(), midi: z.int() }))
    .optional()
    .describe('Where a line lands, chord by chord; left out for what is no line'),
  style: z.enum(LINE_STYLES).optional().describe('How a line is played; left out for what is none'),
  warnings: z.array(z.string()).describe('What a hand cannot do at the tempo'),
});
/** A line is a path through all its notes, as a pattern of one's own is; the others only walk. */
const MOST_NOTES = { line: 4_096, pattern: 32_768 } as const;

export const exercise = question({
  summary: 'An exercise from the drill book, made from the chart, the choices and a zone.',
  request,
  answer,
  ask: (asked) => {
    const setting = requestedSetting(asked);
    if (!setting.ok) return setting;
    const { chart, key, neck, materials, intents, zones, opening } = setting.value;
    const { kind, subdivision, prefer, extent, seed, strings, index } = asked;
    if (extent !== 'whole' && !chart.chords[index]) return noChord(chart, 'index');
    if (strings.some((string) => string < 1 || string > stringCount(neck))) {
      const message = `Strings are numbered 1 to ${stringCount(neck)}.`;
      return refuse({ code: 'out_of_range', message, path: 'strings' });
    }
    const isPath = LINE_KINDS.has(kind) || kind === 'own';
    const most = isPath ? MOST_NOTES.line : MOST_NOTES.pattern;
    const long = noteLength(subdivision, chart.source.time.unit);
    if (extent === 'whole' && chartBeats(chart) / long > most) {
      const bars = Math.floor((most * long) / barOf(chart.source.time));
      const message = `In these notes an exercise has at most ${bars} bars; this form has ${chart.bars.length}.`;
      return refuse({ code: 'out_of_range', message, path: 'chart' });
    }
    const melody = requestedNotes(neck, asked.melody ?? [], 'melody');
    if (!melody.ok) return melody;
    if (kind === 'own') {
      const read = parsePattern(asked.pattern ?? '');
      const problem = read.ok ? null : read.problems[0];
      if (problem) {
        const message = problem.message;
        return refuse({ code: 'invalid_request', message, path: 'pattern' });
      }
    }
    const { title, goal, passage, warnings, targets, line } = makeExercise({
      chart,
      key,
      kind,
      subdivision,
      neck,
      materials,
      intents,
      prefer,
      extent,
      seed,
      style: asked.style ?? null,
      octave: asked.octave ?? null,
      strings,
      group: asked.group,
      switchAt: asked.switchAt ?? null,
      pattern: asked.pattern ?? null,
      begin: asked.begin ?? null,
      direction: asked.direction ?? null,
      melody: inTime(overChart(chart, key, neck, melody.value)),
      zones,
      zone: asked.zone ?? opening,
      pins: {},
      from: index,
    });
    return accept({
      title,
      goal,
      notes: passage.notes.flatMap(({ beat, beats, string, fret, note, chord, techniques }) => {
        const played = chart.chords[chord ?? -1];
        if (!played) return [];
        const degree = degreeName(degreeOver(played.chord, note));
        return [
          {
            ...timesOf({ beat, beats }),
            string,
            fret,
            note: noteName(note),
            degree,
            chord: played.index,
            ...(techniques.length > 0 ? { techniques: [...techniques] } : {}),
          },
        ];
      }),
      ...(line ? { targets: [...targets], style: line.style } : {}),
      warnings: [...warnings],
    });
  },
});
