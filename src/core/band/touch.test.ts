import { describe, expect, test } from 'vitest';
import { chordNotes } from '../chords/chords';
import { group, range } from '../lists';
import { pitchClass } from '../notes/notes';
import { FEEL_KINDS, type FeelKind } from '../time/feel';
import { bandOf, type BandOptions, endingOf } from './band';
import type { BandEvent, DrumEvent } from './events';
import { bandForm, chordAt, type BandForm } from './form';
import { chartOf, pairs, some } from '$tests/laws';
import { CHARTS } from '$tests/lines';
import { BEAT, inBeats } from '../time/units';

const FIRST =
  'key: Bb\n[A]\n| Cm7 | F7 | Bbmaj7 | Eb7 D7b9 |\n[B]\n| Gm7 | C7 F7 | Dm7 G7 | Cm7 F7 |\n[C]\n' +
  '| Bb7 | Eb7 | Bb7 | % | Gm | Eb | Bb | F |';
const FORM = bandForm(chartOf(FIRST));
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

/** Charts of every idiom, and every feel: a few of the pairs here, all of them in the long runs. */
const EVERYWHERE = some(pairs([...CHARTS, FIRST], FEEL_KINDS), 70);

/** What is wrong with three choruses of a chart in a feel, in words; nothing where all is well. */
function faultsIn(text: string, kind: FeelKind): readonly string[] {
  const form = bandForm(chartOf(text));
  const events = play(form, { feel: kind });
  const where = `${kind}: ${text}`;
  const faults: string[] = [];
  const ask = (holds: boolean, fault: string) => {
    if (!holds) faults.push(`${fault} (${where})`);
  };

  const lates = (holds: (one: BandEvent) => boolean) =>
    events.filter(holds).map(({ late = 0 }) => late);
  const parts = [
    lates(({ part }) => part === 'bass'),
    lates(({ part }) => part === 'comp'),
    ...[...group(drumsIn(events), ({ drum }) => drum).values()].map((own) =>
      own.map(({ late = 0 }) => late),
    ),
  ].filter((own) => own.length > 40);
  for (const own of parts) {
    ask(spreadOf(own) > 2.4 && spreadOf(own) < 12, `a spread of ${spreadOf(own)} ms`);
    ask(Math.max(...own.map(Math.abs)) < 35, 'a stroke far off');
  }
  // The bass is on the beat, the comping a little behind it.
  ask(Math.abs(mean(lates(({ part }) => part === 'bass'))) < 3.5, 'a bass beside the beat');
  ask(mean(lates(({ part }) => part === 'comp')) > 3.5, 'comping on the beat');

  const all = range(0, THREE).flatMap((chorus) =>
    form.bars.map(({ beat, beats }) => ({ from: chorus * form.beats + beat, beats })),
  );
  const bars = all.map(({ from, beats }) =>
    drumsIn(events)
      .filter(({ beat }) => beat >= from && beat < from + beats)
      .map(({ drum, beat }) => `${drum} ${inBeats(beat - from).toFixed(2)}`)
      .sort()
      .join(),
  );
  const most = Math.max(...[...group(bars, (bar) => bar).values()].map(({ length }) => length));
  // Of very short forms one more is no rule.
  ask(most <= Math.max(bars.length / 3, 5), `${most} of ${bars.length} bars of drums alike`);

  const comp = events.filter((one) => one.part === 'comp');
  const voicings = new Map<string, Set<string>>();
  for (const stroke of group(comp, ({ beat }) => beat).values()) {
    const [first] = stroke;
    const over = first && chordAt(form, first.beat % form.beats);
    if (!over) continue;
    const midis = stroke.map((one) => ('midi' in one ? one.midi : 0)).join(' ');
    const known = voicings.get(over.chord.symbol) ?? new Set();
    voicings.set(over.chord.symbol, known.add(midis));
  }
  for (const [symbol, own] of voicings) ask(own.size >= 2, `${symbol} is voiced in one way`);

  for (const one of events) {
    if (one.part !== 'bass') continue;
    const over = chordAt(form, one.beat % form.beats);
    if (!over) continue;
    const sizes = chordNotes(over.chord).map(
      (tone) => (pitchClass(tone) - pitchClass(over.chord.root) + 12) % 12,
    );
    const here = (one.midi - pitchClass(over.chord.root) + 120) % 12;
    const starts = over.beat === one.beat % form.beats;
    if (starts || sizes.includes(here)) continue;
    const foreign = (sizes.includes(3) && here === 4) || (sizes.includes(4) && here === 3);
    // An early root says the chord that comes.
    const next = chordAt(form, (one.beat + BEAT) % form.beats);
    const early = next !== null && pitchClass(next.chord.bass ?? next.chord.root) === one.midi % 12;
    ask(!foreign || early, `a foreign third under ${over.chord.symbol} at ${inBeats(one.beat)}`);
  }
  return faults;
}

test('three choruses of any chart in any feel: a touch, drums that vary, chords voiced anew, no foreign third', () => {
  expect(EVERYWHERE.flatMap(([text, kind]) => faultsIn(text, kind))).toEqual([]);
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
      expect(beats).toBe(4 * BEAT);
    }
    const bass = after.find(({ part }) => part === 'bass');
    expect(bass && 'midi' in bass ? bass.midi % 12 : -1).toBe(10);
    // Home is on the root, whatever stands in the bass, and no dominant of IV.
    const last = (text: string) =>
      endingOf(bandForm(chartOf(text))).flatMap((one) => ('midi' in one ? [one] : []));
    const over = last('key: C\n| C7/E | F | C/E | G7 |');
    expect(over.find(({ part }) => part === 'bass')?.midi).toSatisfy(
      (midi: number) => midi % 12 === 0,
    );
    expect(over.map(({ midi }) => midi % 12)).not.toContain(10);
    expect(last('key: C\n| C7 | F7 | C7 | G7 |').map(({ midi }) => midi % 12)).toContain(10);
    // The last bar of the form is played through.
    expect(events.some(({ beat }) => beat > FORM.beats - 2 * BEAT && beat < FORM.beats)).toBe(true);
  });

  test('an introduction of four bars lies before beat 0', () => {
    const events = bandOf(FORM, { intro: true });
    const before = events.filter(({ beat }) => beat < 0);
    expect(before.length).toBeGreaterThan(20);
    expect(before[0]?.beat).toBe(-16 * BEAT);
    expect(bandOf(FORM, { intro: true, seed: 5 })).toEqual(bandOf(FORM, { intro: true, seed: 5 }));
  });
});
