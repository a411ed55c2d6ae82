import fc from 'fast-check';
import midi from '@tonejs/midi';
import { describe, expect, test } from 'vitest';
import { bandForm } from '$core/band/form';
import { CLICKS } from '$core/band/click';
import { BEAT, inBeats, noteName, type Passage, STANDARD_NECK } from 'corvel-core';
import { note, pitchClass } from '$core/notes/notes';
import { PLAIN_PASSAGE, struck } from '$core/phrases/passage';
import { feelOfKind } from '$core/time/feel';
import { feelAt } from '$core/time/swing';
import { tempoMap } from '$core/time/tempo';
import { defaultMaterial } from '$core/lenses/material';
import type { SoundEvent } from '$lib/audio/programme';
import type { PlannedChord } from '$lib/study/choices';
import { beatInLoop, fitLoop, loopAfter, loopAround, resized, sizeOf } from '$lib/study/loops';
import type { Loop, TURNS } from '$lib/study/playing';
import { KEY_WAYS, playSchema } from '$lib/study/playing';
import { passMidi, passScore } from './files';
import { shiftOf } from './keys';
import { courseOf, roundOf } from './course';
import { changeAfter, leftTo, nearness, showsAhead } from './moment';
import { cutPassage, landingStops, pickUpOf, targetLine } from './line';
import {
  isRest,
  leftOfTurn,
  type Session,
  type SessionProgramme,
  sessionProgramme,
  turnAt,
} from './session';
import { formsOf, stager } from './staged';
import { tempoAt, tempoFrom } from './tempos';
import { tapped, withTap } from './tapping';
import { chartOf } from '$tests/laws';

const CHART = chartOf(
  'key: F\n[A]\n| Gm7 | C7 | Fmaj7 | Am7b5 D7b9 |\n[B]\n| Bbm7 | Eb7 | Abmaj7 | % |',
);

/** So many beats. */
const at = (beats: number) => Math.round(beats * BEAT);

describe('the change to come', () => {
  // Chords 0 to 8; 7 and 8 are the same Abmaj7 struck twice.
  const whole = { start: at(0), beats: at(32), first: 0 };

  test('is the next other chord of the loop, by its beat in it', () => {
    expect(changeAfter(CHART, 3, whole)).toEqual({ index: 4, again: false, beat: at(14) });
    const bridge = { start: at(16), beats: at(16), first: 5 };
    expect(changeAfter(CHART, 5, bridge)).toEqual({ index: 6, again: false, beat: at(4) });
  });

  test('is the beginning of the next pass where no other comes, whatever follows the loop', () => {
    expect(changeAfter(CHART, 7, whole)).toEqual({ index: 0, again: true, beat: at(32) });
    const first = { start: at(0), beats: at(8), first: 0 };
    expect(changeAfter(CHART, 1, first)).toEqual({ index: 0, again: true, beat: at(8) });
  });
});

test('it is so many beats to a change as have begun', () => {
  const change = { beat: at(8) };
  expect([0, 4, 4.1, 7.9, 8, 9].map((beat) => leftTo(change, at(beat)) / BEAT)).toEqual([
    ...[8, 4, 4, 1, 0, 0],
  ]);
});

test('what comes is shown as long before as was asked, and grows from beat to beat', () => {
  const shown = (ahead: Parameters<typeof showsAhead>[0]) =>
    [at(4) + 1, at(4), at(2), at(1), at(0.5), 0].map((left) => showsAhead(ahead, left));
  expect(shown('always')).toEqual([true, true, true, true, true, true]);
  expect(shown('four beats')).toEqual([false, true, true, true, true, true]);
  expect(shown('two beats')).toEqual([false, false, true, true, true, true]);
  expect(shown('one beat')).toEqual([false, false, false, true, true, true]);
  expect(shown('nothing')).toEqual([false, false, false, false, false, true]);
  expect([6, 5, 4.1, 4, 3.5, 1, 0.2].map((left) => nearness(at(left)))).toEqual([
    ...[0, 0, 0, 1, 1, 4, 4],
  ]);
});

