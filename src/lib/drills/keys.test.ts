import { expect, test } from 'vitest';
import { renameIn } from '$core/chords/named';
import type { Naming } from '$core/notes/naming';
import { answerKeys, keyOf } from './keys';

const shown = (options: string, asks: 'note' | 'degree' | 'choice') =>
  answerKeys(options.split(' '), asks)
    .map((one) => one.shown)
    .join(' ');

test('notes and degrees have the key that is written on them, with Shift where they have a sign', () => {
  expect(shown('C Db D Eb E F Gb G Ab A Bb B', 'note')).toBe('C ⇧D D ⇧E E F ⇧G G ⇧A A ⇧B B');
  expect(shown('1 b3 3 4 b5 5 6 b7 7', 'degree')).toBe('1 ⇧3 3 4 ⇧5 5 6 ⇧7 7');
  expect(shown('1 3 5 b7 9 #11 13', 'degree')).toBe('1 3 5 ⇧7 9 ⇧1 q');
});

test('notes have the keys of the names the player learnt', () => {
  const keysOf = (naming: Naming) =>
    answerKeys('C Db D Eb E F Gb G Ab A Bb B'.split(' '), 'note', (note) => renameIn(note, naming))
      .map((one) => one.shown)
      .join(' ');
  expect(keysOf('letters')).toBe('C ⇧D D ⇧E E F ⇧G G ⇧A A ⇧B B');
  expect(keysOf('german')).toBe('C ⇧D D ⇧E E F ⇧G G ⇧A A B H');
  expect(keysOf('sol-fa')).toBe('D ⇧R R ⇧M M F ⇧S S ⇧L L ⇧I I');
});

test('choices are numbered, and lettered where there are more than nine', () => {
  expect(shown('C7 Cm7 Cmaj7', 'choice')).toBe('1 2 3');
  expect(shown('a b c d e f g h i', 'choice')).toBe('1 2 3 4 5 6 7 8 9');
  expect(shown('a b c d e f g h i j', 'choice')).toBe('q w e r t y u i o p');
});

test('no two answers share a key', () => {
  for (const options of ['1 b2 2 b3 3 4 #4 5 b6 6 b7 7', '1 b9 9 #9 3 11 #11 5 b13 13 b7']) {
    const words = answerKeys(options.split(' '), 'degree').map(
      ({ key, shift }) => `${key}${shift}`,
    );
    expect(new Set(words).size).toBe(words.length);
    expect(words.every((word) => word.length > 4)).toBe(true);
  }
});

test('a digit is the same digit with Shift held, whatever character that makes', () => {
  const event = (code: string, key: string, shiftKey: boolean) =>
    keyOf({ code, key, shiftKey } as KeyboardEvent);
  expect(event('Digit3', '#', true)).toEqual({ key: '3', shift: true });
  expect(event('Digit3', '3', false)).toEqual({ key: '3', shift: false });
  expect(event('KeyE', 'E', true)).toEqual({ key: 'e', shift: true });
});
