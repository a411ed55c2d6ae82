import { describe, expect, test } from 'vitest';
import { chordNotes } from '../chords/chords';
import { readHarmony } from '../harmony/reading';
import { intervalBetween, note, pitchClass, step, transpose } from '../notes/notes';
import { parseMaterial } from '../lenses/material';
import { propose } from '../lenses/styles';
import { at, range } from '../lists';
import { parseTuning, pitchAt, placesOf, samePlace, STANDARD_NECK, type Neck } from '../neck/neck';
import { zonesOf } from '../neck/zones';
import { boxesOf } from '../neck/boxes';
import { degree } from '../notes/degrees';
import { settingOf } from '$tests/lines';
import { chartOf, pairs, some } from '$tests/laws';
import { makeExercise } from './exercises';
import type { ExerciseRequest } from './request';
import { BEGINNING_KINDS, BEGINNINGS } from './kinds';
import { BEAT } from '../time/units';

const KEYS = 'C Db D Eb E F Gb G Ab A Bb B'.split(' ');
const FORMS = [
  '| Imaj7 | VI7 | ii7 V7 | Imaj7 |',
  '| ii7b5 | V7alt | i6 | bII7 |',
  'time: 3/4\n| I iii7 | IV #ivo7 | V7sus4 V7 | Iaug |',
  'time: 7/8\n| I7/3 | IV9 | I5 | V13 |',
];
const tuned = (strings: string): Neck => ({
  ...STANDARD_NECK,
  tuning: parseTuning(strings.split(' ')) ?? [],
});
const NECKS: readonly Neck[] = [
  STANDARD_NECK,
  tuned('D2 A2 D3 G3 A3 D4'),
  tuned('E1 A1 D2 G2'),
  tuned('B1 E2 A2 D3 G3 B3 E4'),
  { ...STANDARD_NECK, capo: 3 },
];

/** An exercise in a zone of its key, with what a style proposes over each chord. */
function played(
  text: string,
  style: 'modes' | 'own-pentatonics' | 'chord-tones',
  changed: Partial<ExerciseRequest> & { readonly region?: number },
) {
  const { region = 0, ...rest } = changed;
  const chart = chartOf(text);
  const neck = rest.neck ?? STANDARD_NECK;
  const zones = zonesOf(neck, chart.source.key?.tonic ?? note('C'));
  const materials = propose(chart, readHarmony(chart), style).map(({ material }) => material);
  const { request } = settingOf(text, 0, {
    neck,
    zones,
    materials,
    zone: at(zones, region % zones.length),
    ...rest,
  });
  return { chart, request, notes: makeExercise(request).passage.notes };
}

