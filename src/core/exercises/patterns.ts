/** What each exercise plays over one chord: places in order, as many as there is time for. */
import { type Chord, chordNotes } from '../chords/chords';
import { type Collection, collectionNotes } from '../collections/collections';
import { triadsInside } from '../collections/inside';
import { matchingPentatonic } from '../collections/pentatonics';
import { at, range } from '../lists';
import { boxesOf, nearestTo } from '../neck/boxes';
import { ascending, HAND, type Placed, spanOf } from '../neck/fingering';
import { underHand } from '../neck/hand';
import {
  type Neck,
  openPitch,
  pitchAt,
  type Place,
  placesOf,
  stringCount,
  type Zone,
  wholeNeck,
} from '../neck/neck';
import { isVoiced, type Voicing, voicingsOn } from '../neck/voicings';
import { degree } from '../notes/degrees';
import {
  halfSteps,
  type Interval,
  intervalBetween,
  type Note,
  pitchClass,
  transpose,
} from '../notes/notes';
import type { Midi } from '../notes/pitch';
import type { ChordSpan } from '../lines/spans';
import { approachNotes, type ApproachSetting } from '../targets/approach';
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
  /** Notes to a group, in groups. */
  readonly group: number;
  /** The scale of the key; empty where no single one holds. */
  readonly home: readonly Note[];
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
  const inside = underHand(neck, notes, zone, { strings });
  return inside.length > 0 ? inside : underHand(neck, notes, wholeNeck(neck), { strings });
}

const scaleOf = ({ span }: Moment): readonly Note[] => span.material.notes;
const tonesOf = ({ span }: Moment): readonly Note[] => chordNotes({ ...span.chord, bass: null });

const settingOf = ({ home, zone }: Moment, { chord, material }: ChordSpan): ApproachSetting => ({
  ...{ chord, home, zone },
  scale: material.notes,
});

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

