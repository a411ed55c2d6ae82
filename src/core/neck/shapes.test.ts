import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { chordNotes } from '../chords/chords';
import { parseChord } from '../chords/symbols';
import { collection, collectionNotes, transposeCollection } from '../collections/collections';
import { alone } from '../lenses/modeContext';
import { modeFor } from '../lenses/modes';
import { at, range } from '../lists';
import { degree, degreeName } from '../notes/degrees';
import { note, noteName, type Note, pitchClass } from '../notes/notes';
import { boxesOf, nearestTo } from './boxes';
import { fingerShape, needsStretch, type Placed, spanOf } from './fingering';
import { underHand } from './hand';
import { doubleStops, homesOf, morphsOn } from './homes';
import { hasStandardIntervals, makeNeck, TUNINGS } from './instruments';
import { type Neck, parseTuning, pitchAt, STANDARD_NECK } from './neck';
import {
  arpeggioFrom,
  holds,
  inversionsOn,
  oneOctave,
  positionsOf,
  threePerString,
} from './positions';
import {
  fourVoices,
  handMotion,
  INVERSIONS,
  openName,
  motionBetween,
  stringSets,
  triadOf,
  twinOf,
  voicingPath,
  voicingsOn,
} from './voicings';
import { runs } from '$tests/laws';
import { zonesOf } from './zones';

const chord = (symbol: string) => {
  const parsed = parseChord(symbol);
  if (!parsed) throw new Error(symbol);
  return parsed;
};
const neckOf = (tuning: string, frets = 22, capo = 0): Neck => {
  const strings = TUNINGS.find(({ name }) => name === tuning)?.strings;
  const result = makeNeck({ ...(strings ? { tuning: strings } : {}), frets, capo });
  if (!result.ok) throw new Error(result.message);
  return result.neck;
};
const show = (places: readonly Placed[]) =>
  places.map(({ string, fret }) => `${string}:${fret}`).join(' ');

/** Notes of a set between the lowest and the highest of some places that are not among them. */
function missingIn(places: readonly Placed[], notes: readonly Note[]): readonly number[] {
  const pitches = places.map((place) => pitchAt(STANDARD_NECK, place));
  const classes = new Set(notes.map(pitchClass));
  return range(Math.min(...pitches), Math.max(...pitches)).filter(
    (midi) => classes.has(midi % 12) && !pitches.includes(midi),
  );
}

const someRoot = fc.integer({ min: -6, max: 6 }).map((fifths) => fifths as Note);
const PENTATONICS = [
  'major pentatonic',
  'minor pentatonic',
  'minor sixth pentatonic',
  'dominant pentatonic',
];
const somePentatonic = fc
  .tuple(someRoot, fc.constantFrom(...PENTATONICS))
  .map(([root, kind]) => collection(root, kind));
const someNeck = fc
  .tuple(fc.constantFrom(...TUNINGS.map(({ name }) => name)), fc.integer({ min: 20, max: 27 }))
  .map(([tuning, frets]) => neckOf(tuning, frets));
const somePlacedChord = fc
  .tuple(someRoot, fc.constantFrom('', 'm', '7', 'maj7', 'm7', 'm7b5', 'dim7', '6', 'm6'))
  .map(([root, quality]) => chord(noteName(root) + quality));

