/** A chart as ChordPro: its bars as grids, since a chart has no words for its chords to stand over. */
import type { Chart } from '../../../chart/form';
import type { Bar, Slot } from '../../../chart/syntax';
import { writeKey } from '../../../keys/keys';
import { greatestDivisor } from '../../../lists';
import { inRows, sharesOf, type WrittenBar, writtenBars } from '../written';

/** Cells for the shares of a bar: one for each beat where its chords stand on beats. */
function cellsOf(slots: readonly Slot[], beats: number): readonly string[] {
  const total = Math.max(1, sharesOf(slots));
  // The least number of cells that holds both the beats and the shares.
  const cells = (beats * total) / greatestDivisor(beats, total);
  return slots.flatMap(({ chord, shares }) => [
    chord?.symbol ?? 'N.C.',
    ...Array.from({ length: (shares * cells) / total - 1 }, () => '.'),
  ]);
}

const BARS_A_LINE = 4;

const named = (name: string): string => name.replace(/[{}"\r\n]+/gu, ' ').trim();

/** The bars as they are played, where endings have no sign in a grid. */
function playedBars({ source, bars }: Chart): readonly WrittenBar[] {
  const written = writtenBars(source);
  const starts = source.sections.map((_, index) =>
    source.sections.slice(0, index).reduce((sum, section) => sum + section.bars.length, 0),
  );
  return bars.flatMap(({ section, sourceBar }) => {
    const one = written[(starts[section] ?? 0) + sourceBar];
    const plain = (bar: Bar): Bar => ({
      ...bar,
      opensRepeat: false,
      closesRepeat: null,
      endings: [],
    });
    return one ? [{ ...one, bar: plain(one.bar), begins: 1, ends: 1 }] : [];
  });
}

/** Writes a chart as a song sheet of grids; a form with endings is written out as it is played. */
export function writeSong(chart: Chart): string {
  const { source } = chart;
  const { title, key, time, tempo } = source;
  const written = writtenBars(source);
  const endings = written.some(({ bar }) => bar.endings.length > 0);
  const bars = endings ? playedBars(chart) : written;
  const lines: string[] = [];
  let open = false;
  const close = () => {
    if (open) lines.push('{end_of_grid}');
    open = false;
  };
  for (const row of inRows(bars, BARS_A_LINE)) {
    const section = row[0]?.section;
    if (section || !open) {
      close();
      const label = section?.name ? ` label="${named(section.name)}"` : '';
      lines.push(`{start_of_grid${label === '' ? '' : `:${label}`}}`);
      open = true;
    }
    const cells = row.map(({ slots, bar, begins, ends }) => {
      const times = bar.closesRepeat ?? (ends > 1 ? ends : null);
      const before = bar.opensRepeat || begins > 1 ? '|: ' : '| ';
      const after = times === null ? '' : ` :|${times > 2 ? ` x${times}` : ''}`;
      return `${before}${cellsOf(slots, time.beats).join(' ')}${after}`;
    });
    const line = cells.join(' ');
    lines.push(/(?:\|| x\d+)$/u.test(line) ? line : `${line} |`);
  }
  close();
  return `${[
    `{title: ${named(title) || 'Untitled'}}`,
    ...(key === null ? [] : [`{key: ${writeKey(key)}}`]),
    `{time: ${time.beats}/${time.unit}}`,
    ...(tempo === null ? [] : [`{tempo: ${tempo}}`]),
    ...lines,
  ].join('\n')}\n`;
}
