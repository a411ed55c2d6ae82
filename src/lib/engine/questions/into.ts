/** `into`: ways from a sounding note into the next chord. */
import { z } from 'zod';
import { degreeName, noteName } from 'corvel-core';
import { nextChange } from '$core/chart/form';
import { stringCount } from '$core/neck/neck';
import { waysInto } from '$core/targets/approach';
import { accept, refuse } from '../refusals';
import { noChord, offNeck, requestedOnNeck } from '../requested';
import { chartText, degreeText, keyText, neckRequest, noteText } from '../shapes';
import { question } from '../question';

const request = z.object({
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
  note: noteText,
});

const answer = z.object({
  ways: z
    .array(
      z.object({
        string: z.int(),
        fret: z.int(),
        note: noteText,
        degree: degreeText.describe('Over the chord that comes'),
        semitones: z.int(),
        approach: z.array(approach).optional().describe('What leads there from further off'),
      }),
    )
    .describe('Best first'),
});

export const into = question({
  summary: 'Ways from a sounding note into the next chord, best first.',
  request,
  answer,
  ask: (asked) => {
    const asking = requestedOnNeck(asked);
    if (!asking.ok) return asking;
    const { chart, neck } = asking.value;
    const { index, string, fret } = asked;
    const { chords } = chart;
    if (!chords[index]) return noChord(chart, 'index');
    if (offNeck(neck, { string, fret })) {
      const message = `The note lies on strings 1 to ${stringCount(neck)} and frets ${neck.capo} to ${neck.frets}.`;
      const path = string < 1 || string > stringCount(neck) ? 'string' : 'fret';
      return refuse({ code: 'out_of_range', message, path });
    }
    const next = chords[nextChange(chart, index) ?? -1];
    if (!next) return accept({ ways: [] });
    return accept({
      ways: waysInto(neck, { string, fret }, next.chord).map((way) => ({
        string: way.string,
        fret: way.fret,
        note: noteName(way.note),
        degree: degreeName(way.degree),
        semitones: way.halfSteps,
        ...(way.approach.length > 0
          ? {
              approach: way.approach.map((one) => ({
                string: one.string,
                fret: one.fret,
                note: noteName(one.note),
              })),
            }
          : {}),
      })),
    });
  },
});
