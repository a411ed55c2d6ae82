import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { chordNotes } from '../chords/chords';
import { readHarmony } from '../harmony/reading';
import { lensContexts, optionsFor } from '../lenses/options';
import { propose } from '../lenses/styles';
import { at, range } from '../lists';
import { makeNeck } from '../neck/instruments';
import { boxesOf } from '../neck/boxes';
import { reachOf } from '../neck/hand';
import { inZone, type Neck, pitchAt, STANDARD_NECK } from '../neck/neck';
import { zonesOf } from '../neck/zones';
import { note, noteName, pitchClass } from '../notes/notes';
import { simplestPitch } from '../notes/spelling';
import { struck } from '../phrases/passage';
import { SUBDIVISIONS } from '../time/subdivision';
import { makeExercise } from './exercises';
import type { ExerciseRequest } from './request';
import { EXERCISES, LINE_KINDS } from './kinds';
import { chartOf, pairs, runs, some } from '$tests/laws';
import { BEAT, inBeats } from '../time/units';

const CHART = chartOf(
  'title: Two Spoons\nkey: Eb\ntempo: 100\n| Ebmaj7 | Cm7 | Fm7 Bb7 | Ebmaj7 |',
);

/** A tune of few notes, as it would be entered. */
const MELODY = (
  [
    [0, 2, 3, 3],
    [2, 1, 3, 5],
    [4, 3, 2, 4],
    [8, 1.5, 2, 6],
    [10, 1, 2, 3],
    [12, 2, 3, 3],
  ] as const
).map(([beat, beats, string, fret]) =>
  struck({
    beat: beat * BEAT,
    beats: beats * BEAT,
    string,
    fret,
    chord: 0,
    note: simplestPitch(pitchAt(STANDARD_NECK, { string, fret })),
  }),
);

function request(changed: Partial<ExerciseRequest> = {}): ExerciseRequest {
  const chart = changed.chart ?? CHART;
  const neck = changed.neck ?? STANDARD_NECK;
  const plan = propose(chart, readHarmony(chart), 'modes');
  return {
    chart,
    key: chart.source.key,
    kind: 'ascending',
    subdivision: 'eighths',
    neck,
    zone: { low: 3, high: 7 },
    zones: zonesOf(neck, note('Eb')),
    materials: plan.map(({ material }) => material),
    intents: plan.map(({ intent }) => intent),
    prefer: ['3', '7'],
    pins: {},
    extent: 'whole',
    from: 0,
    strings: [1, 2, 3],
    group: 3,
    seed: 1,
    melody: MELODY,
    pattern: '<1 ~3 5 (2 7)1',
    ...changed,
  };
}

const notesOf = (changed: Partial<ExerciseRequest>) => makeExercise(request(changed)).passage.notes;
const names = (changed: Partial<ExerciseRequest>, bar = 0) =>
  notesOf(changed)
    .filter(({ beat }) => Math.floor(beat / (4 * BEAT)) === bar)
    .map((played) => noteName(played.note))
    .join(' ');

