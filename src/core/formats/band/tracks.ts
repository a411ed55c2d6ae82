/** A band and the line over it as files hold it: a track for each part, in written beats. */
import type { BandPart, Drum } from '../../band/events';
import type { FormChord } from '../../band/form';
import type { Key } from '../../keys/keys';
import type { Midi } from '../../notes/pitch';
import type { Feel } from '../../time/feel';
import type { TimeSignature } from '../../time/metre';
import type { TempoChange } from '../../time/tempo';
import type { Beats } from '../../time/units';

/** A note of a track. */
export interface TrackNote {
  readonly beat: Beats;
  readonly beats: Beats;
  readonly velocity: number;
  readonly midi: Midi;
}

/** What one instrument plays, for a file. */
export interface BandTrack {
  readonly part: BandPart | 'line';
  readonly name: string;
  /** General MIDI's program, counted from 0; null for the drum kit. */
  readonly program: number | null;
  readonly notes: readonly TrackNote[];
}

/** Keys of the General MIDI drum map. */
export const DRUM_KEYS: Readonly<Record<Drum, Midi>> = {
  kick: 36,
  rim: 37,
  snare: 38,
  hat: 42,
  'pedal-hat': 44,
  tom: 45,
  'open-hat': 46,
  crash: 49,
  ride: 51,
};

/** The band and the line as tracks, whatever the format. */
export interface BandFile {
  readonly title: string;
  readonly time: TimeSignature;
  readonly tempo: readonly TempoChange[];
  readonly tracks: readonly BandTrack[];
}

/** What a score says besides. */
export interface BandScore extends BandFile {
  /** Null where no single key holds. */
  readonly key: Key | null;
  readonly feel: Feel | null;
  /** Length from beat 0 on. */
  readonly beats: Beats;
  readonly chords: readonly Pick<FormChord, 'chord' | 'beat'>[];
}
