import midi from '@tonejs/midi';
import { parseMidi } from 'midi-file';
import { expect, test } from 'vitest';
import { parseKey } from '../keys/keys';
import { BEAT } from '../time/units';
import {
  keyed,
  metred,
  midiFile,
  named,
  notePlayed,
  paced,
  PULSES,
  pulsesIn,
  wordsOf,
} from './midi';

const note = (at: number, length: number, number = 60) =>
  notePlayed({ channel: 2, midi: number, at, length, velocity: 0.5 });

test('what is set up comes first, and a note ends before the next begins', () => {
  const bytes = midiFile([
    [
      ...note(480, 240),
      ...note(0, 480),
      { at: 480, event: { type: 'pitchBend', channel: 2, value: 0 } },
      { at: 0, event: { type: 'controller', channel: 2, controllerType: 6, value: 4 } },
      { at: 0, event: { type: 'programChange', channel: 2, programNumber: 27 } },
    ],
  ]);
  const [track = []] = parseMidi(bytes).tracks;
  expect(track.map(({ deltaTime, type }) => [deltaTime, type])).toEqual([
    [0, 'controller'],
    [0, 'programChange'],
    [0, 'noteOn'],
    [480, 'noteOff'],
    [0, 'pitchBend'],
    [0, 'noteOn'],
    [240, 'noteOff'],
    [0, 'endOfTrack'],
  ]);
});

test('tempo, metre and key are read by others as they were meant', () => {
  const key = parseKey('Eb minor');
  if (!key) throw new Error('no key');
  const { header } = new midi.Midi(
    midiFile([[keyed(key), paced(0, 132), metred(0, 7, 8), paced(960, 66), metred(960, 4, 4)]]),
  );
  expect(header.tempos.map(({ ticks, bpm }) => [ticks, Math.round(bpm)])).toEqual([
    [0, 132],
    [960, 66],
  ]);
  expect(header.timeSignatures.map(({ ticks, timeSignature }) => [ticks, timeSignature])).toEqual([
    [0, [7, 8]],
    [960, [4, 4]],
  ]);
  expect(header.keySignatures).toMatchObject([{ key: 'Gb', scale: 'minor' }]);
});

test('words keep their alphabet, and those of older programs are read as they wrote them', () => {
  for (const name of ['B♭ study', 'Étude', 'ブルース', '']) {
    const [head] = parseMidi(midiFile([[named(name)]])).tracks;
    const [said] = head ?? [];
    expect(said?.type === 'trackName' && wordsOf(said.text)).toBe(name);
  }
  expect(wordsOf('\u00c9tude')).toBe('Étude');
});

test('a note lasts a pulse at least, and is as loud as it was played', () => {
  const [begins, ends] = note(10, 0);
  expect([begins?.at, ends?.at]).toEqual([10, 11]);
  expect(begins?.event).toMatchObject({ type: 'noteOn', noteNumber: 60, velocity: 63 });
});

test('pulses are counted in quarter notes, whatever the beat is', () => {
  expect(pulsesIn(BEAT, 4)).toBe(PULSES);
  expect(pulsesIn(BEAT, 8)).toBe(PULSES / 2);
  expect(pulsesIn(BEAT / 3, 2)).toBe(320);
});