describe('boxes', () => {
  test.each([
    ['A', 'minor pentatonic', 1, '6:5 6:8 5:5 5:7 4:5 4:7 3:5 3:7 2:5 2:8 1:5 1:8'],
    ['A', 'minor pentatonic', 2, '6:8 6:10 5:7 5:10 4:7 4:10 3:7 3:9 2:8 2:10 1:8 1:10'],
    ['Eb', 'major pentatonic', 4, '6:3 6:6 5:3 5:6 4:3 4:5 3:3 3:5 2:4 2:6 1:3 1:6'],
  ])('%s %s, box %i by minor, lies as it is taught', (root, kind, minor, places) => {
    const boxes = boxesOf(STANDARD_NECK, collection(note(root), kind));
    const box = boxes.find(({ name }) => name.minor === minor);
    expect(box && show(box.places)).toBe(places);
  });

  test('each box has its blue notes', () => {
    const [box] = boxesOf(STANDARD_NECK, collection(note('A'), 'minor pentatonic')).filter(
      ({ low }) => low === 5,
    );
    expect(box && show(box.blue)).toBe('5:6 3:8');
    const major = boxesOf(STANDARD_NECK, collection(note('A'), 'major pentatonic'));
    expect(major.flatMap(({ blue }) => blue.map((place) => noteName(place.note)))).toContain('C');
  });

  test('the three schools name the same region', () => {
    const boxes = boxesOf(STANDARD_NECK, collection(note('Eb'), 'major pentatonic'));
    const third = boxes.find(({ low }) => low === 3);
    expect(third?.name).toEqual({ minor: 4, major: 3, letter: 'C' });
    const relative = boxesOf(STANDARD_NECK, collection(note('C'), 'minor pentatonic'));
    expect(relative.find(({ low }) => low === 3)?.name).toEqual({
      minor: 4,
      major: 3,
      letter: 'A',
    });
    for (const { name } of [...boxes, ...relative])
      expect(name.major).toBe(((name.minor + 3) % 5) + 1);
  });

  test('two notes on each string, without gap or overlap from box to box', () => {
    fc.assert(
      fc.property(somePentatonic, (pentatonic) => {
        const neck = neckOf('Standard', 27);
        const boxes = boxesOf(neck, pentatonic);
        for (const { places } of boxes) {
          for (const string of range(1, 7)) {
            expect(places.filter((place) => place.string === string)).toHaveLength(2);
          }
        }
        const kind = pentatonic.kind.degrees.length;
        boxes.forEach((box) => {
          const next = boxes.find(
            (other) =>
              other.index === (box.index + 1) % kind &&
              other.low >= box.low &&
              other.low <= box.low + 6,
          );
          if (!next) return;
          for (const string of range(1, 7)) {
            const frets = (places: readonly Placed[]) =>
              places.filter((place) => place.string === string).map(({ fret }) => fret);
            expect(Math.max(...frets(box.places))).toBe(Math.min(...frets(next.places)));
          }
        });
      }),
    );
  });

  test('on every tuning each note belongs, and a shape transposed is the shape of the transposition', () => {
    fc.assert(
      fc.property(someNeck, somePentatonic, (neck, pentatonic) => {
        const up = degree('b2');
        const boxes = boxesOf(neck, pentatonic);
        const moved = boxesOf(neck, transposeCollection(pentatonic, up));
        for (const { places } of boxes) {
          expect(places.every((place) => holds(collectionNotes(pentatonic), place.note))).toBe(
            true,
          );
          expect(
            places.every((place) => pitchAt(neck, place) % 12 === pitchClass(place.note)),
          ).toBe(true);
        }
        for (const box of boxes) {
          if (box.high + 1 > neck.frets) continue;
          const same = moved.find(({ index, low }) => index === box.index && low === box.low + 1);
          expect(same && show(same.places)).toBe(
            show(box.places.map((place) => ({ ...place, fret: place.fret + 1 }))),
          );
        }
      }),
    );
  });

  test('five zones for every key and tuning, each chord with one nearest box', () => {
    fc.assert(
      fc.property(someNeck, someRoot, (neck, tonic) => {
        const zones = zonesOf(neck, tonic);
        expect(zones).toHaveLength(5);
        expect(zones.map(({ low }) => low)).toEqual(
          zones.map(({ low }) => low).sort((a, b) => a - b),
        );
        for (const zone of zones) {
          const boxes = boxesOf(neck, collection(tonic, 'minor pentatonic'));
          const best = nearestTo(zone, boxes);
          const away = (box: { low: number; high: number }) =>
            Math.abs(box.low + box.high - zone.low - zone.high);
          expect(best && away(best)).toBe(Math.min(...boxes.map(away)));
        }
      }),
    );
  });
});

