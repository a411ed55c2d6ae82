/** `homes`: chord, arpeggio and collection round one root. */
import { z } from 'zod';
import { type Chord, parseChord } from 'corvel-core';
import { explainUnreadable } from '$core/chords/symbols';
import {
  type Collection,
  findCollectionKind,
  parseCollection,
} from '$core/collections/collections';
import { alone } from '$core/lenses/modeContext';
import { modeFor } from '$core/lenses/modes';
import type { Placed } from '$core/neck/fingering';
import { homesOf } from '$core/neck/homes';
import { placesOver } from '../described';
import { accept, refuse } from '../refusals';
import { requestedNeck } from '../requested';
import { neckRequest, placed } from '../shapes';
import { question } from '../question';

const request = z.object({
  chord: z.string().max(40).describe('A chord symbol: Cm7'),
  collection: z.string().max(80).optional().describe('On the chord’s root when it names none'),
  neck: neckRequest.optional(),
});

const answer = z.object({
  homes: z.array(
    z.object({
      string: z.int().describe('The string of the root'),
      grip: z.object({ kind: z.enum(['drop-2', 'drop-3']), notes: z.array(placed) }),
      arpeggio: z.array(placed).describe('From the root on the home’s string up'),
      scale: z.array(placed),
      below: z
        .object({ arpeggio: z.array(placed), scale: z.array(placed) })
        .describe('What lies under the same hand below the root'),
    }),
  ),
});
function requestedCollection(text: string | undefined, chord: Chord): Collection | null {
  if (text === undefined) return modeFor(alone(chord));
  const kind = findCollectionKind(text);
  return kind ? { root: chord.root, kind } : parseCollection(text);
}

export const homes = question({
  summary: 'A chord, its arpeggio and a collection round one root, on strings 6, 5 and 4.',
  request,
  answer,
  ask: (asked) => {
    const chord = parseChord(asked.chord.trim());
    if (!chord) {
      const message = explainUnreadable(asked.chord.trim());
      return refuse({ code: 'invalid_chart', message, line: 1, column: 1, token: asked.chord });
    }
    const neck = requestedNeck(asked.neck);
    if (!neck.ok) return neck;
    const scale = requestedCollection(asked.collection, chord);
    if (!scale) {
      const message = `“${asked.collection ?? ''}” is not a collection Corvel knows.`;
      return refuse({ code: 'unknown_collection', message });
    }
    const describe = (places: readonly Placed[]) => placesOver(chord, places);
    return accept({
      homes: homesOf(neck.value, chord, scale).map((home) => ({
        string: home.string,
        grip: { kind: home.grip.kind, notes: describe(home.grip.places) },
        arpeggio: describe(home.arpeggio),
        scale: describe(home.scale),
        below: {
          arpeggio: describe(home.below.arpeggio),
          scale: describe(home.below.scale),
        },
      })),
    });
  },
});
