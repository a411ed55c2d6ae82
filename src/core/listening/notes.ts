/**
 * One melody line out of sound, as it comes in or whole: each strike weighed for its pitch, each
 * pitch followed while it sounds, so that a repeated note, a slur, a slide and a bend are told apart.
 */
import { at } from '../lists';
import type { Hertz, Midi } from '../notes/pitch';
import type { Seconds } from '../time/units';
import { type ContourPoint, contourOf } from './contour';
import { pitchesAt, type Weighed } from './pitches';
import { createStrikes, HOP, type Strike } from './strikes';
import { createTape } from './tape';

/** A note that was heard. */
export interface HeardNote {
  /** When it begins, and how long it lasts. */
  readonly seconds: Seconds;
  readonly length: Seconds;
  /** The pitch it begins at, and how far it lies from that. */
  readonly midi: Midi;
  readonly cents: number;
  /** How sure that is, 0 to 1. */
  readonly clarity: number;
  /** How far it is bent while it sounds, in half steps to the quarter tone; 0 where it is not. */
  readonly bent: number;
  /** How it was come to: struck, or from the note before without a pick. */
  readonly from: 'pick' | 'slur' | 'slide';
}

/** What sounds at a moment: since when, and its pitch with its cents after the point. */
export interface Sounding {
  readonly seconds: Seconds;
  readonly pitch: number;
  readonly clarity: number;
  readonly level: number;
}

/** What decides, in decibels, seconds and half steps. */
const RULES = {
  /** What weighs less than any guitar did is noise; so is what is nowhere periodic. */
  weight: 12,
  /** Points of a contour that are less periodic say nothing. */
  clear: 0.45,
  /** A strike is weighed when so much has been heard since, unless another follows sooner. */
  heard: { until: 0.105, ready: 0.2 },
  /** A line goes on from the note before for so long. */
  line: 1,
  /** A strike of the same pitch that grew less is the same note going on. */
  again: { growth: 1.75, near: 0.6, gap: 0.03 },
  /** A strike in a pitch that glides, and can be followed through, is no strike. */
  through: { growth: 8, before: 0.08, after: 0.09, clear: 0.5, points: 3 },
  /** A contour is lost where so many points are less clear. */
  lost: { points: 8, clear: 0.5 },
  /** A fret passed on the way, without a pick. */
  passed: 0.08,
  /** The pick has died away, and a pitch stands. */
  settled: 0.02,
  steady: 0.12,
  /** A note is over when it falls so far below its loudest. */
  fall: 26,
  /**
   * A glide goes at least so far and stands there for so many points; a finger on the same string
   * bends up to here and no further, and takes so many points on its way.
   */
  glide: { least: 0.8, bend: 3.3, points: 4, held: 6, steady: 0.15 },
  /** How sharp a string may begin that is struck hard. */
  sharp: 0.8,
  /** Less is not called bent. */
  bent: 0.35,
  shortest: 0.035,
  /** So long after its end a note is told of, without waiting for the next. */
  quiet: 0.3,
  /** Growth or rise over which a note was picked, not slurred. */
  pick: { growth: 14, rise: 1.5 },
} as const;
/** A tape keeps so many seconds; no note is longer. */
const KEPT = 12;
const SILENT = -120;

/** Hears notes in samples as they come. */
export interface Listener {
  /** Takes samples, mono, −1 to 1; answers the notes that have ended. */
  hear(samples: Float32Array): readonly HeardNote[];
  /** When anything was last struck, be it no note. */
  struck(): Seconds | null;
  /** What sounds now; null where nothing clear does. */
  sounding(): Sounding | null;
  /** The last notes, when no more sound will come. */
  finish(): readonly HeardNote[];
}

const median = (values: readonly number[]): number => {
  const sorted = values.toSorted((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)] ?? 0;
};

/** Where a contour has gone to another fret: the first point of the new pitch, and that pitch. */
interface Glide {
  readonly place: number;
  readonly pitch: number;
  /** Where it was lost and found again, what it is found at. */
  readonly hertz: Hertz | null;
}

