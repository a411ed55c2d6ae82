import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { makeNeck, parseChord, STANDARD_NECK } from 'corvel-core';
import { collection, parseCollection } from '$core/collections/collections';
import { parseKey } from '$core/keys/keys';
import { wiresOf } from '$core/neck/geometry';
import type { Mark } from '$core/neck/marks';
import { degree } from '$core/notes/degrees';
import { note } from '$core/notes/notes';
import type { Weight } from '$core/chords/over';
import { type DiscPath, discPaths } from './discs';
import type { DrawnMark } from './drawn';
import { plainMarks } from './plain';
import { LABELS } from './labelKinds';
import { labelMark } from './labels';
import {
  FLAG,
  fretsBeside,
  heightFor,
  LARGE,
  layOut,
  measuresIn,
  SMALL,
  WIDEST,
  windowAround,
  ZONE_ONLY,
} from './layout';
import { speakMark } from './speech';
import { runs } from '$tests/laws';

const chord = (symbol: string) => {
  const parsed = parseChord(symbol);
  if (!parsed) throw new Error(symbol);
  return parsed;
};

const G = { string: 6, fret: 3, midi: 43, note: note('G') };
const third = { degree: degree('3'), weight: 'guide' } as const;
const fifth = { degree: degree('5'), weight: 'chord' } as const;
const marked = (changed: Partial<Mark>): Mark => ({
  ...G,
  now: null,
  next: null,
  motion: null,
  ...changed,
});
const context = {
  now: chord('Ebmaj7'),
  next: chord('Cm7'),
  key: { tonic: note('Bb'), mode: 'major' },
  collection: collection(note('C'), 'minor pentatonic'),
  zone: { low: 3, high: 6 },
} as const;

describe('labels', () => {
  test('one note in every view', () => {
    const both = marked({ now: third, next: fifth });
    expect(LABELS.map((labels) => labelMark(both, labels, context))).toEqual([
      '3',
      '5',
      '6',
      '5',
      'G',
      '1',
    ]);
  });

  test.each([
    ['F#maj7', 'B#', 'F minor pentatonic', 'F#', ['5', '♯4']],
    ['G7alt', 'B', 'G altered', 'Cm', ['♭4', '7']],
    ['Db7', 'Cb', 'Db lydian dominant', 'C', ['♭7', '7']],
  ])('over %s the note %s of %s is read in each as that counts', (now, name, of, keyName, read) => {
    const seen = {
      ...context,
      now: chord(now),
      collection: parseCollection(of),
      key: parseKey(keyName),
    };
    const mark = { ...marked({ now: third }), note: note(name) };
    expect([labelMark(mark, 'collection', seen), labelMark(mark, 'key', seen)]).toEqual(read);
  });

  test('a note only of the chord coming is named by what it will be', () => {
    expect(labelMark(marked({ next: fifth }), 'degree', context)).toBe('5');
    expect(labelMark(marked({ now: third }), 'next', context)).toBe('3');
    expect(labelMark(marked({}), 'degree', context)).toBe('3');
  });

  test('open strings take no finger, and the hand has four', () => {
    const at = (fret: number) => labelMark({ ...marked({ now: third }), fret }, 'finger', context);
    expect([0, 3, 4, 6, 7].map(at)).toEqual(['0', '1', '2', '4', '4']);
  });

  test('a note of a layer is spoken by its degree over now', () => {
    expect(speakMark(marked({}), { now: context.now, next: context.next })).toBe(
      'string 6, fret 3, G, third over E flat major 7',
    );
  });
});

type Plain = Extract<DrawnMark, { kind: 'plain' }>;
const plain =
  <T>(read: (mark: Plain) => T) =>
  (mark: DrawnMark): T | null =>
    mark.kind === 'plain' ? read(mark) : null;

describe('plain marks', () => {
  const places = [
    { string: 6, fret: 3, note: note('G') },
    { string: 5, fret: 6, note: note('Eb') },
    { string: 4, fret: 3, note: note('F') },
  ];

  test('weigh a guide tone, a chord tone and a colour', () => {
    const dots = plainMarks(context.now, places, { labels: 'degree' });
    expect(dots.map(plain((one) => `${one.label} ${one.weight}`))).toEqual([
      '3 guide',
      '1 chord',
      '9 colour',
    ]);
  });

  test('say names or fingers, mark what moved, and add the blue notes', () => {
    const altered = plainMarks(chord('G7alt'), [{ string: 4, fret: 9, note: note('Cb') }], {
      labels: 'degree',
    });
    expect(altered.map(({ label }) => label)).toEqual(['3']);
    const blue = [{ string: 3, fret: 6, note: note('Gb') }];
    const named = plainMarks(context.now, places, { labels: 'name', moved: degree('3'), blue });
    expect(named.map(({ label }) => label)).toEqual(['G', 'E♭', 'F', 'G♭']);
    expect(named.map(plain(({ changed }) => changed))).toEqual([true, false, false, false]);
    expect(named.map(plain(({ weight }) => weight)).at(-1)).toBe('blue');
    expect(plainMarks(context.now, places, { labels: 'finger' }).map(({ label }) => label)).toEqual(
      ['1', '4', '1'],
    );
  });
});

