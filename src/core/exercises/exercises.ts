/** Exercises generated from a chart, what is played over it, and a zone. */
import type { Chart } from '../chart/form';
import { chordName } from '../chords/chords';
import { spellingsOver } from '../chords/over';
import { type Key, keyScale } from '../keys/keys';
import { type Note, pitchClass, simpleRoot, transpose } from '../notes/notes';
import type { Midi } from '../notes/pitch';
import type { Intent } from '../lenses/lens';
import type { Material } from '../lenses/material';
import { at } from '../lists';
import { type Neck, pitchAt, type Place, type Zone } from '../neck/neck';
import { landingOn, onTime } from '../phrases/landing';
import { DEFAULT_TEMPO } from '../time/tempo';
import { findBlues, twelveBarName } from '../harmony/blues';
import { changesOf } from '../harmony/changes';
import { type Line, lineOf } from '../lines/lines';
import type { LineRequest } from '../lines/request';
import type { Motif } from '../lines/motif';
import { lineMetre } from '../lines/rhythm';
import { type LineStyle, styleFor } from '../lines/styles';
import { readFeel } from '../time/feel';
import { type Passage, passageOf, type PlayedNote, struck } from '../phrases/passage';
import { type Extent, type ChordSpan, type Later, spansOf } from '../lines/spans';
import { noteLength, type Subdivision } from '../time/subdivision';
import type { Beats } from '../time/units';
import type { Preference } from '../targets/kinds';
import { type RouteChord, type RouteStop, solveRoutes } from '../targets/route';
import type { Beginning, Direction, ExerciseKind } from './kinds';
import { EXERCISE_WORDS } from './words';
import { melodyNotes, variedMelody } from './melody';
import type { Moment } from './rungs';
import { PATTERNS } from './patterns';
import { CONNECTING_KINDS, stretchesOf } from './connecting';
import { shiftedShapes } from './shapes';
import { playingWarnings } from './playable';
import { ownNotes } from './own/notes';
import { parsePattern } from './own/pattern';
import { FIRST_PATTERN } from './own/starter';
import { movingVoices } from './movingVoices';
import { movingThirdTargets, switchedSpans } from './respanned';
import { tonesInTime } from './tones';
import { roundTriads } from './triads';
import { doubleStops, STOP_STYLES } from './stops';
import { barOf } from '../time/metre';

/** What an exercise is made for. */
export interface ExerciseRequest {
  readonly chart: Chart;
  /** The key it is written in; null where no single one holds. */
  readonly key: Key | null;
  readonly kind: ExerciseKind;
  readonly subdivision: Subdivision;
  readonly neck: Neck;
  readonly zone: Zone;
  /** The zones an exercise may move through, lowest first. */
  readonly zones: readonly Zone[];
  /** What is played over each chord of the chart, and how much of it is said. */
  readonly materials: readonly Material[];
  readonly intents: readonly Intent[];
  /** What is played over the rest of a chord, where its choice has a second part; lines take it up. */
  readonly later?: readonly (Later | null)[];
  readonly prefer: readonly Preference[];
  /** Targets set by hand, by the chord's index; the others are solved for. */
  readonly pins: Readonly<Record<string, Place>>;
  readonly extent: Extent;
  /** The chord that is isolated, or that a pair begins with. */
  readonly from: number;
  /** The strings of the exercise on one set. */
  readonly strings: readonly number[];
  /** Notes to a group, in groups. */
  readonly group: number;
  /** The tone of each chord to begin on, where an exercise begins on a root; the root by itself. */
  readonly begin?: Beginning | null;
  readonly seed: number;
  /** The melody of the chart, for the exercises made of it; none by itself. */
  readonly melody?: readonly PlayedNote[] | null;
  /** Octaves the melody is moved by; where nothing is said it is varied as written, and laid under the hand. */
  readonly octave?: number | null;
  /** Half bars after the ii at which one sound gives way to I; where I comes by itself. */
  readonly switchAt?: number | null;
  /** A motif for lines to work with, and a seed for their plan alone; both their own by themselves. */
  readonly motif?: Motif | null;
  readonly idea?: number | null;
  /** The player's own pattern as he types it, for the exercise made of it; one of ours before he has. */
  readonly pattern?: string | null;
  /** How that pattern is played; as it is typed by itself. */
  readonly direction?: Direction | null;
  /** How lines are played; by the chart's feel and idiom where nothing is said. */
  readonly style?: LineStyle | null;
}