describe('what each exercise plays', () => {
  test.each([
    ['ascending', 'Eb F G Ab Bb C D Eb'],
    ['five-notes', 'Eb F G Ab Bb Ab G F'],
    ['root-to-ninth', 'Eb G Bb D F D Bb G'],
    ['degrees', 'Eb G Bb D Eb G Bb G'],
    ['approach-arpeggio', 'D Eb G Bb D Eb G Bb'],
    ['one-octave', 'Eb F G Ab Bb C D Eb'],
    ['in-thirds', 'Eb G F Ab G Bb Ab C'],
    ['in-fourths', 'Eb Ab F Bb G C Ab D'],
    ['in-sixths', 'Eb C F D G Eb Ab F'],
    ['groups', 'Eb F G F G Ab G Ab'],
    ['connecting', 'G Bb C Eb F G Bb C'],
    ['pentatonic-triads', 'Eb G Bb Eb C G Eb C'],
    ['inversions', 'Bb Eb G Eb G Bb G Bb'],
  ] as const)('%s: %s', (kind, expected) => {
    expect(names({ kind })).toBe(expected);
  });

  test('descending falls, alternating turns with the chord', () => {
    const rises = (kind: 'descending' | 'alternating', bar: number) => {
      const bars = notesOf({ kind }).filter(({ beat }) => Math.floor(beat / (4 * BEAT)) === bar);
      const first = bars[0];
      const second = bars[1];
      return first && second
        ? pitchAt(STANDARD_NECK, second) > pitchAt(STANDARD_NECK, first)
        : null;
    };
    expect([rises('descending', 0), rises('descending', 1)]).toEqual([false, false]);
    expect([rises('alternating', 0), rises('alternating', 1)]).toEqual([true, false]);
  });

  test('arpeggio up, then down the scale to the step above the next root', () => {
    const first = names({ kind: 'arpeggio-up-scale-down' }).split(' ');
    expect(first.slice(0, 4)).toEqual(['Eb', 'G', 'Bb', 'D']);
    expect(first.at(-1)).toBe('D');
    expect(names({ kind: 'arpeggio-up-scale-down' }, 1).split(' ')[0]).toBe('C');
  });

  test('each degree begins another arpeggio', () => {
    expect([0, 1].map((bar) => names({ kind: 'degrees' }, bar).split(' ')[0])).toEqual([
      'Eb',
      'Eb',
    ]);
    // The third of Cm7 is E flat.
    expect(names({ kind: 'degrees' }, 1)).toBe('Eb G Bb C Eb G Bb G');
  });

  test('enclosures surround the target on the beat that follows', () => {
    const notes = notesOf({ kind: 'enclosures' });
    const landed = notes.findIndex(({ beat }) => beat === 4 * BEAT);
    const goal = pitchAt(STANDARD_NECK, at(notes, landed));
    expect(pitchAt(STANDARD_NECK, at(notes, landed - 1))).toBe(goal - 1);
    expect(pitchAt(STANDARD_NECK, at(notes, landed - 2))).toBeGreaterThan(goal);
  });

  test('held targets are one to a chord, and guide tones where the change is outlined', () => {
    const notes = notesOf({ kind: 'targets', intents: CHART.chords.map(() => 'outline') });
    expect(notes).toHaveLength(CHART.chords.length);
    notes.forEach((played, index) => {
      const { chord, beats } = at(CHART.chords, index);
      const guideTones = chord.quality.guideTones.map((one) =>
        pitchClass((chord.root + one) as never),
      );
      expect(guideTones).toContain(pitchClass(played.note));
      expect(played.beats).toBe(beats);
    });
  });

  test('never breaking: no rest, no repeated note at the change', () => {
    const notes = notesOf({ kind: 'continuous' });
    expect(notes).toHaveLength(32);
    notes.slice(1).forEach((played, index) => {
      const before = at(notes, index);
      expect(played.beat).toBe(before.beat + before.beats);
      expect(pitchAt(STANDARD_NECK, played)).not.toBe(pitchAt(STANDARD_NECK, before));
    });
  });

  test('a shifted shape keeps its fingering from chord to chord', () => {
    const chart = chartOf('key: Ab\n| Bbm7 | Eb7alt | Abmaj7 |');
    const chain = propose(chart, readHarmony(chart), 'chains').map(({ material }) => material);
    const notes = notesOf({
      chart,
      kind: 'shape-shift',
      materials: chain,
      zone: { low: 1, high: 6 },
    });
    const shape = (bar: number) => {
      const own = notes.slice(8 * bar, 8 * bar + 8);
      return own.map(({ string, fret }) => `${string} ${fret - at(own, 0).fret}`).join(', ');
    };
    expect(shape(1)).toBe(shape(0));
    expect(shape(2)).toBe(shape(0));
    expect(at(notes, 8).fret - at(notes, 0).fret).toBe(1);
  });

  test('a chord alone goes round four times, a pair in turn', () => {
    const alone = makeExercise(request({ extent: 'isolate', from: 1 }));
    expect(alone.passage.beats).toBe(16 * BEAT);
    expect(new Set(alone.passage.notes.map(({ chord }) => chord))).toEqual(new Set([1]));
    expect(alone.title).toBe('Ascending: Cm7');
    const pair = makeExercise(request({ extent: 'pair', from: 4 }));
    expect(new Set(pair.passage.notes.map(({ chord }) => chord))).toEqual(new Set([4, 0]));
  });
});

