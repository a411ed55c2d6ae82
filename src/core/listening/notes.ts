/** Notes out of frames: where each begins and ends, its pitch, and how it bends. */
import { at, range } from '../lists';
import { FLOOR, type Frame, HOP } from './frames';

export interface HeardNote {
  /** When it begins, and how long it lasts. */
  readonly seconds: number;
  readonly length: number;
  /** The nearest pitch, and how far it lies from that. */
  readonly midi: number;
  readonly cents: number;
  /** How sure that is, 0 to 1. */
  readonly clarity: number;
  /** How far it is bent while it sounds, in half steps; 0 where it is not. */
  readonly bent: number;
  /** Whether it was struck, or slurred from the note before. */
  readonly struck: boolean;
}

/** What decides, in frames, decibels and half steps. */
const RULES = {
  /** Rise within so many frames that makes a pick, and how far apart two of them lie. */
  rise: { frames: 4, level: 3, bright: 4 },
  apart: 9,
  /** A new note without a pick: so far away, held for so long, come to within so long. */
  slur: { halfSteps: 0.7, held: 7, within: 12 },
  /** Shortest note that is reported. */
  shortest: 8,
  /** A note is over when it falls so far below its loudest, or under the floor. */
  fall: 26,
  floor: -52,
  clarity: 0.7,
} as const;

const median = (values: readonly number[]): number => {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)] ?? 0;
};

/** How much of a frame is new: the rise of its level and of what is high in it. */
function novelties(frames: readonly Frame[]): readonly number[] {
  const { frames: back, level, bright } = RULES.rise;
  return frames.map((frame, index) => {
    if (frame.level < RULES.floor) return 0;
    let least = { level: frame.level, bright: frame.bright };
    for (let step = 1; step <= back; step++) {
      const before = frames[index - step];
      const own = before ?? { level: FLOOR, bright: FLOOR };
      least = {
        level: Math.min(least.level, own.level),
        bright: Math.min(least.bright, own.bright),
      };
    }
    return Math.max(
      (frame.bright - Math.max(least.bright, -80)) / bright,
      (frame.level - Math.max(least.level, -70)) / level,
    );
  });
}

/** Frames at which a string is struck. */
function strikesIn(frames: readonly Frame[]): readonly number[] {
  const novelty = novelties(frames);
  const found: number[] = [];
  for (let index = 0; index < frames.length; index++) {
    const here = at(novelty, index);
    if (here < 1) continue;
    let peak = index;
    while (peak + 1 < frames.length && at(novelty, peak + 1) > at(novelty, peak)) peak += 1;
    const last = found.at(-1);
    // A note begins where its rise begins, not where it is steepest.
    if (last === undefined || index - last >= RULES.apart) found.push(index);
    index = peak + 2;
  }
  return found;
}

/** The middle pitch of some frames; null where too few are clear. */
function pitchIn(frames: readonly Frame[], from: number, to: number, least = 3): number | null {
  const clear = frames
    .slice(from, to)
    .flatMap(({ pitch, clarity }) => (pitch !== null && clarity >= RULES.clarity ? [pitch] : []));
  return clear.length >= least ? median(clear) : null;
}

/** Frames within a stretch at which another pitch is held that was come to at once. */
function slursIn(frames: readonly Frame[], from: number, to: number): readonly number[] {
  const { halfSteps, held, within } = RULES.slur;
  const found: number[] = [];
  let begin = from;
  let index = from + held;
  while (index + held <= to) {
    const before = pitchIn(frames, Math.max(begin, index - held), index);
    const after = pitchIn(frames, index, Math.min(to, index + held), 5);
    const far = before !== null && after !== null && Math.abs(after - before) >= halfSteps;
    if (!far) {
      index += 1;
      continue;
    }
    // A bend goes through what lies between; a slurred note is there at once.
    const [low, high] = before < after ? [before, after] : [after, before];
    const way = frames
      .slice(Math.max(begin, index - within), Math.min(to, index + within))
      .filter(({ pitch }) => pitch !== null && pitch > low + 0.25 && pitch < high - 0.25);
    const bends = high - low < 4.5 && way.length > 13;
    if (!bends) {
      const change = range(Math.max(begin + 1, index - held), Math.min(to, index + held)).find(
        (one) => {
          const pitch = frames[one]?.pitch ?? null;
          return pitch !== null && Math.abs(pitch - after) < 0.4;
        },
      );
      found.push(change ?? index);
      begin = index;
      index += held;
    } else {
      begin = index;
      index += within;
    }
  }
  return found;
}

