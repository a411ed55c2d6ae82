/** `triads`: a way through a chart with triads. */
import { z } from 'zod';
import { at } from '$core/lists';
import { stringCount } from '$core/neck/neck';
import { INVERSIONS, triadPath } from '$core/neck/triads';
import { noteName } from '$core/notes/notes';
import { placesOver } from '../described';
import { accept, refuse } from '../refusals';
import { requestedOnNeck } from '../requested';
import { chartText, keyText, neckRequest, noteText, placed } from '../shapes';
import { question } from '../question';

const request = z.object({
  chart: chartText,
  key: keyText.optional(),
  strings: z.array(z.int()).length(3).describe('Three neighbouring strings'),
  path: z.enum(['nearest', 'up', 'down']).default('nearest'),
  start: z.object({ inversion: z.enum(INVERSIONS) }).optional(),
  neck: neckRequest.optional(),
});

const answer = z.object({
  steps: z.array(
    z.object({
      index: z.int(),
      inversion: z.enum(INVERSIONS),
      notes: z.array(placed),
      held: z.array(noteText),
      moves: z.array(z.object({ note: noteText, to: noteText, semitones: z.int() })),
      turned: z.boolean().optional().describe('The neck ran out, and the way turned round'),
    }),
  ),
});

export const triads = question({
  summary: 'A way through a chart with triads on three strings.',
  request,
  answer,
  ask: (asked) => {
    const asking = requestedOnNeck(asked);
    if (!asking.ok) return asking;
    const { chart, neck } = asking.value;
    const strings = [...asked.strings].sort((a, b) => a - b);
    const [first = 0] = strings;
    const neighbours = strings.every((string, offset) => string === first + offset);
    if (!neighbours || first < 1 || (strings.at(-1) ?? 0) > stringCount(neck)) {
      const message = 'Triads lie on three neighbouring strings of the neck, like 2, 3 and 4.';
      return refuse({ code: 'out_of_range', message, path: 'strings' });
    }
    const chords = chart.chords.map(({ chord }) => chord);
    const steps = triadPath(neck, chords, {
      strings,
      path: asked.path,
      start: asked.start?.inversion,
    });
    return accept({
      steps: steps.map(({ index, inversion, places, held, moves, turned }) => ({
        index,
        inversion,
        notes: placesOver(at(chords, index), places),
        held: held.map(noteName),
        moves: moves.map(({ note, to, halfSteps }) => ({
          note: noteName(note),
          to: noteName(to),
          semitones: halfSteps,
        })),
        ...(turned ? { turned } : {}),
      })),
    });
  },
});
