/** What a target route is asked for. */
import type { Chord } from '../chords/chords';
import type { Intent } from '../lenses/lens';
import type { Material } from '../lenses/material';
import type { Neck, Place, Zone } from '../neck/neck';
import type { Preference, RouteContour } from './kinds';

/** One chord to be given a target. */
export interface RouteChord {
  readonly chord: Chord;
  readonly intent: Intent;
  /** What is played over it; its notes may serve as targets where the change is coasted. */
  readonly material: Material | null;
  /** A place set by hand, which the route must take. */
  readonly pin: Place | null;
}

/** What a route is made for. */
export interface RouteRequest {
  readonly neck: Neck;
  readonly chords: readonly RouteChord[];
  /** Degrees to land on, the most preferred first. */
  readonly prefer: readonly Preference[];
  /** The region to stay in; null leaves the whole neck free. */
  readonly zone: Zone | null;
  readonly contour: RouteContour | null;
  readonly loop: boolean;
  /** How many routes, the best first. */
  readonly count: number;
}
