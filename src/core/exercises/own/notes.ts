/** A player's own pattern over the chords of a chart, under the hand. */
import type { Chord } from '../../chords/chords';
import { spellOver } from '../../chords/over';
import type { Quality } from '../../chords/qualities';
import { placePitches } from '../../licks/refinger';
import { at, modulo, range } from '../../lists';
import type { ChordSpan } from '../../lines/spans';
import { type Neck, pitchAt, stringCount, type Zone } from '../../neck/neck';
import { degree } from '../../notes/degrees';
import {
  halfSteps,
  type Interval,
  intervalBetween,
  type Note,
  pitchClass,
  step,
  transpose,
} from '../../notes/notes';
import type { Midi } from '../../notes/pitch';
import { type PlayedNote, struck } from '../../phrases/passage';
import type { Beats } from '../../time/units';
import type { Direction } from '../kinds';
import type { DegreeAsked, OwnPattern, PatternNote, Way } from './pattern';

interface OwnRequest {
  readonly neck: Neck;
  readonly zone: Zone;
  readonly spans: readonly ChordSpan[];
  readonly pattern: OwnPattern;
  /** The scale of the key; empty where no single one holds. */
  readonly home: readonly Note[];
  /** How long a note without a length of its own lasts. */
  readonly long: Beats;
  /** What beats are counted in: 4 for quarters. */
  readonly unit: number;
  /** As it is typed, from its last note to its first, or the one and the other by turns. */
  readonly direction: Direction;
}

const OCTAVE = 12;
const MAJOR = ['1', '2', '3', '4', '5', '6', '7'].map(degree);

/**
 * The degree that is meant over a chord: its own tone, else one of what is played over it, of the key, a
 * tension, the major scale's.
 */
export function degreeMeant(
  { root, quality }: Chord,
  notes: readonly Note[],
  { exact, step: wanted }: DegreeAsked,
): Interval {
  if (exact !== null) return exact;
  const played = notes.map((note) => intervalBetween(root, note));
  const found = [...quality.degrees, ...played, ...quality.tensions].find(
    (one) => step(one) === wanted,
  );
  return found ?? at(MAJOR, wanted);
}

const sameTones = (one: readonly Interval[], other: readonly Interval[]): boolean =>
  one.length === other.length &&
  one.every((tone) => other.some((its) => halfSteps(its) === halfSteps(tone)));

/** Whether a chord is of a kind, whatever tensions are added to it. */
export const isOfKind = ({ quality }: Chord, kind: Quality): boolean =>
  quality.family === kind.family && sameTones(quality.core, kind.core);

/** A note that sounds, before it has a place. */
interface Sounding {
  readonly beat: Beats;
  readonly beats: Beats;
  readonly midi: Midi;
  readonly note: Note;
  readonly chord: number;
}

/** The lowest and the highest pitch of a zone. */
interface Compass {
  readonly low: Midi;
  readonly high: Midi;
}

function compassOf(neck: Neck, { low, high }: Zone): Compass {
  const strings = range(1, stringCount(neck) + 1);
  const at = (fret: number) => strings.map((string) => pitchAt(neck, { string, fret }));
  return { low: Math.min(...at(Math.max(low, neck.capo))), high: Math.max(...at(high)) };
}

/** A pitch class at the pitch nearest to another; of two as near the upper. */
const nearestTo = (midi: Midi, pitch: number): Midi => {
  const up = modulo(pitch - midi, OCTAVE);
  return up <= OCTAVE / 2 ? midi + up : midi + up - OCTAVE;
};

/**
 * The pitch that is meant by a way to a pitch class: the nearest, or the next above or below, and octaves further.
 */
export function reached(from: Midi, pitch: number, { to, further }: Way): Midi {
  if (to === 'near') return nearestTo(from, pitch);
  const up = modulo(pitch - from, OCTAVE);
  return to === 'above'
    ? from + (up === 0 ? OCTAVE : up) + OCTAVE * further
    : from + (up === 0 ? -OCTAVE : up - OCTAVE) - OCTAVE * further;
}

/** A chord as a pattern meets it: the note that is meant by a degree. */
type Meant = (asked: DegreeAsked) => Note;

/** Once through a pattern. */
interface Turn {
  readonly pitches: readonly Midi[];
  /** How many of them lay outside the compass, and were moved by an octave where that brought them back. */
  readonly outside: number;
}

