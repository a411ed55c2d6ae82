/** What is asked of a line. */
import type { Neck, Zone } from '../neck/neck';
import type { RouteStop } from '../targets/route';
import type { Motif } from './motif';
import type { LineMetre } from './rhythm';
import type { ChordSpan } from './spans';

export interface LineRequest {
  readonly neck: Neck;
  /** The region to stay in; null follows the targets. */
  readonly zone: Zone | null;
  readonly spans: readonly ChordSpan[];
  /** A target for each span, in order. */
  readonly targets: readonly RouteStop[];
  readonly metre: LineMetre;
  /** Another seed, other notes over the same targets. */
  readonly seed: number;
  /** A seed for the plan alone, so that the idea stays while the notes change; the same by itself. */
  readonly idea?: number | null;
  /** A motif to work with; one of its own by itself. */
  readonly motif?: Motif | null;
  /** Two bars, and two empty ones for the player. */
  readonly calls?: boolean;
  /** Whether a hand bends and slides here, as in a blues. */
  readonly blues?: boolean;
}
