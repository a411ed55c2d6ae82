/** Chords in words, for the ear and for screen readers. */
import { noteName } from '../notes/notes';
import type { Chord } from './chords';

const WORDS: readonly (readonly [RegExp, string])[] = [
  [/m\(maj(7|9)\)/gu, ' minor major $1'],
  [/maj/gu, ' major '],
  [/m(\d*)b5/gu, ' minor $1 flat 5'],
  [/dim/gu, ' diminished '],
  [/aug/gu, ' augmented'],
  [/sus/gu, ' suspended '],
  [/alt/gu, ' altered'],
  [/add/gu, ' add '],
  [/no(?=\d)/gu, ' without '],
  [/^m/gu, ' minor '],
  [/^5$/gu, ' power chord'],
  [/^69/gu, ' six nine'],
  [/b(?=\d)/gu, ' flat '],
  [/#(?=\d)/gu, ' sharp '],
  [/[(),]/gu, ' '],
];

const spokenRoot = (name: string): string =>
  name.replace(/b/gu, ' flat').replace(/#|x/gu, ' sharp');

const SPOKEN = new WeakMap<Chord, string>();

/** "A minor 7", "E flat major 7 over G". */
export function spokenChord(chord: Chord): string {
  const known = SPOKEN.get(chord);
  if (known !== undefined) return known;
  const words = wordsFor(chord);
  SPOKEN.set(chord, words);
  return words;
}

function wordsFor({ root, quality, bass }: Chord): string {
  const kind =
    quality.name === ''
      ? ' major'
      : WORDS.reduce((text, [pattern, words]) => text.replace(pattern, words), quality.name);
  const over = bass === null ? '' : ` over ${spokenRoot(noteName(bass))}`;
  return `${spokenRoot(noteName(root))} ${kind}${over}`.replace(/\s+/gu, ' ').trim();
}
