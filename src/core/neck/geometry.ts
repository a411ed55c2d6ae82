/** Where frets are drawn along the neck. */
import { at } from '../lists';
import { inZone, type Zone } from './neck';

/** Frets narrow up the neck as on an instrument, but gently, so that high notes stay legible. */
const NARROWING = 2 ** (-1 / 30);

/** How much wider a fret is drawn in the zone the hand is in, and just beside it, than elsewhere. */
const ROOM = { inside: 2.4, beside: 1.4 } as const;

function roomOf(fret: number, zone: Zone | null): number {
  if (zone === null) return 1;
  if (inZone(zone, fret)) return ROOM.inside;
  return inZone({ low: zone.low - 1, high: zone.high + 1 }, fret) ? ROOM.beside : 1;
}

/**
 * Positions of the fret wires between the nut (0) and the last fret (1), by fret; a zone is given
 * more room than the rest.
 */
export function wiresOf(frets: number, zone: Zone | null = null): readonly number[] {
  const wires = [0];
  for (let fret = 1; fret <= frets; fret++) {
    wires.push(at(wires, fret - 1) + NARROWING ** (fret - 1) * roomOf(fret, zone));
  }
  const whole = at(wires, frets);
  return wires.map((wire) => wire / whole);
}

/** Where a finger stands for a fret: between its wire and the one before; 0 for the open string. */
export const fingerPosition = (fret: number, wires: readonly number[]): number =>
  fret === 0 ? 0 : (at(wires, fret - 1) + at(wires, fret)) / 2;

/** The fret whose space holds a position between 0 and 1. */
export function fretAtPosition(position: number, wires: readonly number[]): number {
  const found = wires.findIndex((wire, fret) => fret > 0 && position <= wire);
  return found < 0 ? wires.length - 1 : found;
}

/** Frets with one dot. */
export const SINGLE_INLAYS: readonly number[] = [3, 5, 7, 9, 15, 17, 19, 21, 27];

/** Frets with two dots. */
export const DOUBLE_INLAYS: readonly number[] = [12, 24];
