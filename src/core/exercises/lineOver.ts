/** Lines as exercises are made of them: how they are played, what they land on, whose bars are whose. */
import type { Midi } from '../notes/pitch';
import { pitchAt, type Place } from '../neck/neck';
import { landingOn, onTime } from '../phrases/landing';
import { DEFAULT_TEMPO } from '../time/tempo';
import { findBlues, twelveBarName } from '../harmony/blues';
import { changesOf } from '../harmony/changes';
import { type Line, lineOf } from '../lines/lines';
import type { LineRequest } from '../lines/request';
import { lineMetre } from '../lines/rhythm';
import { type LineStyle, styleFor } from '../lines/styles';
import { readFeel } from '../time/feel';
import type { PlayedNote } from '../phrases/passage';
import type { ChordSpan } from '../lines/spans';
import type { Beats } from '../time/units';
import type { RouteStop } from '../targets/route';
import type { ExerciseRequest } from './request';

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
export function lineFrame(
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

export function lineOver(
  request: ExerciseRequest,
  spans: readonly ChordSpan[],
  targets: readonly RouteStop[],
  more: Partial<LineRequest> = {},
): Line | null {
  const { neck, zone, seed, motif = null, idea = null } = request;
  return lineOf({ neck, zone, spans, targets, seed, motif, idea, ...lineFrame(request), ...more });
}

/** A landing that a line aims at. */
export interface LineTarget extends Place {
  /** Index of the chord. */
  readonly index: number;
  readonly midi: Midi;
}

/** What a line aims at and lands on by the rule of landing; a target that it does not is none. */
export function withLandings(
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
export function withGaps(notes: readonly PlayedNote[], bar: Beats): readonly PlayedNote[] {
  return notes.flatMap((note) => {
    const own = Math.floor(Math.max(0, note.beat) / bar);
    if (own % 2 === 1) return [];
    return [{ ...note, beats: Math.min(note.beats, (own + 1) * bar - note.beat) }];
  });
}
