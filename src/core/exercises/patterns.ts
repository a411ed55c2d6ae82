/** What each exercise plays over one chord: places in order, as many as there is time for. */
import { chordNotes } from '../chords/chords';
import { at, range } from '../lists';
import { type Placed, spanOf } from '../neck/fingering';
import { pitchAt } from '../neck/neck';
import { degree } from '../notes/degrees';
import { halfSteps, type Interval, intervalBetween, pitchClass, transpose } from '../notes/notes';
import type { ChordSpan } from '../lines/spans';
import { approachNotes, type ApproachSetting } from '../targets/approach';
import type { ExerciseKind } from './kinds';
import {
  type Moment,
  type Pattern,
  besides,
  bouncing,
  cells,
  goingOn,
  highest,
  ladder,
  lowest,
  chordRootsOf,
  rootsOf,
  scaleOf,
  tonesOf,
  withinOctave,
} from './rungs';
import { connectingRun } from './connecting';
import type { ToneKind } from './tones';
import { MOTIF, inversionsAlong, triadsOf } from './shapes';

const settingOf = ({ home, zone }: Moment, { chord, material }: ChordSpan): ApproachSetting => ({
  chord,
  home,
  zone,
  scale: material.notes,
});

/** From the lowest root that leaves them room, the notes of a stack of degrees, each the next one up. */
function stacked(moment: Moment, degrees: readonly Interval[], count: number): readonly Placed[] {
  const { neck, span } = moment;
  const notes = degrees.map((wanted) => transpose(span.chord.root, wanted));
  const rungs = ladder(moment, notes);
  const from = lowest(rungs, chordRootsOf(moment));
  const climbed: Placed[] = [];
  for (const note of notes) {
    const last = climbed.at(-1);
    const floor = last ? pitchAt(neck, last) : pitchAt(neck, at(rungs, from)) - 1;
    const next = rungs.find(
      (rung) => pitchAt(neck, rung) > floor && pitchClass(rung.note) === pitchClass(note),
    );
    if (next) climbed.push({ ...next, note });
  }
  return bouncing(climbed.length > 0 ? climbed : rungs, 0, count, true);
}

/** The ninth a chord takes: its own where it names one, else the natural one, or the choice's. */
function ninthOf(moment: Moment): Interval {
  const { chord, material } = moment.span;
  const named = chord.quality.degrees.find(
    (one) => [1, 2, 3].includes(halfSteps(one)) && one !== MINOR_THIRD,
  );
  const chosen = material.notes
    .map((note) => intervalBetween(chord.root, note))
    .find((one) => halfSteps(one) === 2 || halfSteps(one) === 1);
  return named ?? chosen ?? NINTH;
}

const NINTH = degree('2');
const MINOR_THIRD = degree('b3');

/** A collection in one of its intervals, up over one chord and down over the next. */
const inCells =
  (cellOf: (moment: Moment) => readonly number[]): Pattern =>
  (moment) => {
    const rungs = ladder(moment, scaleOf(moment));
    const rising = moment.turn % 2 === 0;
    const from = moment.last ? goingOn(moment, rungs, rising) : lowest(rungs, rootsOf(moment));
    return cells(rungs, from, moment.count, rising, cellOf(moment));
  };

/** The exercises that walk chord by chord, and are not made as a whole. */
type PatternKind = Exclude<
  ExerciseKind,
  | 'line'
  | 'line-gaps'
  | ToneKind
  | 'targets'
  | 'triads'
  | 'moving-voices'
  | 'double-stops'
  | 'moving-third'
  | 'switch'
  | 'call-and-response'
  | 'melody'
  | 'melody-varied'
  | 'own'
>;

