import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { readChart } from '../chart/form';
import { parseChord } from '../chords/symbols';
import { readHarmony } from '../harmony/reading';
import { at, modulo } from '../lists';
import { pitchAt, STANDARD_NECK, stringCount } from '../neck/neck';
import { degreeName, parseDegree } from '../notes/degrees';
import { halfSteps, note, noteName, parseNote, pitchClass } from '../notes/notes';
import { DRILL_KINDS, type DrillSetting } from './kinds';
import { isRight, makeDrill } from './drills';
import { runs } from '$tests/laws';

function settingOf(text: string, low: number): DrillSetting {
  const chart = readChart(text);
  if (!chart.ok) throw new Error(chart.problems[0]?.message);
  const { key } = readHarmony(chart.chart).key;
  return { neck: STANDARD_NECK, zone: { low, high: low + 4 }, chords: chart.chart.chords, key };
}

const CHARTS = [
  'key: Eb\n| Fm7 | Bb7 | Ebmaj7 | C7b9 |',
  'key: F#m\n| G#m7b5 | C#7 | F#m6 | F#m7 |',
  '| C13 | F9 | Cmaj7#11/E | N.C. |',
  'key: Db\n| Ebm9 | Ab7sus4 | Dbmaj9 | Bbm |',
];
const settings = fc
  .record({ chart: fc.constantFrom(...CHARTS), low: fc.integer({ min: 0, max: 16 }) })
  .map(({ chart, low }) => settingOf(chart, low));
const seeds = fc.integer({ min: 0, max: 1_000_000 });

describe('every kind', () => {
  test.each(DRILL_KINDS)('%s: the same for the same seed, its own answer right', (kind) => {
    fc.assert(
      fc.property(settings, seeds, (setting, seed) => {
        const drill = makeDrill(kind, seed, setting);
        expect(makeDrill(kind, seed, setting)).toEqual(drill);
        expect(isRight(drill, drill.answer)).toBe(true);
        expect(isRight(drill, {})).toBe(false);
        expect(drill.sentence).not.toMatch(/undefined|NaN/u);
        const { choices, answer } = drill;
        if (choices) {
          expect(new Set(choices).size).toBe(choices.length);
          expect(choices).toContain(answer.choice ?? answer.degree);
        }
        // The answer is never in the question.
        if (drill.asks === 'note' && answer.note !== undefined)
          expect(drill.prompt.split(/[ ,:?]+/u)).not.toContain(noteName(answer.note));
      }),
      runs(60),
    );
  });

  test('places are right when all of them are there, and no other', () => {
    const setting = settingOf(at(CHARTS, 0), 3);
    const drill = makeDrill('find-degree', 1, setting);
    const { places = [] } = drill.answer;
    expect(places.length).toBeGreaterThan(1);
    const elsewhere = { string: 1, fret: 22 };
    expect(isRight(drill, { places: [...places].reverse() })).toBe(true);
    expect(isRight(drill, { places: [...places, elsewhere] })).toBe(false);
    expect(isRight(drill, { places: places.slice(1) })).toBe(false);
    expect(isRight(drill, { places: [...places.slice(1), elsewhere] })).toBe(false);
  });

  test('a note is right by its sound, a degree and a choice by their word', () => {
    const setting = settingOf(at(CHARTS, 0), 3);
    const other = (answer: object) => ({ ...makeDrill('name-note', 1, setting), answer });
    expect(isRight(other({ note: note('Db') }), { note: note('C#') })).toBe(true);
    expect(isRight(other({ note: note('Db') }), { note: note('C') })).toBe(false);
    expect(isRight(other({ degree: 'b3' }), { degree: 'b3' })).toBe(true);
    expect(isRight(other({ degree: 'b3' }), { degree: '#2' })).toBe(false);
    expect(isRight(other({ choice: 'm7' }), { choice: 'm7' })).toBe(true);
    expect(isRight(other({ choice: 'm7' }), { choice: 'maj7' })).toBe(false);
  });

  test('without a chart general chords are asked about, and seeds differ', () => {
    const general = { neck: STANDARD_NECK, zone: { low: 5, high: 8 }, chords: [], key: null };
    for (const kind of DRILL_KINDS) {
      const prompts = Array.from({ length: 40 }, (_, seed) => makeDrill(kind, seed, general));
      const told = prompts.map(({ prompt, answer }) => JSON.stringify([prompt, answer]));
      expect(new Set(told).size).toBeGreaterThan(4);
    }
  });
});

