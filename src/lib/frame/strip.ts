/** How the strip is laid out, and how it names what it brackets. */
import { group } from '$core/lists';
import type { Chart } from 'corvel-core';
import type { Cadence } from '$core/harmony/cadences';
import type { KeyArea } from '$core/harmony/reading';
import { keyName, writeKey } from '$core/keys/keys';
import { showSymbol } from '$lib/ui/glyphs';
import type { LaneView } from '$lib/study/view';

/** Width of a chord symbol in the strip's face, in pixels, a little generously: large, and in a line closed. */
const LARGE = { beside: 18, letter: 10.5 } as const;
const SMALL = { beside: 13, letter: 8.5 } as const;
type Face = typeof LARGE | typeof SMALL;

/** Width of the fullest bar of a chart in one of the strip's faces. */
const fullest = (chart: Chart, { beside, letter }: Face): number =>
  Math.max(
    60,
    ...[...group(chart.chords, ({ bar }) => bar).values()].map((chords) =>
      chords.reduce((sum, { chord }) => sum + beside + showSymbol(chord.symbol).length * letter, 0),
    ),
  );

/** Whether every symbol has room to be written large. */
export const isRoomy = (chart: Chart, width: number, columns: number): boolean =>
  width / columns >= fullest(chart, LARGE);

const COLUMNS = [16, 8, 4, 2, 1] as const;
/** So many bars stand in short lines. */
const FEW = 32;

/**
 * Bars in a line: as many as leave the fullest bar room for all of its symbols, so that a symbol
 * is never cut short and read as another chord.
 */
export function columnsFor(chart: Chart, width: number): number {
  const needed = fullest(chart, SMALL);
  const { length } = chart.bars;
  const enough = COLUMNS.slice(length > FEW ? 0 : length > 4 ? 1 : 2);
  return enough.find((columns) => width / columns >= needed) ?? 1;
}

/** The line each bar stands in, from 0: a section begins a new one. */
export function linesOf(chart: Chart, columns: number): readonly number[] {
  const lines: number[] = [];
  let line = 0;
  let taken = 0;
  for (const [index, { section }] of chart.bars.entries()) {
    const begins = index > 0 && chart.bars[index - 1]?.section !== section;
    if (begins || taken === columns) {
      line += 1;
      taken = 0;
    }
    taken += 1;
    lines.push(line);
  }
  return lines;
}

/** Width of a letter of a bar's heading, in pixels, a little generously, and of what stands beside. */
const HEADING = { letter: 5.8, beside: 26 } as const;

/**
 * What stands over a bar in its room, in pixels: its section and its key, each given as it may be
 * written, the longest first. The key is shortened before the section; where both have no room the
 * section stands alone.
 *
 * @example headingInRoom(['A, first time', 'A'], ['in Ab major', 'in Ab'], 150) // ['A, first time', 'in Ab']
 */
export function headingInRoom(
  sections: readonly string[],
  keys: readonly string[],
  room: number,
): readonly [section: string, key: string] {
  const pairs = [keys, ['']].flatMap((some) =>
    sections.flatMap((section) => some.map((key) => [section, key] as const)),
  );
  const width = (words: readonly string[]) =>
    HEADING.beside + HEADING.letter * words.join('').length;
  return pairs.find((words) => width(words) <= room) ?? [sections.at(-1) ?? '', ''];
}

const PASSES = ['', 'first', 'second', 'third', 'fourth'] as const;

/** Another time through a section: `first time`. */
const passName = (pass: number): string => `${PASSES[pass] ?? `${pass}th`} time`;

interface BarHeading {
  readonly section: string;
  readonly key: string;
  /** Both at their longest. */
  readonly whole: string;
}

/**
 * What stands over a bar where a section, another time through it, or a key area begins.
 *
 * @param index the bar's place in the form, from 0
 * @param area the key area it is of, where areas are shown
 * @param room pixels
 */
export function headingOf(
  chart: Chart,
  index: number,
  area: KeyArea | undefined,
  room: number,
): BarHeading {
  const bar = chart.bars[index];
  if (!bar) return { section: '', key: '', whole: '' };
  const before = chart.bars[index - 1];
  const begins = before?.section !== bar.section || before.pass !== bar.pass;
  const name = (begins && chart.source.sections[bar.section]?.name) || null;
  const again = chart.bars.some((other) => other.section === bar.section && other.pass > 1);
  const time = begins && again ? passName(bar.pass) : null;
  const whole = [name, time].filter((word) => word !== null).join(', ');
  const into = area?.from === bar.number ? area : null;
  const keys = into
    ? [keyName(into.key), writeKey(into.key)].map(
        (written) => `${into.heard ? 'heard in' : 'in'} ${showSymbol(written)}`,
      )
    : [''];
  const [section, key] = headingInRoom([whole, name ?? time ?? ''], keys, room);
  return { section, key, whole: [whole, keys[0]].filter(Boolean).join(', ') };
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
  melody: 'The melody',
};
