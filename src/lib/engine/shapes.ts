/** Shapes that the engine’s questions and answers share. OpenAPI is generated from these. */
import { z } from 'zod';
import { INTENTS } from '$core/lenses/lens';
import { techniqueSchema } from '$core/formats/passage/techniqueSchema';
import { PREFERENCES } from '$core/targets/kinds';
import { meantBeats } from '$core/time/meant';

export const noteText = z.string().describe('A spelled note in ASCII: F#, Bb, Fx, Abb');
export const degreeText = z.string().describe('A simple degree: 1, b3, #4, bb7');

export const chartText = z
  .string()
  .max(65_536)
  .describe('Chart text: optional header lines, then bars between | signs');

export const keyText = z.string().max(40).describe('A key: Eb, F#m, D dorian');

export const neckRequest = z
  .object({
    tuning: z.array(z.string().max(8)).max(16).describe('4 to 8 open strings, lowest first'),
    frets: z.int().describe('12 to 27'),
    capo: z.int().describe('0 for none'),
  })
  .partial()
  .describe('The instrument; a standard six-string with 22 frets when left out');

export const errorAnswer = z.object({
  error: z.object({
    code: z.enum([
      'invalid_json',
      'invalid_request',
      'invalid_chart',
      'unknown_collection',
      'out_of_range',
      'too_large',
    ]),
    message: z.string(),
    path: z.string().optional(),
    line: z.int().optional(),
    column: z.int().optional(),
    token: z.string().optional(),
  }),
});

export const keyAnswer = z.object({
  tonic: noteText.nullable().describe('Null when no single key holds the chart'),
  mode: z.string().nullable().describe('major, minor, dorian, …'),
  confidence: z.number().min(0).max(1),
  given: z.boolean().describe('Whether the chart or the request stated it'),
});

export const chordAnswer = z.object({
  index: z.int(),
  symbol: z.string(),
  root: noteText,
  quality: z.string().describe('The tidy spelling of the quality; empty for a major triad'),
  bass: noteText.optional(),
  notes: z.array(noteText),
  degrees: z.array(degreeText),
  guideTones: z.array(noteText).describe('The notes that tell the ear which chord it is'),
  bar: z.int().describe('The bar as played, from 1'),
  beat: z.number().describe('From 0 within the chart'),
  beats: z.number(),
  roman: z.string().nullable(),
  diatonic: z.boolean().nullable(),
  role: z.string().optional(),
  cadence: z.int().optional().describe('Index in cadences of the first that holds the chord'),
});

export const collectionText = z
  .string()
  .max(80)
  .describe('A root and the name of a collection: Eb major pentatonic');

export const placed = z.object({
  string: z.int().describe('1 is the highest'),
  fret: z.int(),
  note: noteText,
  degree: degreeText,
});

export const zone = z.object({ low: z.int(), high: z.int() });

export const notes = z.array(noteText);

export const choiceNames = z
  .array(z.string().max(80).nullable())
  .max(8_192)
  .describe('What is played over each chord: Eb major pentatonic, Cm7 arpeggio, Bb triad, or null');

export const clash = z.object({
  note: noteText,
  degree: degreeText,
  above: noteText.describe('The chord tone a half step below it'),
});

export const onRoot = z.object({ root: noteText, collection: z.string() });

export const toneAnswer = z.object({ note: noteText, degree: degreeText });

export const intents = z
  .array(z.enum(INTENTS).nullable())
  .max(8_192)
  .describe('How much of each change is said; proposed where left out');

export const prefer = z
  .array(z.enum(PREFERENCES))
  .min(1)
  .max(8)
  .default(['3', '7'])
  .describe('Degrees to land on, the most preferred first');

const MOST_NOTES = 4_096;

/** Beats are bounded by the longest form there is. */
const beat = z.number().min(-64).max(100_000).overwrite(meantBeats);

export const playedNotes = z
  .array(
    z.object({
      beat,
      beats: z.number().min(0).max(1_024).overwrite(meantBeats),
      string: z.int(),
      fret: z.int(),
      techniques: z.array(techniqueSchema).max(8).optional(),
    }),
  )
  .max(MOST_NOTES)
  .describe('Played notes: beats from 0, two at one beat are a two-note stop');
