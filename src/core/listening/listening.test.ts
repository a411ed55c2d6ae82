import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { at, range } from '../lists';
import { landingsOf } from './landings';
import { pitchAt, STANDARD_NECK } from '../neck/neck';
import { createListener, notesIn } from './notes';
import { pluckedSound } from './simulated';
import { takeOf } from './take';
import { readFeel } from '../time/feel';
import { playedAt } from '../time/swing';
import { chartOf } from '$tests/laws';
import { BEAT, inBeats } from '../time/units';

const RATE = 44_100;

/** A plucked string, harmonics dying away, the higher the sooner; with a little noise beneath. */
function plucked(
  notes: readonly (readonly [seconds: number, length: number, midi: number])[],
  rate = RATE,
) {
  const end = Math.max(...notes.map(([seconds, length]) => seconds + length)) + 0.3;
  const samples = new Float32Array(Math.ceil(end * rate));
  let noise = 1;
  for (let index = 0; index < samples.length; index++) {
    noise = (noise * 16_807) % 2_147_483_647;
    samples[index] = 0.003 * (noise / 1_073_741_823.5 - 1);
  }
  for (const [seconds, length, midi] of notes) {
    const hertz = 440 * 2 ** ((midi - 69) / 12);
    const from = Math.round(seconds * rate);
    for (let index = 0; index < length * rate; index++) {
      const time = index / rate;
      const damped = Math.min(1, (length - time) / 0.015);
      const sound = range(1, 7).reduce(
        (sum, part) =>
          sum +
          Math.sin(2 * Math.PI * hertz * part * time) * (0.25 / part) * Math.exp(-time * part * 2),
        0,
      );
      const place = from + index;
      if (place < samples.length)
        samples[place] = (samples[place] ?? 0) + sound * Math.min(1, time / 0.002) * damped;
    }
  }
  return samples;
}

describe('notes out of sound', () => {
  const TUNE = [
    [0.2, 0.2, 52],
    [0.42, 0.2, 55],
    [0.64, 0.2, 55],
    [0.86, 0.2, 64],
    [1.08, 0.2, 76],
    [1.3, 0.4, 40],
  ] as const;

  test.each([RATE, 48_000, 96_000, 22_050, 16_000, 8_000])(
    'are found with their pitch and beginning at %i Hz',
    (rate) => {
      const heard = notesIn(plucked(TUNE, rate), rate);
      expect(heard.map(({ midi }) => midi)).toEqual(TUNE.map(([, , midi]) => midi));
      heard.forEach(({ seconds, cents }, index) => {
        expect(Math.abs(seconds - at(at(TUNE, index), 0))).toBeLessThan(0.03);
        expect(Math.abs(cents)).toBeLessThan(12);
      });
    },
  );

  test('silence and noise hold none', () => {
    expect(notesIn(new Float32Array(RATE), RATE)).toEqual([]);
    expect(notesIn(plucked([[0.2, 0.001, 60]]), RATE)).toEqual([]);
  });
});

describe('a listener', () => {
  const line = range(0, 12).map(
    (index) => [0.3 + 0.25 * index, 0.24, 50 + ((index * 5) % 13)] as const,
  );

  test.each([64, 128, 1_000, 44_100])('hears the same by %i samples at a time', (size) => {
    const sound = plucked(line);
    const listener = createListener(RATE);
    const heard = range(0, Math.ceil(sound.length / size)).flatMap((part) =>
      listener.hear(sound.subarray(part * size, (part + 1) * size)),
    );
    expect([...heard, ...listener.finish()]).toEqual(notesIn(sound, RATE));
    expect(notesIn(sound, RATE).map(({ midi }) => midi)).toEqual(line.map(([, , midi]) => midi));
  });

  test('tells of a note once it has died away, without waiting for another', () => {
    const sound = plucked([
      [0.3, 0.4, 57],
      [1.9, 0.4, 57],
    ]);
    const listener = createListener(RATE);
    const upTo = (seconds: number, from: number) =>
      range(Math.round(from * 100), Math.round(seconds * 100)).flatMap((part) =>
        listener.hear(sound.subarray(441 * part, 441 * (part + 1))),
      );
    expect(upTo(0.8, 0)).toEqual([]);
    expect(upTo(1.2, 0.8).map(({ midi }) => midi)).toEqual([57]);
    const rest = [...upTo(2.6, 1.2), ...listener.finish()];
    expect(rest.map(({ midi, from }) => [midi, from])).toEqual([[57, 'pick']]);
  });

  test('says what sounds before it has ended, and nothing when it has', () => {
    const listener = createListener(RATE);
    const sound = plucked([[0.3, 1, 57]]);
    listener.hear(sound.subarray(0, 0.25 * RATE));
    expect(listener.sounding()).toBeNull();
    listener.hear(sound.subarray(0.25 * RATE, 0.6 * RATE));
    expect(Math.abs((listener.sounding()?.pitch ?? 0) - 57)).toBeLessThan(0.1);
    listener.hear(sound.subarray(0.6 * RATE));
    listener.hear(new Float32Array(RATE));
    expect(listener.sounding()).toBeNull();
  });
});

