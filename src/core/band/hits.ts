/** Patterns laid over a form: which part is struck when. */
import { rememberBy } from '../cache';
import { at, group } from '../lists';
import type { FeelKind } from '../time/feel';
import type { Beats } from '../time/units';
import type { BandForm } from './form';
import type { Cells } from './patterns';
import { offsetIn, type Pulse, type PulsePart, pulsesOf } from '../time/pulses';

/** A stroke of a cell: the place of its pulse in the group, the part of it, and what is said of it. */
interface Stroke {
  readonly place: number;
  readonly part: PulsePart;
  /** A capital, for the bass. */
  readonly role: string | null;
  /** How much louder than the rest: 1 for as loud. */
  readonly accent: number;
}

const ACCENTS: Readonly<Record<string, number>> = { '!': 1.25, '.': 0.6 };

const readCell = rememberBy(
  (cell: string) => cell,
  (cell: string): readonly Stroke[] =>
    [...cell.matchAll(/(\d)([e&at]?)([A-Z]?)([!.]?)/gu)].map(([, place, part, role, mark]) => ({
      place: Number(place) - 1,
      part: (part || 'on') as PulsePart,
      role: role || null,
      accent: ACCENTS[mark ?? ''] ?? 1,
    })),
);

/** A stroke where it falls in the form. */
export interface Hit {
  readonly beat: Beats;
  readonly bar: number;
  readonly pulse: Pulse;
  /** Where its pulse begins and ends in the form. */
  readonly from: Beats;
  readonly to: Beats;
  readonly onPulse: boolean;
  readonly role: string | null;
  readonly accent: number;
}

/** Which cell a group of pulses takes; groups are counted through the whole form. */
export type Choose = (cells: readonly string[], bar: number, group: number) => string;

/** In turn through the form. */
export const inTurn: Choose = (cells, _, group) => at(cells, group % cells.length);

/** The strokes of a cell in its group of a bar, counted from the beginning of the bar. */
const inGroup = (
  pulses: readonly Pulse[],
  cell: string,
  feel: FeelKind,
): readonly Omit<Hit, 'bar'>[] =>
  pulses.flatMap((pulse) =>
    readCell(cell)
      .filter(({ place, part }) => place === pulse.place && (part !== 't' || pulse.triple))
      .map(({ part, role, accent }) => ({
        beat: pulse.beat + offsetIn(pulse, part, feel),
        pulse,
        from: pulse.beat,
        to: pulse.beat + pulse.beats,
        onPulse: part === 'on',
        role,
        accent,
      })),
  );

/** The strokes of cells through a form, in order of time. */
export function hitsOf(
  form: BandForm,
  cells: Cells,
  feel: FeelKind,
  choose: Choose,
): readonly Hit[] {
  const groups = [...group(pulsesOf(form.time), (pulse) => pulse.group).values()];
  // A single pulse takes the beginning of a group of two.
  const laid = groups.map((pulses) => {
    const own = pulses.length === 3 ? cells.three : cells.two;
    return { own, strokes: new Map(own.map((cell) => [cell, inGroup(pulses, cell, feel)])) };
  });
  const hits: Hit[] = [];
  let last = -1;
  form.bars.forEach(({ beat }, bar) => {
    laid.forEach(({ own, strokes }, index) => {
      for (const stroke of strokes.get(choose(own, bar, bar * laid.length + index)) ?? []) {
        const at = beat + stroke.beat;
        if (at <= last) continue;
        last = at;
        const { pulse, onPulse, role, accent } = stroke;
        const [from, to] = [beat + stroke.from, beat + stroke.to];
        hits.push({ beat: at, bar, pulse, from, to, onPulse, role, accent });
      }
    });
  });
  return hits;
}