describe('scales and arpeggios', () => {
  test('the five positions of C ionian and the seven with three to a string', () => {
    const scale = collection(note('C'), 'ionian');
    const position = positionsOf(STANDARD_NECK, scale).find(({ low }) => low === 7);
    expect(position && show(position.places)).toBe(
      '6:7 6:8 6:10 5:7 5:8 5:10 4:7 4:9 4:10 3:7 3:9 3:10 2:8 2:10 1:7 1:8 1:10',
    );
    const seven = threePerString(STANDARD_NECK, collection(note('G'), 'ionian'));
    expect(seven).toHaveLength(7);
    expect(seven.map(({ places }) => show(places))).toContain(
      '6:3 6:5 6:7 5:3 5:5 5:7 4:4 4:5 4:7 3:4 3:5 3:7 2:5 2:7 2:8 1:5 1:7 1:8',
    );
  });

  test('positions hold each pitch once, in order, within five frets', () => {
    fc.assert(
      fc.property(
        someRoot,
        fc.constantFrom('dorian', 'altered', 'lydian', 'harmonic minor'),
        (root, kind) => {
          for (const { places, low, high } of positionsOf(STANDARD_NECK, collection(root, kind))) {
            const pitches = places.map((place) => pitchAt(STANDARD_NECK, place));
            expect(pitches).toEqual([...new Set(pitches)].sort((a, b) => a - b));
            expect(high - low).toBeLessThanOrEqual(4);
          }
        },
      ),
    );
  });

  test('one octave from the root on strings 6, 5 and 4', () => {
    for (const string of [6, 5, 4]) {
      const [fragment] = oneOctave(STANDARD_NECK, collection(note('A'), 'dorian'), string);
      const pitches = fragment?.places.map((place) => pitchAt(STANDARD_NECK, place)) ?? [];
      expect(pitches).toHaveLength(8);
      expect((pitches.at(-1) ?? 0) - (pitches[0] ?? 0)).toBe(12);
    }
  });

  test('an arpeggio in a zone has the tones below its lowest root', () => {
    const notes = chordNotes(chord('Abmaj7'));
    expect(show(underHand(STANDARD_NECK, notes, { low: 3, high: 6 }))).toBe(
      '6:3 6:4 5:3 5:6 4:5 4:6 3:5 2:4 1:3 1:4',
    );
  });

  test('arpeggios rise through every chord tone, from each degree, for one octave or two', () => {
    fc.assert(
      fc.property(somePlacedChord, fc.integer({ min: 1, max: 2 }), (played, octaves) => {
        const notes = chordNotes(played);
        for (const { places } of inversionsOn(STANDARD_NECK, notes, 6, octaves)) {
          const pitches = places.map((place) => pitchAt(STANDARD_NECK, place));
          expect(pitches).toHaveLength(notes.length * octaves + 1);
          expect((pitches.at(-1) ?? 0) - (pitches[0] ?? 0)).toBe(12 * octaves);
          expect(places.every((place) => holds(notes, place.note))).toBe(true);
        }
      }),
    );
    expect(
      arpeggioFrom(STANDARD_NECK, chordNotes(chord('C')), { string: 6, fret: 9 }, 1),
    ).toBeNull();
  });

  test('fingers one to a fret, a stretch marked where a hand must reach', () => {
    const shape = fingerShape(
      [3, 5, 7].map((fret) => ({ string: 6, fret, note: note('G') })),
      note('G'),
    );
    expect(shape.map(({ finger, stretched }) => `${finger}${stretched ? '!' : ''}`)).toEqual([
      '1!',
      '2',
      '4',
    ]);
    expect(
      needsStretch([
        { string: 6, fret: 3 },
        { string: 6, fret: 7 },
      ]),
    ).toBe(true);
    expect(
      needsStretch([
        { string: 6, fret: 12 },
        { string: 6, fret: 16 },
      ]),
    ).toBe(false);
    expect(
      needsStretch([
        { string: 6, fret: 0 },
        { string: 5, fret: 3 },
      ]),
    ).toBe(false);
  });
});

