/** `coverage`: one collection held against a whole chart. */
import { z } from 'zod';
import { parseCollection } from '$core/collections/collections';
import { coverageOf } from '$core/lenses/coverage';
import { collectionMaterial } from '$core/lenses/material';
import { describeClash, tonesOf } from '../described';
import { accept, refuse } from '../refusals';
import { requestedChart } from '../requested';
import { chartText, clash, collectionText, keyText, toneAnswer } from '../shapes';
import { question } from '../question';

const request = z.object({
  chart: chartText,
  key: keyText.optional(),
  collection: collectionText,
});

const answer = z.object({
  chords: z.array(
    z.object({
      index: z.int(),
      symbol: z.string(),
      covered: z.array(toneAnswer),
      missing: z.array(toneAnswer),
      clashes: z.array(clash),
    }),
  ),
  spoken: z.array(z.string()).describe('The price in words, chord by chord'),
});

export const coverage = question({
  summary: 'One collection held against a whole chart: what it covers, lacks and clashes with.',
  request,
  answer,
  ask: (asked) => {
    const chart = requestedChart(asked);
    if (!chart.ok) return chart;
    const collection = parseCollection(asked.collection);
    if (!collection) {
      const message = `“${asked.collection}” is not a collection: write a root and a name, like Eb major pentatonic.`;
      return refuse({ code: 'unknown_collection', message });
    }
    const coverage = coverageOf(chart.value, collectionMaterial(collection));
    return accept({
      chords: coverage.map(({ played: { index, chord }, assessment }) => ({
        index,
        symbol: chord.symbol,
        covered: tonesOf(chord, assessment.covered),
        missing: tonesOf(chord, assessment.missing),
        clashes: assessment.clashes.map(describeClash),
      })),
      spoken: coverage.map(({ sentence }) => sentence),
    });
  },
});