/** How each kind of exercise walks over one chord. */
export const PATTERNS: Readonly<Record<PatternKind, Pattern>> = {
  ascending: (moment) => {
    const rungs = ladder(moment, scaleOf(moment));
    return bouncing(rungs, lowest(rungs, rootsOf(moment)), moment.count, true);
  },
  descending: (moment) => {
    const rungs = ladder(moment, scaleOf(moment));
    return bouncing(rungs, highest(rungs, rootsOf(moment)), moment.count, false);
  },
  alternating: (moment) => {
    const rungs = ladder(moment, scaleOf(moment));
    const rising = moment.turn % 2 === 0;
    const from = moment.last ? goingOn(moment, rungs, rising) : lowest(rungs, rootsOf(moment));
    return bouncing(rungs, from, moment.count, rising);
  },
  'zone-shift': (moment) => {
    const { zones, turn } = moment;
    const round = Math.max(1, 2 * zones.length - 2);
    const step = turn % round;
    const zone = zones[step < zones.length ? step : round - step] ?? moment.zone;
    const moved = { ...moment, zone };
    const rungs = ladder(moved, scaleOf(moment));
    return bouncing(rungs, lowest(rungs, rootsOf(moved)), moment.count, true);
  },
  'arpeggio-up-scale-down': (moment) => {
    const { neck, count, nextSpan } = moment;
    const up = ladder(moment, tonesOf(moment));
    const root = lowest(up, chordRootsOf(moment));
    const climbed = up.slice(root, root + Math.ceil(count / 2));
    const rest = count - climbed.length;
    const top = pitchAt(neck, at(climbed, climbed.length - 1));
    const line = ladder(moment, scaleOf(moment));
    const below = line.filter((rung) => pitchAt(neck, rung) < top).length;
    if (below === 0) return bouncing(up, root, count, true);
    // Down to the step above where the next chord begins.
    const nextMoment = { ...moment, span: nextSpan };
    const nextRungs = ladder(nextMoment, tonesOf(nextMoment));
    const goal = pitchAt(neck, at(nextRungs, lowest(nextRungs, chordRootsOf(nextMoment))));
    const above = line.findIndex((rung) => pitchAt(neck, rung) > goal);
    const from = Math.min(below - 1, Math.max(0, above) + rest - 1);
    return [...climbed, ...bouncing(line, from, rest, false)];
  },
  degrees: (moment) => {
    const tones = tonesOf(moment);
    const rungs = ladder(moment, tones);
    const first =
      moment.begin === null ? [at(tones, moment.turn % tones.length)] : chordRootsOf(moment);
    return bouncing(rungs, lowest(rungs, first), moment.count, true);
  },
  'five-notes': (moment) => {
    const rungs = ladder(moment, scaleOf(moment));
    const from = lowest(rungs, rootsOf(moment));
    const five = rungs.slice(from, from + 5);
    return bouncing(five, 0, moment.count, true);
  },
  'root-to-ninth': (moment) => {
    const { core } = moment.span.chord.quality;
    return stacked(moment, [...core, ninthOf(moment)], moment.count);
  },
  'approach-arpeggio': (moment) => {
    const { neck, span, count } = moment;
    const rungs = ladder(moment, tonesOf(moment));
    const from = lowest(rungs, chordRootsOf(moment));
    const root = at(rungs, from);
    const approach = approachNotes(neck, root, settingOf(moment, span), 'below');
    return [
      ...approach,
      ...bouncing(rungs, from, Math.max(1, count - approach.length), true),
    ].slice(0, count);
  },
  enclosures: (moment) => {
    const { neck, target, nextTarget, nextSpan, count } = moment;
    const setting = settingOf(moment, nextSpan);
    const around = count > 2 ? approachNotes(neck, nextTarget, setting, 'enclosure') : [];
    const near = { ...moment, last: { midi: pitchAt(neck, target), rising: true } };
    const rungs = besides(neck, ladder(moment, tonesOf(moment)), target);
    const rest = Math.max(0, count - 1 - around.length);
    const { string, fret, note } = target;
    return [
      { string, fret, note },
      ...bouncing(rungs, goingOn(near, rungs, true), rest, true),
      ...around.slice(0, Math.max(0, count - 1)),
    ];
  },
  'shape-shift': (moment) => {
    const rungs = moment.shape;
    if (rungs.length === 0) return [];
    return range(0, moment.count).map((step) => {
      const rung = at(MOTIF, step % MOTIF.length);
      return at(rungs, Math.min(rung, rungs.length - 1));
    });
  },
  continuous: (moment) => {
    const rungs = ladder(moment, scaleOf(moment));
    const rising = moment.last?.rising ?? true;
    const from = moment.last ? goingOn(moment, rungs, rising) : lowest(rungs, rootsOf(moment));
    return bouncing(rungs, from, moment.count, rising);
  },
  'one-octave': (moment) => {
    const rungs = withinOctave(moment, ladder(moment, scaleOf(moment)));
    return bouncing(rungs, 0, moment.count, true);
  },
  'one-string-set': (moment) => {
    const rungs = ladder(moment, scaleOf(moment), moment.strings);
    const rising = moment.last?.rising ?? true;
    return bouncing(rungs, goingOn(moment, rungs, rising), moment.count, rising);
  },
  'in-thirds': inCells(() => [0, 2]),
  'in-fourths': inCells(() => [0, 3]),
  'in-sixths': inCells(() => [0, 5]),
  groups: inCells(({ group }) => range(0, group)),
  connecting: (moment) => connectingRun(moment, 'diagonal'),
  'connecting-strings': (moment) => connectingRun(moment, 'along'),
  'pentatonic-triads': (moment) => {
    const { neck, count } = moment;
    const triads = triadsOf(moment);
    const [first, second = first] = triads.map((triad) => ladder(moment, chordNotes(triad)));
    if (!first || !second) return [];
    const half = Math.ceil(count / 2);
    const up = bouncing(first, lowest(first, [at(triads, 0).root]), half, true);
    const top = at(up, up.length - 1);
    const rungs = besides(neck, second, top);
    const from = { ...moment, last: { midi: pitchAt(neck, top), rising: false } };
    return [...up, ...bouncing(rungs, goingOn(from, rungs, false), count - half, false)];
  },
  inversions: (moment) => {
    const { neck, zone, count, last, turn } = moment;
    const shapes = inversionsAlong(moment).map((shape) => ({ ...shape, ...spanOf(shape.places) }));
    if (shapes.length === 0) return ladder(moment, tonesOf(moment), moment.strings).slice(0, count);
    const away = (shape: (typeof shapes)[number]) =>
      last
        ? Math.abs(pitchAt(neck, at(shape.places, 0)) - last.midi)
        : Math.abs(shape.low + shape.high - zone.low - zone.high);
    const start = shapes.reduce(
      (best, shape, index) => (away(shape) < away(at(shapes, best)) ? index : best),
      0,
    );
    const needed = Math.ceil(count / at(shapes, 0).places.length);
    return bouncing(shapes, start, needed, turn % 2 === 0)
      .flatMap(({ places }) => places)
      .slice(0, count);
  },
};
