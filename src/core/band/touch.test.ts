import { describe, expect, test } from 'vitest';
import { chordNotes } from '../chords/chords';
import { group, range } from '../lists';
import { pitchClass } from '../notes/notes';
import { FEEL_KINDS } from '../time/feel';
import { bandOf, type BandOptions } from './band';
import type { BandEvent, DrumEvent } from './events';
import { bandForm, chordAt, type BandForm } from './form';
import { chartOf } from '$tests/laws';

const FORM = bandForm(
  chartOf(
    'key: Bb\n[A]\n| Cm7 | F7 | Bbmaj7 | Eb7 D7b9 |\n[B]\n| Gm7 | C7 F7 | Dm7 G7 | Cm7 F7 |\n[C]\n' +
      '| Bb7 | Eb7 | Bb7 | % | Gm | Eb | Bb | F |',
  ),
);
const THREE = 3;
const play = (form: BandForm, options: BandOptions = {}) =>
  bandOf(form, { choruses: THREE, loops: true, seed: 3, ...options });
const drumsIn = (events: readonly BandEvent[]) =>
  events.filter((one): one is DrumEvent => one.part === 'drums');

const mean = (values: readonly number[]) =>
  values.reduce((sum, value) => sum + value, 0) / values.length;
const spreadOf = (values: readonly number[]) => {
  const middle = mean(values);
  return Math.sqrt(mean(values.map((value) => (value - middle) ** 2)));
};

describe.each(FEEL_KINDS)('three choruses of %s', (kind) => {
  const events = play(FORM, { feel: kind });

  test('every part lies about its place, by three to twelve milliseconds', () => {
    const lates = (holds: (one: BandEvent) => boolean) =>
      events.filter(holds).map(({ late = 0 }) => late);
    const parts = [
      lates(({ part }) => part === 'bass'),
      lates(({ part }) => part === 'comp'),
      ...[...group(drumsIn(events), ({ drum }) => drum).values()]
        .filter((some) => some.length > 24)
        .map((some) => some.map(({ late = 0 }) => late)),
    ];
    for (const some of parts) {
      expect(spreadOf(some)).toBeGreaterThan(2.6);
      expect(spreadOf(some)).toBeLessThan(12);
      expect(Math.max(...some.map(Math.abs))).toBeLessThan(35);
    }
    // The bass is on the beat, the comping a little behind it.
    expect(Math.abs(mean(lates(({ part }) => part === 'bass')))).toBeLessThan(3);
    expect(mean(lates(({ part }) => part === 'comp'))).toBeGreaterThan(4);
  });

  test('no bar of the drums is more than a third of all', () => {
    const bars = range(0, THREE * FORM.bars.length).map((bar) =>
      drumsIn(events)
        .filter(({ beat }) => beat >= 4 * bar - 1e-6 && beat < 4 * bar + 4 - 1e-6)
        .map(({ drum, beat }) => `${drum} ${(beat - 4 * bar).toFixed(2)}`)
        .sort()
        .join(),
    );
    for (const one of bars) {
      expect(bars.filter((other) => other === one).length / bars.length).toBeLessThanOrEqual(1 / 3);
    }
  });

  test('a chord that comes again is voiced in several ways', () => {
    const comp = events.filter((one) => one.part === 'comp');
    const strokes = [...group(comp, ({ beat }) => beat).values()];
    const voicings = new Map<string, Set<string>>();
    for (const some of strokes) {
      const [first] = some;
      const over = first && chordAt(FORM, first.beat % FORM.beats);
      if (!over) continue;
      const midis = some.map((one) => ('midi' in one ? one.midi : 0)).join(' ');
      const known = voicings.get(over.chord.symbol) ?? new Set();
      voicings.set(over.chord.symbol, known.add(midis));
    }
    for (const [symbol, some] of voicings) expect(some.size, symbol).toBeGreaterThanOrEqual(2);
  });

  test('the bass never plays the third its chord has not', () => {
    for (const one of events) {
      if (one.part !== 'bass') continue;
      const over = chordAt(FORM, one.beat % FORM.beats);
      if (!over) continue;
      const sizes = chordNotes(over.chord).map(
        (tone) => (pitchClass(tone) - pitchClass(over.chord.root) + 12) % 12,
      );
      const here = (one.midi - pitchClass(over.chord.root) + 120) % 12;
      const starts = Math.abs(over.beat - (one.beat % FORM.beats)) < 1e-6;
      if (starts || sizes.includes(here)) continue;
      if (sizes.includes(3)) expect(here, `${over.chord.symbol} at ${one.beat}`).not.toBe(4);
      if (sizes.includes(4)) expect(here, `${over.chord.symbol} at ${one.beat}`).not.toBe(3);
    }
  });
});

describe('the form of a band', () => {
  test('its second chorus says more than its fourth', () => {
    const events = bandOf(FORM, { choruses: 4, loops: true });
    const strokes = (chorus: number) =>
      events.filter(
        ({ part, beat }) =>
          part !== 'bass' && beat >= chorus * FORM.beats && beat < (chorus + 1) * FORM.beats,
      ).length;
    expect(strokes(1)).toBeGreaterThan(1.1 * strokes(3));
    const later = bandOf(FORM, { loops: true, before: 3 });
    const first = bandOf(FORM, { loops: true });
    expect(later.length).toBeLessThan(first.length);
  });

  test('an ending comes home, whatever the form stops on', () => {
    const events = bandOf(FORM, { ending: true });
    const after = events.filter(({ beat }) => beat >= FORM.beats);
    expect(after.length).toBeGreaterThan(3);
    for (const { beat, beats } of after) {
      expect(beat).toBe(FORM.beats);
      expect(beats).toBe(4);
    }
    const bass = after.find(({ part }) => part === 'bass');
    expect(bass && 'midi' in bass ? bass.midi % 12 : -1).toBe(10);
    // The last bar of the form is played through.
    expect(events.some(({ beat }) => beat > FORM.beats - 2 && beat < FORM.beats)).toBe(true);
  });

  test('an introduction of four bars lies before beat 0', () => {
    const events = bandOf(FORM, { intro: true });
    const before = events.filter(({ beat }) => beat < 0);
    expect(before.length).toBeGreaterThan(20);
    expect(before[0]?.beat).toBe(-16);
    expect(bandOf(FORM, { intro: true, seed: 5 })).toEqual(bandOf(FORM, { intro: true, seed: 5 }));
  });
});
