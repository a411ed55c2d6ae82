import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { readChart } from '../chart/form';
import { chordNotes } from '../chords/chords';
import { group } from '../lists';
import { pitchClass } from '../notes/notes';
import { feelOfKind, FEEL_KINDS } from '../time/feel';
import { bandOf, type BandOptions, feelFor } from './band';
import { clicksOf, countIn } from './click';
import type { BandEvent, PitchedEvent } from './events';
import { bandForm, type BandForm, chordAt } from './form';
import { pulsesOf } from '../time/pulses';
import { runs } from '$tests/laws';
import { BEAT, inBeats } from '../time/units';

function formOf(text: string): BandForm {
  const read = readChart(text);
  if (!read.ok) throw new Error(read.problems[0]?.message);
  return bandForm(read.chart);
}

const pitched = (events: readonly BandEvent[], part: 'bass' | 'comp') =>
  events.filter((one): one is PitchedEvent => one.part === part);

const FORM = `key: Bb
[A]
| Cm7 | F7 | Bbmaj7 | Eb7 D7b9 |
[B]
| Gm7 | C7 F7 | N.C. | Bb6 |`;

const CHORDS = [
  'Cm7',
  'F7',
  'Bbmaj7',
  'D7b9',
  'Gm',
  'Ab6',
  'Em7b5',
  'C5',
  'Fsus4',
  'C/E',
  'G7alt',
  'N.C.',
];
const charts = fc
  .record({
    time: fc.constantFrom('4/4', '3/4', '2/2', '5/4', '6/8', '7/8', '9/8', '12/8', '7/4', '5/8'),
    bars: fc.array(fc.array(fc.constantFrom(...CHORDS), { minLength: 1, maxLength: 4 }), {
      minLength: 1,
      maxLength: 9,
    }),
    feel: fc.constantFrom(...FEEL_KINDS),
    seed: fc.nat(1000),
    loops: fc.boolean(),
  })
  .map(({ time, bars, ...rest }) => ({
    form: formOf(`time: ${time}\n| ${bars.map((bar) => bar.join(' ')).join(' | ')} |`),
    ...rest,
  }));

const play = (form: BandForm, options: BandOptions = {}) => bandOf(form, options);

describe('in every feel and metre', () => {
  const all = (holds: (events: readonly BandEvent[], form: BandForm) => void) => {
    fc.assert(
      fc.property(charts, ({ form, feel, seed, loops }) => {
        holds(bandOf(form, { feel, seed, loops }), form);
      }),
    );
  };

  test('events stand in order of time, within the form, in the range of their instrument', () => {
    all((events, form) => {
      events.forEach(({ beat, beats, velocity }, index) => {
        expect(beat).toBeGreaterThanOrEqual(events[index - 1]?.beat ?? 0);
        expect(beat).toBeLessThan(form.beats);
        expect(beats).toBeGreaterThan(0);
        expect([beat, beats].every(Number.isInteger)).toBe(true);
        expect(velocity).toBeGreaterThan(0);
        expect(velocity).toBeLessThanOrEqual(1);
      });
      for (const { midi } of pitched(events, 'bass')) {
        expect(midi).toBeGreaterThanOrEqual(28);
        expect(midi).toBeLessThanOrEqual(55);
      }
      for (const { midi } of pitched(events, 'comp')) {
        expect(midi).toBeGreaterThanOrEqual(48);
        expect(midi).toBeLessThanOrEqual(72);
      }
    });
  });

  test('the bass has the root, or the note under the slash, on every change', () => {
    all((events, form) => {
      const bass = pitched(events, 'bass');
      for (const { chord, beat } of form.chords) {
        const first = bass.find((one) => one.beat === beat);
        expect(first && first.midi % 12).toBe(pitchClass(chord.bass ?? chord.root));
      }
    });
  });

  test('bass and comp are silent where no chord sounds, and one bass note sounds at a time', () => {
    all((events, form) => {
      const bass = pitched(events, 'bass');
      for (const { beat } of [...bass, ...pitched(events, 'comp')])
        expect(chordAt(form, beat)).not.toBeNull();
      bass.slice(1).forEach(({ beat }, index) => {
        const before = bass[index];
        expect((before?.beat ?? 0) + (before?.beats ?? 0)).toBeLessThanOrEqual(beat);
      });
    });
  });

  test('comping plays only what the symbol names, of this chord or of the one it comes before', () => {
    all((events, form) => {
      const pulse = Math.max(...pulsesOf(form.time).map(({ beats }) => beats));
      for (const { beat, midi } of pitched(events, 'comp')) {
        const over = form.chords.filter(
          (one) => one.beat + one.beats > beat && one.beat <= beat + pulse,
        );
        const allowed = over.flatMap(({ chord }) => chordNotes(chord).map(pitchClass));
        expect(allowed).toContain(midi % 12);
      }
    });
  });

  test('it is the same for the same seed', () => {
    fc.assert(
      fc.property(charts, ({ form, feel, seed }) => {
        const once = () => bandOf(form, { feel, seed, choruses: 2 });
        expect(once()).toEqual(once());
      }),
      runs(20),
    );
  });
});

