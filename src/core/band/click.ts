/** The metronome: counting in, and clicking as much or as little as the player can do with. */
import { at, range } from '../lists';
import { barOf, type TimeSignature } from '../time/metre';
import type { Beats } from '../time/units';
import type { BandForm } from './form';
import { pulsesOf } from '../time/pulses';

/** On which beats a click is heard. */
export const CLICKS = [
  'none',
  'every beat',
  'two and four',
  'once a bar',
  'every two bars',
] as const;
export type Click = (typeof CLICKS)[number];

/** A click, at its beat of the form. */
export interface ClickEvent {
  readonly beat: Beats;
  /** Whether it is the first of a bar. */
  readonly strong: boolean;
}

/** A bar of clicks on its pulses, from a beat on. */
const barFrom = (time: TimeSignature, from: Beats): readonly ClickEvent[] =>
  pulsesOf(time).map(({ beat }, index) => ({ beat: from + beat, strong: index === 0 }));

/**
 * Bars counted before beat 0: of two or more, all but the last at half the pace, as bands are counted off.
 *
 * @example countIn({ beats: 4, unit: 4 }, 1).map(({ beat }) => inBeats(beat)); // [-4,-3,-2,-1]
 */
export const countIn = (time: TimeSignature, bars: number): readonly ClickEvent[] =>
  range(0, bars).flatMap((bar) => {
    const clicks = barFrom(time, (bar - bars) * barOf(time));
    const halved = bar < bars - 1 && clicks.length > 2 && clicks.length % 2 === 0;
    return halved ? clicks.filter((_, index) => index % 2 === 0) : clicks;
  });

/**
 * The clicks through a form. `firstBar` is the number of its first bar, counted on through passes,
 * so that a click in two bars does not fall into each pass of a single one.
 *
 * @example clicksOf(bandForm(read('| C |')), 'two and four').map(({ beat }) => inBeats(beat)); // [1,3]
 */
export function clicksOf(
  { bars, time }: Pick<BandForm, 'bars' | 'time'>,
  click: Click,
  firstBar = 0,
): readonly ClickEvent[] {
  const pulses = pulsesOf(time);
  return bars.flatMap(({ beat }, index): readonly ClickEvent[] => {
    switch (click) {
      case 'none':
        return [];
      case 'every beat':
        return barFrom(time, beat);
      case 'two and four': {
        // The weak beats; in a bar of one beat there is no other.
        const weak = pulses.filter(({ place, of }) => place > 0 || of === 1);
        return weak.map((pulse) => ({ beat: beat + pulse.beat, strong: false }));
      }
      case 'once a bar':
        return [{ beat, strong: true }];
      case 'every two bars':
        return (firstBar + index) % 2 === 0
          ? [{ beat: beat + at(pulses, 0).beat, strong: true }]
          : [];
    }
  });
}