describe('keys', () => {
  test('each way comes through all twelve before any comes again', () => {
    for (const way of KEY_WAYS.filter((one) => one !== 'same')) {
      for (const round of [0, 12, 24]) {
        const keys = Array.from({ length: 12 }, (_, pass) => shiftOf(way, round + pass, 3));
        expect(new Set(keys).size).toBe(12);
      }
    }
    expect([0, 1, 2, 3].map((pass) => shiftOf('fourths', pass, 1))).toEqual([0, 5, 10, 3]);
    expect(shiftOf('same', 9, 1)).toBe(0);
    expect(shiftOf('random', 0, 5)).toBe(0);
  });

  test('a chart is moved with what is chosen over it, in the simpler spelling', () => {
    const planned = CHART.chords.map((played): PlannedChord => ({
      ...played,
      lens: 'mode',
      material: defaultMaterial(played.chord),
      then: null,
      intent: 'lean',
      chosen: false,
    }));
    const at = stager(
      { chart: CHART, key: CHART.source.key, planned },
      'key: F\n[A]\n| Gm7 | C7 | Fmaj7 | Am7b5 D7b9 |\n[B]\n| Bbm7 | Eb7 | Abmaj7 | % |',
    );
    const up = at(3);
    expect(up.chart.chords.map(({ chord }) => chord.symbol).slice(0, 3)).toEqual([
      'Bbm7',
      'Eb7',
      'Abmaj7',
    ]);
    expect(up.key && noteName(up.key.tonic)).toBe('Ab');
    for (const { chord, material } of up.planned)
      expect(material.name).toBe(defaultMaterial(chord).name);
    expect(at(3)).toBe(up);
    expect(at(0).planned).toBe(planned);
    // The band plays the bars that go round, whatever it played before, in the key of the pass.
    const forms = formsOf(at);
    const symbols = (from: number, to: number, halfSteps = 0) =>
      forms({ from, to }, halfSteps).chords.map(({ chord }) => chord.symbol);
    expect(symbols(0, 8)).toHaveLength(9);
    expect(symbols(4, 6)).toEqual(['Bbm7', 'Eb7']);
    expect(symbols(4, 5)).toEqual(['Bbm7']);
    expect(symbols(0, 2, 3)).toEqual(['Bbm7', 'Eb7']);
    expect(forms({ from: 4, to: 6 }, 0)).toBe(forms({ from: 4, to: 6 }, 0));
  });
});

describe('loops', () => {
  test('round a chord: it, two, two bars, its section, the form', () => {
    expect(loopAround(CHART, 1, 'chord')).toEqual({ from: 1, to: 2 });
    expect(loopAround(CHART, 2, 'two chords')).toEqual({ from: 2, to: 4 });
    expect(loopAround(CHART, 7, 'two bars')).toEqual({ from: 6, to: 8 });
    expect(loopAround(CHART, 5, 'section')).toEqual({ from: 4, to: 8 });
    expect(loopAround(CHART, 5, 'form')).toBeNull();
    expect(sizeOf(CHART, 5, { from: 4, to: 8 })).toBe('section');
    expect(sizeOf(CHART, 0, null)).toBe('form');
    expect(sizeOf(CHART, 0, { from: 0, to: 3 })).toBeNull();
  });

  test('longer and shorter, never empty, never past the end', () => {
    expect(resized(CHART, 1, null, 1)).toEqual({ from: 1, to: 2 });
    expect(resized(CHART, 0, { from: 6, to: 8 }, 1)).toEqual({ from: 6, to: 8 });
    expect(resized(CHART, 0, { from: 6, to: 7 }, -1)).toEqual({ from: 6, to: 7 });
    expect(fitLoop(CHART, { from: 6, to: 99 })).toEqual({ from: 6, to: 8 });
    expect(fitLoop(CHART, { from: 40, to: 42 })).toEqual({ from: 0, to: 8 });
  });

  test('the next and the one before are as long, round the form; the last has the bars that are left', () => {
    expect(loopAfter(CHART, { from: 0, to: 2 }, 1)).toEqual({ from: 2, to: 4 });
    expect(loopAfter(CHART, { from: 3, to: 6 }, 1)).toEqual({ from: 6, to: 8 });
    expect(loopAfter(CHART, { from: 6, to: 8 }, 1)).toEqual({ from: 0, to: 2 });
    expect(loopAfter(CHART, { from: 5, to: 8 }, 1)).toEqual({ from: 0, to: 3 });
    expect(loopAfter(CHART, { from: 4, to: 6 }, -1)).toEqual({ from: 2, to: 4 });
    expect(loopAfter(CHART, { from: 2, to: 4 }, -1)).toEqual({ from: 0, to: 2 });
    expect(loopAfter(CHART, { from: 1, to: 4 }, -1)).toEqual({ from: 5, to: 8 });
    expect(loopAfter(CHART, { from: 0, to: 8 }, -1)).toEqual({ from: 0, to: 8 });
  });

  test('a chord of one stands on its beat, and others nowhere', () => {
    const loop = { from: 2, to: 4 };
    const beats = (round: Loop | null) =>
      CHART.chords.map((_, index) => beatInLoop(CHART, round, index));
    expect(beats(null)).toEqual(CHART.chords.map(({ beat }) => beat));
    expect(beats(loop)).toEqual(
      CHART.chords.map(({ bar, beat }) => (bar === 3 || bar === 4 ? beat - at(8) : null)),
    );
    expect(beatInLoop(CHART, null, 99)).toBeNull();
  });
});

