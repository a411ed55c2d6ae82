/** What a note says of the chord it is heard over: the one table, with its reasons. */

/**
 * In natural units of evidence for each beat a note sounds, strong beats counted more: the
 * logarithm of how much likelier the note is over the chord than a note that says nothing.
 * A guide tone names third or seventh, which no other common chord on the root has; the root and
 * the fifth belong to many chords; a tension is at home but belongs to as many others; a note the
 * chord has no use for is heard against it, and one a half step above a chord tone is heard as an
 * error. After the tonal hierarchies of Krumhansl, "Cognitive Foundations of Musical Pitch" (1990),
 * ch. 2 and 7: chord tones above scale tones above chromatic ones.
 */
export const EVIDENCE = {
  guide: 1.1,
  root: 0.9,
  fifth: 0.7,
  /** Any other tone the symbol names. */
  tone: 0.7,
  tension: -0.1,
  strange: -0.9,
  clash: -1.2,
} as const;

/** How much a place in the bar makes a note speak: the first of a group, another beat, between. */
export const PLACES = { strong: 1.3, beat: 1.05, between: 0.8 } as const;

/** A short note is noticed too: no note that sounds over a chord counts for less of a beat. */
export const SHORTEST = 0.25;

/** How much the changes of the chart are expected to come in their order: 0 not at all, 1 surely. */
export const ORDER = 0.5;
