import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { chordName, chordNotes } from '../chords/chords';
import { parseChord } from '../chords/symbols';
import { INTENTS } from '../lenses/lens';
import { at, range } from '../lists';
import { inZone, openPitch, parseTuning, pitchAt, STANDARD_NECK, type Zone } from '../neck/neck';
import { zonesOf } from '../neck/zones';
import { degreeName } from '../notes/degrees';
import { note, noteName, type Note, pitchClass, step } from '../notes/notes';
import type { Midi } from '../notes/pitch';
import { approachNotes, waysInto } from './approach';
import { CONTOURS, type RouteContour } from './kinds';
import { movementCost } from './costs';
import { type Route, type RouteStop, solveRoutes } from './route';
import type { RouteChord, RouteRequest } from './request';
import { HAND_FRETS, ROUTE_WEIGHTS } from './weights';
import { runs } from '$tests/laws';

const chord = (symbol: string) => {
  const parsed = parseChord(symbol);
  if (!parsed) throw new Error(symbol);
  return parsed;
};

const routed = (symbol: string, changed: Partial<RouteChord> = {}): RouteChord => ({
  chord: chord(symbol),
  intent: 'outline',
  material: null,
  pin: null,
  ...changed,
});

const request = (symbols: string, changed: Partial<RouteRequest> = {}): RouteRequest => ({
  neck: STANDARD_NECK,
  chords: symbols.split(' ').map((symbol) => routed(symbol)),
  prefer: ['3', '7'],
  zone: { low: 3, high: 7 },
  contour: null,
  loop: false,
  count: 1,
  ...changed,
});

/** Every place of a pitch in a zone, with what its degree costs there. */
const everywhere = (midi: Midi, zone: Zone | null, degreeCost: number) =>
  range(1, 7).flatMap((string) => {
    const fret = midi - openPitch(STANDARD_NECK, string);
    const inside = zone === null || inZone(zone, fret);
    return inside && fret >= 0 && fret <= 22 ? [{ string, fret, degreeCost }] : [];
  });

const best = (asked: RouteRequest): Route => at(solveRoutes(asked), 0);
const written = (route: Route) =>
  route.stops.map((stop) => `${noteName(stop.note)}=${degreeName(stop.degree)}`).join(' ');