describe('every exercise', () => {
  const necks: readonly Neck[] = [
    {},
    { tuning: ['D2', 'A2', 'D3', 'G3', 'A3', 'D4'] },
    { tuning: ['E1', 'A1', 'D2', 'G2'] },
    { capo: 2 },
  ]
    .map(makeNeck)
    .flatMap((made) => (made.ok ? [made.neck] : []));
  const charts = [
    CHART,
    chartOf('key: Am\ntime: 3/4\ntempo: 90\n| Bm7b5 | E7b9 | Am6 | N.C. |'),
    chartOf('tempo: 200\n| Cdim7 F7alt Bb7sus4 Gaug | E5 |'),
  ];

  test('is playable notes of its chords, in time and on the neck', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...EXERCISES),
        fc.constantFrom(...SUBDIVISIONS),
        fc.constantFrom(...necks),
        fc.constantFrom(...charts),
        fc.integer({ min: 2, max: 9 }),
        (kind, subdivision, neck, chart, low) => {
          const zone = { low, high: low + 4 };
          const { passage } = makeExercise(request({ kind, subdivision, neck, chart, zone }));
          let before = -1;
          for (const { beat, beats, string, fret, note: written, chord } of passage.notes) {
            const played = at(chart.chords, chord ?? -1);
            expect(beat).toBeGreaterThanOrEqual(before);
            expect(beats).toBeGreaterThan(0);
            expect([beat, beats].every(Number.isInteger), `${kind} ${beat} ${beats}`).toBe(true);
            expect(string).toBeLessThanOrEqual(neck.tuning.length);
            expect(fret).toBeGreaterThanOrEqual(neck.capo);
            expect(fret).toBeLessThanOrEqual(neck.frets);
            expect(pitchAt(neck, { string, fret }) % 12).toBe(pitchClass(written));
            // An anticipation comes before its chord, and by no more than a beat.
            expect(beat).toBeGreaterThanOrEqual(played.beat - BEAT);
            expect(beat).toBeLessThan(played.beat + played.beats);
            before = beat;
          }
          expect(passage.notes.length).toBeGreaterThan(0);
        },
      ),
      runs(120),
    );
  });

  /** Those that leave the zone, because that is what they are for. */
  const ROAMING: ReadonlySet<string> = new Set([
    ...['zone-shift', 'shape-shift', 'connecting', 'connecting-strings', 'inversions', 'triads'],
  ]);
  const KEYS = 'C Db D Eb E F Gb G Ab A Bb B'.split(' ');
  const FORMS = [
    '| Imaj7 | VI7 | ii7 V7 | Imaj7 |',
    '| ii7b5 | V7alt | i6 | bII7 |',
    'time: 3/4\n| I iii7 | IV #ivo7 | V7sus4 V7 | Iaug |',
    'time: 12/8\n| I7 | IV7 | I7 | V7#9 |',
  ];

  const PLACES = pairs(pairs(KEYS, FORMS), range(0, 5)).map(([[tonic, form], zone], index) => ({
    tonic,
    form,
    zone,
    subdivision: at(SUBDIVISIONS, index % SUBDIVISIONS.length),
  }));

  test.each(EXERCISES)('%s keeps the laws of the hand in every key and zone', (kind) => {
    const bad = new Set<string>();
    const turn = EXERCISES.indexOf(kind);
    for (const { tonic, form, zone: number, subdivision } of some(PLACES, 16, turn)) {
      const chart = chartOf(`key: ${tonic}\n${form}`);
      const zones = zonesOf(STANDARD_NECK, note(tonic));
      const zone = at(zones, number);
      const asked = { kind, chart, zone, zones, subdivision, strings: [2, 3, 4] };
      const played = notesOf(asked);
      const where = `${tonic} ${form} ${zone.low}-${zone.high} ${subdivision}`;
      const reach = reachOf(STANDARD_NECK, zone);
      played.forEach(({ beat, beats, fret, string }, index) => {
        const next = played[index + 1];
        const third = played[index + 2];
        const midi = (one: typeof next) => one && pitchAt(STANDARD_NECK, one);
        // Two notes at once begin and end together.
        const together = kind === 'double-stops' && next?.beat === beat;
        if (next && !together && beat + beats > next.beat) bad.add(`${where}: overlap`);
        const here = pitchAt(STANDARD_NECK, { string, fret });
        // A line stays on a note as a hook does.
        if (
          kind !== 'targets' &&
          !LINE_KINDS.has(kind) &&
          midi(next) === here &&
          midi(third) === here
        ) {
          bad.add(`${where}: ${here} three times at ${inBeats(beat)}`);
        }
        if (!ROAMING.has(kind) && !inZone(reach, fret)) {
          bad.add(`${where}: ${string}:${fret} at ${inBeats(beat)}`);
        }
      });
    }
    expect([...bad].slice(0, 4)).toEqual([]);
  });

  const KEYS_AND_ZONES = KEYS.flatMap((tonic) =>
    zonesOf(STANDARD_NECK, note(tonic)).map((zone) => [tonic, zone] as const),
  );

  test.each(['ascending', 'five-notes', 'one-octave', 'in-thirds', 'groups'] as const)(
    '%s leaves out no note of the scale, in any zone',
    (kind) => {
      for (const [tonic, zone] of some(KEYS_AND_ZONES, 30, EXERCISES.indexOf(kind))) {
        const chart = chartOf(`key: ${tonic}\n| Imaj7 | ii7 | V7 | vi7 |`);
        const whole = request({ kind, chart, zone, extent: 'isolate', from: 2 });
        const scale = new Set(at(whole.materials, 2).notes.map(pitchClass));
        const pitches = makeExercise(whole).passage.notes.map((one) => pitchAt(STANDARD_NECK, one));
        const there = new Set(pitches);
        const missing = range(Math.min(...pitches), Math.max(...pitches)).filter(
          (midi) => scale.has(midi % 12) && !there.has(midi),
        );
        expect([tonic, zone, missing]).toEqual([tonic, zone, []]);
      }
    },
  );

  test('connecting runs leave each box for the next, and with time enough all five are joined', () => {
    for (const [tonic, zone] of some(KEYS_AND_ZONES, 30)) {
      const chart = chartOf(`key: ${tonic}\n| Imaj7 |`);
      const materials = propose(chart, readHarmony(chart), 'own-pentatonics').map(
        ({ material }) => material,
      );
      const asked = { kind: 'connecting', chart, zone, materials } as const;
      const run = notesOf({ ...asked, subdivision: 'eighths' });
      const all = notesOf({ ...asked, subdivision: 'sixteenths' });
      const [root] = materials;
      for (const [notes, boxes] of [
        [run, 2],
        [all, 5],
      ] as const) {
        const there = boxesOf(
          STANDARD_NECK,
          at([...(root?.collection ? [root.collection] : [])], 0),
        )
          .filter(({ places }) => {
            const box = new Set(places.map(({ string, fret }) => `${string}:${fret}`));
            const held = notes.filter(({ string, fret }) => box.has(`${string}:${fret}`));
            return held.length >= 3;
          })
          .map(({ index }) => index);
        expect([tonic, zone.low, new Set(there).size >= boxes]).toEqual([tonic, zone.low, true]);
      }
    }
  });

  test('enclosures take the notes on either side, under the same hand', () => {
    for (const [tonic, zone] of some(KEYS_AND_ZONES, 30)) {
      const chart = chartOf(`key: ${tonic}\n| Imaj7 | vi7 | ii7 | V7 |`);
      const materials = propose(chart, readHarmony(chart), 'own-pentatonics').map(
        ({ material }) => material,
      );
      const played = notesOf({ kind: 'enclosures', chart, zone, materials });
      const starts = played.flatMap(({ beat }, index) => (beat % (4 * BEAT) === 0 ? [index] : []));
      for (const start of starts.slice(1)) {
        const [above, below, target] = [start - 2, start - 1, start].map((index) =>
          pitchAt(STANDARD_NECK, at(played, index)),
        );
        expect((target ?? 0) - (below ?? 0)).toBe(1);
        expect([1, 2]).toContain((above ?? 0) - (target ?? 0));
      }
    }
  });

  test('a shifted shape says that its fingering stays only where it does', () => {
    const goal = (text: string) => {
      const chart = chartOf(text);
      const materials = propose(chart, readHarmony(chart), 'own-pentatonics').map(
        ({ material }) => material,
      );
      return makeExercise(request({ kind: 'shape-shift', chart, materials })).goal;
    };
    expect(goal('key: C\n| Dm7 | Em7 | Am7 |')).toContain('stays the same');
    expect(goal('key: C\n| Dm7 | Cmaj7 |')).toContain('changes');
  });

  test('says what a hand cannot do', () => {
    const fast = chartOf('tempo: 240\n| C Db D Eb E F Gb G |');
    const { warnings } = makeExercise(
      request({ chart: fast, subdivision: 'sixteenths', kind: 'continuous' }),
    );
    expect(warnings[0]).toMatch(/^Bar 1 asks for 16 notes a second/u);
    expect(makeExercise(request({ kind: 'ascending' })).warnings).toEqual([]);
  });
});

