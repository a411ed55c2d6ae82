/** Naming boxes in the school the player was taught. */
import type { BoxName } from '$core/neck/boxes';
import type { BoxNaming } from './settings';

/** `box 4`, `pattern 3`, `C shape`. */
export const showBox = (box: BoxName, naming: BoxNaming): string =>
  ({ minor: `box ${box.minor}`, major: `pattern ${box.major}`, letter: `${box.letter} shape` })[
    naming
  ];

/** All three at once, for the player who was taught another. */
export const showBoxInFull = (box: BoxName): string =>
  `box ${box.minor} by minor, pattern ${box.major} by major, ${box.letter} shape`;

export const NAMING_LABELS: Readonly<Record<BoxNaming, string>> = {
  minor: 'Boxes, by minor',
  major: 'Patterns, by major',
  letter: 'Letters',
};
