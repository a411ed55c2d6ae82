/** Measures of the drawn neck, in the units of its picture. */
import { fingerPosition, fretAtPosition, wirePosition } from '$core/neck/geometry';
import { type Neck, stringCount } from '$core/neck/neck';
import { range } from '$core/lists';

export interface NeckLayout {
  readonly width: number;
  readonly height: number;
  readonly nut: number;
  readonly end: number;
  readonly top: number;
  readonly bottom: number;
  readonly wire: (fret: number) => number;
  readonly finger: (fret: number) => number;
  readonly string: (string: number) => number;
  readonly fretAt: (x: number) => number;
}

const OPEN_SPACE = 34;
const MARGIN = 10;

/** Room above the strings for the zone's bracket, and below for fret numbers. */
const ABOVE = 34;
const BELOW = 36;

export function layOut(
  neck: Neck,
  width: number,
  stringGap: number,
  leftHanded: boolean,
): NeckLayout {
  const nut = MARGIN + OPEN_SPACE;
  const end = width - MARGIN;
  const top = ABOVE;
  const bottom = ABOVE + stringGap * (stringCount(neck) - 1);
  const mirror = (x: number) => (leftHanded ? width - x : x);
  const along = (position: number) => mirror(nut + position * (end - nut));
  return {
    width,
    height: bottom + BELOW,
    nut: mirror(nut),
    end: mirror(end),
    top,
    bottom,
    wire: (fret) => along(wirePosition(fret, neck.frets)),
    finger: (fret) =>
      fret === 0 ? mirror(MARGIN + OPEN_SPACE / 2) : along(fingerPosition(fret, neck.frets)),
    string: (string) => top + stringGap * (string - 1),
    fretAt: (x) => fretAtPosition((mirror(x) - nut) / (end - nut), neck.frets),
  };
}

/** Wire thickness by how low a string sounds. */
export const gauge = (openMidi: number): number => Math.max(0.7, 2.6 - (openMidi - 38) / 14);

export const strings = (neck: Neck): readonly number[] => range(1, stringCount(neck) + 1);