describe('one string', () => {
  /** One pluck whose pitch goes as `pitchAt` says, second by second. */
  function gliding(pitchAt: (seconds: number) => number, seconds = 1.2): Float32Array {
    let phase = 0;
    return Float32Array.from({ length: (seconds + 0.6) * RATE }, (_, index) => {
      const time = index / RATE - 0.3;
      if (time < 0 || time > seconds) return 0.002 * Math.sin(index * index);
      phase += (2 * Math.PI * 440 * 2 ** ((pitchAt(time) - 69) / 12)) / RATE;
      const sum = range(1, 7).reduce((all, part) => all + Math.sin(part * phase) / part, 0);
      return 0.2 * sum * Math.exp(-1.5 * time) * Math.min(1, time / 0.002);
    });
  }
  const ramp = (from: number, to: number, at0: number, takes: number) => (time: number) =>
    from + (to - from) * Math.max(0, Math.min(1, (time - at0) / takes));

  test.each([0.5, 1, 1.5, 2, 3])('bent by %f half steps is one note, bent so far', (bend) => {
    const heard = notesIn(gliding(ramp(60, 60 + bend, 0.3, 0.2)), RATE);
    expect(heard.map(({ midi, bent }) => [midi, bent])).toEqual([[60, bend]]);
  });

  test.each([1, 2, 3])('of the simulated guitarist is bent by %i half steps too', (bent) => {
    const sound = pluckedSound([{ seconds: 0.2, length: 0.9, midi: 62, bent }], RATE, 1.6);
    expect(notesIn(sound, RATE).map((note) => [note.midi, note.bent])).toEqual([[62, bent]]);
  });

  test('slid is two notes, whichever way', () => {
    for (const to of [57, 58, 62, 65]) {
      const heard = notesIn(gliding(ramp(60, to, 0.4, 0.03)), RATE);
      expect(heard.map(({ midi }) => midi)).toEqual([60, to]);
      expect(heard[1]?.from).not.toBe('pick');
    }
  });

  test('shaken is one note that is not bent', () => {
    const heard = notesIn(
      gliding((time) => 60 + 0.25 * Math.sin(35 * time)),
      RATE,
    );
    expect(heard.map(({ midi, bent }) => [midi, bent])).toEqual([[60, 0]]);
  });
});

