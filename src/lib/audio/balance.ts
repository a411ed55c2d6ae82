/**
 * What brings the parts to their loudness, feel by feel: measured with the samples (BS.1770), so that at the
 * levels a mixer begins with each is as loud as {@link LOUDNESS} says.
 */
import type { BandPart } from '$core/band/events';
import { amplitudeOf } from '$core/listening/loudness';
import type { FeelKind } from '$core/time/feel';

type Decibels = number;

/** The loudness of each part in LUFS: together a band at −18, the line a little over it. */
export const LOUDNESS: Readonly<Record<BandPart | 'line', Decibels>> = {
  bass: -22,
  comp: -25,
  drums: -22,
  line: -19,
};
/** Drums that are softer: brushes, and a side stick. */
export const SOFTER: Partial<Readonly<Record<FeelKind, Decibels>>> = { ballad: -26, bossa: -24 };

/** Bass, comping and drums. */
const BALANCE: Readonly<Record<FeelKind, readonly [Decibels, Decibels, Decibels]>> = {
  swing: [-3, -4, 5.5],
  'two-beat': [-2, -4, 8.5],
  shuffle: [-3.5, -3.5, 8],
  straight: [-4, -4.5, 10],
  rock: [-4, -4.5, 7],
  bossa: [-2, -4, 8.5],
  samba: [-4.5, -4.5, 7.5],
  funk: [-3.5, -3, 7],
  reggae: [-2.5, -2.5, 12.5],
  'train beat': [-3, -3.5, 11.5],
  ballad: [1, -2.5, 10.5],
  'jazz waltz': [-2.5, -4, 7],
  'slow 12/8': [-3.5, -4, 10.5],
  modal: [-3, -4, 7],
};
const LINE: Decibels = -4;

const PLACES: Readonly<Record<BandPart, 0 | 1 | 2>> = { bass: 0, comp: 1, drums: 2 };

/** What a part of a band is played with, as a factor of amplitude. */
export const gainIn = (feel: FeelKind, part: BandPart): number =>
  amplitudeOf(BALANCE[feel][PLACES[part]]);

/** What a line is played with. */
export const LINE_GAIN = amplitudeOf(LINE);
