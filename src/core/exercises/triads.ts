/** Round the triads: each chord's triad on one set of strings, as near to the one before as it comes. */
import { degreeOver, weightOver } from '../chords/over';
import type { LineRegion } from '../lines/request';
import type { ChordSpan } from '../lines/spans';
import { at } from '../lists';
import { type Placed, spanOf } from '../neck/fingering';
import { type Neck, pitchAt, placesOf, type Zone } from '../neck/neck';
import { voicingsOn } from '../neck/voicings';
import { chordNotes } from '../chords/chords';
import type { RouteStop } from '../targets/route';

/** What a fret outside the zone costs beside a half step of the way. */
const OUTSIDE = 4;
/** Frets beside a shape where the notes next to it lie. */
const BESIDE = { below: 1, above: 2 } as const;
/** How much nearer a third, or what stands for it, seems. */
const GUIDE = 2;

/** Where each chord is played round its triad, and the tone of it that is aimed at: the nearest, thirds first. */
export function roundTriads({
  neck,
  zone,
  strings,
  spans,
  targets,
}: {
  readonly neck: Neck;
  readonly zone: Zone;
  readonly strings: readonly number[];
  readonly spans: readonly ChordSpan[];
  readonly targets: readonly RouteStop[];
}): { readonly regions: readonly LineRegion[]; readonly targets: readonly RouteStop[] } {
  const set = strings.slice(0, 3);
  let last: Placed | null = null;
  const laid = spans.map(({ chord }, index) => {
    const way = (one: Placed) => (last ? Math.abs(pitchAt(neck, one) - pitchAt(neck, last)) : 0);
    const away = (places: readonly Placed[]) => {
      const { low, high } = spanOf(places);
      const outside = Math.max(0, zone.low - low) + Math.max(0, high - zone.high);
      return OUTSIDE * outside + way(at(places, 1));
    };
    const shapes = voicingsOn(neck, chord, 'triad', set).map(({ places }) => places);
    // A chord of two tones has no triad: its tones in the zone.
    const tones = placesOf(neck, chordNotes({ ...chord, bass: null }), zone);
    const [first, ...others] = shapes;
    const places = first
      ? others.reduce((best, shape) => (away(shape) < away(best) ? shape : best), first)
      : tones.filter(({ string }) => set.includes(string));
    const worth = (one: Placed) =>
      way(one) - (weightOver(chord, degreeOver(chord, one.note)) === 'guide' ? GUIDE : 0);
    const aimed = places.reduce<Placed | null>(
      (best, one) => (best === null || worth(one) < worth(best) ? one : best),
      null,
    );
    const stop = at(targets, index);
    if (aimed === null) return { region: { ...zone, strings: set }, stop };
    last = aimed;
    const { string, fret, note } = aimed;
    const shape = spanOf(places);
    const region = {
      low: Math.max(neck.capo, shape.low - BESIDE.below),
      high: Math.min(neck.frets, shape.high + BESIDE.above),
      strings: set,
    };
    const midi = pitchAt(neck, aimed);
    return { region, stop: { ...stop, string, fret, note, midi, degree: degreeOver(chord, note) } };
  });
  return { regions: laid.map(({ region }) => region), targets: laid.map(({ stop }) => stop) };
}