/** How many points of a contour lie between two pitches: the longer a glide takes, the more. */
function between(points: readonly ContourPoint[], from: number, to: number): number {
  return points.filter(({ pitch }) => {
    const share = (pitch - from) / (to - from);
    return share > 0.2 && share < 0.8;
  }).length;
}

/** A slide within a contour; a bend, which goes up slowly and not far, is none. */
function slideIn(points: readonly ContourPoint[], begin: number): Glide | null {
  const { least, bend, points: quick, held, steady } = RULES.glide;
  for (let place = 1; place + held <= points.length; place++) {
    const stand = points.slice(place, place + held).map(({ pitch }) => pitch);
    const pitch = median(stand);
    const away = pitch - begin;
    if (Math.abs(away) < least || stand.some((one) => Math.abs(one - pitch) > steady)) continue;
    const isBend =
      away > 0 && away <= bend && between(points.slice(0, place + 1), begin, pitch) >= quick;
    if (!isBend) return { place, pitch, hertz: null };
    // What goes up and stays is bent: only from there on may it slide.
  }
  return null;
}

/** A note that has begun and not yet ended. */
interface Begun {
  readonly seconds: Seconds;
  readonly found: Weighed;
  readonly from: HeardNote['from'];
}

/** A listener to samples at a rate in hertz. */
export function createListener(rate: number): Listener {
  const tape = createTape(rate);
  const strikes = createStrikes(tape);
  let waiting: readonly Strike[] = [];
  let current: Begun | null = null;
  /** Whether it has been told of, having died away before another came. */
  let told = false;
  let lastStrike: Seconds | null = null;
  let last: { readonly midi: Midi; readonly end: Seconds } | null = null;

  const now = () => tape.length / tape.rate;
  const levelAt = (seconds: Seconds) => strikes.levels[Math.round(seconds / HOP)] ?? SILENT;
  function loudestIn(from: Seconds, to: Seconds): number {
    let loudest = SILENT;
    for (let seconds = from; seconds < to; seconds += HOP)
      loudest = Math.max(loudest, levelAt(seconds));
    return loudest;
  }

  const floorAt = (seconds: Seconds) => strikes.floors[Math.round(seconds / HOP)] ?? SILENT;

  /** Where what begins at a moment has died away, before another does. */
  function endOf(from: Seconds, to: Seconds): Seconds {
    let loudest = -Infinity;
    for (let seconds = from + HOP; seconds < to; seconds += HOP) {
      const level = levelAt(seconds);
      loudest = Math.max(loudest, level);
      const over = level < floorAt(seconds) || level < loudest - RULES.fall;
      if (over && seconds - from > RULES.shortest) return seconds;
    }
    return to;
  }

  const bestAt = (strike: Seconds, next: Seconds, before: Midi | null): Weighed =>
    pitchesAt(tape, strike, next, before).reduce((best, one) =>
      one.weight > best.weight ? one : best,
    );

  /** The contour of a note that has begun, up to a moment. */
  const contourTo = ({ seconds, found }: Begun, to: Seconds) =>
    contourOf(tape, found.hertz, seconds + RULES.settled, to);

  /** Whether a strike is only the note that sounds going on, or gliding. */
  function goesOn(begun: Begun, strike: Strike, found: Weighed): boolean {
    const { again, through } = RULES;
    if (strike.growth >= through.growth) return false;
    if (endOf(begun.seconds, strike.seconds) < strike.seconds - again.gap) return false;
    const points = contourTo(begun, strike.seconds + through.after);
    const about = points.filter(({ seconds }) => seconds > strike.seconds - through.before);
    const [first, final] = [about[0], about.at(-1)];
    if (!first || !final) return false;
    const away = final.pitch - first.pitch;
    if (strike.growth < again.growth && Math.abs(found.midi - first.pitch) < again.near)
      return true;
    const followed =
      about.every(({ clarity }) => clarity >= through.clear) &&
      Math.abs(final.pitch - found.midi) < again.near;
    const glides = between(about, first.pitch, final.pitch) >= through.points;
    return followed && Math.abs(away) >= 0.3 && glides;
  }

  /** A note as it is told, of a stretch of its contour. */
  function noteFrom(
    points: readonly ContourPoint[],
    from: Seconds,
    end: Seconds,
    midi: Midi,
    how: HeardNote['from'],
  ): HeardNote {
    const clear = points.filter(({ clarity }) => clarity >= RULES.clear);
    const early = clear.filter(({ seconds }) => seconds < from + RULES.steady);
    const begin = early.length > 0 ? median(early.map(({ pitch }) => pitch)) : midi;
    const near = clear.filter(({ pitch }) => Math.abs(pitch - begin) < 0.3);
    let pitch = near.length > 0 ? median(near.map((one) => one.pitch)) : begin;
    let bent = 0;
    for (let place = 0; place + 4 <= clear.length; place++) {
      const away = median(clear.slice(place, place + 4).map((one) => one.pitch)) - pitch;
      if (Math.abs(away) > Math.abs(bent)) bent = away;
    }
    if (bent < 0 && bent > -RULES.sharp) {
      // A string struck hard begins sharp: it is as high as it then rings.
      pitch = median(clear.map((one) => one.pitch));
      bent = 0;
    }
    const nearest = Math.round(pitch);
    return {
      seconds: from,
      length: end - from,
      midi: Math.abs(nearest - midi) <= 1 ? nearest : midi,
      cents: Math.max(-60, Math.min(60, Math.round(100 * (pitch - nearest)))),
      clarity: clear.reduce((sum, { clarity }) => sum + clarity, 0) / Math.max(1, clear.length),
      bent: Math.abs(bent) >= RULES.bent ? Math.round(2 * bent) / 2 : 0,
      from: how,
    };
  }

  /** Where a contour is lost, and the pitch that is there instead. */
  function lostIn(points: readonly ContourPoint[], midi: Midi): Glide | null {
    const { points: most, clear } = RULES.lost;
    const place = points.findIndex((_, first) => {
      const run = points.slice(first, first + most);
      return run.length === most && run.every(({ clarity }) => clarity < clear);
    });
    if (place < 1) return null;
    const { seconds } = at(points, place);
    const found = bestAt(seconds + RULES.heard.until / 2, Infinity, midi);
    return found.weight >= RULES.weight && found.midi !== midi
      ? { place, pitch: found.midi, hertz: found.hertz }
      : null;
  }

  /** The notes of what has begun, now that it ends: more than one where it slides. */
  function ended(begun: Begun, next: Seconds): readonly HeardNote[] {
    const end = endOf(begun.seconds, next);
    if (end - begun.seconds < RULES.shortest) return [];
    const notes: HeardNote[] = [];
    let rest = contourTo(begun, end - RULES.settled);
    let { seconds: from, from: how } = begun;
    let { midi } = begun.found;
    for (;;) {
      const begin = median(rest.slice(0, 6).map(({ pitch }) => pitch));
      const slide = rest.length > 8 ? (slideIn(rest, begin) ?? lostIn(rest, midi)) : null;
      const to = slide ? at(rest, slide.place).seconds : end;
      const note = noteFrom(slide ? rest.slice(0, slide.place) : rest, from, to, midi, how);
      // A fret passed on the way is no note of its own.
      const passes = slide && how === 'slide' && to - from < RULES.passed;
      if (!passes && note.clarity > 0) notes.push(note);
      if (!slide) break;
      [from, how, midi] = [passes ? from : to, 'slide', Math.round(slide.pitch)];
      rest = slide.hertz
        ? contourOf(tape, slide.hertz, to, end - RULES.settled)
        : rest.slice(slide.place);
    }
    const final = notes.at(-1);
    if (final) last = { midi: final.midi, end };
    return notes;
  }

  /** What a strike begins, as far as it is heard by now; null where that is noise. */
  function begunAt(strike: Strike, next: Seconds = Infinity): Begun | null {
    const { seconds, growth } = strike;
    const loudest = loudestIn(seconds, Math.min(next, seconds + RULES.heard.until));
    if (loudest < floorAt(seconds)) return null;
    const line = last && seconds - last.end < RULES.line ? last.midi : null;
    const found = bestAt(seconds, next, current?.found.midi ?? line);
    if (found.weight < RULES.weight) return null;
    const rose = loudest - levelAt(seconds - 0.012);
    const picked = !current || growth >= RULES.pick.growth || rose >= RULES.pick.rise;
    return { seconds, found, from: picked ? 'pick' : 'slur' };
  }

  /** What a strike brings: the notes that end with it. */
  function struck(strike: Strike, next: Seconds): readonly HeardNote[] {
    const begun = begunAt(strike, next);
    const before = current;
    if (!begun || (before && goesOn(before, strike, begun.found))) return [];
    const passed = before && strike.seconds - before.seconds < RULES.passed;
    if (passed && begun.from !== 'pick' && before.from !== 'pick') {
      current = { ...before, found: begun.found, from: 'slide' };
      return [];
    }
    const notes = before && !told ? ended(before, strike.seconds) : [];
    current = begun;
    told = false;
    return notes;
  }

  /** The note that has died away, once it has. */
  function diedAway(): readonly HeardNote[] {
    const end = now();
    if (!current || told || endOf(current.seconds, end) >= end - RULES.quiet) return [];
    told = true;
    return ended(current, end);
  }

  /** Takes the strikes that can be weighed, or all. */
  function take(more: readonly Strike[], all: boolean): readonly HeardNote[] {
    waiting = [...waiting, ...more];
    lastStrike = more.at(-1)?.seconds ?? lastStrike;
    const notes: HeardNote[] = [];
    while (waiting.length > 0) {
      const strike = at(waiting, 0);
      if (!all && now() < strike.seconds + RULES.heard.ready) break;
      const next = Math.min(waiting[1]?.seconds ?? Infinity, strike.seconds + RULES.heard.until);
      notes.push(...struck(strike, next));
      waiting = waiting.slice(1);
    }
    return notes;
  }

  return {
    hear(samples) {
      tape.append(samples);
      const notes = [...take(strikes.look(), false), ...diedAway()];
      tape.forget(tape.length - KEPT * tape.rate);
      return notes;
    },
    struck: () => lastStrike,
    sounding() {
      const strike = waiting.at(-1);
      const fresh = strike !== undefined && now() >= strike.seconds + RULES.heard.until;
      const begun = fresh ? begunAt(strike) : waiting.length > 0 ? null : current;
      const end = now();
      const over = 2 * RULES.shortest;
      if (!begun || endOf(begun.seconds, end) < end - over) return null;
      const point = contourTo(begun, end - over).findLast(({ clarity }) => clarity > RULES.clear);
      if (!point) return null;
      const level = levelAt(end - over);
      return { seconds: begun.seconds, pitch: point.pitch, clarity: point.clarity, level };
    },
    finish() {
      const notes = take(strikes.finish(), true);
      const rest = current && !told ? ended(current, now()) : [];
      current = null;
      return [...notes, ...rest];
    },
  };
}

/** Samples handed to a listener at a time when all are there. */
const AT_ONCE = 8_192;

/** The one melody line of a whole sound, mono, −1 to 1, at a rate in hertz. */
export function notesIn(samples: Float32Array, rate: number): readonly HeardNote[] {
  const listener = createListener(rate);
  const notes: HeardNote[] = [];
  for (let from = 0; from < samples.length; from += AT_ONCE)
    notes.push(...listener.hear(samples.subarray(from, from + AT_ONCE)));
  return [...notes, ...listener.finish()];
}
