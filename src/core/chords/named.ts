/** Chord symbols, notes and whole sentences with their notes by the names a player learnt. */
import { type Naming, nameNote } from '../notes/naming';
import { parseChord } from './symbols';

const SIGN = '(?:bb|##|♭♭|♯♯|[b#x♭♯𝄪𝄫])';
/** What follows a root within a symbol; parentheses belong to it. */
const SUFFIX = String.raw`(?:\([^()\s]*\)|[\w♭♯#°ø△Δ+/]|-(?=\d))*`;
const NAMED = new RegExp(
  `(?<![\\p{L}\\p{N}♭♯𝄪])([A-G])(${SIGN}(?![a-z])|${SIGN}(?=m|maj|dim|sus|add|aug|alt))?(${SUFFIX})`,
  'gu',
);
const UNDER = new RegExp(`/([A-G])(${SIGN})?$`, 'u');

/** What comes after the note A where a sentence begins with it; before any other word it is the article. */
const AFTER_A =
  /^\s+(?:stays|holds|rises|falls|moves|becomes|repeats|comes|goes|lands|lies|sounds|clashes|bent|is|and|or|to|in|over|for|has|major|minor|blues|dorian|phrygian|lydian|mixolydian|aeolian|locrian|ionian|harmonic|melodic|altered|whole-tone|half-whole|whole-half|diminished|augmented|bebop|super|flat|sharp)(?![-\p{L}])/u;
const AT_START = /(?:^|[.!?:]\s+|\n)$/u;

/** English words that read as a chord. */
const WORDS: ReadonlySet<string> = new Set(['Do', 'Go', 'Am']);

/**
 * A text with its notes and the roots of its chords named otherwise: “B falls a half step to B♭” is “H falls
 * a half step to B” by the German names. An article stays one.
 *
 * @example renameIn('Bm7♭5/A', 'sol-fa'); // "Sim7♭5/La"
 */
export function renameIn(text: string, naming: Naming): string {
  if (naming === 'letters') return text;
  return text.replace(
    NAMED,
    (whole: string, letter: string, signs: string | undefined, rest: string, at: number) => {
      const alone = whole.length === text.length;
      const own = signs ?? '';
      if (rest === '') {
        const after = text.slice(at + whole.length);
        const article =
          letter === 'A' &&
          own === '' &&
          !alone &&
          /^\s+[a-z]/u.test(after) &&
          AT_START.test(text.slice(0, at)) &&
          !AFTER_A.test(after);
        return article ? whole : nameNote(letter, own, naming);
      }
      if (!alone && WORDS.has(whole)) return whole;
      if (parseChord(asRead(whole)) === null) return whole;
      const suffix = rest.replace(
        UNDER,
        (_, under: string, sign = '') => `/${nameNote(under, sign as string, naming)}`,
      );
      return nameNote(letter, own, naming) + suffix;
    },
  );
}

/** Signs as chord symbols are read: two flats and sharps in letters. */
const asRead = (symbol: string): string => symbol.replace(/♭♭|𝄫/gu, 'bb').replace(/♯♯|𝄪/gu, '##');