describe('the walk and the voices', () => {
  const form = formOf(FORM);

  test('four to the bar, and a half step, a step or a fifth into each next root', () => {
    for (const seed of [1, 2, 3, 4, 5]) {
      const bass = pitched(play(form, { seed, loops: true }), 'bass');
      expect(bass.filter(({ beat }) => beat < 4 * BEAT).map(({ beat }) => inBeats(beat))).toEqual([
        0, 1, 2, 3,
      ]);
      for (const { beat } of form.chords.slice(1, 4)) {
        const at = bass.findIndex((one) => one.beat === beat);
        const way = Math.abs((bass[at]?.midi ?? 0) - (bass[at - 1]?.midi ?? 0));
        expect([1, 2, 5, 7]).toContain(way);
      }
    }
  });

  test('each voice moves by little', () => {
    const comp = pitched(play(form, { loops: true }), 'comp');
    const voicings = [...group(comp, ({ beat }) => beat).values()].map((chord) =>
      chord.map(({ midi }) => midi).sort((a, b) => a - b),
    );
    expect(voicings.length).toBeGreaterThan(10);
    voicings.slice(1).forEach((voicing, index) => {
      const before = voicings[index] ?? [];
      if (before.length !== voicing.length) return;
      const ways = voicing.map((midi, voice) => Math.abs(midi - (before[voice] ?? midi)));
      expect(ways.reduce((sum, way) => sum + way, 0) / ways.length).toBeLessThanOrEqual(4);
    });
  });

  test('third and seventh are in every voicing of a seventh chord', () => {
    const comp = pitched(play(formOf('| Cmaj7 | F7 | Bm7b5 | E7b9 |')), 'comp');
    const last = comp.filter(({ beat }) => beat >= 12 * BEAT).map(({ midi }) => midi % 12);
    expect(last).toEqual(expect.arrayContaining([8, 2, 5]));
  });

  test('a choice adds its ninth and thirteenth, no more', () => {
    const read = readChart('| Dm7 | Dm7 | Dm7 | Dm7 |');
    if (!read.ok) throw new Error('unreadable');
    const { chart } = read;
    const dorian = chordNotes(read.chart.chords[0]?.chord ?? (undefined as never));
    const ninth = formOf('| E |').chords[0]?.chord.root;
    if (ninth === undefined) throw new Error('no E');
    const chosen = chart.chords.map(() => [...dorian, ninth]);
    const classes = new Set(
      pitched(play(bandForm(chart, { chosen }), { loops: true }), 'comp').map(
        ({ midi }) => midi % 12,
      ),
    );
    expect(classes.has(4)).toBe(true);
    expect([...classes].every((one) => [2, 4, 5, 9, 0].includes(one))).toBe(true);
  });
});

