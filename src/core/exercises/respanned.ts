/** Chords heard another way before a line is made over them: one sound for ii–V, the moving third. */
import type { Chart } from '../chart/form';
import { readHarmony } from '../harmony/reading';
import { arpeggio, chordOn } from '../lenses/material';
import type { ChordSpan } from '../lines/spans';
import { at } from '../lists';
import type { Placed } from '../neck/fingering';
import { underHand } from '../neck/hand';
import { type Neck, pitchAt, placesOf, type Zone } from '../neck/neck';
import { degree } from '../notes/degrees';
import { type Note, transpose } from '../notes/notes';
import { degreeOver } from '../chords/over';
import type { RouteStop } from '../targets/route';
import { barOf } from '../time/metre';

const FOURTH = degree('4');

/**
 * The spans with the chord on IV over every ii–V, up to the half bar chosen, and the chord on I
 * from there to where I comes; a iiø–V keeps the minor chord on iv. Null where there is no ii–V.
 */
export function switchedSpans(
  chart: Chart,
  spans: readonly ChordSpan[],
  switchAt: number | null,
): readonly ChordSpan[] | null {
  const { cadences } = readHarmony(chart);
  const half = barOf(chart.source.time) / 2;
  const covers = cadences.flatMap(({ kind, from, to, key }) => {
    if (kind !== 'ii-V-I major' && kind !== 'ii-V-I minor' && kind !== 'ii-V') return [];
    const two = chart.chords[from];
    const last = chart.chords[kind === 'ii-V' ? to : to - 1];
    if (!two || !last) return [];
    const minor = key.mode !== 'major';
    const four = chordOn(transpose(key.tonic, FOURTH), minor ? 'm6' : 'maj7');
    const one = chordOn(key.tonic, minor ? 'm6' : 'maj7');
    const end = last.beat + last.beats;
    const change = switchAt === null ? end : Math.min(end, two.beat + switchAt * half);
    return [{ from: two.beat, change, end, four, one }];
  });
  if (covers.length === 0) return null;
  return spans.flatMap((span): readonly ChordSpan[] => {
    const own = chart.chords[span.index];
    const cover = own && covers.find(({ from, end }) => own.beat >= from && own.beat < end);
    if (!cover || !own) return [span];
    const { four, one } = cover;
    // Spans of an extent lie elsewhere than their chord does in the chart.
    const change = cover.change - own.beat + span.beat;
    const end = span.beat + span.beats;
    const before = Math.max(0, Math.min(end, change) - span.beat);
    const parts = [
      { ...span, chord: four, material: arpeggio(four), beats: before },
      {
        ...span,
        chord: one,
        material: arpeggio(one),
        beat: span.beat + before,
        beats: span.beats - before,
      },
    ];
    return parts.filter(({ beats }) => beats > 0);
  });
}

const THIRD_STEPS = ['3', 'b3', '4', '2'].map(degree);

/** A chord's third, or what stands for it. */
export function thirdOf({ chord }: ChordSpan): Note {
  const found = THIRD_STEPS.find((one) => chord.quality.degrees.includes(one));
  return transpose(chord.root, found ?? at(chord.quality.degrees, 0));
}

/**
 * A target for each span: the third of the first, then whichever guide tone lies a half step from
 * the last or holds it; the third again where none does.
 */
export function movingThirdTargets({
  neck,
  zone,
  spans,
  targets,
}: {
  readonly neck: Neck;
  readonly zone: Zone;
  readonly spans: readonly ChordSpan[];
  readonly targets: readonly RouteStop[];
}): readonly RouteStop[] {
  let last: number | null = null;
  return spans.map((span, index): RouteStop => {
    const stop = at(targets, index);
    const guides = span.chord.quality.guideTones.map((one) => transpose(span.chord.root, one));
    const place = (notes: readonly Note[]): readonly Placed[] => {
      const inside = underHand(neck, notes, zone);
      return inside.length > 0 ? inside : placesOf(neck, notes);
    };
    const middle = last ?? pitchAt(neck, stop);
    const away = (one: Placed) => Math.abs(pitchAt(neck, one) - middle);
    const nearest = (places: readonly Placed[]) =>
      places.reduce((best, one) => (away(one) < away(best) ? one : best), at(places, 0));
    const moving = place(guides).filter((one) => last !== null && away(one) <= 1);
    const chosen = moving.length > 0 ? nearest(moving) : nearest(place([thirdOf(span)]));
    const { string, fret, note } = chosen;
    const midi = pitchAt(neck, chosen);
    last = midi;
    return { ...stop, string, fret, note, midi, degree: degreeOver(span.chord, note) };
  });
}