describe('turns, rests, tempo', () => {
  const whose = (turns: (typeof TURNS)[number], moments: readonly [number, number, number][]) =>
    moments.map(([bar, pass, seconds]) => turnAt(turns, { bar, pass, seconds }));

  test('whose turn it is', () => {
    expect(whose('none', [[0, 0, 0]])).toEqual([null]);
    expect(
      whose('sixty seconds', [
        [0, 0, 59],
        [9, 0, 60],
        [9, 0, 120],
      ]),
    ).toEqual(['corvel', 'player', 'corvel']);
    expect(
      whose('four bars', [
        [3, 0, 0],
        [4, 0, 0],
        [8, 1, 0],
      ]),
    ).toEqual(['corvel', 'player', 'corvel']);
    expect(
      whose('bar by bar', [
        [0, 0, 0],
        [1, 0, 0],
      ]),
    ).toEqual(['corvel', 'player']);
    expect(
      whose('pass by pass', [
        [7, 0, 0],
        [8, 1, 0],
      ]),
    ).toEqual(['corvel', 'player']);
    expect(leftOfTurn(75)).toBe(45);
  });

  test('the band rests in one bar of so many, and plays the first', () => {
    for (const every of [2, 4, 8, 16]) {
      for (const seed of [1, 2, 3]) {
        const silent = Array.from({ length: 4 * every }, (_, bar) => isRest(every, bar, seed));
        expect(silent[0]).toBe(false);
        for (let from = 0; from < silent.length; from += every)
          expect(silent.slice(from, from + every).filter(Boolean)).toHaveLength(1);
      }
    }
    expect(isRest(0, 3, 1)).toBe(false);
  });

  const passesFrom = (beat: number, length: number) => (pass: number) => beat + pass * length;
  test('a ramp goes up every so many passes and stops at its goal', () => {
    const up = tempoFrom(100, { by: 8, every: 2, goal: 120 }, passesFrom(at(0), at(16)));
    expect(up).toEqual([
      { beat: at(0), bpm: 100 },
      { beat: at(32), bpm: 108 },
      { beat: at(64), bpm: 116 },
      { beat: at(96), bpm: 120 },
    ]);
    expect(tempoAt(up, at(40))).toBe(108);
    expect([-4, 0, 31.9, 32, 95, 96, 500].map((beat) => tempoAt(up, at(beat)))).toEqual([
      ...[100, 100, 100, 108, 116, 120, 120],
    ]);
    // A ramp that begins later begins with its own tempo there.
    expect(tempoFrom(100, { by: 8, every: 2, goal: 110 }, passesFrom(at(48), at(16)))).toEqual([
      { beat: at(48), bpm: 100 },
      { beat: at(80), bpm: 108 },
      { beat: at(112), bpm: 110 },
    ]);
    expect(tempoFrom(100, { by: 5, every: 1, goal: 100 }, passesFrom(at(0), at(4)))).toEqual([
      { beat: at(0), bpm: 100 },
    ]);
    expect(
      tempoFrom(395, { by: 9, every: 1, goal: 400 }, passesFrom(at(0), at(4))).map(
        ({ bpm }) => bpm,
      ),
    ).toEqual([395, 400]);
    expect(
      tempoFrom(120, { by: 10, every: 1, goal: 95 }, passesFrom(at(8), at(4))).map(
        ({ bpm }) => bpm,
      ),
    ).toEqual([120, 110, 100, 95]);
    expect(tempoFrom(100, null, passesFrom(at(0), at(4)))).toHaveLength(1);
    expect(tempoFrom(9_999, { by: 3, every: 1, goal: 30 }, passesFrom(at(0), at(4)))[0]?.bpm).toBe(
      400,
    );
  });

  test('a tempo is tapped', () => {
    let taps: readonly number[] = [];
    for (const now of [0, 500, 1000, 1500]) taps = withTap(taps, now);
    expect(tapped(taps)).toBe(120);
    expect(tapped(withTap(taps, 9_000))).toBeNull();
    expect(tapped([])).toBeNull();
  });
});