/** Where a note that begins somewhere ends, before another does. */
function endOf(frames: readonly Frame[], from: number, to: number): number {
  let loudest = -Infinity;
  for (let index = from; index < to; index++) {
    const { level } = at(frames, index);
    loudest = Math.max(loudest, level);
    if (level < RULES.floor || (index - from > 6 && level < loudest - RULES.fall)) return index;
  }
  return to;
}

/** Frames at which the pitch is looked at only after the pick has died away. */
const ATTACK = 4;

function noteOf(
  frames: readonly Frame[],
  from: number,
  to: number,
  struck: boolean,
): HeardNote | null {
  const end = endOf(frames, from, to);
  if (end - from < RULES.shortest) return null;
  const settled = Math.min(from + ATTACK, end - 4);
  const early = pitchIn(frames, settled, Math.min(end, settled + 14)) ?? pitchIn(frames, from, end);
  if (early === null) return null;
  const clear = frames
    .slice(settled, end)
    .flatMap(({ pitch, clarity }) => (pitch !== null && clarity >= RULES.clarity ? [pitch] : []));
  if (clear.length * 3 < end - settled) return null;
  const near = clear.filter((pitch) => Math.abs(pitch - early) < 0.5);
  const pitch = near.length > 0 ? median(near) : early;
  const furthest = clear.reduce(
    (far, one) =>
      Math.abs(one - early) > Math.abs(far) && Math.abs(one - early) < 4.6 ? one - early : far,
    0,
  );
  // Only what is held up there for a while is a bend.
  const held = clear.filter((one) => Math.abs(one - early - furthest) < 0.3).length;
  const bent = Math.abs(furthest) >= 0.4 && held >= 5 ? furthest : 0;
  const midi = Math.round(pitch);
  const clarity =
    frames.slice(settled, end).reduce((sum, one) => sum + one.clarity, 0) / (end - settled);
  return {
    seconds: at(frames, from).seconds - HOP / 2,
    length: (end - from) * HOP,
    midi,
    cents: Math.round(100 * (pitch - midi)),
    clarity: Math.max(0, Math.min(1, clarity)),
    bent,
    struck,
  };
}

/** Octaves that the ear would not hear: a note lone among neighbours an octave away, for a moment. */
function heardAsOne(notes: readonly HeardNote[]): readonly HeardNote[] {
  const kept: HeardNote[] = [];
  for (const note of notes) {
    const last = kept.at(-1);
    const octave = last && Math.abs(last.midi - note.midi) === 12 && !note.struck;
    const again = last && last.midi === note.midi && !note.struck;
    if (last && (octave || again)) {
      const length = note.seconds + note.length - last.seconds;
      kept[kept.length - 1] = { ...last, length };
    } else kept.push(note);
  }
  return kept;
}

/** The one melody line of some frames. */
export function notesIn(frames: readonly Frame[]): readonly HeardNote[] {
  const strikes = strikesIn(frames);
  const starts = strikes.flatMap((from, index) => {
    const to = strikes[index + 1] ?? frames.length;
    const slurs = slursIn(frames, from + ATTACK, to);
    return [{ from, struck: true }, ...slurs.map((one) => ({ from: one, struck: false }))];
  });
  const notes = starts.flatMap(({ from, struck }, index): readonly HeardNote[] => {
    const to = starts[index + 1]?.from ?? frames.length;
    const note = noteOf(frames, from, to, struck);
    return note ? [note] : [];
  });
  return heardAsOne(notes);
}