/** An exercise: what it is for, and its notes. */
export interface Exercise {
  readonly kind: ExerciseKind;
  readonly title: string;
  readonly goal: string;
  readonly passage: Passage;
  /** What a hand cannot do at the tempo, in sentences. */
  readonly warnings: readonly string[];
  /** What a line does phrase by phrase, and how good it is; null for what is no line. */
  readonly line: (Pick<Line, 'plan' | 'words' | 'score'> & { readonly style: LineStyle }) | null;
  /** Where a line lands, in order: played as it is written, it lands on each; none for what is no line. */
  readonly targets: readonly LineTarget[];
}

/** A landing that a line aims at. */
interface LineTarget extends Place {
  /** Index of the chord. */
  readonly index: number;
  readonly midi: Midi;
}

/** A target for each span: the best route through them all. */
function targetsFor(request: ExerciseRequest, spans: readonly ChordSpan[]): readonly RouteStop[] {
  const { pins, neck, zone, prefer } = request;
  const chords = spans.map(({ index, chord, intent, material }): RouteChord => {
    return { chord, intent, material, pin: pins[String(index)] ?? null };
  });
  const loop = chords.length > 1;
  const [best] = solveRoutes({ neck, chords, prefer, zone, contour: null, loop, count: 1 });
  return best?.stops ?? [];
}

/** One target for each chord, held as long as it lasts, but no longer than a bar. */
function heldTargets(
  { chart }: ExerciseRequest,
  spans: readonly ChordSpan[],
  targets: readonly RouteStop[],
): readonly PlayedNote[] {
  const bar = barOf(chart.source.time);
  return spans.map(({ index, beat, beats }, place) => {
    const { string, fret, note } = at(targets, place);
    return struck({
      beat,
      beats: Math.min(beats, bar),
      string,
      fret,
      note,
      chord: index,
      part: 'target',
    });
  });
}

/** What a line aims at and lands on by the rule of landing; a target that it does not is none. */
function withLandings(
  { chart, neck }: ExerciseRequest,
  spans: readonly ChordSpan[],
  notes: readonly PlayedNote[],
): { readonly notes: readonly PlayedNote[]; readonly targets: readonly LineTarget[] } {
  const tolerance = onTime(chart.source.tempo ?? DEFAULT_TEMPO);
  const sounding = notes.map((note) => ({ ...note, midi: pitchAt(neck, note) }));
  const targets: LineTarget[] = [];
  const landing = notes.map((note): PlayedNote => {
    if (note.part !== 'target') return note;
    const away = ({ beat }: ChordSpan) => Math.abs(beat - note.beat);
    const own = spans.filter(({ index }) => index === note.chord);
    const [span] = own.toSorted((a, b) => away(a) - away(b));
    const midi = pitchAt(neck, note);
    if (!span || !landingOn(sounding, span, midi, tolerance)) return { ...note, part: 'fill' };
    targets.push({ index: span.index, string: note.string, fret: note.fret, midi });
    return note;
  });
  return { notes: landing, targets };
}

/** A line without every second bar, which is the player's; what rings into it ends there. */
function withGaps(notes: readonly PlayedNote[], bar: Beats): readonly PlayedNote[] {
  return notes.flatMap((note) => {
    const own = Math.floor(Math.max(0, note.beat) / bar);
    if (own % 2 === 1) return [];
    return [{ ...note, beats: Math.min(note.beats, (own + 1) * bar - note.beat) }];
  });
}

