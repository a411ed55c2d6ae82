/** The shapes of the engine's questions and answers. OpenAPI is generated from these. */
import { z } from 'zod';

export const noteName = z.string().describe('A spelled note in ASCII: F#, Bb, Fx, Abb');
export const degreeName = z.string().describe('A simple degree: 1, b3, #4, bb7');

export const chartText = z
  .string()
  .max(65_536)
  .describe('Chart text: optional header lines, then bars between | signs');

export const keyText = z.string().max(40).describe('A key: Eb, F#m, D dorian');

export const neckRequest = z
  .object({
    tuning: z.array(z.string().max(4)).min(4).max(8).describe('Open strings, lowest first'),
    frets: z.int().min(12).max(27),
    capo: z.int().min(0).max(12),
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
  tonic: noteName.nullable().describe('Null when no single key holds the chart'),
  mode: z.string().nullable().describe('major, minor, dorian, …'),
  confidence: z.number().min(0).max(1),
  given: z.boolean().describe('Whether the chart or the request stated it'),
});

export const chordAnswer = z.object({
  index: z.int(),
  symbol: z.string(),
  root: noteName,
  quality: z.string().describe('The tidy spelling of the quality; empty for a major triad'),
  bass: noteName.optional(),
  notes: z.array(noteName),
  degrees: z.array(degreeName),
  definers: z.array(noteName).describe('The notes that tell the ear which chord it is'),
  bar: z.int().describe('The bar as played, from 1'),
  beat: z.number().describe('From 0 within the chart'),
  beats: z.number(),
  roman: z.string().nullable(),
  diatonic: z.boolean().nullable(),
  role: z.string().optional(),
  cadence: z.int().optional().describe('Index in cadences of the first that holds the chord'),
});

export const chartRequest = z.object({ chart: chartText, key: keyText.optional() });

export const chartAnswer = z.object({
  title: z.string(),
  key: keyAnswer,
  time: z.string(),
  tempo: z.number().nullable(),
  bars: z.int(),
  chords: z.array(chordAnswer),
  cadences: z.array(z.object({ kind: z.string(), from: z.int(), to: z.int(), key: z.string() })),
  form: z.string().nullable(),
});

export const collectionName = z
  .string()
  .max(80)
  .describe('A root and the name of a collection: Eb major pentatonic');

const collectionOnRoot = z.object({
  root: noteName,
  collection: z.string().describe('lydian dominant'),
});

export const collectionsRequest = z.union(
  [
    z.object({ name: collectionName }),
    z.object({
      notes: z.array(z.string().max(4)).min(1).max(12).describe('Notes the collection must hold'),
      root: z.string().max(4).optional().describe('Only collections on this root'),
    }),
  ],
  { error: 'state “name”, a text, or “notes”, a list of 1 to 12 note names' },
);

export const collectionAnswer = collectionOnRoot.extend({
  notes: z.array(noteName),
  degrees: z.array(degreeName),
  modes: z.array(collectionOnRoot).describe('Begun on each of its notes, itself first'),
  parent: collectionOnRoot.optional().describe('The scale this is a mode of'),
  relative: collectionOnRoot.optional().describe('Its notes as major or minor'),
  aliases: z.array(z.string()),
  easier: collectionOnRoot.optional().describe('An enharmonic name with fewer accidentals'),
  triads: z.array(z.string()).describe('The triads inside it'),
  sevenths: z.array(z.string()).describe('The seventh chords inside it'),
});

export const collectionsAnswer = z.union([
  collectionAnswer,
  z.object({ collections: z.array(collectionAnswer).describe('Smallest first') }),
]);
