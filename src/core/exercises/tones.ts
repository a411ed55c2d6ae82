/** Roots, thirds and guide tones in time: the tones that say a chord, each on its cheapest way through the form. */
import type { ChordSpan } from '../lines/spans';
import { at, range } from '../lists';
import type { Placed } from '../neck/fingering';
import { type Neck, pitchAt, placesOf, type Zone } from '../neck/neck';
import { type Note, transpose } from '../notes/notes';
import { bestPaths } from '../paths/layered';
import { type PlayedNote, struck } from '../phrases/passage';
import { BEAT, type Beats } from '../time/units';
import { thirdOf } from './respanned';
import { shared } from '../time/shares';

/** What a fret outside the zone costs beside a half step of the way. */
const OUTSIDE = 12;
/** A chord shorter than this has time for one of its guide tones. */
const ROOM_FOR_TWO: Beats = 2 * BEAT;

/** Notes one after another over one chord. */
type Sequence = readonly Note[];

/** What may be played over one chord, one of these. */
type TonesOver = (span: ChordSpan) => readonly Sequence[];

/** The tones of a chord that are played in time, by the kind of exercise. */
export const TONES = {
  roots: ({ chord }) => [[chord.root]],
  thirds: (span) => [[thirdOf(span)]],
  'guide-tones': (span) => {
    const guides = span.chord.quality.guideTones.map((one) => transpose(span.chord.root, one));
    const [first, second] = guides;
    if (first === undefined || second === undefined || span.beats < ROOM_FOR_TWO)
      return guides.length === 0 ? [[thirdOf(span)]] : guides.map((one) => [one]);
    return [
      [first, second],
      [second, first],
    ];
  },
} as const satisfies Readonly<Record<string, TonesOver>>;

export type ToneKind = keyof typeof TONES;

/** Every way to lay a sequence on the neck, one place for each note. */
const laidOut = (neck: Neck, sequence: Sequence): readonly (readonly Placed[])[] =>
  sequence.reduce<readonly (readonly Placed[])[]>(
    (ways, note) => ways.flatMap((way) => placesOf(neck, [note]).map((place) => [...way, place])),
    [[]],
  );

/** Tones of each chord in a zone, on the way that moves least; a single one is struck again in every bar. */
export function tonesInTime(
  neck: Neck,
  zone: Zone,
  spans: readonly ChordSpan[],
  bar: Beats,
  kind: ToneKind,
): readonly PlayedNote[] {
  const layers = spans.map((span) =>
    TONES[kind](span).flatMap((sequence) => laidOut(neck, sequence)),
  );
  const between = (from: Placed, to: Placed) => Math.abs(pitchAt(neck, to) - pitchAt(neck, from));
  const off = ({ fret }: Placed) => Math.max(0, zone.low - fret, fret - zone.high);
  const [best] = bestPaths(
    {
      sizes: layers.map((ways) => ways.length),
      node: (layer, node) =>
        at(at(layers, layer), node).reduce(
          (sum, place, turn, way) =>
            sum + OUTSIDE * off(place) + (turn > 0 ? between(at(way, turn - 1), place) : 0),
          0,
        ),
      edge: (layer, from, to) => {
        const before = at(at(layers, layer), from);
        const next = at(at(layers, (layer + 1) % layers.length), to);
        return between(at(before, before.length - 1), at(next, 0));
      },
      loop: false,
    },
    1,
  );
  if (!best) return [];
  return spans.flatMap((span, layer) => {
    const way = at(at(layers, layer), at(best.nodes, layer));
    const single = way.length === 1;
    const strokes = single ? Math.max(1, Math.ceil(span.beats / bar)) : way.length;
    const parts = shared(
      span.beats,
      way.map(() => 1),
    );
    return range(0, strokes).map((stroke) => {
      const { string, fret, note } = at(way, stroke % way.length);
      const passed = single ? stroke * bar : at(parts, stroke).begins;
      const beat = span.beat + passed;
      const beats = single ? Math.min(bar, span.beats - passed) : at(parts, stroke).beats;
      return struck({ beat, beats, string, fret, note, chord: span.index, part: 'target' });
    });
  });
}
