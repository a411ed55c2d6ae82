/** What is asked of a line. */
import type { Neck, Zone } from '../neck/neck';
import type { Note } from '../notes/notes';
import type { RouteStop } from '../targets/route';
import type { BeatsPerMinute } from '../time/units';
import type { Motif } from './motif';
import type { LineMetre } from './rhythm';
import type { ChordSpan } from './spans';
import type { LineStyle } from './styles';

/** Frets, and strings, that a chord is played on. */
export interface LineRegion extends Zone {
  readonly strings: readonly number[];
}

/** What a line is made for. */
export interface LineRequest {
  readonly neck: Neck;
  /** The region to stay in; null follows the targets. */
  readonly zone: Zone | null;
  /** Where each span is played, on some strings only; the zone by itself. */
  readonly regions?: readonly LineRegion[] | null;
  readonly spans: readonly ChordSpan[];
  /** A target for each span, in order; those that the player has set are always aimed at. */
  readonly targets: readonly RouteStop[];
  readonly metre: LineMetre;
  readonly style: LineStyle;
  /** The tonic whose blue notes a blues has; null where there is none. */
  readonly home?: Note | null;
  readonly tempo?: BeatsPerMinute;
  /** Chords, by their index, that are aimed at whatever the style: the player has set their targets. */
  readonly pinned?: ReadonlySet<number>;
  /** Whether every change is aimed at, and not as many as the style does. */
  readonly everyChange?: boolean;
  /** Whether only what is chosen is played: no chromatic and no blue notes. */
  readonly plain?: boolean;
  /** Whether chord tones are what is played, and the rest stands beside them. */
  readonly tones?: boolean;
  /** Another seed, other notes over the same targets. */
  readonly seed: number;
  /** A seed for the plan alone, so that the idea stays while the notes change; the same by itself. */
  readonly idea?: number | null;
  /** A motif to work with; one of its own by itself. */
  readonly motif?: Motif | null;
  /** Two bars, and two empty ones for the player. */
  readonly calls?: boolean;
}