/** The scale of the key; empty where no single one holds. */
export const homeOf = (key: Key | null): readonly Note[] =>
  key ? keyScale(key).map((one) => transpose(key.tonic, one)) : [];

function patterned(
  request: ExerciseRequest,
  kind: keyof typeof PATTERNS,
  spans: readonly ChordSpan[],
  targets: readonly RouteStop[],
): readonly PlayedNote[] {
  const { neck, zone, zones, strings, group, subdivision, key, begin = null } = request;
  const home = homeOf(key);
  const long = noteLength(subdivision, request.chart.source.time.unit);
  const shapes = kind === 'shape-shift' ? shiftedShapes(neck, zone, spans) : [];
  const stretches = CONNECTING_KINDS.has(kind)
    ? stretchesOf(spans)
    : spans.map((span): readonly ChordSpan[] => [span]);
  const notes: PlayedNote[] = [];
  let last: Moment['last'] = null;
  let which = 0;
  for (const [turn, stretch] of stretches.entries()) {
    const onward = (which + stretch.length) % spans.length;
    const beats = stretch.reduce((sum, span) => sum + span.beats, 0);
    const span = { ...at(stretch, 0), beats };
    // A chord that ends within a note cuts it short.
    const count = Math.max(1, Math.ceil(beats / long));
    const moment: Moment = {
      neck,
      span,
      turn,
      count,
      zone,
      zones,
      strings,
      group,
      home,
      begin,
      last,
      shape: shapes[turn] ?? [],
      target: at(targets, which),
      nextTarget: at(targets, onward),
      nextSpan: at(spans, onward),
    };
    which += stretch.length;
    const places = PATTERNS[kind](moment).slice(0, count);
    for (const [slot, { string, fret, note }] of places.entries()) {
      const midi = pitchAt(neck, { string, fret });
      if (last && midi !== last.midi) last = { midi, rising: midi > last.midi };
      last ??= { midi, rising: true };
      const beat = span.beat + slot * long;
      const length = Math.min(long, span.beat + beats - beat);
      const over = stretch.findLast((one) => one.beat <= beat) ?? span;
      notes.push(struck({ beat, beats: length, string, fret, note, chord: over.index }));
    }
  }
  return notes;
}

function titleOf({ chart, kind, extent, from }: ExerciseRequest): string {
  const { name } = EXERCISE_WORDS[kind];
  const symbol = (index: number) => {
    const chord = chart.chords[index % Math.max(1, chart.chords.length)]?.chord;
    return chord ? chordName(chord) : '';
  };
  if (extent === 'isolate') return `${name}: ${symbol(from)}`;
  if (extent === 'pair') return `${name}: ${symbol(from)} and ${symbol(from + 1)}`;
  return `${name}: ${chart.source.title || 'Untitled'}`;
}

/**
 * One spelling for each pitch over one chord: its own tones first, then what is played over it; a
 * passing note is C rather than B sharp.
 */
function spelledAlike(
  notes: readonly PlayedNote[],
  spans: readonly ChordSpan[],
): readonly PlayedNote[] {
  const known = new Map(
    spans.map(({ index, chord, material, later }) => [
      index,
      new Map([
        ...spellingsOver({ ...chord, bass: null }, later?.material.notes ?? []),
        ...spellingsOver({ ...chord, bass: null }, material.notes),
      ]),
    ]),
  );
  return notes.map((played) => {
    const spellings = played.chord === null ? undefined : known.get(played.chord);
    if (!spellings) return played;
    const note = spellings.get(pitchClass(played.note)) ?? simpleRoot(played.note);
    spellings.set(pitchClass(note), note);
    return { ...played, note };
  });
}

