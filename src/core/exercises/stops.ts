/**
 * Double stops: thirds and sixths out of what lies under the hand, in the rhythm and the phrases of a line,
 * along the way on which both voices move least. (Parallel thirds and sixths out of the chord's scale, the
 * chromatic pair between two of them, and the slide into the first: the common practice of guitar methods.)
 */
import { type Chord, chordNotes, sameChord } from '../chords/chords';
import { degreeOver, spellOver, weightOver } from '../chords/over';
import { readingOf } from '../lines/candidates';
import { type LineMetre, isStrong, passingOf } from '../lines/rhythm';
import type { ChordSpan } from '../lines/spans';
import { type LineStyle, STYLE_ROWS } from '../lines/styles';
import { at } from '../lists';
import type { Placed } from '../neck/fingering';
import { reachOf, underHand } from '../neck/hand';
import { inZone, type Neck, pitchAt, placesOf, type Zone } from '../neck/neck';
import { pitchClass } from '../notes/notes';
import { cheapestWalk } from '../paths/walk';
import { fallsBackward } from '../phrases/backward';
import { type PlayedNote, struck } from '../phrases/passage';
import { hashed } from '../random';
import { BEAT, type Beats, type BeatsPerMinute } from '../time/units';
import { beatsIn } from '../time/tempo';

/** Two places sounded together, the lower pitch first. */
export interface Stop {
  readonly low: Placed;
  readonly high: Placed;
  readonly kind: 'third' | 'sixth';
}

/** Half steps of a third and of a sixth. */
const SIZES = { third: [3, 4], sixth: [8, 9] } as const;
/** Strings between the two: neighbours for thirds, one between for sixths. */
const APART = { third: [1], sixth: [1, 2] } as const;
const HAND = 4;

/**
 * Every pair of notes of a chord's material a third or sixth apart under the hand, from low to
 * high, each pitch pair once.
 */
export function stopsIn(neck: Neck, span: ChordSpan, zone: Zone): readonly Stop[] {
  const { material, chord } = span;
  const reach = reachOf(neck, zone);
  const tones = new Set([...material.notes, ...chordNotes(chord)].map(pitchClass));
  // The chord's own tones are there whatever is played over it: a blues has its third.
  const own = [...chordNotes({ ...chord, bass: null }), ...material.notes];
  const rungs = underHand(neck, own, zone);
  const places = placesOf(neck, own, reach);
  const stops: Stop[] = [];
  for (const kind of ['third', 'sixth'] as const) {
    for (const low of rungs) {
      const high = places.find((place) => {
        const size = pitchAt(neck, place) - pitchAt(neck, low);
        const strings = low.string - place.string;
        return (
          SIZES[kind].some((one) => one === size) &&
          APART[kind].some((one) => one === strings) &&
          Math.abs(place.fret - low.fret) <= HAND &&
          inZone(reach, place.fret) &&
          tones.has(pitchClass(place.note))
        );
      });
      if (high) stops.push({ low, high, kind });
    }
  }
  return stops.toSorted((a, b) => pitchAt(neck, a.high) - pitchAt(neck, b.high));
}

/** Two notes at once are heard in a blues, in rock and in a ballad: every style plays them as one of these. */
export const STOP_STYLES: Readonly<Record<LineStyle, LineStyle>> = {
  bop: 'ballad',
  bossa: 'bossa',
  modal: 'ballad',
  ballad: 'ballad',
  blues: 'blues',
  rock: 'rock',
  pop: 'pop',
  funk: 'funk',
};

/** Seconds between two stops at the least: a hand grips each anew. */
const GRIP = 0.22;

const COSTS = {
  /** A voice outside the chord: where it is felt, in passing, and as the last of all. */
  colour: { strong: 5, weak: 1, last: 20 },
  /** A guide tone where the chord is met, and the note aimed at: on top, or below. */
  guide: -1.5,
  aimed: { high: -7, low: -4 },
  /** A voice a half step above a chord tone: held, and in passing. */
  clash: { held: 60, passing: 3 },
  /** For each half step the top lies from where the line goes, and the lower voice below its kind's limit. */
  away: 0.3,
  muddy: 0.6,
  /** Moves of the voice that moves more: none, a step, a third, a fourth or fifth, and beyond. */
  moves: [5, 0, 0, 1.5, 1.5, 4, 4, 4] as readonly number[],
  leap: 8,
  /** A third after a sixth, and the other way round; on other strings; beyond the hand. */
  kind: 3,
  strings: 1,
  shift: 6,
  /** Off the third of the chord that sounds to the other. */
  backward: 12,
  /** Back the way it came, and back again at once. */
  turn: 1.5,
  sway: 6,
  jitter: 1.5,
} as const;
/** Below these the lower voice of a third, and of a sixth, is mud. */
const MUD = { third: 52, sixth: 45 } as const;
/** The way a walk came in, and whether it has just turned: as bits. */
const UP = 1;
const STEADY = 2;
/** How often a blues puts the pair of frets between two stops. */
const BETWEEN = 0.6;

