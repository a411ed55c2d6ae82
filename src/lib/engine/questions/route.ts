/** `route`: one note to land on for each chord. */
import { z } from 'zod';
import { at } from '$core/lists';
import { degreeName, type Neck, noteName, type Zone } from 'corvel-core';
import { stringCount } from '$core/neck/neck';
import { CONTOURS } from '$core/targets/kinds';
import { solveRoutes } from '$core/targets/route';
import { ROUTE_PARTS } from '$core/targets/weights';
import { accept, refuse } from '../refusals';
import { noChord, offNeck, requestedSetting } from '../requested';
import {
  chartText,
  choiceNames,
  degreeText,
  intents,
  keyText,
  neckRequest,
  noteText,
  prefer,
  zone,
} from '../shapes';
import { question } from '../question';

const request = z.object({
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

const answer = z.object({
  routes: z.array(
    z.object({
      cost: z.number(),
      stops: z.array(
        z.object({
          index: z.int(),
          string: z.int(),
          fret: z.int(),
          note: noteText,
          midi: z.int(),
          degree: degreeText,
          semitones: z.int().describe('From the stop before; 0 for the first'),
          sentence: z.string(),
        }),
      ),
      parts: z.object(parts).describe('What the cost is made of: these sum to it'),
    }),
  ),
  exact: z.literal(true),
});

/**
 * Steps from place to place that are weighed at the most: about a second of work. A stop may lie on
 * any place of the zone, and every further alternative walks the form again.
 */
const MOST_STEPS = 16_000_000;

function stepsOf(chords: number, neck: Neck, zone: Zone | undefined, alternatives: number): number {
  const frets = zone ? zone.high - zone.low + 1 : neck.frets - neck.capo + 1;
  const places = frets * stringCount(neck);
  return chords * places ** 2 * (1 + alternatives / 10);
}

export const route = question({
  summary: 'One note to land on for each chord, chosen together as the path that costs least.',
  request,
  answer,
  ask: (asked) => {
    const setting = requestedSetting(asked);
    if (!setting.ok) return setting;
    const { chart, neck, materials, intents } = setting.value;
    for (const [place, pin] of asked.pins.entries()) {
      if (!chart.chords[pin.index]) return noChord(chart, `pins.${place}.index`);
      if (offNeck(neck, pin)) {
        const message = 'A pin lies on a string and a fret of the neck.';
        return refuse({ code: 'out_of_range', message, path: `pins.${place}` });
      }
    }
    const count = chart.chords.length;
    const each = stepsOf(1, neck, asked.zone, asked.alternatives);
    if (count * each > MOST_STEPS) {
      const most = Math.floor(MOST_STEPS / each);
      const message = `On this neck a route is solved through ${most} chords at the most; this form has ${count}. Name a zone, or fewer alternatives.`;
      return refuse({ code: 'out_of_range', message, path: 'chart' });
    }
    const pins = new Map(asked.pins.map(({ index, string, fret }) => [index, { string, fret }]));
    const routes = solveRoutes({
      neck,
      chords: chart.chords.map(({ index, chord }) => ({
        chord,
        intent: at(intents, index),
        material: at(materials, index),
        pin: pins.get(index) ?? null,
      })),
      prefer: asked.prefer,
      zone: asked.zone ?? null,
      contour: asked.contour ?? null,
      loop: asked.loop,
      count: asked.alternatives,
    });
    return accept({
      routes: routes.map(({ cost, stops, parts }) => ({
        cost,
        stops: stops.map(({ index, string, fret, note, midi, degree, halfSteps, sentence }) => ({
          index,
          string,
          fret,
          midi,
          sentence,
          note: noteName(note),
          degree: degreeName(degree),
          semitones: halfSteps,
        })),
        parts,
      })),
      exact: true,
    });
  },
});