/** Strings and frets of a shape, counted from its first place. */
const outline = (places: readonly Place[]): string =>
  places
    .map(({ string, fret }) => `${string - at(places, 0).string} ${fret - at(places, 0).fret}`)
    .join(', ');

/** What an exercise is for; a shifted shape says whether its fingering stays. */
function goalOf({ kind, neck, zone }: ExerciseRequest, spans: readonly ChordSpan[]): string {
  const { goal } = EXERCISE_WORDS[kind];
  if (kind !== 'shape-shift' || spans.length === 0) return goal;
  const shapes = new Set(shiftedShapes(neck, zone, spans).map(outline));
  return shapes.size === 1
    ? `${goal} Its fingering stays the same.`
    : `${goal} Its fingering changes with what is played.`;
}

/** Whether hands bend and slide here: in a blues by its form, or by what is played over it. */
function isBlues({
  chart,
  key,
  materials,
}: Pick<ExerciseRequest, 'chart' | 'key' | 'materials'>): boolean {
  const { chords, bars } = chart;
  if (chords.length === 0) return false;
  const heads = bars.map(({ beat }) => chords.find((one) => one.beat === beat)?.chord ?? null);
  return (
    findBlues(changesOf(chords)) !== null ||
    (key !== null && twelveBarName(heads, key) !== null) ||
    materials.some(({ kind }) => kind.endsWith('blues'))
  );
}

/** How a line is played: as asked, or as the chart's feel and idiom have it. */
export const lineStyleOf = (
  request: Pick<ExerciseRequest, 'chart' | 'key' | 'materials' | 'style'>,
): LineStyle =>
  request.style ?? styleFor(request.chart, readFeel(request.chart.source.feel), isBlues(request));

/** How a line is divided and played. */
function lineFrame(
  request: ExerciseRequest,
): Pick<LineRequest, 'metre' | 'style' | 'home' | 'tempo' | 'pinned'> {
  const { chart, subdivision, key, pins } = request;
  const { time, tempo } = chart.source;
  const metre = lineMetre(time, subdivision);
  return {
    metre,
    style: lineStyleOf(request),
    tempo: tempo ?? DEFAULT_TEMPO,
    home: key?.tonic ?? chart.chords[0]?.chord.root ?? null,
    pinned: new Set(Object.keys(pins).map(Number)),
  };
}

function lineOver(
  request: ExerciseRequest,
  spans: readonly ChordSpan[],
  targets: readonly RouteStop[],
  more: Partial<LineRequest> = {},
): Line | null {
  const { neck, zone, seed, motif = null, idea = null } = request;
  return lineOf({ neck, zone, spans, targets, seed, motif, idea, ...lineFrame(request), ...more });
}

/** What is played for an exercise, and how it is made where it is a line. */
interface Made {
  readonly notes: readonly PlayedNote[];
  readonly line?: Line | null;
  /** What could not be done, in sentences. */
  readonly warnings?: readonly string[];
}

const fromLine = (line: Line | null): Made => ({ notes: line?.notes ?? [], line });

