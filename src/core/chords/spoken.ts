/** Chords in words, for the ear and for screen readers. */
import { rememberOf } from '../cache';
import { type Naming, nameNote } from '../notes/naming';
import { noteName } from '../notes/notes';
import type { Chord } from './chords';

/** Parts of a quality's name, the longer before those they hold; read once, from left to right. */
const WORDS: readonly (readonly [part: string, words: string])[] = [
  ['maj', 'major'],
  ['dim', 'diminished'],
  ['aug', 'augmented'],
  ['sus', 'suspended'],
  ['alt', 'altered'],
  ['add', 'add'],
  ['no', 'without'],
  ['69', 'six nine'],
  ['m', 'minor'],
  ['b', 'flat'],
  ['#', 'sharp'],
];
const PARTS = new RegExp(`${WORDS.map(([part]) => part).join('|')}|\\d+`, 'gu');
const WORD_OF = new Map(WORDS);

const spokenQuality = (name: string): string => {
  if (name === '') return 'major';
  if (name === '5') return 'power chord';
  return [...name.matchAll(PARTS)].map(([part]) => WORD_OF.get(part) ?? part).join(' ');
};

const SIGNS: Readonly<Record<string, string>> = {
  b: ' flat',
  '#': ' sharp',
  bb: ' double flat',
  '##': ' double sharp',
  x: ' double sharp',
};

/** A note's name as it is spoken: "B flat", "F double sharp". In one go: the words hold letters that are signs. */
export const spokenName = (name: string): string =>
  name.replace(/bb|##|[b#x]/gu, (sign) => SIGNS[sign] ?? sign);

function wordsFor({ root, quality, bass }: Chord): string {
  const over = bass === null ? '' : ` over ${spokenName(noteName(bass))}`;
  return `${spokenName(noteName(root))} ${spokenQuality(quality.name)}${over}`;
}

/**
 * "A minor 7", "E flat major 7 over G".
 *
 * @example spokenChord(parseChord('Bm7b5')); // "B minor 7 flat 5"
 */
export const spokenChord = rememberOf(wordsFor);

/** What is spoken of a chord or note by another name of its notes: "Si flat minor 7 over Mi". */
export const renameSpoken = (spoken: string, naming: Naming): string =>
  naming === 'letters'
    ? spoken
    : spoken.replace(/(?<=^|over )([A-G])( flat)?(?= |$)/gu, (_, letter: string, flat = '') =>
        flat !== '' && naming === 'german' && letter === 'B'
          ? nameNote('B', 'b', naming)
          : nameNote(letter, '', naming) + String(flat),
      );
