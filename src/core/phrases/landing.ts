/**
 * The one rule of landing: which of some notes meets a chord as it begins, and how. Licks, lines, takes,
 * the stage and the log ask it.
 *
 * A note that begins with the chord meets it; where it is no tone of it and a step within a beat leads to
 * one, that one does, delayed (an appoggiatura, an enclosure). Else a note of the beat before that is held
 * into it, anticipated, or what it leads to in the same way (a suspension); else the first that begins within a beat after it. (The common practice of
 * suspensions, anticipations and enclosures, as any harmony text for improvisers gives it.)
 */
import type { Chord } from '../chords/chords';
import { modulo } from '../lists';
import { halfSteps, pitchClass } from '../notes/notes';
import type { Midi } from '../notes/pitch';
import { BEAT, type Beats, type BeatsPerMinute } from '../time/units';
import { beatsIn } from '../time/tempo';

/** A note as it is heard: bent, at the pitch it arrives at. */
export interface SoundingNote {
  readonly beat: Beats;
  /** How long it lasts; null where that is not known: then up to the next. */
  readonly beats: Beats | null;
  readonly midi: Midi;
  /** Whether it belongs to the note after it, and never lands itself. */
  readonly grace?: boolean | undefined;
}

/** A chord that begins at a beat, for so long. */
interface Meeting {
  readonly chord: Chord;
  readonly beat: Beats;
  readonly beats: Beats;
}

/** How a chord is met. */
export const HOWS = ['on', 'anticipated', 'delayed', 'after'] as const;
export type How = (typeof HOWS)[number];

/** The note by which a target is met. */
export interface Met {
  /** Index of the note. */
  readonly by: number;
  readonly how: How;
}

/** On time is a quarter of a beat, or what nobody hears apart, in seconds, where that is longer. */
const TOGETHER = { beats: BEAT / 4, seconds: 0.09 } as const;
/** From how long before a chord to how long after its beginning a note may meet it. */
export const WITHIN: Beats = BEAT;
/** For how long into the chord a note from before it is held, where it is meant for it. */
const HELD: Beats = BEAT / 4;
/** A step, in half steps. */
const STEP = 2;

/** How far from its moment a note is on time, where no tempo is known. */
export const ON_TIME: Beats = TOGETHER.beats;

/**
 * How far from its moment a note is still on time at a tempo.
 *
 * @example inBeats(onTime(120)); // 0.25
 */
export const onTime = (bpm: BeatsPerMinute): Beats =>
  Math.max(TOGETHER.beats, beatsIn(TOGETHER.seconds, bpm));

/**
 * Whether a pitch is a tone of a chord, its bass left out.
 *
 * @example isTone(parseChord('C7'), 70); // true
 */
export const isTone = ({ root, quality }: Chord, midi: Midi): boolean =>
  quality.degrees.some((tone) => halfSteps(tone) === modulo(midi - pitchClass(root), 12));

/** The end of a note: where it is not known, the beginning of the next that sounds later. */
const endOf = (notes: readonly SoundingNote[], { beat, beats }: SoundingNote): Beats =>
  beats === null
    ? notes.reduce((end, one) => (one.beat > beat ? Math.min(end, one.beat) : end), Infinity)
    : beat + beats;

/** Whether so late counts as on the beat. */
export const isOn = (late: Beats, tolerance: Beats): boolean => Math.abs(late) <= tolerance;

/** Whether a note of the beat before a chord is held into it. */
export function isAnticipated(
  notes: readonly SoundingNote[],
  note: SoundingNote,
  { beat, beats }: Meeting,
): boolean {
  const held = Math.min(HELD, beats / 2);
  return note.beat >= beat - WITHIN && endOf(notes, note) >= beat + held;
}

/** Up to when, after it has begun, a note may still meet a chord: the next one has its own. */
export const lastMoment = ({ beats }: Meeting, tolerance: Beats): Beats =>
  Math.min(WITHIN, beats - tolerance);

/** The chord tone a line that stands beside the chord reaches by a step within a beat; none as −1. */
function resolution(
  notes: readonly SoundingNote[],
  from: number,
  meeting: Meeting,
  last: Beats,
): number {
  const struck = notes.flatMap((note, index) => (note.grace === true ? [] : [{ note, index }]));
  for (let place = struck.findIndex(({ index }) => index === from) + 1; ; place++) {
    const [before, here] = [struck[place - 1], struck[place]];
    if (!before || !here || here.note.beat - meeting.beat > last) return -1;
    const step = Math.abs(here.note.midi - before.note.midi);
    if (step > 0 && step <= STEP && isTone(meeting.chord, here.note.midi)) return here.index;
  }
}