describe('lines', () => {
  const line = (changed: Partial<ExerciseRequest> = {}) => notesOf({ kind: 'line', ...changed });

  test('are the same for a seed and different for another, over the targets asked for', () => {
    expect(line({ seed: 5 })).toEqual(line({ seed: 5 }));
    const shape = (seed: number) =>
      line({ seed })
        .map(({ string, fret }) => `${string}-${fret}`)
        .join();
    expect(new Set([1, 2, 3, 4].map(shape)).size).toBe(4);
    // A target set by hand is taken by every line that plays over its change.
    const pins = { 1: { string: 3, fret: 5 } };
    for (const seed of [3, 9]) {
      const landing = line({ seed, pins }).find(
        ({ chord, part }) => chord === 1 && part === 'target',
      );
      expect(landing).toMatchObject(pins[1]);
    }
  });

  test('come to most targets by a step, and stand on chord tones on most beats', () => {
    const outlined = CHART.chords.map(() => 'outline' as const);
    let steps = 0;
    let arrivals = 0;
    let strong = 0;
    let beats = 0;
    for (const seed of range(1, 13)) {
      const notes = line({ intents: outlined, subdivision: 'eighths', seed });
      notes.forEach((played, index) => {
        const before = notes[index - 1];
        const touching = before && before.beat + before.beats >= played.beat;
        if (touching && played.part === 'target' && before.part !== 'target') {
          arrivals += 1;
          const size = pitchAt(STANDARD_NECK, played) - pitchAt(STANDARD_NECK, before);
          if (Math.abs(size) <= 2) steps += 1;
        }
        if (played.beat % BEAT !== 0) return;
        beats += 1;
        const tones = chordNotes(at(CHART.chords, played.chord ?? 0).chord).map(pitchClass);
        if (tones.includes(pitchClass(played.note))) strong += 1;
      });
    }
    expect(arrivals).toBeGreaterThan(10);
    expect(steps / arrivals).toBeGreaterThan(0.8);
    expect(strong / beats).toBeGreaterThan(0.65);
  });

  test('say less where the change is coasted', () => {
    const chart = chartOf('key: Eb\n| Ebmaj7 | % | Cm7 | % | Fm7 | Bb7 | Ebmaj7 | % |');
    const materials = propose(chart, readHarmony(chart), 'modes').map(({ material }) => material);
    const count = (intent: 'outline' | 'coast') =>
      range(1, 13).reduce((sum, seed) => {
        const intents = chart.chords.map(() => intent);
        return sum + line({ seed, chart, materials, intents }).length;
      }, 0);
    expect(count('coast')).toBeLessThan(count('outline') / 1.25);
  });

  test('never sound two notes at once', () => {
    const notes = line({ seed: 7, subdivision: 'triplets' });
    notes.slice(1).forEach((played, index) => {
      const before = at(notes, index);
      expect(played.beat).toBeGreaterThan(before.beat);
      expect(before.beat + before.beats).toBeLessThanOrEqual(played.beat);
    });
  });
});