test('find-degree asks for every place of the degree, and for no other', () => {
  fc.assert(
    fc.property(settings, seeds, (setting, seed) => {
      const { answer, sentence, zone } = makeDrill('find-degree', seed, setting);
      const name = / is ([A-G][b#]*): /u.exec(sentence)?.[1] ?? '';
      const sought = parseNote(name);
      const expected = [];
      for (let string = 1; string <= stringCount(setting.neck); string++)
        for (let fret = zone.low; fret <= zone.high; fret++)
          if (
            sought !== null &&
            pitchAt(setting.neck, { string, fret }) % 12 === pitchClass(sought)
          )
            expected.push(`${string}-${fret}`);
      const got = (answer.places ?? []).map(({ string, fret }) => `${string}-${fret}`);
      expect(got.toSorted()).toEqual(expected.toSorted());
      expect(got.length).toBeGreaterThan(0);
    }),
  );
});

test('name-degree and name-note name what sounds there', () => {
  fc.assert(
    fc.property(settings, seeds, (setting, seed) => {
      const named = makeDrill('name-note', seed, setting);
      const midi = pitchAt(setting.neck, at(named.shown, 0));
      expect(named.answer.note !== undefined && pitchClass(named.answer.note)).toBe(midi % 12);
      const degree = makeDrill('name-degree', seed, setting);
      const chord = parseChord(/Over (\S+):/u.exec(degree.prompt)?.[1] ?? '');
      const size = halfSteps(parseDegree(degree.answer.degree ?? '') ?? (0 as never));
      const there = pitchAt(setting.neck, at(degree.shown, 0));
      expect(modulo(there - pitchClass(chord?.root ?? (0 as never)), 12)).toBe(size);
    }),
  );
});

test('half-step-ahead asks for a note a half step from the one held', () => {
  fc.assert(
    fc.property(settings, seeds, (setting, seed) => {
      const { prompt, answer } = makeDrill('half-step-ahead', seed, setting);
      const [, held = '', next = ''] = /hold (\S+) over \S+, and (\S+) comes/u.exec(prompt) ?? [];
      const from = parseNote(held);
      const chord = parseChord(next);
      if (from === null || !chord || answer.note === undefined) throw new Error(prompt);
      const away = modulo(pitchClass(answer.note) - pitchClass(from), 12);
      expect([1, 11]).toContain(away);
      const tones = chord.quality.degrees.map((one) =>
        modulo(pitchClass(chord.root) + halfSteps(one), 12),
      );
      expect(tones).toContain(pitchClass(answer.note));
      // No other tone of the coming chord would do as well.
      const near = tones.filter((one) => [1, 11].includes(modulo(one - pitchClass(from), 12)));
      expect(near).toHaveLength(1);
    }),
  );
});

test('what-is-missing names the tones of the chord that the pentatonic has not', () => {
  const setting = { neck: STANDARD_NECK, zone: { low: 5, high: 8 }, chords: [], key: null };
  for (let seed = 0; seed < 200; seed++) {
    const { prompt, answer } = makeDrill('what-is-missing', seed, setting);
    const [, root = '', kind = '', symbol = ''] =
      /^(\S+) (major|minor) pentatonic over (\S+):/u.exec(prompt) ?? [];
    const start = pitchClass(parseNote(root) ?? (0 as never));
    const own = (kind === 'major' ? [0, 2, 4, 7, 9] : [0, 3, 5, 7, 10]).map(
      (up) => (start + up) % 12,
    );
    const chord = parseChord(symbol);
    const lacks = (chord?.quality.degrees ?? []).filter(
      (one) => !own.includes((pitchClass(chord?.root ?? (0 as never)) + halfSteps(one)) % 12),
    );
    const words = lacks.map(degreeName);
    expect(answer.choice?.split(/, | and /u)).toEqual(words.length === 0 ? ['nothing'] : words);
  }
});

test('what is heard is a cadence and then what is asked', () => {
  const setting = settingOf(at(CHARTS, 0), 3);
  const heard = makeDrill('hear-degree', 3, setting);
  expect(heard.heard).toHaveLength(4);
  expect(heard.heard.at(-1)).toHaveLength(1);
  // Two, five, one of E flat, from their roots.
  expect(heard.heard.slice(0, 3).map((chord) => at(chord, 0) % 12)).toEqual([5, 10, 3]);
});
