/** The shapes of the engine's questions and answers. OpenAPI is generated from these. */
import { z } from 'zod';
import { INVERSIONS } from '$core/neck/triads';
import { MATERIALS } from '$core/neck/zones';

export const noteName = z.string().describe('A spelled note in ASCII: F#, Bb, Fx, Abb');
export const degreeName = z.string().describe('A simple degree: 1, b3, #4, bb7');

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

const placed = z.object({
  string: z.int().describe('1 is the highest'),
  fret: z.int(),
  note: noteName,
  degree: degreeName,
});

export const zonesRequest = z.object({
  chart: chartText,
  key: keyText.optional(),
  collections: z.enum(MATERIALS).default('matching-pentatonic'),
  neck: neckRequest.optional(),
  zone: z.object({ low: z.int(), high: z.int() }).optional(),
});

export const zonesAnswer = z.object({
  zones: z.array(
    z.object({
      low: z.int(),
      high: z.int(),
      chords: z.array(
        z.object({
          index: z.int(),
          name: z.string().describe('What is laid out: Eb major pentatonic'),
          box: z.object({
            minor: z.int(),
            major: z.int(),
            letter: z.enum(['E', 'D', 'C', 'A', 'G']),
          }),
          low: z.int(),
          high: z.int(),
          notes: z.array(placed),
          outside: z.array(placed).describe('The notes that the zone does not reach'),
        }),
      ),
    }),
  ),
});

export const triadsRequest = z.object({
  chart: chartText,
  key: keyText.optional(),
  strings: z.array(z.int()).length(3).describe('Three neighbouring strings'),
  path: z.enum(['nearest', 'up', 'down']).default('nearest'),
  start: z.object({ inversion: z.enum(INVERSIONS) }).optional(),
  neck: neckRequest.optional(),
});

export const triadsAnswer = z.object({
  steps: z.array(
    z.object({
      index: z.int(),
      inversion: z.enum(INVERSIONS),
      notes: z.array(placed),
      held: z.array(noteName),
      moves: z.array(z.object({ note: noteName, to: noteName, semitones: z.int() })),
      turned: z.boolean().optional().describe('The neck ran out, and the way turned round'),
    }),
  ),
});

export const homesRequest = z.object({
  chord: z.string().max(40).describe('A chord symbol: Cm7'),
  collection: z.string().max(80).optional().describe('On the chord’s root when it names none'),
  neck: neckRequest.optional(),
});

export const homesAnswer = z.object({
  homes: z.array(
    z.object({
      string: z.int().describe('The string of the root'),
      grip: z.object({ kind: z.enum(['drop-2', 'drop-3']), notes: z.array(placed) }),
      arpeggio: z.array(placed),
      scale: z.array(placed),
    }),
  ),
});
