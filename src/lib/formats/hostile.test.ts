import { strToU8, zipSync } from 'fflate';
import { describe, expect, test } from 'vitest';
import { STANDARD_NECK } from 'corvel-core';
import { openChart } from './charts';
import { openPassage } from './passages';

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);

const score = (inside: string, attributes = '<divisions>1</divisions>'): string =>
  `<score-partwise><part-list/><part id="P1"><measure number="1"><attributes>${attributes}</attributes>${inside}</measure></part></score-partwise>`;

const note = (duration: string): string =>
  `<note><pitch><step>C</step><octave>4</octave></pitch><duration>${duration}</duration></note>`;

const bars = (count: number): string =>
  `<score-partwise><part-list/><part id="P1">${`<measure><attributes><divisions>1</divisions></attributes>${note('4')}</measure>`.repeat(count)}</part></score-partwise>`;

/** A MIDI file of one track with these bytes of events. */
function midi(events: readonly number[], division = 480): Uint8Array {
  const size = events.length;
  const head = [0x4d, 0x54, 0x68, 0x64, 0, 0, 0, 6, 0, 0, 0, 1, division >> 8, division & 0xff];
  const track = [0x4d, 0x54, 0x72, 0x6b, size >>> 24, (size >> 16) & 255, (size >> 8) & 255];
  return Uint8Array.from(head.concat(track, size & 255, events));
}

const HUGE = [0xff, 0xff, 0xff, 0x7f] as const;
const END = [0, 0xff, 0x2f, 0] as const;

/** A zip whose directory says that its score is small. */
function lyingZip(): Uint8Array {
  const packed = zipSync({ 'score.xml': strToU8(' '.repeat(24_000_000)) }, { level: 9 });
  const view = new DataView(packed.buffer, packed.byteOffset);
  for (let at = 0; at + 30 < packed.length; at++) {
    const mark = view.getUint32(at, true);
    if (mark === 0x04034b50) view.setUint32(at + 22, 100, true);
    if (mark === 0x02014b50) view.setUint32(at + 24, 100, true);
  }
  return packed;
}

const FILES: Readonly<Record<string, () => Uint8Array>> = {
  'a DOCTYPE repeated': () =>
    bytes('<!DOCTYPE a [<!ENTITY b "c">]>'.repeat(60_000) + score(note('4'))),
  'an unclosed DOCTYPE': () => bytes('<!DOCTYPE '.repeat(200_000)),
  'deep elements': () => bytes('<a>'.repeat(60_000)),
  'a comment never closed': () => bytes('<!-- '.repeat(60_000)),
  'many attributes': () => bytes(`<score-partwise ${'a="b" '.repeat(60_000)}/>`),
  'a zip that lies about its size': lyingZip,
  'MIDI with huge gaps': () =>
    midi([
      ...Array.from({ length: 40 }, () => [...HUGE, 0x90, 60, 90, ...HUGE, 0x80, 60, 0]).flat(),
      ...END,
    ]),
  'MIDI with no ticks in a beat': () => midi([0, 0x90, 60, 90, 96, 0x80, 60, 0, ...END], 0),
  'MIDI with many notes': () =>
    midi(
      [...Array.from({ length: 20_000 }, () => [0, 0x90, 60, 90, 1, 0x80, 60, 0]).flat(), ...END],
      1,
    ),
  'MIDI that says it is longer': () => midi([0, 0x90, 60]).slice(0, 25),
  'durations of 1e9': () => bytes(score(note('1000000000').repeat(20))),
  'no divisions': () => bytes(score(note('1'), '<divisions>0</divisions>')),
  'divisions below none': () => bytes(score(note('1'), '<divisions>-3</divisions>')),
  'a time signature of 1e9': () =>
    bytes(
      score(
        note('1'),
        '<divisions>1</divisions><time><beats>1000000000</beats><beat-type>4</beat-type></time>',
      ),
    ),
  '2,000 bars': () => bytes(bars(2_000)),
  '6,000 bars': () => bytes(bars(6_000)),
  'an element named __proto__': () => bytes(score('<__proto__><constructor/></__proto__>')),
  'an entity named constructor': () =>
    bytes(score('<direction><words>&constructor;&__proto__;</words></direction>')),
  'tablature a million wide': () =>
    bytes(
      ['e', 'B', 'G', 'D', 'A', 'E'].map((name) => `${name}|${'-'.repeat(150_000)}5|`).join('\n'),
    ),
  'JSON nested deeply': () => bytes(`{"format":"corvel-passage","notes":${'['.repeat(100_000)}`),
  'JSON with a note at 1e300': () =>
    bytes(
      '{"format":"corvel-passage","version":2,"notes":[{"beat":1e300,"beats":1e300,"string":1,"fret":1}]}',
    ),
  'a chart of parentheses': () => bytes('| ' + '('.repeat(60_000)),
  'a chart with the header constructor': () => bytes('constructor: x\n__proto__: y\n| C |'),
};

describe('a hostile file', () => {
  test.each(Object.entries(FILES))('%s ends in a sentence or a chart', async (_, make) => {
    const file = make();
    for (const opened of [await openChart(file), await openPassage(file, STANDARD_NECK)]) {
      if (opened.ok) continue;
      expect(opened.message).toMatch(/^\S.{8,300}[.]$/su);
    }
  });
});
