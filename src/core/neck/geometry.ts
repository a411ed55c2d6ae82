/** Where frets are drawn along the neck. */

/** Frets narrow up the neck as on an instrument, but gently, so that high notes stay legible. */
const NARROWING = 2 ** (-1 / 30);

/** Position of fret wire `fret` between the nut (0) and the last fret (1). */
export function wirePosition(fret: number, frets: number): number {
  return (1 - NARROWING ** fret) / (1 - NARROWING ** frets);
}

/** Where a finger stands for a fret: between its wire and the one before; 0 for the open string. */
export function fingerPosition(fret: number, frets: number): number {
  if (fret === 0) return 0;
  return (wirePosition(fret - 1, frets) + wirePosition(fret, frets)) / 2;
}

/** The fret whose space holds a position between 0 and 1. */
export function fretAtPosition(position: number, frets: number): number {
  for (let fret = 1; fret < frets; fret++) {
    if (position <= wirePosition(fret, frets)) return fret;
  }
  return frets;
}

export const SINGLE_INLAYS: readonly number[] = [3, 5, 7, 9, 15, 17, 19, 21, 27];
export const DOUBLE_INLAYS: readonly number[] = [12, 24];
