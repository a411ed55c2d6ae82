/** The single line inside the triads of a chart: at each change only the voices that move, one after another. */
import type { ChordSpan } from '../lines/spans';
import { at } from '../lists';
import type { Placed } from '../neck/fingering';
import { type Neck, pitchAt, type Zone } from '../neck/neck';
import { voicingPath } from '../neck/voicings';
import { type PlayedNote, struck } from '../phrases/passage';
import type { Midi } from '../notes/pitch';
import { BEAT, type Beats } from '../time/units';

/** Lengths of all notes over a chord but the last, which rings on. */
const LENGTHS: readonly Beats[] = [BEAT, BEAT / 2, BEAT / 4];

/** Places one after another, each the nearest that is left to the one before. */
function inTurn(neck: Neck, places: readonly Placed[], last: Midi | null): readonly Placed[] {
  const left = [...places];
  const turn: Placed[] = [];
  let from = last ?? (places[0] ? pitchAt(neck, places[0]) : 0);
  while (left.length > 0) {
    const near = left.toSorted(
      (a, b) => Math.abs(pitchAt(neck, a) - from) - Math.abs(pitchAt(neck, b) - from),
    );
    const next = at(near, 0);
    left.splice(left.indexOf(next), 1);
    turn.push(next);
    from = pitchAt(neck, next);
  }
  return turn;
}

/**
 * The notes that move from triad to triad of the nearest inversions in a zone; over the first chord those that
 * moved to it from the last, or all of it. Any other chord to which nothing moves has none.
 */
export function movingVoices(
  neck: Neck,
  zone: Zone,
  spans: readonly ChordSpan[],
): readonly PlayedNote[] {
  const chords = spans.map(({ chord }) => chord);
  const route = { kind: 'triad', strings: null, path: 'nearest', within: zone } as const;
  const steps = voicingPath(neck, chords, route);
  const notes: PlayedNote[] = [];
  let last: Midi | null = null;
  for (const [which, step] of steps.entries()) {
    const { index, beat, beats } = at(spans, step.index);
    const before = at(steps, (which + steps.length - 1) % steps.length);
    const heldFrom = (place: Placed) =>
      steps.length > 1 && before.places.some((one) => pitchAt(neck, one) === pitchAt(neck, place));
    const unheld = step.places.filter((place) => !heldFrom(place));
    const begins = which === 0 && unheld.length === 0;
    const moved = inTurn(neck, begins ? step.places : unheld, last);
    const room = LENGTHS.find((length) => length * moved.length <= beats);
    const short = room ?? Math.floor(beats / moved.length);
    moved.forEach(({ string, fret, note }, turn) => {
      const from = beat + turn * short;
      const length = turn === moved.length - 1 ? beat + beats - from : short;
      notes.push(struck({ beat: from, beats: length, string, fret, note, chord: index }));
    });
    const end = moved.at(-1);
    if (end) last = pitchAt(neck, end);
  }
  return notes;
}
