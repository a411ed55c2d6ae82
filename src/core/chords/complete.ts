/** Completing a chord while it is typed. */
import { parseChord } from './symbols';

/** What players most often put behind a root, most usual first. */
const SUFFIXES = [
  ...['', 'm', '7', 'maj7', 'm7', 'm7b5', 'dim7', '6', 'm6', '9', 'maj9', 'm9', '13', 'sus4'],
  ...['7sus4', '7b9', '7#9', '7alt', '7#5', '7b5', '7#11', '7b13', '7b9b13', '13b9', '9sus4'],
  ...['69', 'add9', 'm(maj7)', 'maj7#11', 'maj7#5', 'm11', 'm69', 'sus2', 'dim', 'aug', '5', 'ø'],
] as const;

const MOST = 8;

/**
 * Chord symbols that go on from what is typed: those already in the chart first, then the usual
 * ones on its root. Nothing typed offers the chart's own chords, latest first.
 */
export function completeChord(typed: string, inChart: readonly string[]): readonly string[] {
  const text = typed.trim();
  const own = [...new Set(inChart)];
  if (text === '') return own.slice(0, MOST);
  const root = /^[A-G](?:bb|##|[#b♯♭])?/u.exec(text)?.[0];
  const usual = root === undefined ? [] : SUFFIXES.map((suffix) => root + suffix);
  const starts = (symbol: string) => symbol.startsWith(text) && symbol !== text;
  // Once the suffix is begun, the shortest way to end it is the likeliest.
  const likeliest = text === root ? usual : [...usual].sort((a, b) => a.length - b.length);
  return [...new Set([...own.filter(starts), ...likeliest.filter(starts)])]
    .filter((symbol) => parseChord(symbol) !== null || own.includes(symbol))
    .slice(0, MOST);
}
