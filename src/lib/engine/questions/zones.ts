/** `zones`: where every chord lies under the hand. */
import { rememberBy } from '$core/cache';
import type { Chord, Zone } from 'corvel-core';
import { type Collection, collectionName } from '$core/collections/collections';
import { z } from 'zod';
import { zoneTonic } from '$core/chart/form';
import { readHarmony } from '$core/harmony/reading';
import { modeAt } from '$core/lenses/modes';
import { MATERIALS, layOutIn, zonesOf } from '$core/neck/zones';
import { placesOver } from '../described';
import { accept, refuse } from '../refusals';
import { refuseZone, requestedOnNeck } from '../requested';
import { chartText, keyText, neckRequest, placed } from '../shapes';
import { question } from '../question';

const request = z.object({
  chart: chartText,
  key: keyText.optional(),
  collections: z.enum(MATERIALS).default('matching-pentatonic'),
  neck: neckRequest.optional(),
  zone: z.object({ low: z.int(), high: z.int() }).optional(),
});

const answer = z.object({
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

const tooShort = () =>
  refuse({ code: 'out_of_range', message: 'This neck is too short for a box.', path: 'neck' });

export const zones = question({
  summary: 'Where every chord of a chart lies under the hand: in the five zones, or in one.',
  request,
  answer,
  ask: (asked) => {
    const asking = requestedOnNeck(asked);
    if (!asking.ok) return asking;
    const { chart, neck } = asking.value;
    const off = refuseZone(neck, asked.zone);
    if (off) return off;
    const reading = readHarmony(chart);
    const tonic = zoneTonic(chart, reading.key.key);
    if (tonic === null) return accept({ zones: [] });
    const zones = asked.zone ? [asked.zone] : zonesOf(neck, tonic);
    const answered: z.infer<typeof answer>['zones'] = [];
    // A form comes back to its chords; each is laid out once in a zone.
    const laidIn = rememberBy(
      (chord: Chord, mode: Collection, { low, high }: Zone) =>
        `${chord.symbol} ${collectionName(mode)} ${low}-${high}`,
      (chord, mode, zone) => {
        const laid = layOutIn(neck, { chord, mode }, asked.collections, zone);
        if (!laid) return null;
        const { shape, name } = laid;
        const { box, low, high } = shape;
        const notes = placesOver(chord, shape.places);
        return { name, box, low, high, notes, outside: placesOver(chord, shape.outside) };
      },
    );
    for (const zone of zones) {
      const chords: (typeof answered)[number]['chords'] = [];
      for (const { index, chord } of chart.chords) {
        const mode = modeAt(chart, reading, index);
        const laid = mode && laidIn(chord, mode, zone);
        if (!laid) return tooShort();
        chords.push({ index, ...laid });
      }
      answered.push({ low: zone.low, high: zone.high, chords });
    }
    return accept({ zones: answered });
  },
});
