/** Exercises generated from a chart, what is played over it, and a zone. */
import { chordName } from '../chords/chords';
import { spellingsOver } from '../chords/over';
import { pitchClass, simpleRoot } from '../notes/notes';
import { at } from '../lists';
import type { Place } from '../neck/neck';
import { DEFAULT_TEMPO } from '../time/tempo';
import type { Line } from '../lines/lines';
import type { LineStyle } from '../lines/styles';
import { type Passage, passageOf, type PlayedNote, struck } from '../phrases/passage';
import { type ChordSpan, spansOf } from '../lines/spans';
import { noteLength } from '../time/subdivision';
import type { RouteChord } from '../targets/request';
import { type RouteStop, solveRoutes } from '../targets/route';
import type { ExerciseKind } from './kinds';
import { EXERCISE_WORDS } from './words';
import { melodyNotes, variedMelody } from './melody';
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
import {
  lineFrame,
  lineOver,
  lineStyleOf,
  type LineTarget,
  withGaps,
  withLandings,
} from './lineOver';
import { patterned } from './patterned';
import { type ExerciseRequest, homeOf } from './request';

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
