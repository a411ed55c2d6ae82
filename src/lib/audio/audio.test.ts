import fc from 'fast-check';
import { describe, expect, test, vi } from 'vitest';
import { BEAT, inBeats, parseChord, type Passage, STANDARD_NECK } from 'corvel-core';
import { note } from '$core/notes/notes';
import { PLAIN_PASSAGE, struck } from '$core/phrases/passage';
import { readFeel } from '$core/time/feel';
import { tempoMap } from '$core/time/tempo';
import { hearProgramme } from './hear';
import { DEFAULT_MIX, gainsOf } from './mix';
import { type Output, silentOutput, type Sound } from './output';
import {
  passageOnce,
  passageProgramme,
  passesOf,
  type Programme,
  programmeOf,
  type SoundEvent,
} from './programme';
import { createTransport } from './transport.svelte';

const event = (beat: number, midi = 60): SoundEvent => ({
  part: 'line',
  beat: beat * BEAT,
  beats: BEAT,
  midi,
  velocity: 0.5,
});
const midiOf = (one: SoundEvent | undefined) => (one && 'midi' in one ? one.midi : null);
const STEADY = tempoMap([{ beat: 0, bpm: 60 }]);
const loop = (events: readonly SoundEvent[], length: number, start = 0) =>
  programmeOf(events, { length: length * BEAT, start: start * BEAT, ends: null, tempo: STEADY });
/** What begins between two beats, and when. */
const due = (programme: Programme, from: number, to: number) =>
  programme.eventsBetween(from * BEAT, to * BEAT);
const beatsIn = (programme: Programme, from: number, to: number) =>
  due(programme, from, to).map(({ beat }) => inBeats(beat));

const line = (changed: Partial<Passage>): Passage => ({
  ...PLAIN_PASSAGE,
  time: { beats: 4, unit: 4 },
  beats: 4 * BEAT,
  neck: STANDARD_NECK,
  notes: [],
  ...changed,
});
const at = (beat: number, beats: number) =>
  struck({
    beat: beat * BEAT,
    beats: beats * BEAT,
    string: 3,
    fret: 5,
    note: note('C'),
    chord: null,
  });

describe('programmes', () => {
  test('play what begins within their length, and nothing before their beginning', () => {
    const programme = loop(
      [-1.5, -1, -0.5, 0, 3.5, 4, 5].map((beat) => event(beat)),
      4,
      -1,
    );
    const beats = (from: number, to: number) => beatsIn(programme, from, to);
    expect(beats(-2, 4)).toEqual([-1, -0.5, 0, 3, 3.5, 3.5]);
    // What stands at the beginning of a stretch is in it, what stands at its end is not.
    expect(beats(-1, 0)).toEqual([-1, -0.5]);
    expect(beats(0, 3)).toEqual([0]);
    expect(beats(4, 4)).toEqual([]);
    expect(beats(7, 8)).toEqual([7, 7.5, 7.5]);
    const once = programmeOf([event(0), event(3)], { length: 4 * BEAT, tempo: STEADY });
    expect(beatsIn(once, 0, 100)).toEqual([0, 3]);
  });

  test('what falls in any windows is what falls in all of them, once', () => {
    const events = fc.array(fc.double({ min: -1, max: 3.9, noNaN: true }), { maxLength: 6 });
    const cuts = fc.array(fc.double({ min: -1, max: 20, noNaN: true }), { maxLength: 8 });
    fc.assert(
      fc.property(events, cuts, (beats, inner) => {
        const programme = loop(
          beats.map((beat) => event(beat)),
          4,
          -1,
        );
        const edges = [-1, ...inner, 20].sort((a, b) => a - b);
        const pieces = edges
          .slice(1)
          .flatMap((edge, index) => due(programme, edges[index] ?? -1, edge));
        const whole = due(programme, -1, 20).map(({ beat }) => beat);
        expect(pieces.map(({ beat }) => beat)).toEqual(whole);
      }),
    );
  });

  test('a pick-up leads into every pass', () => {
    expect(beatsIn(loop([event(-1), event(0)], 4, -1), -1, 8)).toEqual([-1, 0, 3, 4, 7]);
    const once = { length: 4 * BEAT, start: -BEAT, tempo: STEADY };
    expect(due(programmeOf([event(-1), event(0)], once), -1, 8)).toHaveLength(2);
  });

  test('every pass is asked for by its number', () => {
    const counted = passesOf((number) => [event(0, 60 + number)], {
      length: 2 * BEAT,
      ends: null,
      tempo: STEADY,
    });
    expect(due(counted, 0, 6).map((one) => [inBeats(one.beat), midiOf(one)])).toEqual([
      [0, 60],
      [2, 61],
      [4, 62],
    ]);
  });

  test('a passage sounds at its pitches and its tempo, swung where its feel swings', () => {
    const notes = [at(0, 0.5), at(0.5, 0.5), at(1 / 3, 1 / 3)];
    const swung = passageProgramme(line({ notes, feel: readFeel('swing'), tempo: 90 }), 0.5);
    expect(swung.tempo.secondsAt(3 * BEAT)).toBe(4);
    const beats = beatsIn(swung, 0, 4);
    expect(beats[1]).toBeCloseTo(1 / 3);
    expect(beats[2]).toBeCloseTo(2 / 3);
    expect(due(swung, 0, 4).map(midiOf)).toEqual([60, 60, 60]);
    const straight = passageProgramme(line({ notes, feel: readFeel('bossa') }));
    expect(beatsIn(straight, 0, 4)).toContain(0.5);
  });

  test('a passage that is heard once ends without the pick-up of another round', () => {
    const led = line({ notes: [at(-1, 1), at(0, 4)], pickUp: BEAT, beats: 4 * BEAT });
    const beatsOf = (programme: Programme) => beatsIn(programme, -1, 99);
    expect(beatsOf(passageOnce(led))).toEqual([-1, 0]);
    expect(passageOnce(led).ends).toBe(4 * BEAT);
    expect(beatsOf(passageProgramme(led)).slice(0, 4)).toEqual([-1, 0, 3, 4]);
  });

  test('a choice is heard as its chord, then its notes upward', () => {
    const chord = parseChord('Am7');
    if (!chord) throw new Error('Am7');
    const heard = hearProgramme(chord, ['A', 'C', 'D'].map(note));
    const line = due(heard, 0.1, 99).map(midiOf);
    expect(line).toEqual([69, 72, 74]);
    expect(due(heard, 0, 0.1)).toHaveLength(4);
  });
});