describe('voicings', () => {
  const KINDS = ['triad', 'drop-2', 'drop-3'] as const;
  const sevenths = ['maj7', '7', 'm7', 'm7b5', 'dim7', 'm6', '6', 'm(maj7)', 'maj7#5', '7sus4'];
  const someSeventh = fc
    .tuple(someRoot, fc.constantFrom(...sevenths))
    .map(([root, quality]) => chord(`${noteName(root)}${quality}`));

  test('nearest is the least motion of all', () => {
    fc.assert(
      fc.property(
        fc.array(someSeventh, { minLength: 2, maxLength: 8 }),
        fc.constantFrom(...KINDS),
        fc.nat(),
        (chords, kind, which) => {
          const sets = stringSets(STANDARD_NECK, kind);
          const strings = sets[which % sets.length] ?? [];
          const steps = voicingPath(STANDARD_NECK, chords, { kind, strings, path: 'nearest' });
          expect(steps).toHaveLength(chords.length);
          steps.forEach((step, index) => {
            const before = steps[index - 1];
            if (!before) return;
            const all = voicingsOn(STANDARD_NECK, at(chords, step.index), kind, strings);
            const least = Math.min(
              ...all.map((shape) => motionBetween(STANDARD_NECK, before, shape)),
            );
            expect(motionBetween(STANDARD_NECK, before, step)).toBe(least);
            expect(step.held.length + step.moves.length).toBe(kind === 'triad' ? 3 : 4);
          });
        },
      ),
    );
  });

  test.each([
    ['triad', [4, 5, 6]],
    ['drop-2', [1, 2, 3, 4]],
    ['drop-3', [2, 3, 4, 6]],
  ] as const)('a %s goes up until the neck ends, and then says that it turns', (kind, strings) => {
    const chords = Array.from({ length: 24 }, (_, index) => chord(index % 2 ? 'Fmaj7' : 'C7'));
    const steps = voicingPath(STANDARD_NECK, chords, { kind, strings, path: 'up' });
    const height = (index: number) =>
      steps[index]?.places.reduce((sum, place) => sum + pitchAt(STANDARD_NECK, place), 0) ?? 0;
    const turn = steps.findIndex(({ turned }) => turned);
    expect(turn).toBeGreaterThan(8);
    steps
      .slice(1, turn)
      .forEach((_, index) => expect(height(index + 1)).toBeGreaterThan(height(index)));
    expect(height(turn)).toBeLessThan(height(turn - 1));
  });

  const motion = (steps: ReturnType<typeof voicingPath>) =>
    steps.reduce(
      (sum, { moves }) => sum + moves.reduce((all, { halfSteps }) => all + Math.abs(halfSteps), 0),
      0,
    );

  test('the way begins where it moves least in all, unless an inversion is asked for', () => {
    let better = 0;
    fc.assert(
      fc.property(
        fc.array(someSeventh, { minLength: 3, maxLength: 8 }),
        fc.constantFrom(...KINDS),
        fc.nat(),
        (chords, kind, which) => {
          const sets = stringSets(STANDARD_NECK, kind);
          const route = {
            kind,
            strings: sets[which % sets.length] ?? [],
            path: 'nearest',
          } as const;
          const own = voicingPath(STANDARD_NECK, chords, route);
          const others = INVERSIONS.slice(0, kind === 'triad' ? 3 : 4).map((start) =>
            voicingPath(STANDARD_NECK, chords, { ...route, start }),
          );
          // A half step of a voice is worth more than any way of the hand.
          const cost = (steps: typeof own) => 1000 * motion(steps) + handMotion(steps);
          for (const other of others) expect(cost(own)).toBeLessThanOrEqual(cost(other));
          if (others.some((other) => cost(own) < cost(other))) better += 1;
          for (const [turn, other] of others.entries())
            expect(other[0]?.inversion).toBe(INVERSIONS[turn]);
        },
      ),
      runs(60),
    );
    expect(better).toBeGreaterThan(10);
  });

  test('in a zone a way changes its strings where that moves less, and stays in the zone', () => {
    const chords = ['Dm7', 'G7', 'Cmaj7', 'A7', 'Dm7', 'Bb7', 'Ebmaj7', 'G7'].map((one) =>
      chord(one),
    );
    for (const kind of KINDS)
      for (const low of [0, 2, 4, 7, 9, 12]) {
        const within = { low, high: low + 4 };
        const route = { kind, path: 'nearest', within } as const;
        const mixed = voicingPath(STANDARD_NECK, chords, { ...route, strings: null });
        expect(mixed).toHaveLength(chords.length);
        const off = (steps: typeof mixed) =>
          Math.max(
            ...steps.flatMap(({ places }) =>
              places.map(({ fret }) => Math.max(within.low - fret, fret - within.high)),
            ),
          );
        for (const strings of stringSets(STANDARD_NECK, kind)) {
          const one = voicingPath(STANDARD_NECK, chords, { ...route, strings });
          expect(off(mixed), `${kind} ${low} ${strings.join(' ')}`).toBeLessThanOrEqual(off(one));
        }
        if (kind === 'triad') expect(off(mixed)).toBeLessThanOrEqual(1);
      }
  });

  test('a chord without a shape does not turn the way round', () => {
    const chords = ['C', 'F', 'G5', 'Am', 'G5', 'F', 'C'].map((one) => chord(one));
    const strings = [2, 3, 4];
    const steps = voicingPath(STANDARD_NECK, chords, { kind: 'triad', strings, path: 'up' });
    const heights = steps.map(({ places }) =>
      places.reduce((sum, place) => sum + pitchAt(STANDARD_NECK, place), 0),
    );
    heights.slice(1).forEach((height, index) => {
      if (steps[index + 1]?.turned !== true) expect(height).toBeGreaterThan(at(heights, index));
    });
    expect(steps.filter(({ turned }) => turned)).toEqual([]);
  });

  test('an open shape is called by its name', () => {
    const shapes = voicingsOn(STANDARD_NECK, chord('Am'), 'triad', [1, 2, 3]);
    expect(shapes.map((one) => openName(STANDARD_NECK, chord('Am'), one))).toEqual([
      'open Am',
      ...shapes.slice(1).map(() => null),
    ]);
    const capo = { ...STANDARD_NECK, capo: 2 };
    const [low] = voicingsOn(capo, chord('Bm'), 'triad', [1, 2, 3]);
    expect(low && openName(capo, chord('Bm'), low)).toBe('open Bm');
  });

  test('every triad holds the triad, each inversion from its own lowest note', () => {
    for (const symbol of ['C', 'F#m', 'Bdim', 'Eaug', 'Gsus4']) {
      const shapes = voicingsOn(STANDARD_NECK, chord(symbol), 'triad', [2, 3, 4]);
      expect(new Set(shapes.map(({ inversion }) => inversion)).size).toBe(3);
      for (const { inversion, places } of shapes) {
        expect(places[0]?.note).toBe(triadOf(chord(symbol))[INVERSIONS.indexOf(inversion)]);
        expect(new Set(places.map((place) => place.note)).size).toBe(3);
      }
    }
  });

  /** Chord tones of a close position from its bass, and what a drop makes of them. */
  const dropped = (voices: readonly Note[], fromTop: number): readonly Note[] => {
    const place = voices.length - fromTop;
    return [at(voices, place), ...voices.filter((_, index) => index !== place)];
  };

  test.each([
    ['drop-2', 2],
    ['drop-3', 3],
  ] as const)(
    'a %s is a close position with one voice an octave lower, in every key',
    (kind, from) => {
      for (const name of sevenths) {
        for (const root of 'C Db D Eb E F Gb G Ab A Bb B'.split(' ')) {
          const played = chord(`${root}${name}`);
          const tones = fourVoices(played);
          for (const strings of stringSets(STANDARD_NECK, kind)) {
            const shapes = voicingsOn(STANDARD_NECK, played, kind, strings);
            expect([...new Set(shapes.map(({ inversion }) => inversion))].sort()).toEqual(
              [...INVERSIONS].sort(),
            );
            for (const { inversion, places } of shapes) {
              const notes = places.map((place) => place.note);
              expect(notes[0]).toBe(tones[INVERSIONS.indexOf(inversion)]);
              const closes = tones.map((_, turn) => [
                ...tones.slice(turn),
                ...tones.slice(0, turn),
              ]);
              expect(closes.map((close) => dropped(close, from))).toContainEqual(notes);
              expect(needsMoreThanAHand(places)).toBe(false);
              expect(places.map(({ string }) => string)).toEqual([...strings].reverse());
            }
          }
        }
      }
    },
  );

  test('a half-diminished chord is the minor sixth a minor third up, shape by shape', () => {
    const [first] = voicingsOn(STANDARD_NECK, chord('Bm7b5'), 'drop-2', [2, 3, 4, 5]);
    const twin = first && twinOf(chord('Bm7b5'), first);
    expect(twin?.chord.symbol).toBe('Dm6');
    const its = voicingsOn(STANDARD_NECK, chord('Dm6'), 'drop-2', [2, 3, 4, 5]);
    expect(its.find(({ inversion }) => inversion === twin?.inversion)?.places).toEqual(
      first?.places,
    );
    expect(first && twinOf(chord('Bm7'), first)?.chord.symbol).toBe('D6');
    expect(first && twinOf(chord('B7'), first)).toBeNull();
  });
});

