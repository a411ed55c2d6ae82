/** Naming the form of a whole chart. */
import type { Chart } from '../chart/form';
import type { Chord } from '../chords/chords';
import { twelveBarName } from './blues';
import type { Key } from '../keys/keys';

const chordText = (chord: Chord | null) =>
  chord === null ? '-' : `${chord.root}${chord.quality.name}`;

/** The chord sounding at the head of each bar; null where none does. */
function barHeads(chart: Chart): readonly (Chord | null)[] {
  const heads: (Chord | null)[] = chart.bars.map(() => null);
  for (const { chord, bar } of chart.chords) heads[bar - 1] ??= chord;
  return heads;
}

function sameStretch(heads: readonly (Chord | null)[], a: number, b: number, length: number) {
  let same = 0;
  for (let bar = 0; bar < length; bar++) {
    if (chordText(heads[a + bar] ?? null) === chordText(heads[b + bar] ?? null)) same += 1;
  }
  // The last quarter may turn round differently.
  return same >= length * 0.75;
}

function songForm(heads: readonly (Chord | null)[]): string | null {
  const quarter = heads.length / 4;
  if (heads.length >= 16 && Number.isInteger(quarter)) {
    const second = sameStretch(heads, 0, quarter, quarter);
    const bridge = sameStretch(heads, 0, 2 * quarter, quarter);
    const last = sameStretch(heads, 0, 3 * quarter, quarter);
    if (second && !bridge && last) return 'AABA';
  }
  const third = heads.length / 3;
  if (heads.length >= 12 && Number.isInteger(third)) {
    const second = sameStretch(heads, 0, third, third);
    if (second && !sameStretch(heads, 0, 2 * third, third)) return 'AAB';
  }
  const half = heads.length / 2;
  if (heads.length >= 16 && Number.isInteger(quarter)) {
    const second = sameStretch(heads, 0, quarter, quarter);
    const returns = sameStretch(heads, 0, half, quarter);
    const endings = sameStretch(heads, quarter, 3 * quarter, quarter);
    if (!second && returns && !endings) return 'ABAC';
  }
  return null;
}

/** `12-bar blues` and its kinds; null for any other form. */
export const bluesForm = (chart: Chart, key: Key): string | null =>
  twelveBarName(barHeads(chart), key);

/** `12-bar blues`, `AABA`, `16-bar form`; null when the form has no usual name. */
export function nameForm(chart: Chart, key: Key | null): string | null {
  const blues = key ? bluesForm(chart, key) : null;
  if (blues) return blues;
  const heads = barHeads(chart);
  const song = songForm(heads);
  if (song) return song;
  return [8, 16, 32].includes(heads.length) ? `${heads.length}-bar form` : null;
}