/** The pitches of a pattern's notes, from the first of them on. */
function turnFrom(
  root: number,
  meant: Meant,
  notes: readonly PatternNote[],
  first: Midi,
  { low, high }: Compass,
): Turn {
  const under = first - modulo(first - root, OCTAVE);
  // A ninth is a ninth above the root, not a second.
  const base = under + (at(notes, 0).degree.high ? 0 : OCTAVE);
  let outside = 0;
  let before = first;
  const pitches = notes.map(({ degree: asked, way }, index) => {
    const pitch = pitchClass(meant(asked));
    let midi = first;
    if (index > 0 && asked.high && way.to === 'near') midi = base + modulo(pitch - base, OCTAVE);
    else if (index > 0) midi = reached(before, pitch, way);
    if (midi < low || midi > high) {
      outside += 1;
      const folded = midi < low ? midi + OCTAVE : midi - OCTAVE;
      if (folded >= low && folded <= high) midi = folded;
    }
    before = midi;
    return midi;
  });
  return { pitches, outside };
}

/** The pitches of a class within a compass, lowest first. */
function pitchesIn({ low, high }: Compass, pitch: number): readonly Midi[] {
  const lowest = low + modulo(pitch - low, OCTAVE);
  return range(0, Math.max(0, Math.floor((high - lowest) / OCTAVE) + 1)).map(
    (octave) => lowest + OCTAVE * octave,
  );
}

/** The step above a pitch in what is played over a chord; a half step where its next note is further. */
function stepAbove(notes: readonly Note[], midi: Midi): Midi {
  const sizes = notes
    .map((note) => modulo(pitchClass(note) - midi, OCTAVE))
    .filter((size) => size > 0);
  const size = Math.min(...sizes);
  return midi + (size <= 2 ? size : 1);
}

/** A pattern over one chord, as often as the chord lasts, after what was played last. */
function overSpan(
  { pattern, home, long, unit }: OwnRequest,
  { chord, beat: begins, beats, index, material }: ChordSpan,
  compass: Compass,
  played: Midi | null,
  backward: boolean,
): readonly Sounding[] {
  const meant: Meant = (asked) =>
    transpose(chord.root, degreeMeant(chord, [...material.notes, ...home], asked));
  const notes = pattern.items.filter((item) => item.kind === 'note');
  const first = pitchClass(meant(at(notes, 0).degree));
  const turns = pitchesIn(compass, first).map((midi) =>
    turnFrom(pitchClass(chord.root), meant, notes, midi, compass),
  );
  const end = begins + beats;
  const sounding: Sounding[] = [];
  let now = begins;
  const play = (midi: Midi, note: Note, length: Beats) => {
    if (now < end)
      sounding.push({ beat: now, beats: Math.min(length, end - now), midi, note, chord: index });
    now += length;
  };
  while (now < end) {
    const last = sounding.at(-1)?.midi ?? played;
    const away = ({ pitches }: Turn) =>
      pattern.continues && last !== null
        ? Math.abs(at(pitches, backward ? pitches.length - 1 : 0) - last)
        : 0;
    const [turn] = turns.toSorted((a, b) => a.outside - b.outside || away(a) - away(b));
    if (!turn) break;
    // Each note keeps its pitch, its length and what leads to it.
    const steps = pattern.items.map((item, place) => {
      const which = pattern.items.slice(0, place).filter(({ kind }) => kind === 'note').length;
      return { item, midi: turn.pitches[which] ?? 0 };
    });
    for (const { item, midi } of backward ? steps.toReversed() : steps) {
      const length = item.length === null ? long : (item.length * unit) / 4;
      if (item.kind === 'rest') {
        now += length * item.held;
        continue;
      }
      // What leads to a long note is short all the same.
      const quick = Math.min(length, long);
      for (const asked of item.around) {
        const note = meant(asked);
        play(nearestTo(midi, pitchClass(note)), note, quick);
      }
      if (item.approach !== null) {
        const from = item.approach === 'below' ? midi - 1 : stepAbove(material.notes, midi);
        play(from, spellOver(chord, from), quick);
      }
      play(midi, meant(item.degree), length * item.held);
    }
  }
  return sounding;
}

/** The notes of a pattern over the chords it is meant for, under the hand; none where it has no note. */
export function ownNotes(request: OwnRequest): readonly PlayedNote[] {
  const { neck, zone, spans, pattern, direction } = request;
  if (!pattern.items.some(({ kind }) => kind === 'note')) return [];
  const compass = compassOf(neck, zone);
  const sounding: Sounding[] = [];
  let count = 0;
  for (const span of spans) {
    if (pattern.on.length > 0 && !pattern.on.some((kind) => isOfKind(span.chord, kind))) continue;
    const last = sounding.at(-1)?.midi ?? null;
    const backward = direction === 'backward' || (direction === 'by turns' && count++ % 2 === 1);
    // One by one: of a long form they are more than a call takes.
    for (const one of overSpan(request, span, compass, last, backward)) sounding.push(one);
  }
  const pitches = sounding.map(({ midi }) => midi);
  const places = placePitches(neck, pitches, zone);
  if (!places) return [];
  return sounding.map(({ beat, beats, note, chord }, index) =>
    struck({ beat, beats, note, chord, ...at(places, index) }),
  );
}
