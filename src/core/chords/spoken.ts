/** Chords in words, for the ear and for screen readers. */
import { rememberOf } from '../cache';
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

const spokenRoot = (name: string): string =>
  name.replace(/b/gu, ' flat').replace(/#|x/gu, ' sharp');

function wordsFor({ root, quality, bass }: Chord): string {
  const over = bass === null ? '' : ` over ${spokenRoot(noteName(bass))}`;
  return `${spokenRoot(noteName(root))} ${spokenQuality(quality.name)}${over}`;
}

/** "A minor 7", "E flat major 7 over G". */
export const spokenChord = rememberOf(wordsFor);