const mark = (fret: number, now: Weight | null, next: Weight | null): DrawnMark => ({
  kind: 'change',
  string: 3,
  fret,
  label: '',
  now,
  next,
  mark: marked({ fret }),
});
/** The circles of a path: where they stand and how large they are. */
const circles = ({ d }: DiscPath) =>
  [...d.matchAll(/M(\S+) (\S+)m(\S+) 0a(\S+) /gu)].map(([, x, y, left, r]) => {
    expect(Number(left)).toBe(-Number(r));
    return { x: Number(x), y: Number(y), r: Number(r) };
  });

describe('layouts', () => {
  test('a stretch of neck keeps its frets in order and between its ends', () => {
    for (const leftHanded of [false, true]) {
      const layout = layOut(STANDARD_NECK, { ...SMALL, leftHanded, frets: { low: 3, high: 8 } });
      const xs = [3, 4, 5, 6, 7, 8].map(layout.finger);
      const sorted = xs.toSorted((a, b) => (leftHanded ? b - a : a - b));
      expect(xs).toEqual(sorted);
      expect(Math.min(...xs)).toBeGreaterThan(0);
      expect(Math.max(...xs)).toBeLessThan(layout.width);
    }
  });

  const wide = (width: number) => measuresIn({ width, height: null }, 6);

  test('a point on the neck is the fret it was drawn for, either way round', () => {
    for (const leftHanded of [false, true]) {
      for (const focus of [null, { low: 5, high: 8 }]) {
        for (const measures of [LARGE, ...[1240, 1000, 340].map(wide)]) {
          const wires = wiresOf(STANDARD_NECK.frets, focus);
          const layout = layOut(STANDARD_NECK, { ...measures, leftHanded, wires });
          for (const fret of [1, 5, 12, 22]) expect(layout.fretAt(layout.finger(fret))).toBe(fret);
        }
      }
    }
  });

  test('strings fill the height there is, and no more than is read well', () => {
    const gap = (height: number | null) => measuresIn({ width: 1240, height }, 6).stringGap;
    for (const wanted of [24, 34, 52, 71]) expect(gap(heightFor(wanted, 6))).toBeCloseTo(wanted);
    expect([gap(60), gap(900), gap(null)]).toEqual([20, 72, 44]);
    for (const strings of [4, 6, 8]) {
      const measures = measuresIn({ width: 1240, height: 400 }, strings);
      const height = measures.above + measures.below + measures.stringGap * (strings - 1);
      expect(height).toBeLessThanOrEqual(400.001);
    }
  });

  test('a flag has room between its note and the note of the next fret, however narrow the frets', () => {
    for (const width of [340, 390, 740, 1240])
      for (const low of [1, 5, 9]) {
        const played = { low, high: low + 4 };
        const measures = measuresIn({ width, height: heightFor(72, 6) }, 6, false);
        const frets = fretsBeside(STANDARD_NECK, played, 1);
        const layout = layOut(STANDARD_NECK, {
          ...measures,
          leftHanded: false,
          frets,
          played,
          flagged: true,
        });
        const between = Math.min(
          ...[1, 2, 3, 4].map((by) => layout.finger(low + by) - layout.finger(low + by - 1)),
        );
        const free = between / layout.noteScale - FLAG.note - WIDEST / 2 - 3 * FLAG.between;
        expect(free).toBeGreaterThan(FLAG.least - 0.01);
        // No smaller than that asks for, nor than the strings allow.
        if (free > FLAG.least + 0.01) expect(layout.noteScale).toBeCloseTo((72 - 6) / WIDEST);
      }
  });

  test('where only the zone is drawn a fret or two stand beside it, and the nut where it is near', () => {
    expect(fretsBeside(STANDARD_NECK, { low: 5, high: 8 }, 2)).toEqual({ low: 3, high: 10 });
    expect(fretsBeside(STANDARD_NECK, { low: 2, high: 5 }, 1)).toEqual({ low: 0, high: 6 });
    expect(fretsBeside(STANDARD_NECK, { low: 20, high: 22 }, 2)).toEqual({ low: 18, high: 22 });
  });

  test('no two notes touch, at any width and height, on any neck, in any zone', () => {
    const rooms = fc.record({
      width: fc.integer({ min: 320, max: 1600 }),
      height: fc.option(fc.integer({ min: 150, max: 700 })),
      strings: fc.integer({ min: 4, max: 8 }),
      low: fc.integer({ min: 0, max: 18 }),
      frets: fc.integer({ min: 3, max: 6 }),
      view: fc.constantFrom('focus', 'whole', 'zone only'),
      leftHanded: fc.boolean(),
    });
    const looks = ['guide', 'chord', 'colour'] as const;
    fc.assert(
      fc.property(rooms, ({ width, height, strings, low, frets, view, leftHanded }) => {
        const neck = makeNeck({
          tuning: ['E2', 'A2', 'D3', 'G3', 'B3', 'E4', 'A4', 'D5'].slice(0, strings),
          frets: 22,
          capo: 0,
        });
        if (!neck.ok) throw new Error(neck.message);
        const zone = { low, high: Math.min(22, low + frets) };
        const zoneOnly = view === 'zone only' && width < ZONE_ONLY;
        const played = view === 'whole' ? { low: 0, high: 22 } : zone;
        const layout = layOut(neck.neck, {
          ...measuresIn({ width, height }, strings, !zoneOnly),
          ...(zoneOnly ? { frets: fretsBeside(neck.neck, zone, 1) } : {}),
          leftHanded,
          played,
          wires: wiresOf(22, view === 'focus' ? zone : null),
        });
        for (const look of looks)
          for (const fret of [played.low, played.high - 1]) {
            const marks = [fret, fret + 1].flatMap((one) =>
              [1, 2].map((string) => ({ ...mark(one, look, look), string })),
            );
            const across = new Map<string, number>();
            for (const { x, y, r } of discPaths(marks, layout).flatMap(circles)) {
              const at = `${x} ${y}`;
              across.set(at, Math.max(across.get(at) ?? 0, r));
            }
            const ring = (WIDEST / 2) * layout.noteScale;
            const discs = [...across].map(([at, r]) => ({ at: at.split(' ').map(Number), r }));
            for (const one of discs) {
              expect(one.r).toBeLessThan(ring);
              for (const other of discs) {
                if (one === other) continue;
                const [x = 0, y = 0] = one.at.map((value, axis) => value - (other.at[axis] ?? 0));
                expect(Math.hypot(x, y)).toBeGreaterThan(one.r + ring);
              }
            }
          }
      }),
      runs(150),
    );
  });

  test('a window shows the shape with a fret to spare, never fewer than five frets', () => {
    expect(windowAround(STANDARD_NECK, { low: 5, high: 8 })).toEqual({ low: 4, high: 9 });
    expect(windowAround(STANDARD_NECK, { low: 0, high: 2 })).toEqual({ low: 0, high: 5 });
    expect(windowAround(STANDARD_NECK, { low: 19, high: 22 })).toEqual({ low: 18, high: 22 });
  });
});

