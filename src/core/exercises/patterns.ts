/** What each exercise plays over one chord: places in order, as many as there is time for. */
import { chordNotes } from '../chords/chords';
import { at, range } from '../lists';
import { type Placed, withoutDoubles } from '../neck/fingering';
import {
  type Neck,
  pitchAt,
  type Place,
  placesOf,
  stringCount,
  type Zone,
  wholeNeck,
} from '../neck/neck';
import { degree } from '../notes/degrees';
import { halfSteps, type Interval, intervalBetween, type Note, pitchClass } from '../notes/notes';
import type { Midi } from '../notes/pitch';
import type { ChordSpan } from '../lines/spans';
import { approachNotes } from '../targets/approach';
import type { RouteStop } from '../targets/route';
import type { ExerciseKind } from './kinds';

/** What an exercise sees of one chord. */
export interface Moment {
  readonly neck: Neck;
  readonly span: ChordSpan;
  /** How many chords have gone before. */
  readonly turn: number;
  /** Notes there is time for. */
  readonly count: number;
  readonly zone: Zone;
  /** The zones an exercise may move through, lowest first. */
  readonly zones: readonly Zone[];
  readonly strings: readonly number[];
  /** The last note played, and whether the line was rising. */
  readonly last: { readonly midi: Midi; readonly rising: boolean } | null;
  readonly target: RouteStop;
  readonly nextTarget: RouteStop;
  readonly nextSpan: ChordSpan;
}

export type Pattern = (moment: Moment) => readonly Placed[];

/** Notes from low to high, each pitch once; on the whole neck where the zone holds none. */
function ladder(
  { neck, zone }: Moment,
  notes: readonly Note[],
  strings: readonly number[] | null = null,
): readonly Placed[] {
  const on = (region: Zone) =>
    withoutDoubles(
      neck,
      placesOf(neck, notes, region).filter(
        ({ string }) => strings === null || strings.includes(string),
      ),
    );
  const inside = on(zone);
  return inside.length > 0 ? inside : on(wholeNeck(neck));
}

const scaleOf = ({ span }: Moment): readonly Note[] => span.material.notes;
const tonesOf = ({ span }: Moment): readonly Note[] => chordNotes({ ...span.chord, bass: null });

const isRoot = ({ span }: Moment, { note }: Placed): boolean =>
  pitchClass(note) === pitchClass(span.chord.root);

function lowestRoot(moment: Moment, rungs: readonly Placed[]): number {
  return Math.max(
    0,
    rungs.findIndex((rung) => isRoot(moment, rung)),
  );
}

function highestRoot(moment: Moment, rungs: readonly Placed[]): number {
  const found = rungs.findLastIndex((rung) => isRoot(moment, rung));
  return found < 0 ? rungs.length - 1 : found;
}

/** Along the rungs one way, beginning again where they end. */
const oneWay = (rungs: readonly Placed[], from: number, count: number, by: 1 | -1) => {
  const length = by > 0 ? rungs.length - from : from + 1;
  return range(0, count).map((step) => at(rungs, from + by * (step % length)));
};

/** Along the rungs, turning round at either end. */
function bouncing(rungs: readonly Placed[], from: number, count: number, rising: boolean) {
  let by = rising ? 1 : -1;
  let here = from;
  return range(0, count).map((step) => {
    if (step > 0 && rungs.length > 1) {
      if (here + by < 0 || here + by >= rungs.length) by = -by;
      here += by;
    }
    return at(rungs, here);
  });
}

/** What the same note again, and a step back, weigh against going on, in half steps. */
const AGAIN = 6;
const BACK = 3;

/** The rung nearest to where the line stands, going on in a direction where it can. */
function goingOn({ neck, last }: Moment, rungs: readonly Placed[], rising: boolean): number {
  if (!last) return 0;
  const distance = (rung: Placed) => {
    const gap = pitchAt(neck, rung) - last.midi;
    const ahead = rising ? gap > 0 : gap < 0;
    return Math.abs(gap) + (gap === 0 ? AGAIN : ahead ? 0 : BACK);
  };
  return rungs.reduce(
    (best, rung, index) => (distance(rung) < distance(at(rungs, best)) ? index : best),
    0,
  );
}

const withinOctave = (moment: Moment, rungs: readonly Placed[]): readonly Placed[] => {
  const root = at(rungs, lowestRoot(moment, rungs));
  const low = pitchAt(moment.neck, root);
  return rungs.filter((rung) => {
    const midi = pitchAt(moment.neck, rung);
    return midi >= low && midi <= low + 12;
  });
};