/**
 * The note that meets a chord, of notes in order of time; null where none does. `tolerance` is how far from
 * its moment a note is on time.
 *
 * @example
 * // F on the downbeat of Cmaj7, E half a beat later: the E, delayed.
 * meetingOf(notes, { chord: cmaj7, beat: 4 * BEAT, beats: 4 * BEAT }, onTime(120)) // { by: 1, how: 'delayed' }
 */
export function meetingOf(
  notes: readonly SoundingNote[],
  meeting: Meeting,
  tolerance: Beats,
): Met | null {
  const late = ({ beat }: SoundingNote) => beat - meeting.beat;
  const sounding = (note: SoundingNote) => note.grace !== true;
  const near = (note: SoundingNote) => Math.abs(late(note));
  const last = lastMoment(meeting, tolerance);

  // Of several that begin with it, a tone of the chord, and the nearest.
  let on = -1;
  notes.forEach((note, index) => {
    if (!sounding(note) || !isOn(late(note), tolerance)) return;
    const best = notes[on];
    const [own, other] = [note, best].map((one) => one && isTone(meeting.chord, one.midi));
    if (!best || (own && !other) || (own === other && near(note) < near(best))) on = index;
  });
  const begins = notes[on];
  if (begins) {
    if (isTone(meeting.chord, begins.midi)) return { by: on, how: 'on' };
    const reached = resolution(notes, on, meeting, last);
    return reached < 0 ? { by: on, how: 'on' } : { by: reached, how: 'delayed' };
  }
  const held = notes.findLastIndex(
    (note) => sounding(note) && late(note) < -tolerance && isAnticipated(notes, note, meeting),
  );
  const over = notes[held];
  if (over) {
    // A suspension: what is held over the change leads into it.
    const reached = isTone(meeting.chord, over.midi) ? -1 : resolution(notes, held, meeting, last);
    return reached < 0 ? { by: held, how: 'anticipated' } : { by: reached, how: 'delayed' };
  }
  const after = notes.findIndex(
    (note) => sounding(note) && late(note) >= tolerance && late(note) <= last,
  );
  return after < 0 ? null : { by: after, how: 'after' };
}

/** Index of the note nearest to a beat of those that hold, the earlier of two alike; −1 where none does. */
export function nearestTo<N extends SoundingNote>(
  notes: readonly N[],
  beat: Beats,
  holds: (note: N, late: Beats, index: number) => boolean,
): number {
  let best = { index: -1, away: Infinity };
  notes.forEach((note, index) => {
    const late = note.beat - beat;
    if (note.grace === true || !holds(note, late, index)) return;
    if (Math.abs(late) < best.away) best = { index, away: Math.abs(late) };
  });
  return best.index;
}

/**
 * How a pitch that was aimed at meets a chord: with it, held into it, or within a beat of it, *delayed*
 * where something else stood there first; null where it does not. Notes that have answered another target
 * are `taken`.
 */
export function landingOn(
  notes: readonly SoundingNote[],
  meeting: Meeting,
  midi: Midi,
  tolerance: Beats,
  taken: ReadonlySet<number> = new Set(),
): Met | null {
  const lateOf = ({ beat }: SoundingNote) => beat - meeting.beat;
  const nearest = (holds: (note: SoundingNote, late: Beats) => boolean): number =>
    nearestTo(
      notes,
      meeting.beat,
      (note, late, index) => note.midi === midi && !taken.has(index) && holds(note, late),
    );
  const on = nearest((_, late) => isOn(late, tolerance));
  if (on >= 0) return { by: on, how: 'on' };
  const held = nearest((note, late) => late < -tolerance && isAnticipated(notes, note, meeting));
  if (held >= 0) return { by: held, how: 'anticipated' };
  const last = lastMoment(meeting, tolerance);
  const after = nearest((_, late) => late > tolerance && late <= last);
  const found = notes[after];
  if (found) {
    const before = notes.some(
      (note) =>
        note.grace !== true &&
        note.beat < found.beat &&
        (lateOf(note) >= -tolerance || isAnticipated(notes, note, meeting)),
    );
    return { by: after, how: before ? 'delayed' : 'after' };
  }
  // A note that has sounded all along is there when its chord comes.
  const long = nearest(
    (note, late) =>
      late < -WITHIN &&
      note.beats !== null &&
      late + note.beats >= Math.min(tolerance, meeting.beats / 2),
  );
  return long < 0 ? null : { by: long, how: 'anticipated' };
}
