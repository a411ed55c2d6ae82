/** Landings judged by hand, in every key: what a teacher who listens would say. */
import { describe, expect, test } from 'vitest';
import { parseChord } from '../chords/symbols';
import { range } from '../lists';
import { noteName, pitchClass } from '../notes/notes';
import { transposeSymbol } from '../chart/rewrite';
import { intervalBetween, note } from '../notes/notes';
import { landingOn, meetingOf, onTime, type SoundingNote } from './landing';
import { BEAT } from '../time/units';

const KEYS = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B'] as const;

/** `E4 3.5+1` is an E that begins at beat 3.5 for one beat; a `~` before it makes it a grace. */
function played(line: string, up: number): readonly SoundingNote[] {
  return [...line.matchAll(/(~?)([A-G][b#]?)(\d) (-?[\d.]+)\+([\d.]+)/gu)].map(
    ([, grace, name, octave, beat, beats]) => ({
      midi: pitchClass(note(name ?? '')) + 12 * (Number(octave) + 1) + up,
      beat: Math.round(Number(beat) * BEAT),
      beats: Math.round(Number(beats) * BEAT),
      grace: grace === '~',
    }),
  );
}

interface Case {
  readonly says: string;
  /** The chord that begins at beat 4, and how long it lasts. */
  readonly chord: string;
  readonly beats?: number;
  readonly bpm?: number;
  readonly line: string;
  /** The note that meets the chord, from 0, and how; null where none does. */
  readonly met: readonly [number, string] | null;
  /** The pitch that was asked for, and how it landed; null where it did not. */
  readonly asked?: readonly [string, string | null];
}

const CASES: readonly Case[] = [
  {
    says: 'the third on the beat',
    chord: 'Cmaj7',
    line: 'F4 3+1, E4 4+1',
    met: [1, 'on'],
    asked: ['E4', 'on'],
  },
  {
    says: 'the third an eighth before, held',
    chord: 'Cmaj7',
    line: 'G4 3+0.5, E4 3.5+1.5',
    met: [1, 'anticipated'],
    asked: ['E4', 'anticipated'],
  },
  {
    says: 'a beat before, held',
    chord: 'Cmaj7',
    line: 'E4 3+2',
    met: [0, 'anticipated'],
    asked: ['E4', 'anticipated'],
  },
  {
    says: 'let go before the change',
    chord: 'Cmaj7',
    line: 'E4 3+0.5',
    met: null,
    asked: ['E4', null],
  },
  {
    says: 'let go at the change',
    chord: 'Cmaj7',
    line: 'E4 3.5+0.5',
    met: null,
    asked: ['E4', null],
  },
  {
    says: 'a suspension that resolves',
    chord: 'Cmaj7',
    line: 'F4 3+1.5, E4 4.5+1',
    met: [1, 'delayed'],
    asked: ['E4', 'delayed'],
  },
  {
    says: 'an appoggiatura',
    chord: 'Cmaj7',
    line: 'F4 4+0.5, E4 4.5+1',
    met: [1, 'delayed'],
    asked: ['E4', 'delayed'],
  },
  {
    says: 'one from below',
    chord: 'Cmaj7',
    line: 'D#4 4+0.5, E4 4.5+1',
    met: [1, 'delayed'],
    asked: ['E4', 'delayed'],
  },
  {
    says: 'an enclosure begun on the beat',
    chord: 'Cmaj7',
    line: 'F4 4+0.5, D#4 4.5+0.5, E4 5+1',
    met: [2, 'delayed'],
    asked: ['E4', 'delayed'],
  },
  {
    says: 'an enclosure before the beat',
    chord: 'Cmaj7',
    line: 'F4 3+0.5, D#4 3.5+0.5, E4 4+1',
    met: [2, 'on'],
    asked: ['E4', 'on'],
  },
  {
    says: 'what leaps away resolves nothing',
    chord: 'Cmaj7',
    line: 'F4 4+0.5, C4 4.5+1',
    met: [0, 'on'],
    asked: ['E4', null],
  },
  {
    says: 'a chord tone on the beat needs no resolution',
    chord: 'Cmaj7',
    line: 'G4 4+0.5, F4 4.5+0.5, E4 5+1',
    met: [0, 'on'],
    asked: ['E4', 'delayed'],
  },
  {
    says: 'a rest on the beat, then the third',
    chord: 'Cmaj7',
    line: 'G4 2+1, E4 4.5+1',
    met: [1, 'after'],
    asked: ['E4', 'after'],
  },
  {
    says: 'a beat late',
    chord: 'Cmaj7',
    line: 'E4 5+1',
    met: [0, 'after'],
    asked: ['E4', 'after'],
  },
  {
    says: 'more than a beat late',
    chord: 'Cmaj7',
    line: 'E4 5.5+1',
    met: null,
    asked: ['E4', null],
  },
  {
    says: 'another chord tone',
    chord: 'Cmaj7',
    line: 'G4 4+1',
    met: [0, 'on'],
    asked: ['E4', null],
  },
  { says: 'its octave', chord: 'Cmaj7', line: 'E5 4+1', met: [0, 'on'], asked: ['E4', null] },
  { says: 'silence', chord: 'Cmaj7', line: '', met: null, asked: ['E4', null] },
  {
    says: 'a hair before, as hands play',
    chord: 'Cmaj7',
    line: 'E4 3.9+1',
    met: [0, 'on'],
    asked: ['E4', 'on'],
  },
  {
    says: 'a quarter of a beat behind',
    chord: 'Cmaj7',
    line: 'E4 4.25+1',
    met: [0, 'on'],
    asked: ['E4', 'on'],
  },
  {
    says: 'at a quick tempo 90 ms are on time',
    chord: 'Cmaj7',
    bpm: 260,
    line: 'E4 4.36+1',
    met: [0, 'on'],
    asked: ['E4', 'on'],
  },
  {
    says: 'at a slow one not',
    chord: 'Cmaj7',
    bpm: 60,
    line: 'E4 4.36+1',
    met: [0, 'after'],
    asked: ['E4', 'after'],
  },
  {
    says: 'a grace never lands',
    chord: 'Cmaj7',
    line: '~D#4 4+0.1, E4 4.1+1',
    met: [1, 'on'],
    asked: ['E4', 'on'],
  },
  {
    says: 'of two at once the chord tone',
    chord: 'Cmaj7',
    line: 'F4 4+1, E4 4+1',
    met: [1, 'on'],
    asked: ['E4', 'on'],
  },
  {
    says: 'a short chord is met in its first half',
    chord: 'G7',
    beats: 1,
    line: 'B4 3.5+1',
    met: [0, 'anticipated'],
    asked: ['B4', 'anticipated'],
  },
  {
    says: 'after a short chord there is the next',
    chord: 'G7',
    beats: 1,
    line: 'B4 5+1',
    met: null,
    asked: ['B4', null],
  },
  {
    says: 'a ninth over an altered dominant leads on',
    chord: 'G7alt',
    line: 'C5 4+0.5, B4 4.5+1',
    met: [1, 'delayed'],
    asked: ['B4', 'delayed'],
  },
  {
    says: 'the seventh of a minor seventh',
    chord: 'Dm7',
    line: 'D4 3.5+0.5, C4 4+2',
    met: [1, 'on'],
    asked: ['C4', 'on'],
  },
];

describe('landings by hand', () => {
  test.each(CASES)('$says', ({ chord, beats = 4, bpm = 120, line, met, asked }) => {
    for (const [up, key] of KEYS.entries()) {
      const symbol = transposeSymbol(chord, intervalBetween(note('C'), note(key)));
      const read = parseChord(symbol);
      if (!read) throw new Error(symbol);
      const notes = played(line, up);
      // Wherever in the form it stands.
      for (const bars of range(0, 3)) {
        const moved = notes.map((one) => ({ ...one, beat: one.beat + 4 * bars * BEAT }));
        const meeting = { chord: read, beat: (4 + 4 * bars) * BEAT, beats: beats * BEAT };
        const found = meetingOf(moved, meeting, onTime(bpm));
        expect(found && [found.by, found.how], noteName(read.root)).toEqual(met);
        if (!asked) continue;
        const [pitch] = played(`${asked[0]} 0+1`, up);
        const landed = landingOn(moved, meeting, pitch?.midi ?? 0, onTime(bpm));
        expect(landed?.how ?? null, noteName(read.root)).toBe(asked[1]);
      }
    }
  });
});
