/** Standard MIDI Files: what happens at which pulse, and words in UTF-8, whatever alphabet they are in. */
import { type MidiEvent, writeMidi } from 'midi-file';
import { type Key, signatureOf } from '../keys/keys';
import { quarterOf } from '../time/metre';
import type { Beats } from '../time/units';

/** Pulses of a quarter note in a file: sixteenths and triplets come out whole. */
export const PULSES = 480;

/**
 * Pulses in some time, where beats are counted in a unit.
 *
 * @example pulsesIn(BEAT / 3, 4); // 160
 */
export const pulsesIn = (length: Beats, unit: number): number =>
  Math.round((length * PULSES) / quarterOf(unit));

/** An event without the time since the one before it, which follows from where both fall. */
type Event<E> = E extends unknown ? Omit<E, 'deltaTime'> : never;

/** What happens, and at which pulse of the file. */
export interface Timed {
  readonly at: number;
  readonly event: Event<MidiEvent>;
}

/** Words as the library writes them, a byte a letter. */
const written = (text: string): string => String.fromCharCode(...new TextEncoder().encode(text));

/** Words of a file: UTF-8 where they can be, else a letter a byte, as older programs write them. */
export function wordsOf(text: string): string {
  try {
    const bytes = Uint8Array.from(text, (letter) => letter.charCodeAt(0));
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return text;
  }
}

/** The name of a track; the first track's is the title. */
export const named = (name: string): Timed => ({
  at: 0,
  event: { type: 'trackName', text: written(name) },
});
/** Words at the beginning of a track. */
export const said = (text: string): Timed => ({
  at: 0,
  event: { type: 'text', text: written(text) },
});

/** A tempo from a pulse on, in quarter notes a minute. */
export const paced = (at: number, tempo: number): Timed => ({
  at,
  event: { type: 'setTempo', microsecondsPerBeat: Math.floor(60_000_000 / tempo) },
});

/** A metre from a pulse on: so many of a unit, as 7 and 8. */
export const metred = (at: number, numerator: number, denominator: number): Timed => ({
  at,
  event: { type: 'timeSignature', numerator, denominator, metronome: 24, thirtyseconds: 8 },
});

/** The key signature. */
export const keyed = (key: Key): Timed => ({
  at: 0,
  event: { type: 'keySignature', key: signatureOf(key), scale: key.mode === 'minor' ? 1 : 0 },
});

interface Struck {
  readonly channel: number;
  readonly midi: number;
  readonly at: number;
  /** In pulses; a note lasts one at least. */
  readonly length: number;
  /** 0 to 1. */
  readonly velocity: number;
}

/** A note as its beginning and its end. */
export function notePlayed({ channel, midi, at, length, velocity }: Struck): readonly Timed[] {
  const of = { channel, noteNumber: midi };
  return [
    { at, event: { type: 'noteOn', ...of, velocity: Math.floor(127 * velocity) } },
    { at: at + Math.max(1, length), event: { type: 'noteOff', ...of, velocity: 0 } },
  ];
}

/** At one pulse: what is set up comes first, and what ends before what begins. */
const ORDER: Readonly<Record<string, number>> = { noteOff: 1, pitchBend: 2, noteOn: 3 };
const orderOf = ({ event }: Timed) => ORDER[event.type] ?? 0;

/** A file of tracks; the first holds tempo, metre and key of all of them. */
export function midiFile(tracks: readonly (readonly Timed[])[]): Uint8Array {
  const header = { format: 1, numTracks: tracks.length, ticksPerBeat: PULSES } as const;
  const bytes = writeMidi({
    header,
    tracks: tracks.map((track) => {
      let last = 0;
      const events = track
        .toSorted((one, other) => one.at - other.at || orderOf(one) - orderOf(other))
        .map(({ at, event }) => {
          const deltaTime = at - last;
          last = at;
          return { ...event, deltaTime } as MidiEvent;
        });
      return [...events, { deltaTime: 0, type: 'endOfTrack' }];
    }),
  });
  return new Uint8Array(bytes);
}