describe('routes', () => {
  test('through falling fifths the thirds and sevenths take turns by half step', () => {
    expect(written(best(request('Dm7 G7 Cmaj7')))).toMatch(/^(?:F=b3 F=b7 E=3|C=b7 B=3 B=7)$/u);
    expect(written(best(request('A7 D7')))).toBe('G=b7 F#=3');
  });

  test('every stop is a chord tone in the zone, and its sentence says what it is', () => {
    const { stops } = best(request('Ebmaj7 Cm7 Fm7 Bb7'));
    for (const { index, note: landed, fret, midi, string } of stops) {
      const tones = chordNotes(chord(at('Ebmaj7 Cm7 Fm7 Bb7'.split(' '), index)));
      expect(tones.map(pitchClass)).toContain(pitchClass(landed));
      expect(fret).toBeGreaterThanOrEqual(3);
      expect(fret).toBeLessThanOrEqual(7);
      expect(midi).toBe(pitchAt(STANDARD_NECK, { string, fret }));
    }
    const pinned = best(
      request('Abmaj7 Db7', {
        chords: [
          routed('Db7', { pin: { string: 3, fret: 6 } }),
          routed('Abmaj7', { pin: { string: 3, fret: 5 } }),
        ],
      }),
    );
    expect(pinned.stops.map(({ sentence }) => sentence)).toEqual([
      'Begin on Db, root of Db7: string 3, fret 6.',
      'Db falls a half step to C, third of Abmaj7.',
    ]);
  });

  test('preferences, intents and pins decide', () => {
    expect(written(best(request('C F', { prefer: ['1'] })))).toBe('C=1 F=1');
    expect(written(best(request('Cmaj7 Fmaj7', { prefer: ['5'] })))).toBe('G=5 C=5');
    const pin = { string: 4, fret: 6 };
    const chords = [routed('C7'), routed('F7', { pin })];
    const { stops } = best(request('C7 F7', { chords }));
    // A flat is no tone of F7, and is kept all the same.
    expect(stops[1]).toMatchObject({ ...pin, halfSteps: expect.any(Number) });
    const coasting = ['C', 'F', 'G'].map((symbol) => routed(symbol, { intent: 'coast' }));
    expect(best(request('C F G', { chords: coasting })).parts.degree).toBe(0);
  });

  test('a tension is landed on where it is asked for and the choice holds it', () => {
    const material = {
      name: 'D dorian',
      root: note('D'),
      kind: 'dorian',
      notes: ['D', 'E', 'F', 'G', 'A', 'B', 'C'].map(note),
      mask: 0,
      collection: null,
    };
    const chords = [routed('Dm7', { material })];
    expect(written(best(request('Dm7', { chords, prefer: ['9'] })))).toBe('E=2');
  });

  test('one degree asked for alone is every stop, wherever the zone or a stretch holds it', () => {
    const chords = 'Dm7 G7 Cmaj7 A7 Fm6 Bb7 Ebmaj7 C#m7b5'.split(' ');
    for (const zone of [1, 3, 5, 8, 10].map((low) => ({ low, high: low + 4 }))) {
      for (const [asked, steps] of [
        ['3', [2]],
        ['7', [6, 5]],
        ['1', [0]],
        ['5', [4]],
      ] as const) {
        for (const intent of INTENTS) {
          const over = chords.map((symbol) => routed(symbol, { intent }));
          const { stops } = best(request('C', { chords: over, prefer: [asked], zone }));
          for (const { degree, sentence } of stops) {
            expect(steps).toContain(step(degree));
            expect(sentence).not.toContain(' No ');
          }
        }
      }
    }
    // A stretch beside the zone: the third of C is E, a fret above it.
    const low = { ...STANDARD_NECK, tuning: [48] as never };
    const beside = best(request('C', { prefer: ['3'], zone: { low: 0, high: 3 }, neck: low }));
    expect(beside.stops[0]).toMatchObject({ fret: 4 });
    // Where neither holds one, the stop says so.
    const [stop] = best(
      request('C', {
        prefer: ['3'],
        zone: { low: 7, high: 7 },
        neck: low,
      }),
    ).stops;
    expect(stop?.sentence).toContain('No third of C lies in this zone.');
  });

  test('only a tone of the chord’s own is its third or seventh', () => {
    // Each choice holds a note that is a seventh by its letter, and none of the chord's.
    for (const [symbol, foreign] of [
      ['Cmaj7', 'Bb'],
      ['Cm6', 'Bb'],
      ['Am(maj7)', 'G'],
      ['G7', 'Gb'],
    ] as const) {
      const notes = [note(foreign)];
      const material = { name: 'X', root: note('C'), kind: 'x', notes, mask: 0, collection: null };
      for (const intent of INTENTS) {
        const chords = [routed(symbol, { material, intent })];
        for (const { stops } of solveRoutes(request(symbol, { chords, prefer: ['7'], count: 8 }))) {
          for (const { note: landed, sentence } of stops) {
            if (landed === note(foreign)) expect(sentence).not.toMatch(/seventh|third/u);
          }
        }
        if (intent === 'coast') continue;
        const [first] = solveRoutes(request(symbol, { chords, prefer: ['7'] }));
        expect(first?.stops[0]?.note).not.toBe(note(foreign));
      }
    }
  });

  test('a note that holds on another string says where the hand goes', () => {
    const pins = [
      { string: 2, fret: 5 },
      { string: 3, fret: 9 },
    ];
    const chords = ['C', 'Am'].map((symbol, index) => routed(symbol, { pin: at(pins, index) }));
    const { stops } = best(request('C Am', { chords }));
    expect(stops[1]?.sentence).toBe('E holds, the hand going to string 3, fret 9: fifth of Am.');
  });

  test('equal to brute force on small cases, part by part', () => {
    const symbols = fc.constantFrom('C7', 'Fm7', 'Bbmaj7', 'Ebm6', 'A7alt', 'Dsus4');
    const asked = fc.record({
      names: fc.array(symbols, { minLength: 1, maxLength: 3 }),
      intents: fc.array(fc.constantFrom(...INTENTS), { minLength: 4, maxLength: 4 }),
      loop: fc.boolean(),
      contour: fc.constantFrom(null, ...CONTOURS),
      low: fc.integer({ min: 0, max: 9 }),
    });
    fc.assert(
      fc.property(asked, ({ names, intents, loop, contour, low }) => {
        const of = request(names.join(' '), {
          chords: names.map((symbol, index) => routed(symbol, { intent: at(intents, index) })),
          zone: { low, high: low + 2 },
          contour,
          loop,
          count: 3,
        });
        const routes = solveRoutes(of);
        for (const { cost, parts } of routes) {
          expect(Object.values(parts).reduce((sum, part) => sum + part, 0)).toBe(cost);
        }
        // Every place a chord may be landed on, with what its degree costs there: a pin costs none.
        const places = of.chords.map((one) =>
          solveRoutes({ ...of, chords: [one], contour: null, count: 40 }).flatMap(
            ({ stops, parts }) => everywhere(at(stops, 0).midi, of.zone, parts.degree),
          ),
        );
        const all = places.reduce<readonly (typeof places)[number][]>(
          (paths, here) => paths.flatMap((path) => here.map((place) => [...path, place])),
          [[]],
        );
        const costs = all.map((path) => {
          const pinned = of.chords.map((one, index) => {
            const { string, fret } = at(path, index);
            return { ...one, pin: { string, fret } };
          });
          const degrees = path.reduce((sum, { degreeCost }) => sum + degreeCost, 0);
          return best({ ...of, chords: pinned, count: 1 }).cost + degrees;
        });
        expect(at(routes, 0).cost).toBe(Math.min(...costs));
        // What other ways cost is true of some path, and they come dearer and dearer.
        for (const { cost } of routes) expect(costs).toContain(cost);
        expect(routes.map(({ cost }) => cost)).toEqual(
          routes.map(({ cost }) => cost).toSorted((a, b) => a - b),
        );
      }),
      runs(40),
    );
  });

  test('the cost of a route is what the table says of its stops', () => {
    const { stops, parts } = best(request('Am7 D7 Gmaj7 Cmaj7', { zone: { low: 2, high: 8 } }));
    const moves = stops.slice(1).map(({ halfSteps }) => movementCost(halfSteps));
    expect(parts.movement).toBe(moves.reduce((sum, move) => sum + move, 0));
    const hand = stops.slice(1).map(({ fret }, index) => {
      const frets = Math.abs(fret - at(stops, index).fret);
      return frets < HAND_FRETS ? 0 : ROUTE_WEIGHTS.shift * (frets - HAND_FRETS + 1);
    });
    expect(parts.hand).toBe(hand.reduce((sum, shift) => sum + shift, 0));
    expect(movementCost(1)).toBe(0);
    expect(movementCost(-12)).toBeGreaterThan(movementCost(7));
  });

  const KEYS = 'C Db D Eb E F Gb G Ab A Bb B'.split(' ').map(note);
  const inKey = (form: string, key: Note) =>
    form.replace(/\S+/gu, (symbol) => {
      const { root, quality } = chord(symbol);
      return chordName({ symbol: '', root: (root + key) as Note, quality, bass: null });
    });

  test.each(['Fm7 Bb7 Ebmaj7', 'Dm7 G7 Cmaj7 A7', 'Am7 D7 Bm7b5 E7 Am7', 'C F G7', 'Cmaj7'])(
    'ways through %s differ as music, whatever the key and the zone',
    (form) => {
      for (const key of KEYS) {
        const symbols = inKey(form, key);
        for (const zone of zonesOf(STANDARD_NECK, key)) {
          const routes = solveRoutes(request(symbols, { zone, count: 5, loop: true }));
          const pitches = routes.map(({ stops }) => stops.map(({ midi }) => midi).join(' '));
          expect([symbols, zone, new Set(pitches).size]).toEqual([symbols, zone, 5]);
          const { guideTones } = chord(at(symbols.split(' '), 0)).quality;
          const begun = new Set(routes.map(({ stops }) => at(stops, 0).degree));
          expect(guideTones.filter((tone) => begun.has(tone))).toEqual(guideTones);
        }
      }
    },
  );

  test('a blues shows its moving third, in every key and zone', () => {
    for (const key of KEYS) {
      const symbols = inKey('C7 F7 C7 C7 F7 F7 C7 C7 G7 F7 C7 G7', key);
      for (const zone of zonesOf(STANDARD_NECK, key)) {
        const routes = solveRoutes(request(symbols, { zone, count: 4, loop: true }));
        const moves = routes.map(({ stops }) =>
          [at(stops, 0), at(stops, 1)].map(({ degree: one }) => degreeName(one)).join(' '),
        );
        expect([symbols, zone, moves.includes('3 b7')]).toEqual([symbols, zone, true]);
      }
    }
  });

  test('routes are distinct, and the same every time', () => {
    const asked = request('Ebmaj7 Cm7 Fm7 Bb7', { count: 5, loop: true });
    const once = solveRoutes(asked);
    const keys = once.map(({ stops }) =>
      stops.map(({ string, fret }) => `${string}-${fret}`).join(),
    );
    expect(new Set(keys).size).toBe(5);
    expect(solveRoutes(asked)).toEqual(once);
  });

  test('a contour shows, though the form loops, in every key and zone', () => {
    const mean = (stops: readonly RouteStop[]) =>
      stops.reduce((sum, { midi }) => sum + midi, 0) / stops.length;
    for (const key of KEYS) {
      const symbols = inKey('Cmaj7 Am7 Dm7 G7 Cmaj7 Am7 Dm7 G7', key);
      for (const zone of zonesOf(STANDARD_NECK, key)) {
        const parts = (contour: RouteContour) => {
          const { stops } = best(request(symbols, { contour, zone, loop: true }));
          return [mean(stops.slice(0, 3)), mean(stops.slice(3, 5)), mean(stops.slice(5))] as const;
        };
        const [low, , high] = parts('rising');
        expect(high - low).toBeGreaterThan(4);
        const [top, , bottom] = parts('falling');
        expect(top - bottom).toBeGreaterThan(4);
        const [from, summit, to] = parts('arch');
        expect(summit - Math.max(from, to)).toBeGreaterThan(2);
      }
    }
  });

  test('other necks, an empty form, a zone without a chord tone', () => {
    const bass = { tuning: parseTuning(['E1', 'A1', 'D2', 'G2']) ?? [], frets: 20, capo: 2 };
    const { stops } = best(request('Am7 D7', { neck: bass, zone: null }));
    expect(stops.every(({ string, fret }) => string <= 4 && fret >= 2)).toBe(true);
    expect(solveRoutes(request('C', { chords: [] }))).toEqual([]);
    const narrow = best(request('B', { zone: { low: 1, high: 1 }, prefer: ['3'] }));
    expect(narrow.stops).toHaveLength(1);
  });
});

