/** The shapes of the questions about targets: route, into, exercise. */
import { z } from 'zod';
import { EXERCISES } from '$core/exercises/kinds';
import { INTENTS } from '$core/lenses/lens';
import { EXTENTS } from '$core/phrases/stages';
import { SUBDIVISIONS } from '$core/phrases/subdivision';
import { CONTOURS, PREFERENCES } from '$core/targets/kinds';
import { ROUTE_PARTS } from '$core/targets/weights';
import { choiceNames } from './lensSchemas';
import { chartText, degreeName, keyText, neckRequest, noteName } from './schemas';

const zone = z.object({ low: z.int(), high: z.int() });

const intents = z
  .array(z.enum(INTENTS).nullable())
  .max(8_192)
  .describe('How much of each change is said; proposed where left out');

const prefer = z
  .array(z.enum(PREFERENCES))
  .min(1)
  .max(8)
  .default(['3', '7'])
  .describe('Degrees to land on, the most preferred first');

export const routeRequest = z.object({
  chart: chartText,
  key: keyText.optional(),
  prefer,
  intents: intents.optional(),
  zone: zone.optional().describe('The frets to stay in; the whole neck when left out'),
  choices: choiceNames.optional(),
  pins: z
    .array(z.object({ index: z.int(), string: z.int(), fret: z.int() }))
    .max(2_048)
    .default([])
    .describe('Places the route must take'),
  contour: z.enum(CONTOURS).optional(),
  loop: z.boolean().default(true).describe('Whether the last target leads back to the first'),
  alternatives: z.int().min(1).max(20).default(3).describe('How many routes, the best first'),
  neck: neckRequest.optional(),
});

const parts = Object.fromEntries(ROUTE_PARTS.map((part) => [part, z.number()])) as Record<
  (typeof ROUTE_PARTS)[number],
  z.ZodNumber
>;

export const routeAnswer = z.object({
  routes: z.array(
    z.object({
      cost: z.number(),
      stops: z.array(
        z.object({
          index: z.int(),
          string: z.int(),
          fret: z.int(),
          note: noteName,
          midi: z.int(),
          degree: degreeName,
          semitones: z.int().describe('From the stop before; 0 for the first'),
          sentence: z.string(),
        }),
      ),
      parts: z.object(parts).describe('What the cost is made of: these sum to it'),
    }),
  ),
  exact: z.literal(true),
});

export const intoRequest = z.object({
  chart: chartText,
  key: keyText.optional(),
  index: z.int().describe('The chord at whose end the note sounds'),
  string: z.int(),
  fret: z.int(),
  neck: neckRequest.optional(),
});

const approach = z.object({
  string: z.int(),
  fret: z.int(),
  note: noteName,
});

export const intoAnswer = z.object({
  ways: z
    .array(
      z.object({
        string: z.int(),
        fret: z.int(),
        note: noteName,
        degree: degreeName.describe('Over the chord that comes'),
        semitones: z.int(),
        approach: z.array(approach).optional().describe('What leads there from further off'),
      }),
    )
    .describe('Best first'),
});

export const exerciseRequest = z.object({
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
  seed: z.int().min(0).max(4_294_967_295).default(1),
  neck: neckRequest.optional(),
});

export const exerciseAnswer = z.object({
  title: z.string(),
  goal: z.string(),
  notes: z.array(
    z.object({
      beat: z.number(),
      beats: z.number(),
      string: z.int(),
      fret: z.int(),
      note: noteName,
      degree: degreeName.describe('Over the chord sounding'),
      chord: z.int().describe('Index of the chord'),
    }),
  ),
  warnings: z.array(z.string()).describe('What a hand cannot do at the tempo'),
});