describe('discs', () => {
  const layout = layOut(STANDARD_NECK, { ...LARGE, leftHanded: false });
  test('what looks alike and stands near is one path, what stands far another', () => {
    const paths = discPaths(
      [1, 2, 20].map((fret) => mark(fret, 'chord', null)),
      layout,
    );
    expect(paths.map((path) => circles(path).length)).toEqual([2, 1]);
    for (const [index, fret] of [1, 2].entries()) {
      const drawn = paths.flatMap(circles)[index];
      expect(drawn?.x).toBeCloseTo(layout.finger(fret), 1);
      expect(drawn?.y).toBe(layout.string(3));
    }
  });

  test('a note of both chords is a disc inside a ring, and only the ring grows', () => {
    const radii = (grown: number) =>
      discPaths([mark(5, 'chord', 'guide')], layout, grown).map((path) => [
        path.class,
        circles(path)[0]?.r,
      ]);
    expect(radii(1)).toEqual([
      ['fill-next', 15.7],
      ['fill-paper', 12.9],
      ['fill-now', 12.8],
    ]);
    expect(radii(1.2)).toEqual([
      ['fill-next', 18.84],
      ['fill-paper', 15.48],
      ['fill-now', 12.8],
    ]);
  });

  test('what sounds lies over the rings of its neighbours too', () => {
    const looks = discPaths([mark(5, 'colour', null), mark(5, 'guide', 'guide')], layout).map(
      (path) => path.class,
    );
    expect(looks.slice(0, 2)).toEqual(['fill-next', 'fill-paper']);
    expect(looks.slice(2).toSorted()).toEqual(['fill-now', 'fill-now-tint']);
  });

  test('guide tones are drawn larger than chord tones, and those than colours', () => {
    const size = (weight: Weight) =>
      Math.max(
        ...discPaths([mark(5, weight, null)], layout).flatMap((path) =>
          circles(path).map(({ r }) => r),
        ),
      );
    expect(size('guide')).toBeGreaterThan(size('chord') + 1);
    expect(size('chord')).toBeGreaterThan(size('colour') + 1);
  });
});