/** A moment at which two notes are struck. */
interface Strike {
  readonly beat: Beats;
  readonly beats: Beats;
  readonly span: ChordSpan;
  /** Where the line goes, by pitch, and whether it aims there. */
  readonly midi: number;
  readonly target: boolean;
  readonly begins: boolean;
}

interface StopsRequest {
  readonly neck: Neck;
  readonly zone: Zone;
  readonly spans: readonly ChordSpan[];
  readonly metre: LineMetre;
  readonly style: LineStyle;
  readonly tempo: BeatsPerMinute;
  readonly seed: number;
  /** The line in whose rhythm and about whose pitches they are played. */
  readonly line: readonly PlayedNote[];
}

/** The notes of a line that leave time for a grip; each rings through those left out. */
function strikesOf({ neck, spans, metre, tempo, line }: StopsRequest): readonly Strike[] {
  const passing = passingOf(metre);
  const least = passing * Math.max(1, Math.ceil(beatsIn(GRIP, tempo) / passing));
  const strikes: Strike[] = [];
  for (const note of line) {
    const last = strikes.at(-1);
    const end = note.beat + note.beats;
    const span = spans.findLast(
      ({ index, beat }) => index === note.chord && beat <= note.beat + BEAT,
    );
    if (!span) continue;
    const begins = !last || last.beat + last.beats < note.beat;
    if (last && note.beat - last.beat < least) {
      // What is aimed at is struck; what stood too near before it is not.
      if (note.part !== 'target' || last.target) {
        // What rings on rings over its own chord.
        if (span === last.span) strikes[strikes.length - 1] = { ...last, beats: end - last.beat };
        continue;
      }
      strikes.pop();
    }
    strikes.push({
      beat: note.beat,
      beats: note.beats,
      span,
      midi: pitchAt(neck, note),
      begins,
      target: note.part === 'target',
    });
  }
  return strikes;
}

function standing(
  { low, high, kind }: Stop,
  { span, midi, target, beat, beats }: Strike,
  { neck, metre }: StopsRequest,
  last: boolean,
): number {
  const { clashes, tones } = readingOf(span.chord)(span.material);
  const felt = isStrong(beat, metre) || beats >= BEAT;
  const meets = Math.abs(beat - span.beat) < BEAT;
  const voices = [low, high].reduce((sum, { note }) => {
    const pitch = pitchClass(note);
    const guide = weightOver(span.chord, degreeOver(span.chord, note)) === 'guide';
    const { colour, clash } = COSTS;
    const outside = tones.has(pitch) ? 0 : last ? colour.last : felt ? colour.strong : colour.weak;
    const rubs = clashes.has(pitch) ? (felt ? clash.held : clash.passing) : 0;
    return sum + outside + rubs + (guide && meets ? COSTS.guide : 0);
  }, 0);
  const aimed = !target
    ? 0
    : pitchClass(high.note) === midi % 12
      ? COSTS.aimed.high
      : pitchClass(low.note) === midi % 12
        ? COSTS.aimed.low
        : 0;
  const muddy = COSTS.muddy * Math.max(0, MUD[kind] - pitchAt(neck, low));
  return voices + aimed + muddy + COSTS.away * Math.abs(pitchAt(neck, high) - midi);
}

function moving(from: Stop, to: Stop, neck: Neck, over: Chord | null): number {
  const ways = (['low', 'high'] as const).map(
    (voice) => [pitchAt(neck, from[voice]), pitchAt(neck, to[voice])] as const,
  );
  const size = Math.max(...ways.map(([before, after]) => Math.abs(after - before)));
  const backward = over !== null && ways.some((way) => fallsBackward(over, ...way));
  const open = [from, to].some(({ low }) => low.fret === 0);
  const shift = open ? 0 : Math.max(0, Math.abs(to.low.fret - from.low.fret) - HAND);
  return (
    (COSTS.moves[size] ?? COSTS.leap) +
    (from.kind === to.kind ? 0 : COSTS.kind) +
    (from.low.string === to.low.string ? 0 : COSTS.strings) +
    (shift > 0 ? COSTS.shift : 0) +
    (backward ? COSTS.backward : 0)
  );
}

