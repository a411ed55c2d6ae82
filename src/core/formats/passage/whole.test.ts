/** Every format keeps what it can of techniques, pick-up, metre, key and feel, and says what it loses. */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { signatureOf } from '../../keys/keys';
import { pitchAt, STANDARD_NECK } from '../../neck/neck';
import { simplestPitch } from '../../notes/spelling';
import { note } from '../../notes/notes';
import { inTime, type Passage, PLAIN_PASSAGE, struck } from '../../phrases/passage';
import { GRACE_BEATS, inOrder, type Technique, TECHNIQUE_KINDS } from '../../phrases/techniques';
import { readFeel } from '../../time/feel';
import type { PassageResult } from '../result';
import { readPassageJson, writePassageJson } from './json';
import { readMidi } from './midi/read';
import { writeMidi } from './midi/write';
import { readPassage } from './musicxml/read';
import { writePassage } from './musicxml/write';
import { readTab } from './tab/read';
import { writeTab } from './tab/write';
import { BEAT } from '../../time/units';

const bend = fc.record({
  kind: fc.constant('bend' as const),
  by: fc.constantFrom(1, 2, 3, 4),
  release: fc.boolean(),
});
const plainBend = bend.map(({ kind, by, release }) =>
  release ? { kind, by, release } : { kind, by },
) as fc.Arbitrary<Technique>;
const slide: fc.Arbitrary<Technique> = fc.oneof(
  fc.constant({ kind: 'slide' as const }),
  fc.integer({ min: 0, max: 20 }).map((from) => ({ kind: 'slide' as const, from })),
  fc.integer({ min: 0, max: 20 }).map((to) => ({ kind: 'slide' as const, to })),
);
const other: fc.Arbitrary<Technique> = fc
  .constantFrom('hammer-on', 'pull-off', 'vibrato', 'mute', 'let-ring')
  .map((kind) => ({ kind }) as Technique);
const techniques = fc
  .array(fc.oneof(plainBend, slide, other), { maxLength: 3 })
  .map((list) => inOrder(list));

/** One note at a time on the eighths of a passage with a pick-up and a change of metre. */
const passages = fc
  .record({
    pickUp: fc.constantFrom(0, 1, 1.5),
    changed: fc.boolean(),
    feel: fc.constantFrom(null, 'swing', 'slow bossa'),
    key: fc.constantFrom(null, 'Eb', 'F#', 'Bb'),
    notes: fc.array(
      fc.record({
        rest: fc.boolean(),
        string: fc.integer({ min: 1, max: 6 }),
        fret: fc.integer({ min: 1, max: 15 }),
        techniques,
        grace: fc.boolean(),
      }),
      { minLength: 4, maxLength: 20 },
    ),
  })
  .filter(({ notes }) => notes.some(({ rest }) => !rest))
  .map(({ pickUp, changed, feel, key, notes }): Passage => {
    const at = (string: number, fret: number) => ({
      string,
      fret,
      note: simplestPitch(pitchAt(STANDARD_NECK, { string, fret })),
    });
    const played = notes.flatMap(({ rest, string, fret, techniques: how, grace }, index) => {
      if (rest) return [];
      const beat = (index * BEAT) / 2 - pickUp * BEAT;
      const main = struck({
        beat,
        beats: BEAT / 2,
        ...at(string, fret),
        chord: null,
        techniques: how,
      });
      // A grace note's own string and fret, just before.
      const early = struck({
        beat: beat - GRACE_BEATS,
        beats: GRACE_BEATS,
        ...at(string, fret - 1),
        chord: null,
        techniques: [{ kind: 'grace' }],
      });
      // A string sounds one note at a time.
      const free = notes[index - 1]?.string !== string;
      return grace && index > 0 && free ? [early, main] : [main];
    });
    const change = { beat: 4 * BEAT, time: { beats: 3, unit: 4 } };
    return {
      ...PLAIN_PASSAGE,
      title: 'Some line',
      key: key === null ? null : { tonic: note(key), mode: key === 'F#' ? 'minor' : 'major' },
      time: { beats: 4, unit: 4 },
      metreChanges: changed ? [change] : [],
      pickUp: pickUp * BEAT,
      feel: readFeel(feel),
      tempo: 90,
      beats: (changed ? 4 + 3 * 3 : 12) * BEAT,
      neck: STANDARD_NECK,
      notes: inTime(played),
    };
  });

const opened = (result: PassageResult): Passage => {
  if (!result.ok) throw new Error(result.message);
  return result.passage;
};

const notesIn = ({ notes }: Passage) =>
  notes.map(({ beat, beats, string, fret, techniques: how }) => ({
    beat,
    beats,
    string,
    fret,
    techniques: how,
  }));

