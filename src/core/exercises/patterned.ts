/** Exercises that climb, fall or turn by a pattern, in even notes. */
import { at } from '../lists';
import { pitchAt } from '../neck/neck';
import { type PlayedNote, struck } from '../phrases/passage';
import type { ChordSpan } from '../lines/spans';
import { noteLength } from '../time/subdivision';
import type { RouteStop } from '../targets/route';
import type { Moment } from './rungs';
import { PATTERNS } from './patterns';
import { CONNECTING_KINDS, stretchesOf } from './connecting';
import { shiftedShapes } from './shapes';
import { type ExerciseRequest, homeOf } from './request';

/** The notes of a kind that is a pattern, over stretch after stretch. */
export function patterned(
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