describe('kinds made as lines and stops', () => {
  const ABOVE = 'key: C\n| Dm7 | G7 | Cmaj7 | % |';
  const own = (text: string, changed: Partial<ExerciseRequest>) => {
    const chart = chartOf(text);
    const materials = propose(chart, readHarmony(chart), 'modes').map(({ material }) => material);
    return makeExercise(
      request({ chart, materials, intents: chart.chords.map(() => 'lean'), ...changed }),
    );
  };
  const written = (notes: readonly { readonly note: number }[]) =>
    [...new Set(notes.map((one) => noteName(one.note as ReturnType<typeof note>)))].sort();

  test('call and response leaves every second pair of bars empty', () => {
    const { passage } = own('key: C\n| Dm7 | G7 | Cmaj7 | A7 | Dm7 | G7 | Cmaj7 | % |', {
      kind: 'call-and-response',
    });
    const inCalls = passage.notes.every(({ beat, beats }) => {
      const place = beat % (16 * BEAT);
      return place + beats <= 8 * BEAT;
    });
    expect(passage.notes.length).toBeGreaterThan(6);
    expect(inCalls).toBe(true);
    expect(passage.notes.some(({ beat }) => beat >= 16 * BEAT)).toBe(true);
  });

  test.each([
    [0, ['B', 'C', 'E', 'G']],
    [2, ['A', 'B', 'C', 'E', 'F', 'G']],
    [null, ['A', 'B', 'C', 'D', 'E', 'F', 'G']],
  ] as const)('switch at half bar %s plays only IV and I over ii–V', (switchAt, allowed) => {
    const { passage } = own(ABOVE, { kind: 'switch', switchAt, seed: 3 });
    const over = passage.notes.filter(({ chord }) => chord === 0 || chord === 1);
    // Approach notes come from outside.
    const plain = over.filter(({ part }) => part !== 'approach');
    for (const name of written(plain)) expect(allowed).toContain(name);
    if (switchAt === 0) expect(written(plain)).not.toContain('F');
  });

  test('switch says so where there is nothing to cover', () => {
    expect(own('key: C\n| C | F |', { kind: 'switch' }).warnings[0]).toMatch(/no ii–V/u);
  });

  test('two-note stops are thirds and sixths of what is played, on two strings', () => {
    for (const zone of zonesOf(STANDARD_NECK, note('C'))) {
      const { passage } = own(ABOVE, { kind: 'double-stops', zone });
      expect(passage.notes.length).toBeGreaterThan(8);
      for (let index = 0; index < passage.notes.length; index += 2) {
        const [low, high] = [at(passage.notes, index), at(passage.notes, index + 1)];
        expect(high.beat).toBe(low.beat);
        expect(high.string).not.toBe(low.string);
        expect([3, 4, 8, 9]).toContain(pitchAt(STANDARD_NECK, high) - pitchAt(STANDARD_NECK, low));
      }
    }
  });

  test('the moving third falls or holds into the next chord', () => {
    const { passage } = own('key: A\n| A7 | D7 | A7 | D7 |', { kind: 'moving-third' });
    const landed = passage.notes
      .filter(({ part }) => part === 'target')
      .map((one) => noteName(one.note));
    expect(landed.length).toBeGreaterThan(2);
    for (const name of landed) expect(['C#', 'C']).toContain(name);
  });

  test('the melody keeps its tune in any zone, and varied it comes back to it', () => {
    const pitches = (zone: { low: number; high: number }) =>
      own(ABOVE, { kind: 'melody', zone }).passage.notes.map((one) => pitchAt(STANDARD_NECK, one));
    const [first, ...rest] = MELODY.map((one) => pitchAt(STANDARD_NECK, one));
    for (const zone of zonesOf(STANDARD_NECK, note('C'))) {
      const [begun = 0, ...then] = pitches(zone);
      expect(Math.abs(begun - (first ?? 0)) % 12).toBe(0);
      expect(then.map((one) => one - begun)).toEqual(rest.map((one) => one - (first ?? 0)));
    }
    const varied = own(ABOVE, {
      kind: 'melody-varied',
      zone: { low: 3, high: 7 },
      seed: 4,
    }).passage;
    const plain = own(ABOVE, { kind: 'melody', zone: { low: 3, high: 7 } }).passage;
    // The first two bars stand as they are, the next two do not.
    expect(varied.notes.filter(({ beat }) => beat < 7 * BEAT)).toEqual(
      plain.notes.filter(({ beat }) => beat < 7 * BEAT),
    );
    expect(varied.notes.filter(({ beat }) => beat >= 7 * BEAT)).not.toEqual(
      plain.notes.filter(({ beat }) => beat >= 7 * BEAT),
    );
    expect(own(ABOVE, { kind: 'melody', melody: null }).warnings[0]).toMatch(/no melody yet/u);
  });
});

