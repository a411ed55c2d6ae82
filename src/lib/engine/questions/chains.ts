/** `chains`: one pentatonic shape shifted through the chords. */
import { z } from 'zod';
import { bluesChains, chainsThrough } from '$core/lenses/chains';
import { degreeName, noteName } from 'corvel-core';
import { accept, refuse } from '../refusals';
import { requestedChart } from '../requested';
import { chartText, degreeText, keyText, noteText } from '../shapes';
import { question } from '../question';

const request = z.object({
  chart: chartText,
  key: keyText.optional(),
  from: z.int().optional().describe('Index of the first chord; the chart’s first when left out'),
  to: z.int().optional().describe('Index of the last chord; the chart’s last when left out'),
});

const answer = z.object({
  chains: z.array(
    z.object({
      step: z.int().describe('Half steps from each root to the next'),
      stops: z.array(
        z.object({
          index: z.int(),
          root: noteText,
          collection: z.string(),
          relation: degreeText.describe('Degree of the root over the chord'),
        }),
      ),
    }),
  ),
});
export const chains = question({
  summary:
    'One pentatonic shape shifted through the chords, its roots in even steps; then the same as blues scales.',
  request,
  answer,
  ask: (asked) => {
    const chart = requestedChart(asked);
    if (!chart.ok) return chart;
    const { chords } = chart.value;
    const last = Math.max(0, chords.length - 1);
    const { from = 0, to = last } = asked;
    if (from < 0 || to > last || from > to) {
      const message = `A stretch lies between chord 0 and chord ${last}, its beginning first.`;
      return refuse({ code: 'out_of_range', message, path: from < 0 || from > to ? 'from' : 'to' });
    }
    const stretch = chords.slice(from, to + 1).map(({ chord }) => chord);
    const found = chainsThrough(stretch);
    return accept({
      chains: [...found, ...bluesChains(found)].map(({ step, stops }) => ({
        step,
        stops: stops.map(({ index, collection, relation }) => ({
          index: from + index,
          root: noteName(collection.root),
          collection: collection.kind.name,
          relation: degreeName(relation),
        })),
      })),
    });
  },
});
