/** A simulated guitarist: a stand-in for a player and a microphone, who errs as he is told. */
import { range } from '../lists';
import { hertzOf, type Midi } from '../notes/pitch';
import { hashed } from '../random';
import { BEAT, type Beats, type Seconds } from '../time/units';

/** A note the simulated guitarist is to play. */
export interface ToPlay {
  readonly beat: Beats;
  readonly beats: Beats;
  readonly midi: Midi;
  /** Half steps it is bent up by while it sounds. */
  readonly bent?: number;
}

/** How a guitarist errs: in one note of three, or in every way in turn. */
export const MISTAKES = [
  'none',
  'late',
  'missed',
  'another octave',
  'another tone',
  'all',
] as const;
export type Mistakes = (typeof MISTAKES)[number];
type Mistake = Exclude<Mistakes, 'none' | 'all'>;
const EVERY: readonly Mistake[] = ['late', 'missed', 'another octave', 'another tone'];

/** How late, more than a target may be, and half steps to a tone of another name. */
const LATE: Beats = (5 * BEAT) / 4;
const ELSEWHERE = 2;

function erring(note: ToPlay, mistake: Mistake): readonly ToPlay[] {
  switch (mistake) {
    case 'late':
      return [{ ...note, beat: note.beat + LATE, beats: Math.max(BEAT / 4, note.beats - LATE) }];
    case 'missed':
      return [];
    case 'another octave':
      return [{ ...note, midi: note.midi >= 64 ? note.midi - 12 : note.midi + 12 }];
    case 'another tone':
      return [{ ...note, midi: note.midi + ELSEWHERE }];
  }
}

/** What he plays of some notes; which of them he errs in is drawn from the seed. */
export function playedWith(
  notes: readonly ToPlay[],
  mistakes: Mistakes,
  seed: number,
): readonly ToPlay[] {
  if (mistakes === 'none') return notes;
  return notes.flatMap((note, index) => {
    const drawn = Math.floor(hashed(seed, Math.floor(index / 3), 5) * 3);
    if (index % 3 !== drawn) return [note];
    const every = EVERY[Math.floor(index / 3) % EVERY.length] ?? 'late';
    return erring(note, mistakes === 'all' ? every : mistakes);
  });
}

/** A note in seconds from the beginning of a sound. */
interface Plucked {
  readonly seconds: Seconds;
  readonly length: Seconds;
  readonly midi: Midi;
  /** Half steps it is bent up by while it sounds. */
  readonly bent?: number;
}

/** How a string sounds: partials, how fast each dies away, how it begins and is stopped. */
const STRING = { partials: 7, fade: 1.6, loud: 0.2, attack: 0.002, stop: 0.012 } as const;
/** When a bend begins, as a share of the note, and the longest it takes. */
const BEND = { begins: 0.2, takes: 0.2 } as const;

/** Plucked strings as samples, mono, −1 to 1. */
export function pluckedSound(
  notes: readonly Plucked[],
  rate: number,
  seconds: Seconds,
): Float32Array<ArrayBuffer> {
  const samples = new Float32Array(Math.ceil(seconds * rate));
  for (const { seconds: begins, length, midi, bent = 0 } of notes) {
    const partials = range(1, STRING.partials + 1).filter(
      (part) => part * hertzOf(midi) < 0.45 * rate,
    );
    const from = Math.round(begins * rate);
    const count = Math.min(Math.round(length * rate), samples.length - from);
    const takes = Math.min(BEND.takes, length * 0.3);
    let phase = 0;
    for (let index = Math.max(0, -from); index < count; index++) {
      const time = index / rate;
      const level =
        STRING.loud *
        Math.min(1, time / STRING.attack) *
        Math.min(1, (length - time) / STRING.stop);
      const share = Math.max(0, Math.min(1, (time - length * BEND.begins) / takes));
      let sum = 0;
      for (const part of partials)
        sum += (Math.sin(part * phase) / part) * Math.exp(-time * part * STRING.fade);
      phase += (2 * Math.PI * hertzOf(midi + bent * share)) / rate;
      samples[from + index] = (samples[from + index] ?? 0) + level * sum;
    }
  }
  return samples;
}
