/** The notes a line may take at each onset. */
import { chordNotes } from '../chords/chords';
import { spellOver, weightOver, degreeOver } from '../chords/over';
import { at } from '../lists';
import type { Placed } from '../neck/fingering';
import { reachOf, underHand } from '../neck/hand';
import { inZone, pitchAt, placesOf, type Zone } from '../neck/neck';
import { type Note, pitchClass } from '../notes/notes';
import type { Midi } from '../notes/pitch';
import { nearestPlace } from '../targets/approach';
import type { Onset } from './onsets';
import type { Material } from '../lenses/material';
import type { Beats } from '../time/units';
import type { LineRequest } from './request';
import { materialAt } from './spans';

export interface Candidate extends Placed {
  readonly midi: Midi;
  readonly tone: boolean;
  readonly guide: boolean;
  readonly root: boolean;
  readonly chromatic: boolean;
  /** Where it stands among the notes played over its chord, low to high. */
  readonly rung: number;
}

/** Frets about the targets that a line without a zone may use. */
const ROAM = { below: 2, above: 3 } as const;

export function regionFor({ zone, neck, targets }: LineRequest, span: number): Zone {
  if (zone) return zone;
  const frets = [at(targets, span).fret, (targets[span + 1] ?? at(targets, span)).fret];
  return {
    low: Math.max(neck.capo, Math.min(...frets) - ROAM.below),
    high: Math.min(neck.frets, Math.max(...frets) + ROAM.above),
  };
}

/** Everything that may be played over one chord: what is chosen, under the hand. */
function ownOf(request: LineRequest, span: number, material: Material): readonly Candidate[] {
  const { neck, spans } = request;
  const { chord } = at(spans, span);
  const inside = underHand(neck, material.notes, regionFor(request, span));
  const places = inside.length > 0 ? inside : placesOf(neck, material.notes);
  const tones = new Set(chordNotes(chord).map(pitchClass));
  return places.map((place, rung) => {
    const { string, fret, note } = place;
    const guide = weightOver(chord, degreeOver(chord, note)) === 'guide';
    const root = pitchClass(note) === pitchClass(chord.root);
    const midi = pitchAt(neck, place);
    const tone = tones.has(midi % 12);
    return { string, fret, note, midi, tone, guide, root, chromatic: false, rung };
  });
}

/** Where a pitch stands among rungs, between two of them where it is none itself. */
function rungOf(own: readonly Candidate[], midi: Midi): number {
  const above = own.findIndex((one) => one.midi >= midi);
  if (above < 0) return own.length;
  return at(own, above).midi === midi ? above : above - 0.5;
}

export function layersOf(
  request: LineRequest,
  onsets: readonly Onset[],
): readonly (readonly Candidate[])[] {
  const { neck, spans, targets } = request;
  const owns = new Map<string, readonly Candidate[]>();
  const ownAt = (span: number, beat: Beats) => {
    const material = materialAt(at(spans, span), beat);
    const name = `${span} ${material.name}`;
    const known = owns.get(name) ?? ownOf(request, span, material);
    owns.set(name, known);
    return known;
  };
  const extra = (
    span: number,
    own: readonly Candidate[],
    place: Placed,
    chromatic: boolean,
  ): Candidate => {
    const { chord } = at(spans, span);
    const midi = pitchAt(neck, place);
    const weight = weightOver(chord, degreeOver(chord, place.note));
    return {
      ...{ string: place.string, fret: place.fret, note: place.note, midi, chromatic },
      tone: weight !== 'colour',
      guide: weight === 'guide',
      root: pitchClass(place.note) === pitchClass(chord.root),
      rung: rungOf(own, midi),
    };
  };
  return onsets.map(({ span, target, beat }, which): readonly Candidate[] => {
    const own = ownAt(span, beat);
    if (target) {
      const { string, fret, note } = at(targets, span);
      return [extra(span, own, { string, fret, note }, false)];
    }
    const next = onsets[which + 1];
    // What leads must come at once: after a breath it would be a wrong note that rang.
    if (!next?.target || next.begins) return own;
    // Just before a target its neighbour a half step below is welcome too.
    const goal = at(targets, next.span);
    const below = nearestPlace(neck, goal, pitchAt(neck, goal) - 1, regionFor(request, span));
    const reach = reachOf(neck, regionFor(request, span));
    if (
      !below ||
      !inZone(reach, below.fret) ||
      own.some(({ midi }) => midi === pitchAt(neck, below))
    )
      return own;
    const note: Note = spellOver(at(spans, span).chord, pitchAt(neck, below));
    return [...own, extra(span, own, { ...below, note }, true)];
  });
}