const place = (beat: number, part: 'approach' | 'fill' | 'target' = 'fill') =>
  struck({ beat: at(beat), beats: at(1), string: 3, fret: 5, note: note('C'), chord: 0, part });
const passage = (notes: Passage['notes'], pickUp = 0): Passage => ({
  ...PLAIN_PASSAGE,
  time: { beats: 4, unit: 4 },
  beats: at(32),
  neck: STANDARD_NECK,
  pickUp: at(pickUp),
  notes,
});

describe('the line of a loop', () => {
  test('begins with its pick-up, which takes the place of what it would sound over', () => {
    const whole = passage([
      place(0),
      place(6),
      place(7, 'approach'),
      place(8, 'target'),
      place(14),
      place(15),
    ]);
    expect(pickUpOf(whole, at(8))).toBe(at(1));
    const cut = cutPassage(whole, at(8), at(16));
    expect(cut.notes.map(({ beat }) => inBeats(beat))).toEqual([-1, 0, 6]);
    expect(cut.beats).toBe(at(8));
    expect(cutPassage(whole, at(0), at(8)).pickUp).toBe(0);
    expect(cutPassage(passage([place(-1), place(0)], 1), at(0), at(8)).notes).toHaveLength(2);
  });

  test('a note is cut where the loop ends', () => {
    const long = passage([{ ...place(2), beats: at(9) }]);
    expect(cutPassage(long, at(0), at(4)).notes[0]?.beats).toBe(at(2));
  });

  test('a line lands on what it aims at, else where a chord begins; where it breathes, nowhere', () => {
    const notes = [
      { ...place(0), chord: 0 },
      { ...place(4, 'approach'), chord: 1 },
      { ...place(6, 'target'), chord: 1, fret: 7, note: note('D') },
      { ...place(8, 'approach'), chord: 2 },
      { ...place(9.5), chord: 2 },
      { ...place(12.5), chord: 3, note: note('E') },
    ];
    const stops = landingStops(CHART, passage(notes));
    expect(stops.map((stop) => stop && [stop.index, stop.fret]).slice(0, 6)).toEqual([
      [0, 5],
      [1, 7],
      null,
      [3, 5],
      null,
      null,
    ]);
    expect(stops[1]?.midi).toBe(62);
  });

  test('what it lands on is what is heard: a bend where it arrives, and never a grace', () => {
    const grace = { ...place(0), fret: 3, note: note('Bb'), techniques: [{ kind: 'grace' }] };
    const bent = { ...place(0), techniques: [{ kind: 'bend', by: 2 }] };
    const [stop] = landingStops(CHART, passage([grace, bent] as Passage['notes']));
    expect(stop).toMatchObject({ fret: 5, midi: 62, note: note('D') });
    const [chord] = CHART.chords;
    expect(stop?.degree).toBe(chord && note('D') - chord.chord.root);
    const [none] = landingStops(CHART, passage([grace] as Passage['notes']));
    expect(none).toBeNull();
  });

  test('targets ring for as long as their chords', () => {
    const stops = CHART.chords.map(({ index, chord }) => ({
      index,
      string: 3,
      fret: 5,
      note: chord.root,
      midi: 60,
      degree: 0 as never,
      halfSteps: 0,
      sentence: '',
    }));
    const line = targetLine(CHART, CHART.source.key, STANDARD_NECK, stops);
    expect(
      line.notes.map(({ beat, beats }) => [inBeats(beat), inBeats(beats)]).slice(2, 5),
    ).toEqual([
      [8, 4],
      [12, 2],
      [14, 2],
    ]);
  });
});