describe('approaching', () => {
  const target = { string: 3, fret: 5, note: note('C') };
  const scale = { chord: chord('Fm7'), scale: ['F', 'G', 'Ab', 'Bb', 'C', 'Db', 'Eb'].map(note) };
  const names = (approach: Parameters<typeof approachNotes>[3]) =>
    approachNotes(STANDARD_NECK, target, scale, approach).map(
      (one) => `${noteName(one.note)} ${one.string}-${one.fret}`,
    );

  test('from below, from above, from both sides, by two half steps', () => {
    expect(names('below')).toEqual(['B 3-4']);
    expect(names('above')).toEqual(['Db 3-6']);
    expect(names('enclosure')).toEqual(['Db 3-6', 'B 3-4']);
    expect(names('double-chromatic')).toEqual(['Bb 3-3', 'B 3-4']);
  });

  test('at the nut it is found on the next string, or not at all', () => {
    const open = { string: 2, fret: 0, note: note('B') };
    const below = approachNotes(STANDARD_NECK, open, scale, 'below');
    expect(below).toMatchObject([{ string: 3, fret: 3 }]);
    const lowest = { string: 6, fret: 0, note: note('E') };
    expect(approachNotes(STANDARD_NECK, lowest, scale, 'below')).toEqual([]);
  });

  test('ways in lie within two frets, half steps into guide tones first', () => {
    // C, the seventh of Dm7, falls to B, the third of G7.
    const ways = waysInto(STANDARD_NECK, { string: 2, fret: 1 }, chord('G7'));
    expect(ways[0]).toMatchObject({ string: 2, fret: 0, halfSteps: -1 });
    const from = { string: 3, fret: 7 };
    for (const way of waysInto(STANDARD_NECK, from, chord('Bb7'))) {
      expect(Math.abs(way.fret - from.fret)).toBeLessThanOrEqual(2);
      expect(chordNotes(chord('Bb7')).map(pitchClass)).toContain(way.midi % 12);
      expect(way.approach.length > 0).toBe(Math.abs(way.halfSteps) > 2);
    }
  });
});