describe('the form', () => {
  const form = formOf(FORM);

  test('a fill leads into a section, which opens with a stroke of its own', () => {
    const drums = play(form, { loops: true }).filter(({ part }) => part === 'drums');
    const strokes = (from: number, to: number) =>
      drums.flatMap((one) =>
        one.part === 'drums' && one.beat >= from * BEAT && one.beat < to * BEAT ? [one.drum] : [],
      );
    expect(strokes(14, 16)).toContain('snare');
    expect(strokes(16, 17)).toContain('crash');
    expect(strokes(0, 14)).not.toContain('tom');
  });

  test('the second chorus is not the first again, and the last bar comes to rest', () => {
    const events = play(form, { choruses: 2 });
    const chorus = (from: number) =>
      events
        .filter(({ beat }) => beat >= from * BEAT && beat < (from + 24) * BEAT)
        .map((one) => JSON.stringify({ ...one, beat: one.beat - from * BEAT, velocity: 0 }));
    expect(chorus(32)).not.toEqual(chorus(0));
    expect(events.filter(({ beat }) => beat > 60 * BEAT)).toEqual([]);
    const rest = events.filter(({ beat, part }) => beat === 60 * BEAT && part !== 'drums');
    expect(rest.length).toBeGreaterThan(3);
    expect(rest.every(({ beats }) => beats === 4 * BEAT)).toBe(true);
  });

  test('some bars of a chart are a form of their own, a held chord begins with them', () => {
    const read = readChart('| Cm7 | % | F7 | Bb |');
    if (!read.ok) throw new Error('unreadable');
    const some = bandForm(read.chart, { from: 1, to: 3 });
    expect(some.beats).toBe(8 * BEAT);
    expect(some.chords.map(({ chord, beat }) => [chord.symbol, inBeats(beat)])).toEqual([
      ['Cm7', 0],
      ['F7', 4],
    ]);
  });

  test('without words a chart swings, or rolls in twelve', () => {
    expect(feelFor(null, { beats: 4, unit: 4 }).kind).toBe('swing');
    expect(feelFor(null, { beats: 12, unit: 8 }).kind).toBe('slow 12/8');
    expect(feelFor(feelOfKind('bossa'), { beats: 12, unit: 8 }).kind).toBe('bossa');
  });
});

describe('pulses and clicks', () => {
  test.each([
    [4, 4, [1, 1, 1, 1]],
    [5, 4, [1, 1, 1, 1, 1]],
    [7, 8, [2, 2, 3]],
    [5, 8, [3, 2]],
    [12, 8, [3, 3, 3, 3]],
    [2, 2, [0.5, 0.5, 0.5, 0.5]],
  ])('%i/%i', (beats, unit, lengths) => {
    expect(pulsesOf({ beats, unit }).map((one) => inBeats(one.beats))).toEqual(lengths);
  });

  test('pulses fill any bar', () => {
    const time = fc.record({
      beats: fc.integer({ min: 1, max: 16 }),
      unit: fc.constantFrom(2, 4, 8, 16),
    });
    fc.assert(
      fc.property(time, (one) => {
        const pulses = pulsesOf(one);
        expect(pulses.reduce((sum, { beats }) => sum + beats, 0)).toBe(one.beats * BEAT);
        expect(pulses.every(({ place, of }) => place < of)).toBe(true);
      }),
    );
  });

  test('clicks fall where they are asked for', () => {
    const form = formOf('| C | F |');
    const beats = (click: Parameters<typeof clicksOf>[1], bar = 0) =>
      clicksOf(form, click, bar).map(({ beat }) => inBeats(beat));
    expect(beats('every beat')).toEqual([0, 1, 2, 3, 4, 5, 6, 7]);
    expect(beats('two and four')).toEqual([1, 3, 5, 7]);
    expect(beats('once a bar')).toEqual([0, 4]);
    expect(beats('every two bars')).toEqual([0]);
    expect(beats('every two bars', 1)).toEqual([4]);
    expect(beats('none')).toEqual([]);
    expect(countIn(form.time, 2).map(({ beat }) => inBeats(beat))).toEqual([
      -8, -6, -4, -3, -2, -1,
    ]);
  });
});
