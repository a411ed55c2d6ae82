/** A line of chords as a player types it, made into the text of a chart. */
import type { Chart } from 'corvel-core';
import { readChart } from '$core/chart/form';
import { withTitle } from '$core/chart/summary';
import { parseTyped } from '$core/chords/symbols';

interface TypedLine {
  readonly text: string;
  /** Whether the line has no bar lines: then each of its chords may be a bar, or all of them one. */
  readonly loose: boolean;
}

const REST = /^(?:n\.?c\.?|%)$/iu;

/** The chords of a line without bar lines; null where it is anything else. */
function looseChords(typed: string): readonly string[] | null {
  const line = typed.trim();
  if (/[|:[\]\n/]{1}/u.test(line.replace(/\S\/\S/gu, ''))) return null;
  const tokens = line.split(/\s+/u);
  if (tokens.length < 2) return null;
  return tokens.every((token) => REST.test(token) || parseTyped(token) !== null) ? tokens : null;
}

/**
 * What a typed line says: chords that only spaces part are a bar each, or all of them one bar where the
 * player wants it so; whatever else was typed stays as it is.
 *
 * @example typedLine('Am F C G', false).text // '| Am | F | C | G |'
 */
export function typedLine(typed: string, oneBar: boolean): TypedLine {
  const chords = looseChords(typed);
  if (!chords) return { text: typed, loose: false };
  return { text: `| ${chords.join(oneBar ? ' ' : ' | ')} |`, loose: true };
}

/** Chords that name a chart which has no title. */
const NAMED_BY = 4;

/** What a chart is called: by its title, or by its first chords where it has none. */
export const nameOf = ({ source, chords }: Chart): string =>
  source.title ||
  chords
    .slice(0, NAMED_BY)
    .map(({ chord }) => chord.symbol)
    .join(' ');

/** A chart's text with its first chords for a name, where it has none. */
export function namedByChords(text: string): string {
  const read = readChart(text);
  const name = read.ok && read.chart.source.title === '' ? nameOf(read.chart) : '';
  return name === '' ? text : withTitle(text, name);
}
