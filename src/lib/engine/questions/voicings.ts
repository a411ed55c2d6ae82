/** `voicings`: a way through a chart with triads or seventh chords; `triads`: the same of triads. */
import { z } from 'zod';
import { type Chart, chordName, type Neck, noteName } from 'corvel-core';
import { at } from '$core/lists';
import {
  INVERSIONS,
  isVoiced,
  stringSets,
  VOICING_KINDS,
  VOICING_PATHS,
  type VoicingKind,
  voicingPath,
} from '$core/neck/voicings';
import { placesOver } from '../described';
import { accept, refuse } from '../refusals';
import { requestedOnNeck } from '../requested';
import { chartText, keyText, neckRequest, noteText, placed, zone } from '../shapes';
import { question } from '../question';

const TRIAD_INVERSIONS = ['root', 'first', 'second'] as const;

const triadRequest = z.object({
  chart: chartText,
  key: keyText.optional(),
  strings: z
    .array(z.int())
    .length(3)
    .optional()
    .describe('Three neighbouring strings; any that lie in the zone when left out'),
  zone: zone.optional().describe('Where all of them are to lie, or as near as they can'),
  path: z.enum(VOICING_PATHS).default('nearest'),
  start: z.object({ inversion: z.enum(TRIAD_INVERSIONS) }).optional(),
  neck: neckRequest.optional(),
});

const voicingRequest = z.object({
  ...triadRequest.shape,
  kind: z.enum(VOICING_KINDS),
  strings: z
    .array(z.int())
    .min(3)
    .max(4)
    .optional()
    .describe('Three neighbours for a triad, four for drop 2, four of five for drop 3: 6 4 3 2'),
  start: z.object({ inversion: z.enum(INVERSIONS) }).optional(),
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

const WHERE: Readonly<Record<VoicingKind, string>> = {
  triad: 'Triads lie on three neighbouring strings of the neck, like 2, 3 and 4.',
  'drop-2': 'Drop-2 voicings lie on four neighbouring strings of the neck, like 1, 2, 3 and 4.',
  'drop-3':
    'Drop-3 voicings lie on a bass string and three beyond the one next to it, like 6, 4, 3 and 2.',
};

/** The set of strings of a neck that is asked for, highest first; null where there is no such set. */
function requestedSet(neck: Neck, kind: VoicingKind, strings: readonly number[]) {
  const wanted = [...strings].sort((a, b) => a - b).join(' ');
  return stringSets(neck, kind).find((set) => set.join(' ') === wanted) ?? null;
}

/** The first chord of a chart that has no voicing of a kind, in words. */
function unvoiced({ chords }: Chart, kind: VoicingKind): string | null {
  const found = chords.find(({ chord }) => !isVoiced(chord, kind));
  return found
    ? `${chordName(found.chord)} has no sixth or seventh, so there is no ${kind} voicing of it: write one, or ask for triads.`
    : null;
}

const answerSteps = (asked: z.output<typeof voicingRequest>) => {
  const asking = requestedOnNeck(asked);
  if (!asking.ok) return asking;
  const { chart, neck } = asking.value;
  const { kind, path, start, zone: within } = asked;
  const strings = asked.strings ? requestedSet(neck, kind, asked.strings) : null;
  const somewhere = strings !== null || (asked.strings === undefined && within !== undefined);
  if (!somewhere) return refuse({ code: 'out_of_range', message: WHERE[kind], path: 'strings' });
  const message = unvoiced(chart, kind);
  if (message) return refuse({ code: 'invalid_request', message, path: 'kind' });
  const chords = chart.chords.map(({ chord }) => chord);
  const steps = voicingPath(neck, chords, { kind, strings, path, within, start: start?.inversion });
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
};

export const voicings = question({
  summary: 'A way through a chart with triads or seventh chords, drop 2 or drop 3.',
  request: voicingRequest,
  answer,
  ask: answerSteps,
});

export const triads = question({
  summary: 'A way through a chart with triads on three strings.',
  request: triadRequest,
  answer,
  ask: (asked) => answerSteps({ ...asked, kind: 'triad' }),
});
