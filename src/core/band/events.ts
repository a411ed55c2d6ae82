/** What a band plays: events in time of the chart, as they are written. */
import type { Midi } from '../notes/pitch';
import type { Beats } from '../time/units';

/** Who plays in the band. */
export const BAND_PARTS = ['bass', 'comp', 'drums'] as const;
export type BandPart = (typeof BAND_PARTS)[number];

/** What the drummer strikes. */
export const DRUMS = [
  'kick',
  'snare',
  'rim',
  'hat',
  'open-hat',
  'pedal-hat',
  'ride',
  'crash',
  'tom',
] as const;
export type Drum = (typeof DRUMS)[number];

interface Struck {
  /** From the first downbeat, as written: swing is put to it where it is heard. */
  readonly beat: Beats;
  readonly beats: Beats;
  /** Loudness from 0 to 1. */
  readonly velocity: number;
  /** Milliseconds it is played after its beat; below 0 before it. */
  readonly late?: number;
}

/**
 * What a stroke of the comping leaves to who plays over it: *left* out while somebody plays, or an *answer*
 * that is heard only where he rests.
 */
export type Room = 'left' | 'answer';

/** Whether who plays over the band plays, or rests. */
export type Solo = 'playing' | 'resting';

/** A note of the bass or of the comping. */
export interface PitchedEvent extends Struck {
  readonly part: 'bass' | 'comp';
  readonly midi: Midi;
  /** Of comping alone; none where it is played whatever happens over it. */
  readonly room?: Room;
}

/** A stroke of the drummer. */
export interface DrumEvent extends Struck {
  readonly part: 'drums';
  readonly drum: Drum;
}

/** Anything the band plays, at its beat of the form. */
export type BandEvent = PitchedEvent | DrumEvent;