/** From a place on, the notes of a stack of degrees, each the next one up. */
function stacked(moment: Moment, degrees: readonly Interval[], count: number): readonly Placed[] {
  const { neck, span, zone } = moment;
  const rungs = ladder(moment, tonesOf(moment));
  const root = at(rungs, lowestRoot(moment, rungs));
  let floor = pitchAt(neck, root) - 1;
  const climbed = degrees.flatMap((wanted): readonly Placed[] => {
    const size = halfSteps(wanted);
    const all = placesOf(neck, [(span.chord.root + wanted) as Note], {
      low: Math.max(neck.capo, zone.low - 1),
      high: Math.min(neck.frets, zone.high + 1),
    });
    const above = all
      .filter((place) => {
        return (
          pitchAt(neck, place) > floor &&
          halfSteps(intervalBetween(span.chord.root, place.note)) === size
        );
      })
      .sort((a, b) => pitchAt(neck, a) - pitchAt(neck, b) || a.string - b.string);
    const next = above[0];
    if (!next) return [];
    floor = pitchAt(neck, next);
    return [next];
  });
  return climbed.length === 0 ? oneWay(rungs, 0, count, 1) : bouncing(climbed, 0, count, true);
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

const MOTIF = [0, 1, 2, 1, 3, 2, 1, 0] as const;

/** The string a shifted shape is rooted on, always the same one: the fifth, or the lowest there is. */
const SHAPE_STRING = 5;

/** The place of a material's root on the shape's string, nearest to the middle of the zone. */
function shapeRoot({ neck, zone, span }: Moment): Placed {
  const string = Math.min(stringCount(neck), SHAPE_STRING);
  const roots = placesOf(neck, [span.material.root]).filter((place) => place.string === string);
  const off = ({ fret }: Place) => Math.abs(fret - (zone.low + zone.high) / 2);
  return roots.reduce((best, place) => (off(place) < off(best) ? place : best), at(roots, 0));
}

export const PATTERNS: Readonly<Record<Exclude<ExerciseKind, 'line' | 'targets'>, Pattern>> = {
  ascending: (moment) => {
    const rungs = ladder(moment, scaleOf(moment));
    return oneWay(rungs, lowestRoot(moment, rungs), moment.count, 1);
  },
  descending: (moment) => {
    const rungs = ladder(moment, scaleOf(moment));
    return oneWay(rungs, highestRoot(moment, rungs), moment.count, -1);
  },
  alternating: (moment) => {
    const rungs = ladder(moment, scaleOf(moment));
    const rising = moment.turn % 2 === 0;
    const from = moment.last ? goingOn(moment, rungs, rising) : lowestRoot(moment, rungs);
    return bouncing(rungs, from, moment.count, rising);
  },
  'zone-shift': (moment) => {
    const { zones, turn } = moment;
    const round = Math.max(1, 2 * zones.length - 2);
    const step = turn % round;
    const zone = zones[step < zones.length ? step : round - step] ?? moment.zone;
    const moved = { ...moment, zone };
    const rungs = ladder(moved, scaleOf(moment));
    return oneWay(rungs, lowestRoot(moved, rungs), moment.count, 1);
  },
  'arpeggio-up-scale-down': (moment) => {
    const { neck, count, nextSpan } = moment;
    const up = ladder(moment, tonesOf(moment));
    const climbed = oneWay(
      up,
      lowestRoot(moment, up),
      Math.min(Math.ceil(count / 2), up.length),
      1,
    );
    const rest = count - climbed.length;
    const top = pitchAt(neck, at(climbed, climbed.length - 1));
    const below = ladder(moment, scaleOf(moment)).filter((rung) => pitchAt(neck, rung) < top);
    if (below.length === 0) return bouncing(up, 0, count, true);
    // Down to the step above where the next chord begins.
    const nextMoment = { ...moment, span: nextSpan };
    const nextRungs = ladder(nextMoment, tonesOf(nextMoment));
    const goal = pitchAt(neck, at(nextRungs, lowestRoot(nextMoment, nextRungs)));
    const above = below.findIndex((rung) => pitchAt(neck, rung) > goal);
    const from = Math.min(below.length - 1, Math.max(0, above) + rest - 1);
    return [...climbed, ...bouncing(below, from, rest, false)];
  },
  degrees: (moment) => {
    const rungs = ladder(moment, tonesOf(moment));
    const tones = tonesOf(moment);
    const first = pitchClass(at(tones, moment.turn % tones.length));
    const from = Math.max(
      0,
      rungs.findIndex(({ note }) => pitchClass(note) === first),
    );
    return oneWay(rungs, from, moment.count, 1);
  },
  'five-notes': (moment) => {
    const rungs = ladder(moment, scaleOf(moment));
    const from = lowestRoot(moment, rungs);
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
    const from = lowestRoot(moment, rungs);
    const root = at(rungs, from);
    const scale = { chord: span.chord, scale: scaleOf(moment) };
    const approach = approachNotes(neck, root, scale, 'below');
    return [
      ...approach,
      ...bouncing(rungs, from, Math.max(1, count - approach.length), true),
    ].slice(0, count);
  },
  enclosures: (moment) => {
    const { neck, target, nextTarget, nextSpan, count } = moment;
    const scale = { chord: nextSpan.chord, scale: nextSpan.material.notes };
    const around = count > 2 ? approachNotes(neck, nextTarget, scale, 'enclosure') : [];
    const rungs = ladder(moment, tonesOf(moment));
    const near = { ...moment, last: { midi: pitchAt(neck, target), rising: true } };
    const rest = Math.max(0, count - 1 - around.length);
    const { string, fret, note } = target;
    return [
      { string, fret, note },
      ...bouncing(rungs, goingOn(near, rungs, true), rest, true),
      ...around.slice(0, Math.max(0, count - 1)),
    ];
  },
  'shape-shift': (moment) => {
    const { neck, span, count } = moment;
    const root = shapeRoot(moment);
    const hand = {
      low: Math.max(neck.capo, root.fret - 1),
      high: Math.min(neck.frets, root.fret + 4),
    };
    const rungs = withoutDoubles(neck, placesOf(neck, span.material.notes, hand)).filter(
      (rung) => pitchAt(neck, rung) >= pitchAt(neck, root),
    );
    return range(0, count).map((step) => {
      const rung = at(MOTIF, step % MOTIF.length);
      return at(rungs, Math.min(rung, rungs.length - 1));
    });
  },
  continuous: (moment) => {
    const rungs = ladder(moment, scaleOf(moment));
    const rising = moment.last?.rising ?? true;
    const from = moment.last ? goingOn(moment, rungs, rising) : lowestRoot(moment, rungs);
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
};