describe('landings', () => {
  const chart = chartOf('| Dm7 | G7 | Cmaj7 | A7 |');
  const targets = [
    { index: 0, midi: 65 },
    { index: 1, midi: 71 },
    { index: 2, midi: 64 },
  ];
  const note = (beat: number, midi: number, beats: number | null = 1, cents = 0) => ({
    beat: beat * BEAT,
    midi,
    beats: beats === null ? null : beats * BEAT,
    cents,
  });
  const verdicts = (...heard: ReturnType<typeof note>[]) =>
    landingsOf(chart, targets, heard).landings.map(({ verdict }) => verdict);

  test.each([
    ['landed', 'on', note(4.1, 71)],
    ['landed', 'on', note(3.8, 71)],
    // Half a beat before and held; a beat before; not held; too early.
    ['landed', 'anticipated', note(3.5, 71)],
    ['landed', 'anticipated', note(3, 71, 1.25)],
    ['early', null, note(3.5, 71, 0.5)],
    ['early', null, note(3, 71, 1.2)],
    ['missed', null, note(2.9, 71, 1)],
    // A target within a beat of its chord has landed; then it is late, up to two beats.
    ['landed', 'after', note(4.5, 71)],
    ['landed', 'after', note(4.75, 71)],
    ['late', null, note(5.2, 71)],
    ['late', null, note(5.75, 71)],
    ['missed', null, note(6.3, 71)],
    ['another octave', null, note(4, 59)],
    ['another octave', null, note(3.5, 83)],
    ['missed', null, note(5.2, 83)],
    ['another chord tone', null, note(4, 67)],
    ['missed', null, note(4, 69, 0.5)],
    // Sounding all along.
    ['landed', 'anticipated', note(2, 71, 3)],
    // Of an unknown length it lasts to the next.
    ['landed', 'anticipated', note(3.5, 71, null)],
  ] as const)('%s, %s', (verdict, how, heard) => {
    expect(verdicts(note(0, 65), heard, note(8, 64))).toEqual(['landed', verdict, 'landed']);
    expect(landingsOf(chart, targets, [heard]).landings[1]?.how).toBe(how);
  });

  test('its octave on time is nearer to it than itself too early or too late', () => {
    for (const beat of [3, 5.5])
      expect(verdicts(note(0, 65), note(4, 83), note(beat, 71, 0.5), note(8, 64))[1]).toBe(
        'another octave',
      );
  });

  test('what stood there first makes it delayed; no note answers twice', () => {
    const delayed = landingsOf(chart, targets, [note(4, 72, 0.5), note(4.5, 71)]).landings[1];
    expect(delayed).toMatchObject({ verdict: 'landed', how: 'delayed', beatsLate: BEAT / 2 });
    expect(delayed?.sentence).toContain('after the note that leads to it');
    const twice = landingsOf(
      chartOf('| G7 G7 |'),
      [
        { index: 0, midi: 71 },
        { index: 1, midi: 71 },
      ],
      [note(1, 71, 0.5)],
    );
    expect(twice.landings.map(({ verdict }) => verdict)).toEqual(['landed', 'missed']);
    // But one that is held answers both.
    const both = landingsOf(
      chartOf('| G7 G7 |'),
      [
        { index: 0, midi: 71 },
        { index: 1, midi: 71 },
      ],
      [note(-0.5, 71, 4)],
    );
    expect(both.landings.map(({ verdict }) => verdict)).toEqual(['landed', 'landed']);
  });

  test('a grace never lands; at a quick tempo what nobody hears apart is on time', () => {
    const grace = { ...note(3.9, 71, 0.1), grace: true };
    expect(verdicts(note(0, 65), grace, note(8, 64))[1]).toBe('missed');
    const how = (bpm: number) =>
      landingsOf(chart, targets, [note(4.4, 71)], { bpm }).landings[1]?.how;
    expect([how(120), how(260), how(270)]).toEqual(['after', 'after', 'on']);
  });

  test('a verdict comes when it is certain, and stands', () => {
    const upTo = (beat: number, ...heard: ReturnType<typeof note>[]) =>
      landingsOf(chart, targets, heard, { upTo: beat * BEAT }).landings.map(
        ({ verdict }) => verdict,
      );
    // What has landed is certain at once; what may still come is not judged.
    expect(upTo(4.1, note(0, 65), note(4, 71))).toEqual(['landed', 'landed']);
    expect(upTo(5.9, note(0, 65))).toEqual(['landed']);
    expect(upTo(6, note(0, 65))).toEqual(['landed', 'missed']);
    expect(upTo(5.9, note(0, 65), note(4, 59))).toEqual(['landed']);
    expect(upTo(6, note(0, 65), note(4, 59))).toEqual(['landed', 'another octave']);
    const broken = landingsOf(chart, targets, [note(0, 65), note(4, 71)], { upTo: 5 * BEAT });
    expect(broken.sentence).toBe('2 of 2 targets landed; the other one was not reached.');
    expect(landingsOf(chart, targets, [], { upTo: BEAT }).sentence).toBe(
      'No target has been reached yet.',
    );
  });

  test.each([
    [[65], [note(0, 65)], Infinity, 'The target landed: a little faster, or by ear.'],
    [[65], [], Infinity, 'The target did not land. Listen next for F, the'],
    [[65, 71], [note(0, 65)], 3, 'The first target landed; the other one was not reached.'],
    [[65, 71], [], 3, 'The first target did not land; the other one was not reached. Listen next'],
  ])('one target is spoken of as one, %#', (midis, heard, upTo, says) => {
    const asked = midis.map((midi, index) => ({ index, midi }));
    expect(landingsOf(chart, asked, heard, { upTo: upTo * BEAT }).sentence).toContain(says);
  });

  test('more heard never takes a verdict back', () => {
    const played = fc.record({
      beat: fc.integer({ min: -4, max: 64 }).map((n) => (n * BEAT) / 4),
      beats: fc.integer({ min: 1, max: 12 }).map((n) => (n * BEAT) / 4),
      midi: fc.constantFrom(59, 60, 62, 64, 65, 67, 71, 76),
      cents: fc.constant(0),
    });
    fc.assert(
      fc.property(fc.array(played, { maxLength: 14 }), (notes) => {
        let before: readonly string[] = [];
        for (let upTo = 0; upTo <= 18 * BEAT; upTo += BEAT / 2) {
          // What has begun by then, as long as it has sounded.
          const heard = notes
            .filter(({ beat }) => beat <= upTo)
            .map((one) => ({
              ...one,
              beats: Math.min(one.beats, Math.max(BEAT / 100, upTo - one.beat)),
            }));
          const { landings } = landingsOf(chart, targets, heard, { upTo });
          const says = landings.map(({ index, verdict }) => `${index} ${verdict}`);
          for (const one of before) expect(says).toContain(one);
          before = says;
        }
        expect(before).toHaveLength(3);
      }),
    );
  });

  test('transposed, moved by bars or written on another string, every verdict stays', () => {
    const played = fc.record({
      beat: fc.integer({ min: -4, max: 64 }).map((n) => (n * BEAT) / 4),
      beats: fc.integer({ min: 1, max: 12 }).map((n) => (n * BEAT) / 4),
      midi: fc.integer({ min: 50, max: 80 }),
      cents: fc.constant(0),
    });
    const up = chartOf('| Ebm7 | Ab7 | Dbmaj7 | Bb7 |');
    const later = chartOf('| % | % | Dm7 | G7 | Cmaj7 | A7 |'.replaceAll('%', 'F#'));
    fc.assert(
      fc.property(fc.array(played, { maxLength: 14 }), (notes) => {
        const told = (of: ReturnType<typeof landingsOf>) =>
          of.landings.map(({ verdict, how, beatsLate }) => [verdict, how, beatsLate]);
        const own = told(landingsOf(chart, targets, notes));
        const moved = targets.map(({ index, midi }) => ({ index, midi: midi + 1 }));
        const higher = notes.map((one) => ({ ...one, midi: one.midi + 1 }));
        expect(told(landingsOf(up, moved, higher))).toEqual(own);
        const after = targets.map(({ index, midi }) => ({ index: index + 2, midi }));
        const shifted = notes.map((one) => ({ ...one, beat: one.beat + 8 * BEAT }));
        expect(told(landingsOf(later, after, shifted))).toEqual(own);
      }),
    );
  });

  test('says how it went, and what to listen for next', () => {
    const { landed, asked, sentence, landings } = landingsOf(chart, targets, [
      note(0, 65),
      note(8, 64, 1, -30),
    ]);
    expect([landed, asked]).toEqual([2, 3]);
    expect(sentence).toBe('2 of 3 targets landed. Listen next for B, the third of G7, in bar 2.');
    expect(landings[1]).toMatchObject({ heard: null, beatsLate: null, how: null });
    expect(landings[2]?.sentence).toBe('E, the third of Cmaj7: landed. It was 30 cents flat.');
  });
});