/** How high both voices lie together. */
const heightOf = ({ low, high }: Stop, neck: Neck): number =>
  pitchAt(neck, low) + pitchAt(neck, high);

/** What every move from one layer to the next costs, and its way. */
function movesInto(from: readonly Stop[], to: readonly Stop[], neck: Neck, over: Chord | null) {
  const pairs = from.flatMap((here) => to.map((there) => [here, there] as const));
  return {
    costs: Float64Array.from(pairs, ([here, there]) => moving(here, there, neck, over)),
    moves: Int8Array.from(pairs, ([here, there]) =>
      Math.sign(heightOf(there, neck) - heightOf(here, neck)),
    ),
  };
}

/** The pair of frets between two stops a whole step apart on the same strings; null where there is none. */
function between(from: Stop, to: Stop, { chord }: ChordSpan, neck: Neck): Stop | null {
  const way = to.low.fret - from.low.fret;
  const alike =
    Math.abs(way) === 2 &&
    to.high.fret - from.high.fret === way &&
    from.low.string === to.low.string &&
    from.high.string === to.high.string;
  if (!alike) return null;
  const halfWay = ({ string, fret }: Placed): Placed => {
    const place = { string, fret: fret + way / 2 };
    return { ...place, note: spellOver(chord, pitchAt(neck, place)) };
  };
  return { low: halfWay(from.low), high: halfWay(from.high), kind: from.kind };
}

/** Double stops over a form. */
export function doubleStops(request: StopsRequest): readonly PlayedNote[] {
  const { neck, zone, metre, style, seed } = request;
  const known = new Map<ChordSpan, readonly Stop[]>();
  const stopsOver = (span: ChordSpan) => {
    const found = known.get(span) ?? stopsIn(neck, span, zone);
    known.set(span, found);
    return found;
  };
  const strikes = strikesOf(request).filter(({ span }) => stopsOver(span).length > 0);
  const choices = strikes.map(({ span }) => stopsOver(span));
  /** The chord that sounds on from the strike before; null where another has come. */
  const overBoth = (which: number): Chord | null => {
    const [before, here] = [at(strikes, which - 1).span.chord, at(strikes, which).span.chord];
    return sameChord(before, here) ? here : null;
  };
  const walk = cheapestWalk(
    choices.map((layer, which) => ({
      stands: layer.map(
        (stop, node) =>
          standing(stop, at(strikes, which), request, which === strikes.length - 1) +
          COSTS.jitter * hashed(seed, which, node),
      ),
      ...(which === 0
        ? {}
        : { into: movesInto(at(choices, which - 1), layer, neck, overBoth(which)) }),
    })),
    {
      states: 4,
      begin: [STEADY, STEADY | UP],
      turn: (which, state, way) => {
        if (at(strikes, which).begins) return { next: STEADY | (way > 0 ? UP : 0), cost: 0 };
        const up = way === 0 ? state & UP : way > 0 ? UP : 0;
        if (up === (state & UP)) return { next: up | STEADY, cost: 0 };
        return { next: up, cost: state & STEADY ? COSTS.turn : COSTS.sway };
      },
    },
  );
  const taken = walk.map((node, which) => at(at(choices, which), node));
  const { hands, blue } = STYLE_ROWS[style];
  const passing = passingOf(metre);
  return taken.flatMap((stop, which): readonly PlayedNote[] => {
    const { beat, beats, span, begins, target, midi } = at(strikes, which);
    const [next, then] = [strikes[which + 1], taken[which + 1]];
    const joins = next && then && !next.begins && beats >= 2 * passing;
    const pair =
      blue !== null && joins && hashed(seed, which, 3) < BETWEEN
        ? between(stop, then, next.span, neck)
        : null;
    const slides =
      begins &&
      Math.min(stop.low.fret, stop.high.fret) > zone.low &&
      hashed(seed, which, 5) < 2 * hands.slide;
    const sounded = ({ low, high }: Stop, from: Beats, long: Beats, slid: boolean) =>
      [low, high].map(({ string, fret, note }) => {
        const aimed = target && from === beat && pitchClass(note) === midi % 12;
        return struck({
          beat: from,
          beats: long,
          string,
          fret,
          note,
          chord: span.index,
          part: aimed ? 'target' : 'fill',
          techniques: slid ? [{ kind: 'slide', from: fret - 1 }] : [],
        });
      });
    const whole = pair ? beats - passing : beats;
    return [
      ...sounded(stop, beat, whole, slides),
      ...(pair ? sounded(pair, beat + whole, passing, false) : []),
    ];
  });
}
