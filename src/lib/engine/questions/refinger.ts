/** `refinger`: played notes moved on the neck, as a shape or at the easiest places. */
import { z } from 'zod';
import { techniqueSchema } from '$core/formats/passage/techniqueSchema';
import { refinger as moved } from '$core/licks/refinger';
import { question } from '../question';
import { accept } from '../refusals';
import { refuseZone, requestedNeck, requestedNotes } from '../requested';
import { neckRequest, playedNotes, zone } from '../shapes';
import { timesOf } from '../described';

const request = z.object({
  notes: playedNotes,
  semitones: z.int().min(-48).max(48).default(0),
  zone: zone.optional().describe('The whole neck when left out'),
  keep: z
    .enum(['shape', 'pitch'])
    .default('pitch')
    .describe('The same strings and distances, or the easiest places'),
  neck: neckRequest.optional(),
});

const answer = z.object({
  notes: z
    .array(
      z.object({
        beat: z.number(),
        beats: z.number(),
        string: z.int(),
        fret: z.int(),
        midi: z.int(),
        techniques: z.array(techniqueSchema).optional(),
      }),
    )
    .describe('Without those that lie off the neck'),
  cost: z.number(),
  exact: z.literal(true),
  outOfReach: z.array(z.int()).describe('Indices of the notes off the neck or outside the zone'),
});

export const refinger = question({
  summary: 'Played notes moved: as a shape, or fingered anew where the hand moves least.',
  request,
  answer,
  ask({ notes, semitones, zone: region, keep, neck: instrument }) {
    const neck = requestedNeck(instrument);
    if (!neck.ok) return neck;
    const refused = refuseZone(neck.value, region);
    if (refused) return refused;
    const given = requestedNotes(neck.value, notes);
    if (!given.ok) return given;
    const order = given.value
      .map((note, index) => ({ note, index }))
      .sort((a, b) => a.note.beat - b.note.beat);
    const found = moved({
      neck: neck.value,
      semitones,
      keep,
      notes: order.map(({ note }) => note),
      zone: region ?? null,
    });
    return accept({
      notes: found.notes.map(({ beat, beats, string, fret, midi, techniques }) => ({
        ...timesOf({ beat, beats }),
        string,
        fret,
        midi,
        ...(techniques.length > 0 ? { techniques: [...techniques] } : {}),
      })),
      cost: found.cost,
      exact: true as const,
      outOfReach: found.outOfReach
        .map((place) => order[place]?.index ?? place)
        .sort((a, b) => a - b),
    });
  },
});