function notesOf(
  request: ExerciseRequest,
  spans: readonly ChordSpan[],
  targets: readonly RouteStop[],
): Made {
  const { chart, key, kind, neck, zone, seed, melody } = request;
  switch (kind) {
    case 'line':
      return fromLine(lineOver(request, spans, targets));
    case 'line-gaps': {
      const line = lineOver(request, spans, targets);
      return { ...fromLine(line), notes: withGaps(line?.notes ?? [], barOf(chart.source.time)) };
    }
    case 'call-and-response':
      return fromLine(lineOver(request, spans, targets, { calls: true }));
    case 'moving-third': {
      const stops = movingThirdTargets({ neck, zone, spans, targets });
      return fromLine(lineOver(request, spans, stops, { everyChange: true }));
    }
    case 'triads': {
      const round = roundTriads({ neck, zone, strings: request.strings, spans, targets });
      return fromLine(
        lineOver(request, spans, round.targets, { regions: round.regions, tones: true }),
      );
    }
    case 'switch': {
      const switched = switchedSpans(chart, spans, request.switchAt ?? null);
      if (switched === null) {
        const warnings = [
          'This chart has no ii–V to cover with one sound: the line follows the chords.',
        ];
        return { ...fromLine(lineOver(request, spans, targets)), warnings };
      }
      const over = { ...request, pins: {} };
      const stops = targetsFor(over, switched);
      return fromLine(lineOver(over, switched, stops, { plain: true }));
    }
    case 'melody':
    case 'melody-varied': {
      if (!melody || melody.length === 0) {
        return { notes: [], warnings: ['This chart has no melody yet: enter or open one first.'] };
      }
      const { octave = null } = request;
      const asked = { chart, key, neck, zone, spans, melody, seed, octave };
      return { notes: kind === 'melody' ? melodyNotes(asked) : variedMelody(asked) };
    }
    case 'own': {
      const read = parsePattern(request.pattern ?? FIRST_PATTERN);
      if (!read.ok) return { notes: [], warnings: read.problems.map(({ message }) => message) };
      const { time } = chart.source;
      const long = noteLength(request.subdivision, time.unit);
      const asked = { neck, zone, spans, home: homeOf(key), long, unit: time.unit };
      const { direction = null } = request;
      const notes = ownNotes({
        ...asked,
        pattern: read.pattern,
        direction: direction ?? 'forward',
      });
      const none = 'No chord of this chart is one the pattern is for.';
      return { notes, warnings: notes.length === 0 && spans.length > 0 ? [none] : [] };
    }
    case 'moving-voices': {
      const notes = movingVoices(neck, zone, spans);
      const none = 'No chord of this chart has a triad: write chords with a third or a fourth.';
      return { notes, warnings: notes.length === 0 && spans.length > 0 ? [none] : [] };
    }
    case 'roots':
    case 'thirds':
    case 'guide-tones':
      return { notes: tonesInTime(neck, zone, spans, barOf(chart.source.time), kind) };
    case 'targets':
      return { notes: heldTargets(request, spans, targets) };
    case 'double-stops': {
      const { metre, tempo = DEFAULT_TEMPO, style: own } = lineFrame(request);
      const style = STOP_STYLES[own];
      const line = lineOver(request, spans, targets, { style, plain: true })?.notes ?? [];
      return {
        notes: doubleStops({ neck, zone, spans, metre, style, tempo, seed, line }),
      };
    }
    default:
      return { notes: patterned(request, kind, spans, targets) };
  }
}

/** The exercise asked for; without notes where the chart has no chords. */
export function makeExercise(request: ExerciseRequest): Exercise {
  const { chart, kind, neck, materials, intents, later, extent, from } = request;
  const spans = spansOf(chart, materials, intents, extent, from, later);
  const targets = targetsFor(request, spans);
  const { notes: made, line = null, warnings = [] } = notesOf(request, spans, targets);
  const { notes, targets: landings } =
    line === null ? { notes: made, targets: [] } : withLandings(request, spans, made);
  const title = titleOf(request);
  const whole = passageOf(chart, request.key, neck, title, spelledAlike(notes, spans));
  const chords = spans.map(({ chord, beat, beats }) => ({ chord, beat, beats }));
  const end = spans.reduce((last, { beat, beats }) => Math.max(last, beat + beats), 0);
  const bar = barOf(chart.source.time);
  const beats = Math.max(bar, Math.ceil(end / bar) * bar);
  const passage = extent === 'whole' ? whole : { ...whole, chords, beats };
  return {
    kind,
    title,
    goal: goalOf(request, spans),
    passage,
    warnings: [...warnings, ...playingWarnings(passage)],
    line: line && {
      plan: line.plan,
      words: line.words,
      score: line.score,
      style: lineStyleOf(request),
    },
    targets: landings,
  };
}
