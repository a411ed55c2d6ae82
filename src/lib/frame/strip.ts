/** How the strip is laid out, and how it names what it brackets. */
import { group } from 'd3-array';
import type { Chart } from '$core/chart/form';
import type { Cadence } from '$core/harmony/cadences';
import { keyName } from '$core/keys/keys';
import { showSymbol } from '$lib/ui/glyphs';
import type { LaneView } from '$lib/study/view';

/** Width of a chord symbol in the strip's face, in pixels, a little generously. */
const symbolWidth = (symbol: string): number => 18 + symbol.length * 10.5;

const COLUMNS = [8, 4, 2, 1] as const;

/**
 * Bars in a line: as many as leave the fullest bar room for all of its symbols, so that a symbol
 * is never cut short and read as another chord.
 */
export function columnsFor(chart: Chart, width: number): number {
  const fullest = Math.max(
    60,
    ...[...group(chart.chords, ({ bar }) => bar).values()].map((chords) =>
      chords.reduce((sum, { chord }) => sum + symbolWidth(chord.symbol), 0),
    ),
  );
  const enough = chart.bars.length > 4 ? COLUMNS : COLUMNS.slice(1);
  return enough.find((columns) => width / columns >= fullest) ?? 1;
}

const KINDS: Readonly<Record<string, string>> = {
  'ii-V-I major': 'ii–V–I',
  'ii-V-I minor': 'minor ii–V–i',
  'ii-bII-I': 'ii–♭II–I',
  'ii-V': 'ii–V without arrival',
  'ii-V chain': 'a chain of ii–V’s',
  'V-I': 'V–I',
  'IV-I': 'IV–I',
  'bVII-I': '♭VII–I',
  turnaround: 'turnaround',
};

/** `ii–V–I in A♭ major`. */
export const showCadence = ({ kind, key }: Cadence): string =>
  `${KINDS[kind] ?? kind} in ${showSymbol(keyName(key))}`;

export const LANE_NAMES: Readonly<Record<LaneView, string>> = {
  none: 'No lane',
  '1': 'Roots',
  '3': 'Thirds',
  '5': 'Fifths',
  '7': 'Sevenths',
  smooth: 'Smoothest tones',
  guideTones: 'Guide tones',
  route: 'Targets',
};
