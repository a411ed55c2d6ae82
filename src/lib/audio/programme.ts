/** What is played: events in time, a tempo, and whether it comes round. */
import type { ClickEvent } from '$core/band/click';
import type { BandEvent, Drum, Room } from '$core/band/events';
import { gainIn, LINE_GAIN } from './balance';
import { PATTERNS } from '$core/band/patterns';
import { BEAT, type Passage, pitchAt } from 'corvel-core';
import type { Midi } from '$core/notes/pitch';
import type { PlayedNote } from '$core/phrases/passage';
import type { Feel } from '$core/time/feel';
import type { TimeSignature } from '$core/time/metre';
import { playedAt } from '$core/time/swing';
import { DEFAULT_TEMPO, type TempoMap, tempoMap } from '$core/time/tempo';
import type { Beats } from '$core/time/units';

/** Which bass plays; the double bass where nothing is said. */
export type Bass = 'double-bass' | 'bass-guitar';

interface Sounding {
  readonly beat: Beats;
  readonly beats: Beats;
  /** Loudness from 0 to 1. */
  readonly velocity: number;
  /** Milliseconds it sounds after its beat; below 0 before it. */
  readonly late?: number;
  /** What balances it among the others, as a factor of amplitude; 1 by itself. */
  readonly gain?: number;
}

export type SoundEvent = Sounding &
  (
    | { readonly part: 'line'; readonly midi: Midi }
    | { readonly part: 'comp'; readonly midi: Midi; readonly room?: Room }
    | { readonly part: 'bass'; readonly midi: Midi; readonly on?: Bass }
    | { readonly part: 'drums'; readonly drum: Drum }
    | { readonly part: 'click'; readonly strong: boolean }
  );

/** One time through: its number, from 0; the beat its first bar begins with; its length. */
export interface PassOf {
  readonly number: number;
  readonly begins: Beats;
  readonly beats: Beats;
}

/**
 * Something to play. Beats are counted on through all its passes: beat 0 is the first downbeat of
 * the first pass.
 */
export interface Programme {
  /** Where the first pass begins: 0, or below it for a pick-up. */
  readonly start: Beats;
  /** Length of the first pass. */
  readonly length: Beats;
  /** The pass a beat lies in, and the pass of a number: the first again and again, if nothing else is said. */
  readonly passAt: (beat: Beats) => PassOf;
  readonly passNumbered: (number: number) => PassOf;
  /** The beat, counted through all passes, at which it stops by itself; null where it goes round. */
  readonly ends: Beats | null;
  /** What counts it in, wherever it begins: beats before that, up to 0. */
  readonly count: readonly SoundEvent[];
  /** How long the count takes. */
  readonly countIn: Beats;
  readonly tempo: TempoMap;
  /** What begins from one beat up to, not including, another, in order of time. */
  readonly eventsBetween: (from: Beats, to: Beats) => readonly SoundEvent[];
}

type Rest = Pick<Programme, 'length' | 'tempo'> & Partial<Programme>;

/**
 * A programme whose passes are each asked for, ended after the first where nothing else is said; a pass may
 * reach before its beat 0 with its pick-up.
 */
export function passesOf(pass: (number: number) => readonly SoundEvent[], rest: Rest): Programme {
  const { start = 0, length, ends = length } = rest;
  const last = ends === null ? Infinity : Math.max(0, Math.ceil(ends / length) - 1);
  const numbered = (number: number): PassOf => ({ number, begins: number * length, beats: length });
  const {
    passNumbered = numbered,
    passAt = (beat) => numbered(Math.min(last, Math.max(0, Math.floor(beat / length)))),
  } = rest;
  return {
    start,
    ends,
    passAt,
    passNumbered,
    count: [],
    countIn: 0,
    eventsBetween: (from, to) => {
      const events: SoundEvent[] = [];
      for (let number = passAt(from).number; ; number++) {
        const { begins, beats } = passNumbered(number);
        // The pick-up of a pass falls into the pass before it.
        if (begins + start >= to || (ends !== null && begins >= ends)) break;
        for (const event of pass(number)) {
          const beat = event.beat + begins;
          if (event.beat < start || event.beat >= beats || beat < from || beat >= to) continue;
          events.push(begins === 0 ? event : { ...event, beat });
        }
      }
      return events.sort((a, b) => a.beat - b.beat);
    },
    ...rest,
  };
}

/** A programme of a fixed list of events, the same in every pass. */
export const programmeOf = (events: readonly SoundEvent[], rest: Rest): Programme =>
  passesOf(() => events, rest);

/** Loudness of a note by what it is for. */
const VELOCITY: Readonly<Record<PlayedNote['part'], number>> = {
  target: 0.85,
  approach: 0.62,
  fill: 0.7,
};

/** The notes of a passage as they sound: at their pitches, swung where its feel swings. */
export function lineEvents({ notes, neck, feel, time }: Passage): readonly SoundEvent[] {
  const swung = (beat: Beats) => playedAt(beat, feel, time);
  return notes.map((note) => {
    const from = swung(note.beat);
    return {
      part: 'line',
      beat: from,
      beats: swung(note.beat + note.beats) - from,
      midi: pitchAt(neck, note),
      velocity: VELOCITY[note.part],
      gain: LINE_GAIN,
    };
  });
}

/** What a band plays as it sounds: swung as its feel swings, on the bass that suits it. */
export function bandEvents(
  band: readonly BandEvent[],
  feel: Feel,
  time: TimeSignature,
): readonly SoundEvent[] {
  const { sound } = PATTERNS[feel.kind].bass;
  return band.map((event): SoundEvent => {
    const beat = playedAt(event.beat, feel, time);
    const gain = gainIn(feel.kind, event.part);
    if (event.part === 'drums') return { ...event, beat, gain };
    const { part, midi, room, ...struck } = event;
    return part === 'bass'
      ? { ...struck, part, beat, midi, gain, on: sound }
      : { ...struck, part, beat, midi, gain, ...(room ? { room } : {}) };
  });
}

const CLICK = { strong: 0.8, weak: 0.55, beats: BEAT / 10 } as const;

/** A click as it sounds. */
export const clickEvent = ({ beat, strong }: ClickEvent): SoundEvent => ({
  part: 'click',
  beat,
  beats: CLICK.beats,
  strong,
  velocity: strong ? CLICK.strong : CLICK.weak,
});

/** The pitches among some events: what a player would play of a line. */
export const pitchesIn = (events: readonly SoundEvent[]) =>
  events.flatMap((event) => (event.part === 'line' ? [event] : []));

const spanOf = ({ beats, pickUp, tempo }: Passage, speed: number) => ({
  start: -pickUp,
  length: Math.max(BEAT, beats),
  tempo: tempoMap([{ beat: 0, bpm: (tempo ?? DEFAULT_TEMPO) * speed }]),
});

/** A passage round and round, at a share of its tempo, in its feel. */
export const passageProgramme = (passage: Passage, speed = 1): Programme =>
  programmeOf(lineEvents(passage), { ...spanOf(passage, speed), ends: null });

/** A passage once through. */
export const passageOnce = (passage: Passage): Programme =>
  programmeOf(lineEvents(passage), spanOf(passage, 1));