describe('a passage comes back from', () => {
  test('JSON, every field of it', () => {
    fc.assert(
      fc.property(passages, (passage) => {
        expect(opened(readPassageJson(writePassageJson(passage).content))).toEqual(passage);
      }),
    );
  });

  test('MusicXML with its techniques, pick-up, metre, key and feel', () => {
    fc.assert(
      fc.property(passages, (passage) => {
        const back = opened(readPassage(writePassage(passage).content, STANDARD_NECK));
        expect(notesIn(back)).toEqual(notesIn(passage));
        const { key, metreChanges, pickUp, feel, beats } = back;
        expect({ key, metreChanges, pickUp, feel, beats }).toEqual({
          key: passage.key,
          metreChanges: passage.metreChanges,
          pickUp: passage.pickUp,
          feel: passage.feel,
          beats: passage.beats,
        });
      }),
    );
  });

  test('tablature with its techniques, pick-up, metre, key and feel', () => {
    fc.assert(
      fc.property(passages, (passage) => {
        const back = opened(readTab(writeTab(passage).content, STANDARD_NECK));
        expect(notesIn(back)).toEqual(notesIn(passage));
        const { key, metreChanges, pickUp, feel } = back;
        expect({ key, metreChanges, pickUp, feel }).toEqual({
          key: passage.key,
          metreChanges: passage.metreChanges,
          pickUp: passage.pickUp,
          feel: passage.feel,
        });
      }),
    );
  });

  test('MIDI with its bends, pick-up, metre, key and feel; the rest is said to be lost', () => {
    const onlyBends = (list: readonly Technique[]) => list.filter(({ kind }) => kind === 'bend');
    fc.assert(
      fc.property(passages, (passage) => {
        const { content, remarks } = writeMidi(passage);
        const back = opened(readMidi(content, STANDARD_NECK));
        expect(notesIn(back)).toEqual(
          notesIn(passage).map((one) => ({ ...one, techniques: onlyBends(one.techniques) })),
        );
        expect(back.pickUp).toBeCloseTo(passage.pickUp);
        expect(back.metreChanges).toEqual(passage.metreChanges);
        expect(back.feel).toEqual(passage.feel);
        expect(back.key && signatureOf(back.key)).toBe(passage.key && signatureOf(passage.key));
        const lost = passage.notes.some(
          ({ techniques: how }) => how.length > onlyBends(how).length,
        );
        expect(remarks.length).toBe(lost ? 1 : 0);
      }),
    );
  });
});

test('the JSON of the first version is still read', () => {
  const old = {
    format: 'corvel-passage',
    version: 1,
    title: 'Old',
    time: { beats: 4, unit: 4 },
    tempo: null,
    beats: 4,
    neck: { tuning: ['E2', 'A2', 'D3', 'G3'], frets: 22, capo: 0 },
    notes: [
      {
        beat: 0,
        beats: 1,
        string: 1,
        fret: 2,
        note: 'A',
        chord: null,
        part: 'fill',
        articulation: { kind: 'bend', halfSteps: 2, release: true },
      },
    ],
  };
  const { notes } = opened(readPassageJson(JSON.stringify(old)));
  expect(notes[0]?.techniques).toEqual([{ kind: 'bend', by: 2, release: true }]);
});

test.each([
  ['5h7p5', ['5', 'h7', 'p5']],
  ['5/7', ['5', '/7']],
  ['7b9r7~', ['7b9r7~']],
  ['7b--x-', ['7b9', 'x0']],
])('common tab, %s', (text, expected) => {
  const lines = ['e', 'B', 'G', 'D', 'A', 'E'].map(
    (name) => `${name}|--${name === 'G' ? text : '-'.repeat(text.length)}-----|`,
  );
  const { notes } = opened(readTab(lines.join('\n'), STANDARD_NECK));
  const signs = { 'hammer-on': 'h', 'pull-off': 'p', slide: '/', mute: 'x' } as const;
  const shown = notes.map(({ fret, techniques: how }) => {
    const before = how.map(({ kind }) => (kind in signs ? signs[kind as 'slide'] : '')).join('');
    const bent = how.find((one) => one.kind === 'bend');
    const after = bent ? `b${fret + bent.by}${bent.release ? `r${fret}` : ''}` : '';
    return `${before}${fret}${after}${how.some(({ kind }) => kind === 'vibrato') ? '~' : ''}`;
  });
  expect(shown).toEqual(expected);
});

test('every kind of technique has its place in the order', () => {
  const all: readonly Technique[] = [
    { kind: 'let-ring' },
    { kind: 'mute' },
    { kind: 'vibrato' },
    { kind: 'bend', by: 1 },
    { kind: 'slide' },
    { kind: 'pull-off' },
    { kind: 'hammer-on' },
    { kind: 'grace' },
  ];
  expect(inOrder(all).map(({ kind }) => kind)).toEqual(TECHNIQUE_KINDS);
});