describe('what says that it begins on a root does, in every key, zone, tuning and metre', () => {
  const CASES = pairs(pairs(KEYS, FORMS), pairs(range(0, 5), NECKS));
  const STYLES = ['modes', 'own-pentatonics', 'chord-tones'] as const;

  test.each([...BEGINNING_KINDS])('%s', (kind) => {
    const turn = [...BEGINNING_KINDS].indexOf(kind);
    for (const [[tonic, form], [region, neck]] of some(CASES, 24, turn))
      for (const style of STYLES) {
        const { chart, request, notes } = played(`key: ${tonic}\n${form}`, style, {
          kind,
          region,
          neck,
        });
        for (const [turn, { index, chord, beat }] of chart.chords.entries()) {
          const first = notes.find((one) => one.beat === beat);
          const where = `${kind} ${tonic} ${form} ${style} ${region} ${neck.tuning.length}: ${index}`;
          const material = at(request.materials, index);
          const tones = chordNotes({ ...chord, bass: null });
          const scale = material.notes.length >= 7 && material.notes.includes(chord.root);
          const wanted =
            kind === 'degrees'
              ? at(tones, turn % tones.length)
              : kind === 'arpeggio-up-scale-down' || scale
                ? chord.root
                : material.root;
          expect(first && pitchClass(first.note), where).toBe(pitchClass(wanted));
          if (!first || kind === 'zone-shift' || kind === 'descending') continue;
          // None of its kind in the zone lies lower.
          const there = placesOf(neck, [wanted], request.zone);
          const lowest = Math.min(...there.map((place) => pitchAt(neck, place)));
          expect(pitchAt(neck, first), where).toBeLessThanOrEqual(lowest);
        }
      }
  });

  test.each(BEGINNINGS)('on the %s where it is asked for', (begin) => {
    for (const kind of BEGINNING_KINDS) {
      const text = 'key: C\n| Cmaj7 | Dm7 | G7sus4 | Am7 |';
      const { chart, notes } = played(text, 'modes', { kind, begin });
      const steps = chart.chords.map(({ chord, beat }) => {
        const first = notes.find((one) => one.beat === beat);
        return first && step(intervalBetween(chord.root, first.note)) + 1;
      });
      const own = Number(begin);
      // A suspended chord has its fourth for a third.
      expect([kind, steps]).toEqual([kind, [own, own, own === 3 ? 4 : own, own]]);
    }
  });

  test('an arpeggio off another degree begins on its own root', () => {
    const materials = [parseMaterial('Em7 arpeggio'), parseMaterial('A blues')].flatMap((one) =>
      one ? [one] : [],
    );
    const { notes } = played('key: C\n| Cmaj7 | F7 |', 'modes', { kind: 'ascending', materials });
    const firsts = notes
      .filter(({ beat }) => beat % (4 * BEAT) === 0)
      .map((one) => pitchClass(one.note));
    expect(firsts).toEqual([4, 9]);
  });

  test('what lies below comes after the turn', () => {
    const long = played('key: C\n| G7 | % | % |', 'modes', {
      kind: 'ascending',
      region: 1,
      extent: 'isolate',
      subdivision: 'sixteenths',
    });
    const pitches = long.notes.slice(0, 48).map((one) => pitchAt(STANDARD_NECK, one));
    const top = pitches.indexOf(Math.max(...pitches));
    const first = at(pitches, 0);
    expect(pitches.slice(0, top).every((midi) => midi >= first)).toBe(true);
  });
});

describe('a shape, shifted', () => {
  /** The fret on which each shape's root lies, and its string. */
  const rootsOf = (names: readonly string[], neck = STANDARD_NECK, zone = { low: 5, high: 9 }) => {
    const materials = names.flatMap((name) => parseMaterial(name) ?? []);
    const text = `| ${names.map(() => 'C7').join(' | ')} |`;
    const { notes } = played(text, 'modes', { kind: 'shape-shift', materials, neck, zone });
    return names.map((_, bar) =>
      at(
        notes.filter(({ beat }) => beat === 4 * bar * BEAT),
        0,
      ),
    );
  };
  const kinds = ['minor pentatonic', 'major pentatonic', 'minor blues', 'dominant pentatonic'];

  test('a chain of neighbours is one unit near the zone, each a fret from the last', () => {
    const known = kinds.filter((kind) => parseMaterial(`C ${kind}`) !== null);
    expect(known.length).toBeGreaterThanOrEqual(3);
    const steps = [degree('1'), degree('b2'), degree('2'), degree('b3')];
    for (const [[tonic, kind], [low, neck]] of some(
      pairs(pairs(KEYS, known), pairs(range(0, 14), [STANDARD_NECK, at(NECKS, 2), at(NECKS, 3)])),
      120,
    ))
      for (const way of [1, -1]) {
        const roots = steps.map((up) => transpose(note(tonic), up));
        const names = roots.map((root) => `${simple(root)} ${kind}`);
        const zone = { low, high: low + 4 };
        const laid = rootsOf(way === 1 ? names : names.toReversed(), neck, zone);
        const where = `${tonic} ${kind} ${low} ${neck.tuning.length}`;
        expect(new Set(laid.map(({ string }) => string)).size, where).toBe(1);
        const frets = laid.map(({ fret }) => fret);
        expect(
          frets.slice(1).map((fret, index) => fret - at(frets, index)),
          where,
        ).toEqual([way, way, way]);
        // Some string has every root within a hand of any zone.
        const off = Math.max(...frets.map((fret) => Math.max(zone.low - fret, fret - zone.high)));
        expect(off, where).toBeLessThanOrEqual(5);
      }
  });
  const simple = (root: ReturnType<typeof note>) =>
    'C Db D Eb E F Gb G Ab A Bb B'.split(' ')[pitchClass(root)] ?? '';

  test('its fingering stays for one kind', () => {
    const materials = ['A minor pentatonic', 'Bb minor pentatonic', 'B minor pentatonic'].flatMap(
      (name) => parseMaterial(name) ?? [],
    );
    const text = '| Dm7 | Db7 | Cmaj7 |';
    const { request } = played(text, 'modes', { kind: 'shape-shift', materials });
    expect(makeExercise(request).goal).toMatch(/Its fingering stays the same/u);
  });

  test('no shape leaps an octave on the way through a form', () => {
    for (const [tonic, form] of some(pairs(KEYS, FORMS), 24)) {
      const { notes, request } = played(`key: ${tonic}\n${form}`, 'own-pentatonics', {
        kind: 'shape-shift',
      });
      const starts = request.chart.chords.flatMap(
        ({ beat }) => notes.find((one) => one.beat === beat) ?? [],
      );
      starts.slice(1).forEach((one, index) => {
        const before = at(starts, index);
        expect(Math.abs(one.fret - before.fret), `${tonic} ${form}`).toBeLessThanOrEqual(7);
        expect(one.string).toBe(before.string);
      });
    }
  });
});

