/** `lick`: played notes read against the chords they sound over. */
import { z } from 'zod';
import { chordName, degreeName, noteName } from 'corvel-core';
import { readHarmony } from '$core/harmony/reading';
import { readLick, type ToneRead } from '$core/licks/reading';
import { NOTE_ROLES } from '$core/licks/roles';
import { HOWS } from '$core/phrases/landing';
import { question } from '../question';
import { accept } from '../refusals';
import { requestedNotes, requestedOnNeck } from '../requested';
import { chartText, degreeText, keyText, neckRequest, noteText, playedNotes } from '../shapes';
import { timesOf } from '../described';

const request = z.object({
  chart: chartText,
  key: keyText.optional(),
  notes: playedNotes,
  neck: neckRequest.optional(),
});

const toneRead = z.object({
  note: noteText,
  degree: degreeText.nullable().describe('Over the chord sounding; null where none does'),
});

const answer = z.object({
  notes: z.array(
    z.object({
      index: z.int(),
      beat: z.number(),
      beats: z.number(),
      string: z.int(),
      fret: z.int(),
      midi: z.int(),
      chord: z.int().nullable(),
      role: z.enum(NOTE_ROLES),
      strong: z.boolean(),
      bent: toneRead.optional(),
      backward: z
        .literal(true)
        .optional()
        .describe('The third of a dominant has just fallen to it, the minor third'),
      ...toneRead.shape,
    }),
  ),
  landings: z.array(
    z.object({
      chord: z.int(),
      note: noteText.nullable().describe('At the pitch that is heard'),
      degree: degreeText.nullable(),
      how: z.enum(HOWS).nullable().describe('null where nothing lands'),
      bent: toneRead.optional().describe('What it is bent to, where it is'),
      sentence: z.string(),
    }),
  ),
  last: toneRead.nullable(),
  heard: z.object({
    share: z
      .number()
      .nullable()
      .describe('Mean probability of the right chord, 0 to 1; null where there is one chord only'),
    chords: z.array(
      z.object({
        index: z.int(),
        symbol: z.string(),
        likeliest: z.array(z.object({ symbol: z.string(), probability: z.number() })),
        sentence: z.string(),
      }),
    ),
    sentence: z.string(),
  }),
});

const spelled = ({ note, degree }: ToneRead) => ({
  note: noteName(note),
  degree: degree === null ? null : degreeName(degree),
});

export const lick = question({
  summary: 'Played notes read against their chords, and whether the changes are heard in them.',
  request,
  answer,
  ask(asked) {
    const asking = requestedOnNeck(asked);
    if (!asking.ok) return asking;
    const { chart, neck } = asking.value;
    const given = requestedNotes(neck, asked.notes);
    if (!given.ok) return given;
    const order = given.value
      .map((note, index) => ({ note, index }))
      .sort((a, b) => a.note.beat - b.note.beat || b.note.string - a.note.string);
    const { key } = readHarmony(chart).key;
    const read = readLick(
      chart,
      key,
      neck,
      order.map(({ note }) => note),
    );
    return accept({
      notes: read.notes
        .map((one, place) => {
          const { beat, beats, string, fret, midi, chord, role, strong, bent, backward } = one;
          return {
            index: order[place]?.index ?? place,
            ...timesOf({ beat, beats }),
            string,
            fret,
            midi,
            chord,
            role,
            strong,
            ...spelled(one),
            ...(bent ? { bent: spelled(bent) } : {}),
            ...(backward ? { backward: true as const } : {}),
          };
        })
        .sort((a, b) => a.index - b.index),
      landings: read.landings.map(({ chord, note, degree, how, bent, sentence }) => ({
        chord,
        how,
        sentence,
        note: note === null ? null : noteName(note),
        degree: degree === null ? null : degreeName(degree),
        ...(bent ? { bent: spelled(bent) } : {}),
      })),
      last: read.last && spelled(read.last),
      heard: {
        share: read.heard.share,
        chords: read.heard.chords.map(({ index, chord, likeliest, sentence }) => ({
          index,
          symbol: chord.symbol,
          likeliest: likeliest.map((one) => ({
            symbol: chordName({ ...one.chord, bass: null }),
            probability: one.probability,
          })),
          sentence,
        })),
        sentence: read.heard.sentence,
      },
    });
  },
});
