/** Kinds built on the line engine: double stops, round the triads, the melody in an octave. */
import { describe, expect, test } from 'vitest';
import { chordNotes } from '../chords/chords';
import { transposeChart } from '../chart/rewrite';
import { rememberBy } from '../cache';
import { at, group, range } from '../lists';
import { pitchAt, STANDARD_NECK } from '../neck/neck';
import { note, noteName, pitchClass } from '../notes/notes';
import { struck, type PlayedNote } from '../phrases/passage';
import { playedOver, settingOf } from '$tests/lines';
import { makeExercise } from './exercises';
import { BEAT } from '../time/units';
import { secondsOf } from '../time/tempo';

const BLUES =
  'tempo: 100\nfeel: shuffle\nkey: C\n| C7 | F7 | C7 | % | F7 | % | C7 | % | G7 | F7 | C7 | G7 |';
const BALLAD =
  'tempo: 66\nfeel: ballad\nkey: C\n| Cmaj7 | Em7 A7 | Dm7 | Fm6 | Em7 | Am7 | Dm7 | G7 |';
const SWING = 'tempo: 240\nfeel: swing\nkey: C\n| Dm7 | G7 | Cmaj7 | A7 | Dm7 | G7 | Cmaj7 | % |';
const KEYS = ['C', 'Eb', 'F#', 'A', 'Bb'].map(note);

/** In five keys, and as many zones and seeds. */
const everywhere = (text: string) =>
  KEYS.map((key, zone) => ({
    text: transposeChart(text, note('C'), key) ?? text,
    zone,
    seed: zone + 1,
  }));

const midi = (one: PlayedNote) => pitchAt(STANDARD_NECK, one);

describe('only what moves', () => {
  test('plays the voices that move to each triad, one after another, and none that is held', () => {
    const { request } = settingOf('key: C\n| C | F | G | C Am |', 1, { kind: 'moving-voices' });
    const { notes } = makeExercise(request).passage;
    const over = (index: number) => notes.filter(({ chord }) => chord === index);
    const names = (index: number) =>
      over(index)
        .map(({ note }) => noteName(note))
        .sort()
        .join(' ');
    // C holds to F, all three move to G, G holds to C, C and E to A minor, which ends elsewhere than it began.
    expect([0, 1, 2, 3, 4].map(names)).toEqual(['C E G', 'A F', 'B D G', 'C E', 'A']);
    for (const [index, { beat, beats }] of request.chart.chords.entries()) {
      const own = over(index);
      expect(own[0]?.beat).toBe(beat);
      const last = own.at(-1);
      expect(last && last.beat + last.beats).toBe(beat + beats);
      own.slice(0, -1).forEach((one) => expect(one.beats).toBe(BEAT));
    }
    // Where nothing moves the triad is played once.
    const still = settingOf('| C | % |', 1, { kind: 'moving-voices' });
    expect(makeExercise(still.request).passage.notes.map(({ chord }) => chord)).toEqual([0, 0, 0]);
    // One voice after another, the nearest first.
    expect(over(1).map(({ note }) => noteName(note))).toEqual(['F', 'A']);
  });

  test('says where there is nothing to play', () => {
    const { request } = settingOf('| C5 | G5 |', 1, { kind: 'moving-voices' });
    expect(makeExercise(request).warnings[0]).toMatch(/^No chord of this chart has a triad/u);
  });
});

