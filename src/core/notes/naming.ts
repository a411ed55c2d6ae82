/**
 * Names of notes as players learn them. Corvel keeps and computes in letters (B and B flat); German names
 * call these H and B, sol-fa names with a fixed Do sing them. A chart may be typed in any of them.
 */

/** The names of notes a player may have learnt. */
export const NAMINGS = ['letters', 'german', 'sol-fa'] as const;
export type Naming = (typeof NAMINGS)[number];

const SOL_FA: Readonly<Record<string, string>> = {
  C: 'Do',
  D: 'Re',
  E: 'Mi',
  F: 'Fa',
  G: 'Sol',
  A: 'La',
  B: 'Si',
};

/** Every name of a note without its signs, as a pattern. */
export const NAME_PATTERN = '(?:[A-H]|Do|Re|Mi|Fa|Sol|La|Si)';

const FLAT = /^[b♭]$/u;

/**
 * A letter with its signs, named otherwise. German `B` is B flat; what is flatter or sharper counts from H.
 *
 * @example
 * nameNote('B', '♭', 'german'); // "B"
 * nameNote('B', '♭', 'sol-fa'); // "Si♭"
 */
export function nameNote(letter: string, signs: string, naming: Naming): string {
  if (naming === 'sol-fa') return (SOL_FA[letter] ?? letter) + signs;
  if (naming === 'german' && letter === 'B') return FLAT.test(signs) ? 'B' : `H${signs}`;
  return letter + signs;
}

const LETTERS: Readonly<Record<string, string>> = {
  do: 'C',
  re: 'D',
  ré: 'D',
  mi: 'E',
  fa: 'F',
  sol: 'G',
  la: 'A',
  si: 'B',
  h: 'B',
};

/** German signs are syllables: Fis, Des, but Es and As. The longer names before those they begin with. */
const SYLLABLES = '(?<sharp>[cdefgah])is|(?<flat>[cdfgh])es|(?<short>[ea])s';
const NAMES = `${SYLLABLES}|(?<name>sol|r[eé]|mi|fa|la|si|h)`;
const ROOT = new RegExp(`^(?:${NAMES})`, 'iu');
const BASS = new RegExp(`(?<=/)(?:${NAMES}|do)(?=(?:bb|##|[#b♯♭x𝄪𝄫])?$)`, 'iu');
const DO = /^do/iu;

const letterOf = (name: string): string => LETTERS[name.toLowerCase()] ?? name.toUpperCase();

function toLetters(written: string): string {
  const syllable = /^(?<letter>[a-h])(?<sign>is|es|s)$/iu.exec(written)?.groups;
  if (!syllable) return written.toLowerCase() === 'do' ? 'C' : letterOf(written);
  return (
    letterOf(syllable['letter'] ?? '') + (syllable['sign']?.toLowerCase() === 'is' ? '#' : 'b')
  );
}

/**
 * A chord symbol, note or key in letters: `Solm7/Si` is `Gm7/B`, `H7` is `B7`, `Fism7` is `F#m7`. `Do` is
 * a diminished D as well: it is C only where the text it stands in is in sol-fa.
 *
 * @example
 * inLetters('Sibmaj7'); // "Bbmaj7"
 * inLetters('Do7', true); // "C7"
 */
export const inLetters = (text: string, doIsC = false): string =>
  (doIsC ? text.replace(DO, 'C') : text).replace(ROOT, toLetters).replace(BASS, toLetters);

/** Whether a text begins with a name of sol-fa that is no German one; `Do` is left to what stands round it. */
export const beginsSolFa = (text: string): boolean => /^(?:sol|r[eé]|mi|fa|la|si)/iu.test(text);

/** Whether it begins with the German H, which says what B is meant to be. */
export const beginsGerman = (text: string): boolean => /^h/iu.test(text);