/** Whether places cannot be held at once: more frets apart than a stretched hand. */
const needsMoreThanAHand = (places: readonly Placed[]): boolean => {
  const { low, high } = spanOf(places);
  return high - low > 5;
};

describe('homes', () => {
  test.each([
    ['Cmaj7', 'drop-2', 5, '5:3 4:5 3:4 2:5'],
    ['Am7', 'drop-3', 6, '6:5 4:5 3:5 2:5'],
    ['F#m7b5', 'drop-2', 4, '4:4 3:5 2:5 1:5'],
    ['Bdim7', 'drop-2', 5, '5:2 4:3 3:1 2:3'],
  ] as const)('%s, a %s with its root on string %i', (symbol, kind, string, places) => {
    const played = chord(symbol);
    const home = homesOf(STANDARD_NECK, played, modeFor(alone(played))).find(
      ({ grip, string: root }) => grip.kind === kind && root === string,
    );
    expect(home && show(home.grip.places)).toBe(places);
  });

  test('grip, arpeggio and scale lie together, climb from the root, and leave nothing out', () => {
    fc.assert(
      fc.property(somePlacedChord, (played) => {
        const scale = modeFor(alone(played));
        const homes = homesOf(STANDARD_NECK, played, scale);
        for (const { string, grip, arpeggio, scale: notes, below, zone } of homes) {
          const root = grip.places[0];
          expect(root).toMatchObject({ string, note: played.root });
          const lowest = root ? pitchAt(STANDARD_NECK, root) : 0;
          for (const [climb, under, of] of [
            [arpeggio, below.arpeggio, chordNotes({ ...played, bass: null })],
            [notes, below.scale, collectionNotes(scale)],
          ] as const) {
            const climbed = climb.map((place) => pitchAt(STANDARD_NECK, place));
            if (holds(of, played.root))
              expect(climb[0]).toMatchObject({ string, fret: root?.fret });
            expect(climbed.at(-1) ?? 0).toBeGreaterThanOrEqual(lowest + 12);
            for (const place of under) {
              expect(pitchAt(STANDARD_NECK, place)).toBeLessThan(lowest);
            }
            const missing = missingIn([...under, ...climb], of);
            expect(missing).toEqual([]);
          }
          for (const place of [...grip.places, ...arpeggio, ...notes]) {
            expect(place.fret).toBeGreaterThanOrEqual(zone.low - 1);
            expect(place.fret).toBeLessThanOrEqual(zone.high + 1);
          }
        }
      }),
    );
  });

  test('the qualities morph one note at a time', () => {
    const morphs = morphsOn(note('C'));
    expect(morphs.map((morph) => morph.chord.symbol)).toEqual([
      'Cmaj7',
      'C7',
      'Cm7',
      'Cm7b5',
      'Cdim7',
    ]);
    expect(morphs.map(({ moved }) => moved && degreeName(moved))).toEqual([
      null,
      'b7',
      'b3',
      'b5',
      'bb7',
    ]);
  });

  test('two-note stops are thirds and sixths of the chord', () => {
    const stops = doubleStops(STANDARD_NECK, chord('A7'), { low: 4, high: 8 });
    expect(stops.length).toBeGreaterThan(6);
    for (const { interval, low, high } of stops) {
      const size = pitchAt(STANDARD_NECK, high) - pitchAt(STANDARD_NECK, low);
      expect(interval === 'third' ? [3, 4] : [8, 9]).toContain(size);
    }
  });
});

