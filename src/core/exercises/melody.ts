/** The tune's melody under a hand: as it is, and varied as players vary it. */
import type { Chart } from '../chart/form';
import { chordNotes } from '../chords/chords';
import type { ChordSpan } from '../lines/spans';
import { speller } from '../licks/sounding';
import { refinger } from '../licks/refinger';
import { refound } from '../licks/refound';
import type { Key } from '../keys/keys';
import { at } from '../lists';
import { underHand } from '../neck/hand';
import { type Neck, pitchAt, type Zone } from '../neck/neck';
import { pitchClass } from '../notes/notes';
import { simplestPitch } from '../notes/spelling';
import { type PlayedNote, struck } from '../phrases/passage';
import { inOrder } from '../phrases/techniques';
import { seeded } from '../random';
import { BEAT, type Beats } from '../time/units';
import { barOf } from '../time/metre';

/** What a melody is laid out for. */
interface MelodyRequest {
  readonly chart: Chart;
  readonly key: Key | null;
  readonly neck: Neck;
  readonly zone: Zone;
  readonly spans: readonly ChordSpan[];
  readonly melody: readonly PlayedNote[];
  readonly seed: number;
  /** Octaves it is moved by; null for whichever the hand reaches most of, as written where it can. */
  readonly octave: number | null;
}

const spanAt = (spans: readonly ChordSpan[], beat: Beats): ChordSpan | undefined =>
  spans.findLast((span) => span.beat <= Math.max(0, beat));

/** The melody at the places under the hand where it is easiest, in the octave asked for or the nearest. */
export function melodyNotes({
  chart,
  key,
  neck,
  zone,
  spans,
  melody,
  octave,
}: MelodyRequest): readonly PlayedNote[] {
  const end = spans.reduce((last, { beat, beats }) => Math.max(last, beat + beats), 0);
  const notes = melody.filter(({ beat }) => beat < end);
  const laid =
    octave === null
      ? refound(neck, notes, 0, zone)
      : refinger({ neck, notes, semitones: 12 * octave, zone, keep: 'pitch' });
  return laid.notes.map(({ beat, beats, string, fret, techniques, midi }) => {
    const span = spanAt(spans, beat);
    const chord = span?.index ?? null;
    const spell = chord === null ? null : speller(at(chart.chords, chord).chord, key);
    const note = spell ? spell(midi) : simplestPitch(midi);
    return struck({ beat, beats, string, fret, note, chord, techniques });
  });
}

/** Bars that are varied, and after how many of them the melody comes back as it is. */
const VARIED = { bars: 2, returns: 4 } as const;
/** How often a player does each where it can be done. */
const SHARES = { early: 0.4, late: 0.2, between: 0.6, grace: 0.25 } as const;
const EIGHTH: Beats = BEAT / 2;

/**
 * The melody with its rhythm moved by an eighth, notes added where it pauses, and ornaments; every
 * fourth pair of bars it is played as it stands. It stays in its own octave where no other is asked for.
 */
export function variedMelody(request: MelodyRequest): readonly PlayedNote[] {
  const { neck, zone, spans, chart, seed } = request;
  const bar = barOf(chart.source.time);
  const chance = seeded(seed);
  const own = melodyNotes({ ...request, octave: request.octave ?? 0 });
  const ladders = new Map<ChordSpan, readonly (PlayedNote & { readonly midi: number })[]>();
  const ladderOf = (span: ChordSpan) => {
    const known = ladders.get(span);
    if (known) return known;
    const rungs = underHand(neck, span.material.notes, zone).map((place) => ({
      ...struck({ beat: 0, beats: 0, chord: span.index, ...place }),
      midi: pitchAt(neck, place),
    }));
    ladders.set(span, rungs);
    return rungs;
  };
  const varied: PlayedNote[] = [];
  for (const [index, note] of own.entries()) {
    const pair = Math.floor(Math.max(0, note.beat) / (bar * VARIED.bars));
    const asItIs = pair % VARIED.returns === 0 || pair % VARIED.returns === VARIED.returns - 1;
    const next = own[index + 1];
    const before = varied.at(-1);
    if (asItIs) {
      varied.push(note);
      continue;
    }
    const free = note.beat - (before ? before.beat + before.beats : -Infinity);
    const room = (next?.beat ?? Infinity) - note.beat;
    const draw = chance();
    const early =
      draw < SHARES.early &&
      note.beat >= EIGHTH &&
      (free >= EIGHTH || (before?.beats ?? 0) > EIGHTH);
    const late = !early && draw > 1 - SHARES.late && note.beats > EIGHTH;
    const moved = early ? -EIGHTH : late ? EIGHTH : 0;
    const beat = note.beat + moved;
    // What it pushes into gives way.
    if (early && before && before.beat + before.beats > beat) {
      varied[varied.length - 1] = { ...before, beats: beat - before.beat };
    }
    const length = Math.min(note.beats - Math.max(0, moved), room - moved);
    const grace = chance() < SHARES.grace && moved === 0 ? gracedBy(note, spans) : null;
    const between =
      next && chance() < SHARES.between ? passingTo(note, next, spans, ladderOf, neck) : null;
    const cut = between ? Math.min(length, between.beat - beat) : length;
    if (cut < EIGHTH / 4) {
      varied.push(note);
      continue;
    }
    varied.push({ ...note, ...(grace ?? {}), beat, beats: cut });
    if (between && between.beat > beat) varied.push(between);
  }
  return varied;
}

/** A slide into a chord tone from a fret below. */
function gracedBy(
  note: PlayedNote,
  spans: readonly ChordSpan[],
): Pick<PlayedNote, 'techniques'> | null {
  const span = spanAt(spans, note.beat);
  const tones = span ? chordNotes(span.chord).map(pitchClass) : [];
  if (note.fret < 2 || note.techniques.length > 0 || !tones.includes(pitchClass(note.note))) {
    return null;
  }
  return { techniques: inOrder([{ kind: 'slide', from: note.fret - 1 }]) };
}

/** A note on the off-beat before the next one, a step from it on the side the melody comes from. */
function passingTo(
  note: PlayedNote,
  next: PlayedNote,
  spans: readonly ChordSpan[],
  ladderOf: (span: ChordSpan) => readonly (PlayedNote & { readonly midi: number })[],
  neck: Neck,
): PlayedNote | null {
  const beat = next.beat - EIGHTH;
  const span = spanAt(spans, beat);
  if (!span || beat < note.beat + EIGHTH) return null;
  const goal = pitchAt(neck, next);
  const from = pitchAt(neck, note);
  const below = from < goal || (from === goal && beat % (2 * BEAT) < BEAT);
  const steps = ladderOf(span).filter(({ midi }) => {
    const gap = below ? goal - midi : midi - goal;
    return gap >= 1 && gap <= 3 && midi !== from;
  });
  const nearest = steps.reduce<(typeof steps)[number] | null>(
    (best, one) =>
      best === null || Math.abs(one.midi - goal) < Math.abs(best.midi - goal) ? one : best,
    null,
  );
  if (!nearest) return null;
  const { string, fret, note: spelled } = nearest;
  return struck({
    beat,
    beats: EIGHTH,
    string,
    fret,
    note: spelled,
    chord: span.index,
    part: 'approach',
  });
}
