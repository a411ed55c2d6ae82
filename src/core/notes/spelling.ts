/** How a bare pitch is spelled where nothing else decides. */
import { type Note, spellNear } from './notes';
import type { Midi } from './pitch';

/** Between three flats and two sharps or so: E flat rather than D sharp, F sharp rather than G flat. */
const CENTRE = 1 as Note;

/**
 * The simplest spelling of a pitch where nothing else is known.
 *
 * @example noteName(simplestPitch(61)); // "Db"
 */
export const simplestPitch = (midi: Midi): Note => spellNear(((midi % 12) + 12) % 12, CENTRE);
