import midi from '@tonejs/midi';
import { describe, expect, test } from 'vitest';
import { range } from '$core/lists';
import { seeded } from '$core/random';
import { readMidiChart } from './read';

/** A note of a bar: its pitch, and where in the bar it sounds, in beats. */
type Sounding = readonly [pitch: number, from: number, to: number];

const BEATS = 4;

/** The chords guessed for bars of four beats, a text each. */
function guessed(bars: readonly (readonly Sounding[])[]): readonly string[] {
  const file = new midi.Midi();
  const track = file.addTrack();
  const { ppq } = file.header;
  for (const [bar, notes] of bars.entries())
    for (const [pitch, from, to] of notes)
      track.addNote({
        midi: pitch,
        ticks: Math.round((bar * BEATS + from) * ppq),
        durationTicks: Math.round((to - from) * ppq),
      });
  const read = readMidiChart(file.toArray());
  if (!read.ok) throw new Error(read.message);
  const texts = [...read.text.matchAll(/(?<=\|)[^|\n]+(?=\|)/gu)].map(([text]) => text.trim());
  // A bar that says “/” or “%” goes on as the one before.
  return texts.reduce<readonly string[]>(
    (all, text) => [...all, text === '/' || text === '%' ? (all.at(-1) ?? '') : text],
    [],
  );
}

const held = (...pitches: readonly number[]): readonly Sounding[] =>
  pitches.map((pitch) => [pitch, 0, BEATS]);

const TONES = {
  '': [0, 4, 7],
  m: [0, 3, 7],
  '7': [0, 4, 7, 10],
  m7: [0, 3, 7, 10],
  maj7: [0, 4, 7, 11],
  '6': [0, 4, 7, 9],
  m6: [0, 3, 7, 9],
  sus4: [0, 5, 7],
  '7sus4': [0, 5, 7, 10],
  m7b5: [0, 3, 6, 10],
  dim7: [0, 3, 6, 9],
  dim: [0, 3, 6],
  aug: [0, 4, 8],
} as const;
const ROOTS = 'C Db D Eb E F Gb G Ab A Bb B'.split(' ');

describe('chords guessed from notes', () => {
  test.each(Object.entries(TONES))('“%s” on its root is named in twelve keys', (quality, tones) => {
    const bars = ROOTS.map((_, root) => held(...tones.map((tone) => 48 + root + tone)));
    const names = guessed(bars).map((name) => name.replace('#', ''));
    for (const [root, name] of names.entries()) {
      const letter = (ROOTS[root] ?? '').replace('b', '');
      // Of a black key either name is right.
      expect(name.replace(/^([A-G])b?/u, '')).toBe(quality);
      if (!ROOTS[root]?.includes('b')) expect(name.startsWith(letter)).toBe(true);
    }
  });

  test('a fifth may be missing, a root or a third that sounds is not made up', () => {
    expect(guessed([held(48, 52, 58), held(48, 51, 58), held(48, 52, 59)])).toEqual([
      ...['C7', 'Cm7', 'Cmaj7'],
    ]);
    expect(guessed([held(52, 55, 60)])).toEqual(['C']);
  });

  test('the bass says which of two chords of the same tones it is', () => {
    expect(guessed([held(48, 52, 55, 57), held(45, 48, 52, 55)])).toEqual(['C6', 'Am7']);
    expect(guessed([held(48, 51, 55, 57), held(45, 48, 51, 55)])).toEqual(['Cm6', 'Am7b5']);
  });

  test('two chords stand in a bar where each half has its own, and not for a melody', () => {
    const half = (from: number, ...pitches: readonly number[]): readonly Sounding[] =>
      pitches.map((pitch) => [pitch, from, from + 2]);
    expect(guessed([[...half(0, 48, 52, 55), ...half(2, 43, 47, 50)]])).toEqual(['C G']);
    const melody = [72, 74, 76, 77].map((pitch, beat): Sounding => [pitch, beat, beat + 1]);
    expect(guessed([[...held(48, 52, 55), ...melody]])).toEqual(['C']);
  });

  test('what is held a little over the last bar line makes no bar of its own', () => {
    const until = (end: number) => guessed([held(48, 52, 55), [[48, 0, end] as const]]).length;
    expect(until(BEATS + 0.19)).toBe(2);
    expect(until(BEATS + 0.21)).toBe(3);
  });

  test('what is guessed of unclear bars stays what it is', async () => {
    // Chords with tones left out, doubled, passing and foreign, of many lengths: each weight decides some of them.
    const random = seeded(11);
    const draw = (count: number) => Math.floor(random() * count);
    const kinds = Object.values(TONES);
    const bars = range(0, 160).map(() => {
      const tones = kinds[draw(kinds.length)] ?? [];
      const root = 40 + draw(12);
      const kept = tones.filter(() => random() > 0.25).map((tone) => root + tone + 12 * draw(2));
      const passing = range(0, draw(4)).map(() => 60 + draw(16));
      return [
        ...kept.map((pitch): Sounding => [pitch, 0, 1 + draw(7) / 2]),
        ...passing.map((pitch): Sounding => {
          const from = draw(7) / 2;
          return [pitch, from, Math.min(BEATS, from + (1 + draw(4)) / 2)];
        }),
        ...(random() > 0.2 ? [[root, 0, 0.25 + draw(16) / 20] as const] : []),
      ];
    });
    await expect(`${guessed(bars).join('\n')}\n`).toMatchFileSnapshot(
      '../../../../../tests/approved/guesses.txt',
    );
  });
});