/** Along a row, turning round at either end. */
function bouncing<T>(rungs: readonly T[], from: number, count: number, rising: boolean) {
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

/** The rungs without a note that has just sounded, where there are others. */
function besides(neck: Neck, rungs: readonly Placed[], sounded: Place): readonly Placed[] {
  const others = rungs.filter((rung) => pitchAt(neck, rung) !== pitchAt(neck, sounded));
  return others.length > 0 ? others : rungs;
}

const withinOctave = (moment: Moment, rungs: readonly Placed[]): readonly Placed[] => {
  const root = at(rungs, lowestRoot(moment, rungs));
  const low = pitchAt(moment.neck, root);
  return rungs.filter((rung) => {
    const midi = pitchAt(moment.neck, rung);
    return midi >= low && midi <= low + 12;
  });
};

/** From the lowest root that leaves them room, the notes of a stack of degrees, each the next one up. */
function stacked(moment: Moment, degrees: readonly Interval[], count: number): readonly Placed[] {
  const { neck, span } = moment;
  const notes = degrees.map((wanted) => transpose(span.chord.root, wanted));
  const rungs = ladder(moment, notes);
  const from = lowestRoot(moment, rungs);
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

/**
 * Small cells along the rungs, each begun one rung further on: their rungs are counted from where
 * the cell begins. Where a cell would leave the rungs the way turns round.
 */
function cells(
  rungs: readonly Placed[],
  from: number,
  count: number,
  rising: boolean,
  cell: readonly number[],
): readonly Placed[] {
  const width = Math.max(...cell);
  if (rungs.length <= width) return bouncing(rungs, from, count, rising);
  const played: number[] = [];
  let by = rising ? 1 : -1;
  const fits = (start: number) => start + by * width >= 0 && start + by * width < rungs.length;
  let start = from;
  if (!fits(start)) start = by > 0 ? rungs.length - 1 - width : width;
  while (played.length < count) {
    if (!fits(start)) {
      by = -by;
      // Turning, the cell begins beside the note just left rather than on it again.
      start = at(played, played.length - 1) + by;
    }
    for (const up of cell) played.push(start + by * up);
    start += by;
  }
  return played.slice(0, count).map((rung) => at(rungs, rung));
}

/** A collection in one of its intervals, up over one chord and down over the next. */
const inCells =
  (cellOf: (moment: Moment) => readonly number[]): Pattern =>
  (moment) => {
    const rungs = ladder(moment, scaleOf(moment));
    const rising = moment.turn % 2 === 0;
    const from = moment.last ? goingOn(moment, rungs, rising) : lowestRoot(moment, rungs);
    return cells(rungs, from, moment.count, rising, cellOf(moment));
  };

/** The pentatonic that is played, or the chord's own where something else is. */
function pentatonicOf({ span }: Moment): Collection {
  const { collection: chosen } = span.material;
  return chosen?.kind.family === 'pentatonics' ? chosen : matchingPentatonic(span.chord);
}

/** Notes to each string of a run from box to box, from the lowest string up. */
const DIAGONAL = { some: [3, 2], all: [3] } as const;
/** Notes on the lowest string from which a run may begin. */
const STARTS = 12;
/** So many notes take a run through all five boxes. */
const ALL_FIVE = 16;

/** A pentatonic laid diagonally over the strings, from the box nearest to the zone upward. */
function diagonal(moment: Moment): readonly Placed[] {
  const { neck, zone, count } = moment;
  const pentatonic = pentatonicOf(moment);
  const notes = collectionNotes(pentatonic);
  const perString = count >= ALL_FIVE ? DIAGONAL.all : DIAGONAL.some;
  const box = nearestTo(zone, boxesOf(neck, pentatonic));
  const lowest = box?.places[0];
  if (!lowest) return ladder(moment, notes);
  const strings = stringCount(neck);
  const laid = (from: number) =>
    ascending(notes, from, strings * 3).reduce<readonly Placed[]>((places, { midi, note }) => {
      const on = places.at(-1)?.string ?? strings;
      const there = places.filter(({ string }) => string === on).length;
      const full = there >= at(perString, (strings - on) % perString.length);
      const string = full ? on - 1 : on;
      return string < 1
        ? places
        : [...places, { string, fret: midi - openPitch(neck, string), note }];
    }, []);
  // Where the neck ends before the run does, it begins in a lower box.
  const open = openPitch(neck, strings) + neck.capo;
  const starts = ascending(notes, open, STARTS).filter(({ midi }) => midi <= pitchAt(neck, lowest));
  const runs = starts.reverse().map(({ midi }) => laid(midi));
  const whole = runs.find((run) => run.every(({ fret }) => fret <= neck.frets));
  return whole ?? ladder(moment, notes);
}

/** The triads inside a pentatonic, the chord's own among them first. */
function triadsOf(moment: Moment): readonly Chord[] {
  const inside = triadsInside(pentatonicOf(moment));
  const plain = inside.filter(({ quality }) => quality.name === '' || quality.name === 'm');
  return plain.length >= 2 ? plain : inside;
}

/** The inversions of a chord along some strings, lowest first: of its triad, or on four of all. */
function inversionsAlong({ neck, span, strings }: Moment): readonly Voicing[] {
  const four = strings.length > 3 && isVoiced(span.chord, 'drop-2');
  return voicingsOn(neck, span.chord, four ? 'drop-2' : 'triad', strings.slice(0, four ? 4 : 3));
}

/** The note of the scale beside each tone of a small shape: a step above, else a step below. */
function neighboursOf(moment: Moment, places: readonly Placed[]): (tone: Placed) => Placed {
  const { neck } = moment;
  const { low, high } = spanOf(places);
  const hand = { low: Math.max(neck.capo, low - 1), high: Math.min(neck.frets, high + 2) };
  const rungs = placesOf(neck, scaleOf(moment), hand);
  return (tone) => {
    const midi = pitchAt(neck, tone);
    const near = rungs.filter((rung) => {
      const size = Math.abs(pitchAt(neck, rung) - midi);
      return size >= 1 && size <= 3 && Math.abs(rung.string - tone.string) <= 1;
    });
    const worth = (rung: Placed) => {
      const size = pitchAt(neck, rung) - midi;
      return Math.abs(size) + (size < 0 ? 0.5 : 0) + (rung.string === tone.string ? 0 : 0.25);
    };
    return near.reduce((best, rung) => (worth(rung) < worth(best) ? rung : best), near[0] ?? tone);
  };
}

const MOTIF = [0, 1, 2, 1, 3, 2, 1, 0] as const;

/** The string a shifted shape is rooted on, always the same one: the fifth, or the lowest there is. */
const SHAPE_STRING = 5;

/** The place of a material's root on the shape's string, nearest to the middle of the zone. */
function shapeRoot({ neck, zone, span }: Pick<Moment, 'neck' | 'zone' | 'span'>): Placed {
  const string = Math.min(stringCount(neck), SHAPE_STRING);
  const roots = placesOf(neck, [span.material.root]).filter((place) => place.string === string);
  const off = ({ fret }: Place) => Math.abs(fret - (zone.low + zone.high) / 2);
  return roots.reduce((best, place) => (off(place) < off(best) ? place : best), at(roots, 0));
}

/** The notes a motif takes above the root of what is played, under one hand. */
export function shapeOf(moment: Pick<Moment, 'neck' | 'zone' | 'span'>): readonly Placed[] {
  const { neck, span } = moment;
  const root = shapeRoot(moment);
  const hand = { low: root.fret, high: Math.min(neck.frets, root.fret + HAND.plain - 1) };
  return underHand(neck, span.material.notes, hand)
    .filter((rung) => pitchAt(neck, rung) >= pitchAt(neck, root))
    .slice(0, Math.max(...MOTIF) + 1);
}

/** The exercises that walk chord by chord, and are not made as a whole. */
export type PatternKind = Exclude<
  ExerciseKind,
  | 'line'
  | 'targets'
  | 'double-stops'
  | 'moving-third'
  | 'switch'
  | 'call-and-response'
  | 'melody'
  | 'melody-varied'
>;

export const PATTERNS: Readonly<Record<PatternKind, Pattern>> = {
  triads: (moment) => {
    const { neck, count, strings, last, span, zone, turn } = moment;
    const shapes = voicingsOn(neck, span.chord, 'triad', strings.slice(0, 3));
    if (shapes.length === 0) return ladder(moment, tonesOf(moment), strings).slice(0, count);
    const away = ({ places }: Voicing) => {
      const { low, high } = spanOf(places);
      const outside = Math.max(0, zone.low - low) + Math.max(0, high - zone.high);
      const move = last ? Math.abs(pitchAt(neck, at(places, 1)) - last.midi) : 0;
      return 4 * outside + move;
    };
    const { places } = shapes.reduce((best, shape) => (away(shape) < away(best) ? shape : best));
    const around = neighboursOf(moment, places);
    const rising = turn % 2 === 0;
    const tones = rising ? places : [...places].reverse();
    const [first, second, third] = [at(tones, 0), at(tones, 1), at(tones, 2)];
    // Up the triad, round its middle by the notes beside it, and back.
    const figure = [first, second, third, around(third), third, second, around(second), second];
    return range(0, count).map((step) => at(figure, step % figure.length));
  },
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
    const root = lowestRoot(moment, up);
    const climbed = up.slice(root, root + Math.ceil(count / 2));
    const rest = count - climbed.length;
    const top = pitchAt(neck, at(climbed, climbed.length - 1));
    const line = ladder(moment, scaleOf(moment));
    const below = line.filter((rung) => pitchAt(neck, rung) < top).length;
    if (below === 0) return bouncing(up, root, count, true);
    // Down to the step above where the next chord begins.
    const nextMoment = { ...moment, span: nextSpan };
    const nextRungs = ladder(nextMoment, tonesOf(nextMoment));
    const goal = pitchAt(neck, at(nextRungs, lowestRoot(nextMoment, nextRungs)));
    const above = line.findIndex((rung) => pitchAt(neck, rung) > goal);
    const from = Math.min(below - 1, Math.max(0, above) + rest - 1);
    return [...climbed, ...bouncing(line, from, rest, false)];
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
    const rungs = shapeOf(moment);
    return range(0, moment.count).map((step) => {
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
  'in-thirds': inCells(() => [0, 2]),
  'in-fourths': inCells(() => [0, 3]),
  'in-sixths': inCells(() => [0, 5]),
  groups: inCells(({ group }) => range(0, group)),
  connecting: (moment) => {
    const rungs = diagonal(moment);
    const rising = moment.turn % 2 === 0;
    const from = moment.last ? goingOn(moment, rungs, rising) : 0;
    return bouncing(rungs, from, moment.count, rising);
  },
  'pentatonic-triads': (moment) => {
    const { neck, count } = moment;
    const [first, second = first] = triadsOf(moment).map((triad) =>
      ladder(moment, chordNotes(triad)),
    );
    if (!first || !second) return [];
    const half = Math.ceil(count / 2);
    const up = bouncing(first, lowestRoot(moment, first), half, true);
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