describe('connecting runs', () => {
  const CASES = pairs(pairs(KEYS, ['7', 'm7', 'maj7']), pairs(range(0, 5), NECKS));
  /** A run over four bars of one chord: eighths. */
  const runOf = (
    tonic: string,
    quality: string,
    region: number,
    neck: Neck,
    kind: 'connecting' | 'connecting-strings',
  ) => {
    const text = `key: ${tonic}\n| ${tonic}${quality} | % | % | % | % | % | % | % |`;
    const { notes, request } = played(text, 'own-pentatonics', { kind, region, neck });
    return { notes, collection: at(request.materials, 0).collection };
  };

  test.each(['connecting', 'connecting-strings'] as const)(
    '%s: all five boxes of a held chord, up one way and back another',
    (kind) => {
      for (const [[tonic, quality], [region, neck]] of some(CASES, 40)) {
        const { notes, collection } = runOf(tonic, quality, region, neck, kind);
        const where = `${kind} ${tonic}${quality} ${region} ${neck.tuning.length} ${neck.capo}`;
        if (!collection) throw new Error(where);
        const boxes = boxesOf(neck, collection).filter(
          ({ places }) =>
            notes.filter((one) => places.some((place) => samePlace(place, one))).length >= 3,
        );
        expect(new Set(boxes.map(({ index }) => index)).size, where).toBe(5);
        // Each note is beside the one before, in the scale.
        const pitches = notes.map((one) => pitchAt(neck, one));
        if (kind === 'connecting') {
          const leaps = pitches.slice(1).map((midi, index) => Math.abs(midi - at(pitches, index)));
          expect(Math.max(...leaps), where).toBeLessThanOrEqual(5);
          const top = pitches.indexOf(Math.max(...pitches));
          const up = notes.slice(0, top);
          const down = notes.slice(top + 1, 2 * top);
          const other = down.filter((one) => !up.some((place) => samePlace(place, one)));
          expect(other.length, where).toBeGreaterThan(1);
        } else {
          // One string until its five boxes are done.
          const strings = notes.map(({ string }) => string);
          const turns = strings.filter((string, index) => string !== strings[index - 1]);
          expect(turns.length, where).toBeLessThanOrEqual(Math.ceil(notes.length / 5) + 1);
          expect(
            Math.max(
              ...notes.slice(1).map(({ fret }, index) => Math.abs(fret - at(notes, index).fret)),
            ),
            where,
          ).toBeLessThanOrEqual(5);
        }
      }
    },
  );

  test('a chord that is repeated is one stretch, over each of its chords', () => {
    const { notes } = played('key: C\n| C7 | % | F7 |', 'own-pentatonics', { kind: 'connecting' });
    expect(notes.map(({ chord }) => chord)).toEqual(range(0, 24).map((one) => Math.floor(one / 8)));
  });
});