describe('a take', () => {
  const zone = { low: 5, high: 9 };
  const heard = (beat: number, midi: number, more: object = {}) => ({
    beat: beat * BEAT,
    beats: 0.45 * BEAT,
    midi,
    bent: 0,
    from: 'pick' as const,
    ...more,
  });

  test('lies on the beats it was meant for, in the zone, with its slurs, slides and bends', () => {
    const taken = takeOf(STANDARD_NECK, zone, [
      heard(0.03, 60),
      heard(0.52, 62, { from: 'slur' }),
      heard(0.98, 64, { from: 'slide' }),
      heard(1.36, 65),
      heard(1.64, 67, { beats: 1.3 * BEAT, bent: 2 }),
      heard(3.1, 20),
    ]);
    expect(taken.map(({ beat }) => inBeats(beat))).toEqual([0, 0.5, 1, 4 / 3, 5 / 3]);
    expect(taken.map((note) => pitchAt(STANDARD_NECK, note))).toEqual([60, 62, 64, 65, 67]);
    for (const { fret } of taken) expect(fret).toBeGreaterThanOrEqual(5);
    for (const { fret } of taken) expect(fret).toBeLessThanOrEqual(9);
    expect(taken.map(({ techniques }) => techniques.map(({ kind }) => kind))).toEqual([
      [],
      ['hammer-on'],
      ['slide'],
      [],
      ['bend'],
    ]);
    // A short gap is held through.
    expect(taken[0]?.beats).toBe(BEAT / 2);
  });

  test('that was swung is written even, its triplets as triplets', () => {
    const feel = readFeel('swing');
    const swung = (beat: number) => playedAt(beat, feel, { beats: 4, unit: 4 });
    const written = [0, 0.5, 1, 1.5, 2, 2 + 1 / 3, 3, 3.5];
    const taken = takeOf(
      STANDARD_NECK,
      zone,
      written.map((beat, place) =>
        heard(inBeats(swung(beat * BEAT)) + (place % 2 === 0 ? 0.02 : -0.02), 60 + place),
      ),
      swung,
    );
    expect(taken.map(({ beat }) => inBeats(beat))).toEqual(written);
    expect(taken.map(({ beats }) => Math.round(100 * inBeats(beats)))).toEqual([
      ...[50, 50, 50, 50, 33, 67, 50, 50],
    ]);
  });

  test('of nothing is nothing', () => {
    expect(takeOf(STANDARD_NECK, zone, [])).toEqual([]);
    expect(takeOf(STANDARD_NECK, zone, [heard(0, 10)])).toEqual([]);
  });
});