describe('instruments', () => {
  test('every tuning makes a neck; only those of a guitar’s intervals take the taught shapes', () => {
    const standard = TUNINGS.filter(({ name }) => hasStandardIntervals(neckOf(name)));
    expect(standard.map(({ name }) => name)).toEqual([
      'Standard',
      'Half step down',
      'Whole step down',
      'Seven-string',
      'Eight-string',
    ]);
  });

  test.each([
    ['D A D G B E', 'D2 A2 D3 G3 B3 E4'],
    ['E A D G B E', 'E2 A2 D3 G3 B3 E4'],
    ['Eb Ab Db Gb Bb Eb', 'Eb2 Ab2 Db3 Gb3 Bb3 Eb4'],
    ['C G C F A D', 'C2 G2 C3 F3 A3 D4'],
    ['D G D G B D', 'D2 G2 D3 G3 B3 D4'],
    ['E A D G', 'E1 A1 D2 G2'],
    ['B E A D G B E', 'B1 E2 A2 D3 G3 B3 E4'],
  ])('%s without octaves is read as %s', (names, pitches) => {
    expect(parseTuning(names.split(' '))).toEqual(parseTuning(pitches.split(' ')));
  });

  test.each([
    [{ tuning: ['E2', 'H2', 'D3', 'G3'] }, 'tuning'],
    [{ tuning: ['E2', 'A2', 'D3'] }, 'tuning'],
    [{ frets: 30 }, 'frets'],
    [{ capo: -1 }, 'capo'],
    [{ frets: 12, capo: 9 }, 'capo'],
  ])('%j is refused for its %s', (request, field) => {
    expect(makeNeck(request)).toMatchObject({ ok: false, field });
  });
});