/** An output whose clock is turned by hand, and which writes down what it is given, slowly if wished. */
function byHand({ takes = 0 } = {}) {
  let now = 10;
  const ticks = new Set<() => void>();
  const given: Sound[] = [];
  let silenced = 0;
  const output: Output = {
    silent: null,
    now: () => now,
    every(tick) {
      ticks.add(tick);
      return () => void ticks.delete(tick);
    },
    prepare: () => Promise.resolve(null),
    mix: () => undefined,
    sound: (sound) => {
      const began = performance.now();
      while (performance.now() - began < takes);
      given.push(sound);
    },
    silence: () => void (silenced += 1),
  };
  return {
    output,
    given,
    ticks,
    silences: () => silenced,
    turn(seconds: number) {
      for (let gone = 0; gone < seconds; gone += 0.05) {
        now += 0.05;
        for (const tick of [...ticks]) tick();
      }
    },
  };
}

describe('the transport', () => {
  const opened = (hand: ReturnType<typeof byHand>) =>
    createTransport(() => Promise.resolve(hand.output));

  test('hands over every note once, in time, round the loop', async () => {
    const hand = byHand();
    const transport = opened(hand);
    await transport.play(loop([event(0, 60), event(1, 62), event(1.5, 64)], 2));
    hand.turn(6);
    const first = hand.given[0]?.at ?? 0;
    const times = hand.given.map((tone) => Math.round((tone.at - first) * 1000) / 1000);
    expect(times.slice(0, 7)).toEqual([0, 1, 1.5, 2, 3, 3.5, 4]);
    expect(new Set(times).size).toBe(times.length);
    expect(transport.secondsAt(0)).toBeCloseTo(first);
    expect(transport.beatAt(first + 3)).toBe(3 * BEAT);
  });

  test('hands over a chord once, in time, where each of its notes takes long', async () => {
    vi.stubGlobal('document', { visibilityState: 'visible' });
    const hand = byHand({ takes: 2 });
    const transport = opened(hand);
    const chord = [60, 64, 67, 71].map((midi) => event(0, midi));
    await transport.play(loop([...chord, event(0.5, 62)], 1));
    hand.turn(4);
    const first = hand.given[0]?.at ?? 0;
    const notes = hand.given.map(
      ({ at, event }) => `${(at - first).toFixed(3)} ${midiOf(event) ?? ''}`,
    );
    expect(new Set(notes).size).toBe(notes.length);
    expect(notes.filter((one) => Number(one.split(' ')[0]) < 3)).toHaveLength(15);
    vi.unstubAllGlobals();
  });

  test('goes on when its page sleeps for a second', async () => {
    const hand = byHand();
    const transport = opened(hand);
    await transport.play(loop([event(0), event(0.5), event(1), event(1.5)], 2));
    const before = hand.given.length;
    // What one waking schedules must last until the next.
    expect(before).toBeGreaterThanOrEqual(2);
    hand.turn(1);
    expect(hand.given.length).toBeGreaterThan(before);
  });

  test('nothing is handed over after stop, nor by a play that was called off', async () => {
    const hand = byHand();
    const transport = opened(hand);
    await transport.play(loop([event(0)], 1));
    const count = hand.given.length;
    transport.stop();
    expect(hand.silences()).toBe(1);
    expect(hand.ticks.size).toBe(0);
    hand.turn(3);
    expect(hand.given).toHaveLength(count);
    // While the sound is still being opened.
    const fresh = opened(hand);
    const late = fresh.play(loop([event(0)], 1));
    fresh.stop();
    await late;
    expect(fresh.playing).toBe(false);
    expect(hand.given).toHaveLength(count);
  });

  test('another programme ends the one before', async () => {
    const hand = byHand();
    const transport = opened(hand);
    await transport.play(loop([event(0, 60)], 1));
    await transport.play(loop([event(0, 72)], 1));
    const from = hand.given.findIndex((one) => midiOf(one.event) === 72);
    hand.turn(3);
    expect(hand.ticks.size).toBe(1);
    expect(hand.given.slice(from).every((one) => midiOf(one.event) === 72)).toBe(true);
  });

  test('what does not loop ends by itself, after its count', async () => {
    const hand = byHand();
    const transport = opened(hand);
    const count = [event(-4, 90), event(-2, 90)];
    const once = programmeOf([event(0)], {
      length: 2 * BEAT,
      count,
      countIn: 4 * BEAT,
      tempo: STEADY,
    });
    await transport.play(once);
    expect(transport.beat).toBe(-4 * BEAT);
    expect((transport.secondsAt(0) ?? 0) - hand.output.now()).toBeCloseTo(4.1);
    expect(hand.given.map(({ at }) => at - hand.output.now()).slice(0, 2)).toEqual([
      expect.closeTo(0.1),
      expect.closeTo(2.1),
    ]);
    hand.turn(7);
    expect(transport.playing).toBe(false);
  });

  test('another tempo takes over without a gap, where what is scheduled ends', async () => {
    const hand = byHand();
    const transport = opened(hand);
    const beats = [event(0), event(0.5)];
    await transport.play(loop(beats, 1));
    hand.turn(2);
    const before = hand.given.length;
    const fast = tempoMap([{ beat: 0, bpm: 120 }]);
    const here = transport.beatAt(hand.output.now()) ?? 0;
    transport.change({ ...loop(beats, 1), tempo: fast });
    expect(transport.beatAt(hand.output.now())).toBe(here);
    hand.turn(4);
    const gaps = hand.given.slice(1).map(({ at }, index) => at - (hand.given[index]?.at ?? 0));
    expect(gaps.slice(0, before - 1).every((gap) => Math.abs(gap - 0.5) < 1e-6)).toBe(true);
    expect(gaps.slice(before).every((gap) => Math.abs(gap - 0.25) < 1e-6)).toBe(true);
    expect(gaps[before - 1]).toBeLessThanOrEqual(0.5 + 1e-6);
    expect(transport.beatAt(hand.output.now())).toBeGreaterThan(8 * BEAT);
  });

  test('in ten minutes no note strays from its beat', async () => {
    const hand = byHand();
    const transport = opened(hand);
    await transport.play(
      programmeOf([event(0), event(1 / 3)], {
        length: 7 * BEAT,
        ends: null,
        tempo: tempoMap([{ beat: 0, bpm: 173 }]),
      }),
    );
    hand.turn(600);
    const first = hand.given[0]?.at ?? 0;
    hand.given.forEach(({ at }, index) => {
      const beat = 7 * Math.floor(index / 2) + (index % 2) / 3;
      expect(Math.abs(at - first - (beat * 60) / 173)).toBeLessThan(0.001);
    });
    expect(hand.given.length).toBeGreaterThan(490);
  });

  test('without a sound device it goes on in time, and says so', async () => {
    let now = 0;
    const transport = createTransport(() => Promise.resolve(silentOutput(undefined, () => now)));
    await transport.play(loop([event(0)], 1));
    now = 1.6;
    expect(transport.silent).toMatch(/no sound/u);
    expect(transport.beatAt(now)).toBe((3 * BEAT) / 2);
    transport.stop();
  });
});

describe('the mix', () => {
  test('mutes, plays one alone, and starts moderate', () => {
    const usual = gainsOf(DEFAULT_MIX);
    expect(usual.master).toBeLessThan(0.5);
    expect(gainsOf({ ...DEFAULT_MIX, muted: ['bass'] }).parts).toMatchObject({
      bass: 0,
      comp: usual.parts.comp,
    });
    const alone = gainsOf({ ...DEFAULT_MIX, muted: ['line'], solo: 'line' }).parts;
    expect(alone.line).toBe(usual.parts.line);
    expect(alone.drums).toBe(0);
    expect(gainsOf({ ...DEFAULT_MIX, master: 7 }).master).toBeLessThanOrEqual(1);
  });
});