describe('double stops', () => {
  const played = rememberBy(
    (text: string, zone: number, seed: number) => `${text} ${zone} ${seed}`,
    (text: string, zone: number, seed: number) =>
      playedOver(text, zone, { kind: 'double-stops', seed }),
  );
  const stopsIn = (notes: readonly PlayedNote[]) => [...group(notes, ({ beat }) => beat).values()];

  test.each([BLUES, BALLAD, SWING])('breathe, and are struck on and off the beat: %s', (text) => {
    let [all, off] = [0, 0];
    for (const { text: chart, zone, seed } of everywhere(text)) {
      const { passage } = played(chart, zone, seed).exercise;
      const stops = stopsIn(passage.notes);
      expect(stops.every(({ length }) => length === 2)).toBe(true);
      const beats = stops.map(([low]) => low?.beat ?? 0);
      all += beats.length;
      off += beats.filter((beat) => beat % BEAT !== 0).length;
      const sounding = stops.reduce((sum, [low]) => sum + (low?.beats ?? 0), 0);
      expect(sounding / passage.beats).toBeLessThan(0.95);
      expect(stops.length).toBeGreaterThan(passage.beats / (4 * BEAT));
    }
    expect(off / all).toBeGreaterThan(0.2);
  });

  test('leave a hand the time to grip', () => {
    for (const text of [BLUES, BALLAD, SWING]) {
      const tempo = Number(/tempo: (\d+)/u.exec(text)?.[1]);
      for (const { text: chart, zone, seed } of everywhere(text)) {
        const { notes } = played(chart, zone, seed).exercise.passage;
        const stops = stopsIn(notes);
        stops.slice(1).forEach((stop, index) => {
          const before = at(stops, index);
          const [from, to] = [at(before, 0), at(stop, 0)];
          // The pair of frets between two stops keeps its grip.
          const slid = from.string === to.string && Math.abs(from.fret - to.fret) === 1;
          if (!slid) expect(secondsOf(to.beat - from.beat, tempo)).toBeGreaterThan(0.21);
        });
      }
    }
  });

  test('move by step as a rule, in one kind, and say the chord where they are held', () => {
    let [moves, steps, held, tones] = [0, 0, 0, 0];
    for (const text of [BLUES, BALLAD]) {
      for (const { text: key, zone, seed } of everywhere(text)) {
        const { chart, exercise } = played(key, zone, seed);
        const stops = stopsIn(exercise.passage.notes);
        for (const [index, stop] of stops.entries()) {
          const before = stops[index - 1];
          if (before && before.every((one) => one.beat + one.beats >= at(stop, 0).beat)) {
            moves += 1;
            const ways = stop.map((one, voice) => Math.abs(midi(one) - midi(at(before, voice))));
            if (Math.max(...ways) <= 4) steps += 1;
          }
          if (at(stop, 0).beats < BEAT) continue;
          for (const one of stop) {
            const { chord } = at(chart.chords, one.chord ?? 0);
            held += 1;
            if (chordNotes(chord).map(pitchClass).includes(pitchClass(one.note))) tones += 1;
          }
        }
      }
    }
    expect(steps / moves).toBeGreaterThan(0.65);
    expect(tones / held).toBeGreaterThan(0.9);
  });

  test('slide into phrases of a blues, with the frets between two stops; a ballad has none of those', () => {
    const chromatic = (text: string) => {
      let found = 0;
      for (const { text: key, zone, seed } of everywhere(text)) {
        const { exercise, request } = played(key, zone, seed);
        for (const one of exercise.passage.notes) {
          const own = at(request.materials, one.chord ?? 0).notes.map(pitchClass);
          const tones = chordNotes(at(request.chart.chords, one.chord ?? 0).chord).map(pitchClass);
          if (own.includes(pitchClass(one.note)) || tones.includes(pitchClass(one.note))) continue;
          found += 1;
          expect(one.beats).toBeLessThanOrEqual(BEAT / 2);
        }
      }
      return found;
    };
    expect(chromatic(BLUES)).toBeGreaterThan(0);
    expect(chromatic(BALLAD)).toBe(0);
    const slides = everywhere(BLUES).flatMap(({ text, zone, seed }) =>
      played(text, zone, seed).exercise.passage.notes.filter(({ techniques }) =>
        techniques.some(({ kind }) => kind === 'slide'),
      ),
    );
    expect(slides.length).toBeGreaterThan(4);
  });
});

describe('round the triads', () => {
  test.each([[[1, 2, 3]], [[2, 3, 4]], [[3, 4, 5]]])(
    'keeps to strings %j, and to the triad more than any other line',
    (strings) => {
      let [tones, all, others, those] = [0, 0, 0, 0];
      for (const { text, zone, seed } of everywhere(SWING)) {
        const { exercise, chart } = playedOver(text, zone, { kind: 'triads', strings, seed });
        const isTone = (one: PlayedNote) => {
          const { chord } = at(chart.chords, one.chord ?? 0);
          return chordNotes(chord).map(pitchClass).includes(pitchClass(one.note));
        };
        const { notes } = exercise.passage;
        expect(notes.every(({ string }) => strings.includes(string))).toBe(true);
        all += notes.length;
        tones += notes.filter(isTone).length;
        const line = playedOver(text, zone, { kind: 'line', seed }).exercise.passage.notes;
        those += line.length;
        others += line.filter(isTone).length;
      }
      expect(tones / all).toBeGreaterThan(0.62);
      expect(tones / all).toBeGreaterThan(others / those);
    },
  );

  test('goes to the nearest triad: the hand stays by the zone', () => {
    for (const { text, zone, seed } of everywhere(SWING)) {
      const { exercise, request } = playedOver(text, zone, { kind: 'triads', seed });
      const frets = exercise.passage.notes.map(({ fret }) => fret);
      expect(Math.min(...frets)).toBeGreaterThanOrEqual(request.zone.low - 4);
      expect(Math.max(...frets)).toBeLessThanOrEqual(request.zone.high + 4);
    }
  });
});

describe('a melody', () => {
  const TUNE = range(0, 8).map((beat) =>
    struck({
      string: 2,
      fret: at([5, 6, 8, 6, 5, 3, 5, 8], beat),
      note: note('C'),
      beat: 2 * beat * BEAT,
      beats: 2 * BEAT,
      chord: null,
    }),
  );
  const own = TUNE.map(midi);
  const sung = (kind: 'melody' | 'melody-varied', zone: number, octave?: number | null) =>
    playedOver(SWING, zone, { kind, melody: TUNE, ...(octave === undefined ? {} : { octave }) })
      .exercise.passage.notes;

  test('is varied in its own octave, in every zone, or in the one asked for', () => {
    for (const zone of range(0, 5)) {
      // The first two bars stand as they are.
      const begun = (octave?: number | null) =>
        sung('melody-varied', zone, octave).slice(0, 4).map(midi);
      expect(begun()).toEqual(own.slice(0, 4));
      expect(begun(1)).toEqual(own.slice(0, 4).map((one) => one + 12));
      expect(begun(-1)).toEqual(own.slice(0, 4).map((one) => one - 12));
    }
  });

  test('by itself lies where the hand is, and goes where it is asked', () => {
    const low = sung('melody', 0).map(midi);
    expect(low.map((one) => one - at(low, 0) + at(own, 0))).toEqual(own);
    for (const zone of range(0, 5)) expect(sung('melody', zone, 0).map(midi)).toEqual(own);
    expect(sung('melody', 4, -1).map(midi)).toEqual(own.map((one) => one - 12));
  });
});