describe('a session', () => {
  const form = bandForm(CHART, { from: 0, to: 2 });
  const round = roundOf(CHART, { from: 0, to: 2 });
  if (!round) throw new Error('no bars');
  const course = courseOf(round);
  const line: readonly SoundEvent[] = [0, 4].map((beat) => ({
    part: 'line',
    beat: at(beat),
    beats: at(1),
    midi: 70,
    velocity: 0.8,
  }));
  const session = (changed: Partial<Session> = {}) =>
    sessionProgramme({
      feel: feelOfKind('swing'),
      seed: 1,
      click: 'none',
      turns: 'none',
      rests: 0,
      count: 1,
      tempo: [{ beat: at(0), bpm: 120 }],
      pickUp: 0,
      pass: () => ({ form, line }),
      course,
      ...changed,
    });
  const parts = (events: readonly SoundEvent[]) => new Set(events.map(({ part }) => part));

  test('band and line go round, each pass its own, counted in by a bar', () => {
    const programme = session();
    expect(programme).toMatchObject({ length: at(8), ends: null, countIn: at(4) });
    expect(programme.count.map(({ beat }) => inBeats(beat))).toEqual([-4, -3, -2, -1]);
    expect(parts(programme.eventsBetween(at(0), at(8)))).toEqual(
      new Set(['bass', 'comp', 'drums', 'line']),
    );
    const pass = (from: number) =>
      programme
        .eventsBetween(from, from + at(8))
        .map((one) => JSON.stringify({ ...one, beat: one.beat - from }));
    expect(pass(at(8))).not.toEqual(pass(0));
    expect(pass(0)).toEqual(pass(0));
  });

  test('in the player’s turn the line is silent; in a rest the band is', () => {
    const turns = session({ turns: 'bar by bar' }).eventsBetween(at(0), at(8));
    expect(turns.filter(({ part }) => part === 'line').map(({ beat }) => inBeats(beat))).toEqual([
      0,
    ]);
    const rested = session({ rests: 2 });
    const bars = Array.from({ length: 8 }, (_, bar) =>
      rested.eventsBetween(at(4 * bar), at(4 * bar + 4)),
    );
    const silent = bars.map((events) => !parts(events).has('drums'));
    expect(silent.filter(Boolean)).toHaveLength(4);
    expect(silent[0]).toBe(false);
  });

  test('every click, and none too many', () => {
    for (const click of CLICKS) {
      const clicks = session({ click })
        .eventsBetween(at(0), at(16))
        .filter(({ part }) => part === 'click');
      expect(clicks).toHaveLength(
        { none: 0, 'every beat': 16, 'two and four': 8, 'once a bar': 4, 'every two bars': 2 }[
          click
        ],
      );
    }
  });

  test('what was made elsewhere is played', () => {
    const programme = session();
    const wanted = programme.wanted(3);
    expect(wanted?.seed).toBe(4);
    programme.put(3, [{ part: 'bass', beat: at(2), beats: at(1), midi: 40, velocity: 0.5 }]);
    expect(programme.wanted(3)).toBeNull();
    const band = programme.eventsBetween(at(24), at(32)).filter(({ part }) => part !== 'line');
    expect(band).toEqual([expect.objectContaining({ beat: at(26), midi: 40, on: 'double-bass' })]);
  });

  test('set otherwise, the band goes on as it was', () => {
    const first = session();
    first.put(0, [{ part: 'bass', beat: at(1), beats: at(1), midi: 41, velocity: 0.5 }]);
    const bass = (one: typeof first) =>
      one
        .eventsBetween(at(0), at(8))
        .flatMap((event) => (event.part === 'bass' ? [event.midi] : []));
    expect(bass(session({ click: 'every beat', before: first }))).toEqual([41]);
    expect(bass(session({ seed: 9, before: first })).length).toBeGreaterThan(4);
  });

  test('band and line swing alike, whatever tempo the band was made at', () => {
    const made = (bpm: number, before?: SessionProgramme) =>
      session({ feel: feelAt(feelOfKind('swing'), bpm), ...(before ? { before } : {}) });
    const offBeats = (one: SessionProgramme) => [
      ...new Set(
        one.eventsBetween(at(0), at(8)).map(({ beat }) => Number(inBeats(beat % BEAT).toFixed(3))),
      ),
    ];
    const slow = made(120);
    expect(offBeats(slow).toSorted()).toEqual([0, 0.667]);
    // The tempo was moved while it plays: the band is the same, its off-beats lie elsewhere.
    const fast = made(260, slow);
    expect(offBeats(fast).toSorted()).toEqual([0, 0.565]);
    expect(fast.bands.get(0)).toBe(slow.bands.get(0));
  });

  test('after its last pass the band comes home and stops by itself', () => {
    const programme = session({ last: 1, before: null });
    expect(programme.ends).toBe(at(20));
    expect(session().ends).toBeNull();
    const after = programme.eventsBetween(at(16), at(40));
    expect(parts(after)).toEqual(new Set(['bass', 'comp', 'drums']));
    // All of it is struck at once, on the tonic, and held for the bar.
    for (const { beat, beats } of after) expect([beat, beats]).toEqual([at(16), at(4)]);
    const bass = after.find(({ part }) => part === 'bass');
    const home = form.chords[0]?.key?.tonic ?? form.chords[0]?.chord.root;
    expect(bass && 'midi' in bass && bass.midi % 12).toBe(
      home === undefined ? -1 : pitchClass(home),
    );
    // What is shown is the last pass, and the pass before it leads on as ever.
    expect(programme.passAt(at(17))).toMatchObject({ number: 1, begins: at(8) });
    expect(programme.eventsBetween(at(0), at(8))).toEqual(session().eventsBetween(at(0), at(8)));
    expect(programme.wanted(2)).toBeNull();
  });

  test('an introduction follows the count and leads into the first bar', () => {
    const programme = session({ intro: true, count: 2 });
    expect(programme).toMatchObject({ lead: at(8), countIn: at(16) });
    const { count } = programme;
    expect(count.filter(({ part }) => part === 'click').map(({ beat }) => inBeats(beat))).toEqual([
      ...[-16, -14, -12, -11, -10, -9],
    ]);
    const band = count.filter(({ part }) => part !== 'click');
    expect(parts(band)).toEqual(new Set(['bass', 'comp', 'drums']));
    expect(Math.min(...band.map(({ beat }) => beat))).toBe(at(-8));
    expect(Math.max(...band.map(({ beat }) => beat))).toBeLessThan(0);
    expect(session().lead).toBe(0);
  });

  test('a stop is one stroke, and its bar the player’s', () => {
    const stopped = session({ rests: 2, stops: true });
    const silent = session({ rests: 2 });
    for (let bar = 0; bar < 12; bar++) {
      const [plain, hit] = [silent, stopped].map((one) =>
        one.eventsBetween(at(4 * bar), at(4 * bar + 4)).filter(({ part }) => part !== 'line'),
      );
      if (plain === undefined || hit === undefined) throw new Error('no bar');
      if (plain.length > 0) expect(hit).toEqual(plain);
      else {
        expect(hit.length).toBeGreaterThan(0);
        for (const { beat, beats } of hit) {
          expect(beat).toBe(at(4 * bar));
          expect(beats).toBeLessThanOrEqual(at(0.5));
        }
      }
    }
  });

  describe('the comping leaves room', () => {
    const strokes = (events: readonly SoundEvent[], from: number, to: number) =>
      new Set(
        events.flatMap(({ part, beat }) =>
          part === 'comp' && beat >= at(from) && beat < at(to) ? [beat] : [],
        ),
      ).size;
    const chart = chartOf('| Dm7 | % | G7 | % | Cmaj7 | % | Am7 | % |');
    const eight = bandForm(chart);
    const round8 = roundOf(chart, null);
    if (!round8) throw new Error('no bars');
    const over = (line: readonly SoundEvent[], changed: Partial<Session> = {}) => {
      let sum = 0;
      let first = 0;
      for (const seed of [1, 2, 3, 4, 5, 6]) {
        const one = session({
          course: courseOf(round8),
          pass: () => ({ form: eight, line }),
          seed,
          ...changed,
        });
        const events = one.eventsBetween(at(0), at(32));
        sum += strokes(events, 0, 32);
        first += strokes(events, 0, 16);
      }
      return { first, second: sum - first };
    };
    const busy: readonly SoundEvent[] = Array.from({ length: 32 }, (_, half) => ({
      part: 'line',
      beat: at(half / 2),
      beats: at(0.5),
      midi: 70,
      velocity: 0.8,
    }));

    test('while a line plays, and answers where it rests', () => {
      const alone = over([]);
      const under = over(busy);
      expect(under.first).toBeLessThan(0.8 * alone.first);
      expect(under.second).toBeGreaterThan(1.1 * alone.second);
      // Each chord is met all the same.
      const events = session({
        course: courseOf(round8),
        pass: () => ({ form: eight, line: busy }),
      }).eventsBetween(at(0), at(16));
      expect(strokes(events, 0, 4)).toBeGreaterThan(0);
      expect(strokes(events, 7, 12)).toBeGreaterThan(0);
    });

    test('to the player who is heard, and in his turn to the one who is not', () => {
      const alone = over([]);
      expect(over([], { hears: () => 'playing' }).first).toBeLessThan(0.8 * alone.first);
      expect(over([], { hears: () => 'resting' }).first).toBeGreaterThan(1.1 * alone.first);
      expect(over([], { hears: () => null }).first).toBe(alone.first);
      expect(over([], { turns: 'four bars' }).first).toBe(alone.first);
      expect(over([], { turns: 'four bars' }).second).toBeLessThan(0.8 * alone.second);
    });
  });

  test('as a MIDI file each part has its track, and comes back where it was', () => {
    const bytes = passMidi({ title: 'A loop', programme: session(), form, feel: null, bpm: 90 });
    const file = new midi.Midi(bytes);
    expect(file.tracks.map(({ name }) => name)).toEqual(['Line', 'Bass', 'Comping', 'Drums']);
    expect(file.tracks.map(({ channel }) => channel)).toEqual([0, 1, 2, 9]);
    expect(Math.round(file.header.tempos[0]?.bpm ?? 0)).toBe(90);
    const beats = file.tracks[0]?.notes.map(({ ticks }) => ticks / file.header.ppq);
    expect(beats).toEqual([0, 4]);
    const drums = session()
      .eventsBetween(at(0), at(8))
      .filter(({ part }) => part === 'drums');
    expect(file.tracks[3]?.notes).toHaveLength(drums.length);
  });

  test('as a score each part has its staff', () => {
    const written = { title: 'A loop', programme: session(), form, feel: null, bpm: 90 };
    const score = passScore(written);
    const names = [...score.matchAll(/<part-name>(.*?)<\/part-name>/gu)].map(([, name]) => name);
    expect(names).toEqual(['Line', 'Bass', 'Comping', 'Drums']);
    expect(score).toContain('<work-title>A loop</work-title>');
    expect(score).toContain('<per-minute>90</per-minute>');
  });

  test('ramps hold for the beats of their passes', () => {
    const tempo = tempoFrom(60, { by: 20, every: 1, goal: 120 }, (pass) => at(8 * pass));
    const programme = session({ tempo });
    expect(programme.tempo.secondsAt(at(16)) - programme.tempo.secondsAt(at(8))).toBeCloseTo(6);
    expect(tempoMap(tempo).secondsAt(at(8))).toBe(8);
  });
});

test('settings that cannot be read are as by default, the rest stays', () => {
  fc.assert(
    fc.property(fc.anything(), (wrong) => {
      const read = playSchema.parse({ click: wrong, loop: wrong, tempo: 90, rests: wrong });
      expect(read.tempo).toBe(90);
    }),
  );
});
