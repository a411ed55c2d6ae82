/** Where repeats begin and end, opened or not. */

interface Marked {
  readonly opensRepeat: boolean;
  readonly closesRepeat: number | null;
  readonly endings: readonly number[];
}

interface RepeatSpan {
  readonly start: number;
  readonly end: number;
}

/**
 * The repeats of a row of bars. One that is not opened begins behind the repeat before it; the
 * endings of a repeat belong to it, so that it ends with the last of them that closes.
 */
export function repeatSpans(bars: readonly Marked[]): readonly RepeatSpan[] {
  const spans: RepeatSpan[] = [];
  let start = 0;
  let ended = false;
  bars.forEach((bar, index) => {
    if (bar.opensRepeat || (ended && bar.endings.length === 0)) {
      start = index;
    }
    ended = false;
    if (bar.closesRepeat === null) return;
    const last = spans.at(-1);
    if (last?.start === start) spans[spans.length - 1] = { start, end: index };
    else spans.push({ start, end: index });
    ended = true;
  });
  return spans;
}