describe('spelling', () => {
  test('one pitch has one spelling over one chord, and its tones are spelled as the chord has them', () => {
    const symbols = 'G7alt Cmaj7 F#7 C#maj7 Abm7 Dbm7 B7b9 Eb7alt F#m7b5 Cdim7 Gbmaj7 A7'.split(
      ' ',
    );
    for (const [which, symbol] of symbols.entries()) {
      const chart = chartOf(`| ${symbol} | Cmaj7 |`);
      const contexts = lensContexts(chart, readHarmony(chart));
      const home = at(propose(chart, readHarmony(chart), 'modes'), 1).material;
      const options = optionsFor(at(contexts, 0)).slice(0, 12);
      const tones = chordNotes(at(chart.chords, 0).chord);
      for (const [kind, { material }] of some(pairs(EXERCISES, options), 30, which)) {
        const materials = [material, home];
        const played = notesOf({ kind, chart, materials, intents: ['coast', 'coast'] });
        const spellings = new Map<string, Set<string>>();
        for (const { chord, note: written } of played) {
          const pitch = `${chord ?? ''} ${pitchClass(written)}`;
          const seen = spellings.get(pitch) ?? new Set();
          spellings.set(pitch, seen.add(noteName(written)));
        }
        const twice = [...spellings.values()].filter((seen) => seen.size > 1);
        expect([symbol, kind, material.name, twice]).toEqual([symbol, kind, material.name, []]);
        for (const { chord, note: written } of played) {
          if (chord !== 0) continue;
          const tone = tones.find((one) => pitchClass(one) === pitchClass(written));
          if (tone !== undefined) expect(noteName(written)).toBe(noteName(tone));
        }
      }
    }
  });
});
