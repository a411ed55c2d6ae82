import { describe, expect, test } from 'vitest';
import { BEAT, inBeats, STANDARD_NECK } from 'corvel-core';
import { emptyGrid, type Grid, type GridFrame, typed } from './grid';

const FRAME: GridFrame = { neck: STANDARD_NECK, end: 16 * BEAT, bar: 4 * BEAT };

const type = (keys: readonly string[], from: Grid = emptyGrid([]), frame = FRAME): Grid =>
  keys.reduce((grid, key) => typed(grid, key, frame) ?? grid, from);
const places = ({ notes }: Grid) =>
  notes.map(({ beat, string, fret }) => [inBeats(beat), string, fret]);

describe('typing tablature', () => {
  test('a fret goes on by its length; two digits are one fret, if the neck has it', () => {
    expect(places(type(['7', '9', '5']))).toEqual([
      [0, 3, 7],
      [0.5, 3, 9],
      [1, 3, 5],
    ]);
    expect(places(type(['1', '2', '2', '5']))).toEqual([
      [0, 3, 12],
      [0.5, 3, 2],
      [1, 3, 5],
    ]);
    // A first digit left alone is a fret of its own.
    expect(places(type(['1', 'ArrowUp', '5']))).toEqual([
      [0, 3, 1],
      [0.5, 2, 5],
    ]);
    expect(places(type(['2', 'ArrowRight', '2', 'ArrowRight']))).toEqual([
      [0, 3, 2],
      [0.5, 3, 2],
    ]);
  });

  test('lengths, dots, triplets, ties and rests', () => {
    const grid = type(['+', '5', '-', '.', '7', '.', 't', '8', '7', '5', 't', 'r', '7', '=']);
    expect(
      grid.notes.map(({ beat, beats }) => [
        Number(inBeats(beat).toFixed(3)),
        Number(inBeats(beats).toFixed(3)),
      ]),
    ).toEqual([
      [0, 1],
      [1, 0.75],
      [1.75, 0.333],
      [2.083, 0.333],
      [2.417, 0.333],
      [3.25, 1],
    ]);
  });

  test('two notes at once last alike; what is written over gives way', () => {
    const grid = type(['5', 'ArrowLeft', 'ArrowUp', '6']);
    expect(places(grid)).toEqual([
      [0, 3, 5],
      [0, 2, 6],
    ]);
    const over = type(['ArrowLeft', 'ArrowLeft', '8'], type(['+', '5', '7']));
    expect(over.notes.map(({ beat, beats }) => [inBeats(beat), inBeats(beats)])).toEqual([
      [0, 1],
      [1, 1],
    ]);
  });

  test('letters speak of the note just written, and bends go round their sizes', () => {
    const kinds = (keys: readonly string[]) =>
      type(keys).notes.map(({ techniques }) => techniques.map(({ kind }) => kind));
    expect(kinds(['7', 'b'])).toEqual([['bend']]);
    expect(kinds(['1', 'v'])).toEqual([['vibrato']]);
    expect(kinds(['5', '7', 'h'])).toEqual([[], ['hammer-on']]);
    // Though another note stands where the cursor has gone on to.
    expect(kinds(['5', '7', 'Home', '8', 'v'])).toEqual([['vibrato'], []]);
    expect(kinds(['5', '7', 'h', 'p'])).toEqual([[], ['pull-off']]);
    expect(type(['7', 'b', 'b']).notes[0]?.techniques).toEqual([{ kind: 'bend', by: 1 }]);
    expect(kinds(['7', 'b', 'b', 'b', 'b', 'b'])).toEqual([[]]);
    expect(type(['9', 's']).notes[0]?.techniques).toEqual([{ kind: 'slide', from: 7 }]);
    expect(type(['7', '9', 's']).notes[1]?.techniques).toEqual([{ kind: 'slide' }]);
  });

  test('what is taken away, and the ends', () => {
    expect(places(type(['5', '7', 'Backspace']))).toEqual([[0, 3, 5]]);
    expect(places(type(['5', '7', 'Home', 'Delete']))).toEqual([[0.5, 3, 7]]);
    // Nothing is written beyond the last bar.
    const many = type(Array.from({ length: 40 }, () => '5'));
    expect(Math.max(...many.notes.map(({ beat, beats }) => beat + beats))).toBeLessThanOrEqual(
      16 * BEAT,
    );
    // Beyond the end there is no place: the cursor stands where the next note still begins.
    const full = type(['+', '+', '+', '5', '5', '5', '5']);
    expect(inBeats(type(['End'], full).beat)).toBe(12);
    expect(inBeats(type(['End', '-'], full).beat)).toBe(12);
    expect(inBeats(type(['-', 'End'], full).beat)).toBe(14);
    expect(inBeats(type(['PageDown', 'PageDown', 'PageDown', 'PageDown'], full).beat)).toBe(12);
    expect(typed(emptyGrid([]), 'q', FRAME)).toBeNull();
  });

  test('a lick of twelve notes with a bend and a slide takes fewer than forty keys', () => {
    const keys = [
      ...['5', '7', 's', 'ArrowUp', '5', '8', 'b', '5', 'ArrowDown', '7', '5'],
      ...['ArrowDown', '7', '5', '3', '5', '+', '7', '5'],
    ];
    const grid = type(keys);
    expect(grid.notes).toHaveLength(13);
    expect(keys.length).toBeLessThan(40);
    expect(grid.notes.flatMap(({ techniques }) => techniques.map(({ kind }) => kind))).toEqual([
      'slide',
      'bend',
    ]);
  });
});
