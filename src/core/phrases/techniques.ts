/** How a note is played besides being struck. Several techniques may stand on one note. */
import { list } from '../words';
import { BEAT, type Beats } from '../time/units';

/** How a note is played. */
export type Technique =
  /** Pushed up by half steps, and perhaps let down again while it sounds. */
  | { readonly kind: 'bend'; readonly by: 1 | 2 | 3 | 4; readonly release?: boolean | undefined }
  /**
   * Into the note, from a fret where one is named, else from the note before; out of it towards
   * `to` where that is named.
   */
  | { readonly kind: 'slide'; readonly from?: number | undefined; readonly to?: number | undefined }
  | {
      readonly kind: 'hammer-on' | 'pull-off' | 'vibrato' | 'grace' | 'mute' | 'let-ring';
    };

export type TechniqueKind = Technique['kind'];

/** In the order in which a note's techniques are kept and written. */
export const TECHNIQUE_KINDS = [
  'grace',
  'hammer-on',
  'pull-off',
  'slide',
  'bend',
  'vibrato',
  'mute',
  'let-ring',
] as const satisfies readonly TechniqueKind[];

const TECHNIQUE_WORDS: Readonly<Record<TechniqueKind, string>> = {
  grace: 'grace notes',
  'hammer-on': 'hammer-ons',
  'pull-off': 'pull-offs',
  slide: 'slides',
  bend: 'bends',
  vibrato: 'vibrato',
  mute: 'muting',
  'let-ring': 'letting ring',
};

/** Half steps a string is bent by at the most. */
export const WIDEST_BEND = 4;

/** How long before the note it leads to a grace note is struck. */
export const GRACE_BEATS: Beats = BEAT / 8;

/**
 * One of each kind, in their order.
 *
 * @example inOrder([{ kind: 'vibrato' }, { kind: 'grace' }]).map(({ kind }) => kind); // ["grace","vibrato"]
 */
export const inOrder = (techniques: readonly Technique[]): readonly Technique[] =>
  TECHNIQUE_KINDS.flatMap((kind) => techniques.find((one) => one.kind === kind) ?? []);

/** The technique of a kind among a note's; undefined where it has none. */
export const techniqueOf = <K extends TechniqueKind>(
  techniques: readonly Technique[],
  kind: K,
): Extract<Technique, { readonly kind: K }> | undefined =>
  techniques.find((one): one is Extract<Technique, { readonly kind: K }> => one.kind === kind);

/**
 * A bend of the nearest size a hand can do.
 *
 * @example bendBy(1.4, false); // {"kind":"bend","by":1}
 */
export const bendBy = (halfSteps: number, release: boolean): Technique => ({
  kind: 'bend',
  by: Math.max(1, Math.min(WIDEST_BEND, Math.round(halfSteps))) as 1 | 2 | 3 | 4,
  ...(release ? { release } : {}),
});

/** Techniques with the frets of their slides moved as far as their note, kept on the string. */
export const shiftSlides = (
  techniques: readonly Technique[],
  frets: number,
  { low, high }: { readonly low: number; readonly high: number },
): readonly Technique[] =>
  techniques.map((one): Technique => {
    if (one.kind !== 'slide') return one;
    const moved = (fret: number) => Math.max(low, Math.min(high, fret + frets));
    return {
      kind: 'slide',
      ...(one.from === undefined ? {} : { from: moved(one.from) }),
      ...(one.to === undefined ? {} : { to: moved(one.to) }),
    };
  });

/** What of some notes' techniques a format does not hold, as a sentence; none where it holds all. */
export function lostTechniques(
  notes: readonly { readonly techniques: readonly Technique[] }[],
  held: readonly TechniqueKind[],
  format: string,
): readonly string[] {
  const lost = TECHNIQUE_KINDS.filter(
    (kind) => !held.includes(kind) && notes.some(({ techniques }) => techniqueOf(techniques, kind)),
  ).map((kind) => TECHNIQUE_WORDS[kind]);
  if (lost.length === 0) return [];
  return [`${format} cannot hold ${list(lost)}: the notes are written without.`];
}
