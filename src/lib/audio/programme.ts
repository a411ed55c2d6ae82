/** What is played: events in beats, a tempo, and whether it comes round. */
import { pitchAt } from '$core/neck/neck';
import type { Midi } from '$core/notes/pitch';
import type { Passage, PlayedNote } from '$core/phrases/passage';
import { playedAt } from '$core/time/feel';
import { DEFAULT_TEMPO, type TempoMap, tempoMap } from '$core/time/tempo';
import type { Beats } from '$core/time/units';

export interface SoundEvent {
  readonly beat: Beats;
  readonly beats: Beats;
  readonly midi: Midi;
  /** Loudness from 0 to 1. */
  readonly velocity: number;
}

/** One pass of something to play; beat 0 is its first downbeat. */
export interface Programme {
  /** Where the first pass begins: 0, or below it for a pick-up. */
  readonly start: Beats;
  readonly length: Beats;
  readonly loop: boolean;
  /** Beats that are counted before it begins. */
  readonly countIn: Beats;
  readonly tempo: TempoMap;
  /** What begins from one beat up to, not including, another, in order of time. */
  readonly eventsBetween: (from: Beats, to: Beats) => readonly SoundEvent[];
}

/** A programme of a fixed list of events. */
export function programmeOf(
  events: readonly SoundEvent[],
  rest: Pick<Programme, 'length' | 'tempo'> & Partial<Programme>,
): Programme {
  const inTime = events.toSorted((a, b) => a.beat - b.beat);
  return {
    start: 0,
    loop: false,
    countIn: 0,
    eventsBetween: (from, to) => inTime.filter(({ beat }) => beat >= from && beat < to),
    ...rest,
  };
}

const VELOCITY: Readonly<Record<PlayedNote['part'], number>> = {
  target: 0.85,
  approach: 0.62,
  fill: 0.7,
};

/** A passage round and round, at a share of its tempo, in its feel. */
export function passageProgramme(passage: Passage, speed = 1): Programme {
  const { notes, neck, feel, time, beats, pickUp, tempo } = passage;
  const swung = (beat: Beats) => playedAt(beat, feel, time.unit);
  return programmeOf(
    notes.map((note) => {
      const from = swung(note.beat);
      return {
        beat: from,
        beats: swung(note.beat + note.beats) - from,
        midi: pitchAt(neck, note),
        velocity: VELOCITY[note.part],
      };
    }),
    {
      start: -pickUp,
      length: Math.max(1, beats),
      loop: true,
      tempo: tempoMap([{ beat: 0, bpm: (tempo ?? DEFAULT_TEMPO) * speed }]),
    },
  );
}

/** An event of a programme at the moment it falls, passes counted through. */
export interface Due {
  readonly event: SoundEvent;
  readonly at: Beats;
}

/** What falls in a stretch of beats counted on through all passes. */
export function dueBetween(programme: Programme, from: Beats, to: Beats): readonly Due[] {
  const { start, length, loop, eventsBetween } = programme;
  // The pick-up of a pass falls into the pass before it.
  const first = Math.max(0, Math.floor(from / length));
  const last = loop ? Math.max(first, Math.floor((to - start) / length)) : 0;
  const due: Due[] = [];
  for (let pass = first; pass <= last; pass++) {
    const offset = pass * length;
    const events = eventsBetween(Math.max(start, from - offset), Math.min(length, to - offset));
    for (const event of events) due.push({ event, at: event.beat + offset });
  }
  return due.sort((a, b) => a.at - b.at);
}

/** The second at which a beat counted on through all passes falls; beat 0 is second 0. */
export function secondsThrough({ length, tempo, loop }: Programme, beat: Beats): number {
  const pass = loop ? Math.max(0, Math.floor(beat / length)) : 0;
  return pass * tempo.secondsAt(length) + tempo.secondsAt(beat - pass * length);
}

/** The beat counted on through all passes at a second. */
export function beatThrough({ length, tempo, loop }: Programme, seconds: number): Beats {
  const round = tempo.secondsAt(length);
  const pass = loop ? Math.max(0, Math.floor(seconds / round)) : 0;
  return pass * length + tempo.beatAt(seconds - pass * round);
}
