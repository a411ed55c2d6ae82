import { describe, expect, test } from 'vitest';
import { readCsv, stintsAsCsv } from './csv';
import type { StintContent } from './messages';

const CONTENT: StintContent = {
  at: '2026-06-15T18:00:00+02:00',
  chart: 'abc',
  exercise: 'targets',
  zone: { low: 5, high: 8 },
  extent: 'section',
  tempoFrom: 90,
  tempo: 96,
  minutes: 4.5,
  asked: 20,
  landed: 18,
  note: '',
};
const STINT = { ...CONTENT, id: 'one', time: 0, revision: 1 };
const HEADS =
  'at,chart,exercise,low,high,extent,tempoFrom,tempo,minutes,asked,landed,note,earlierRule';

describe('the log as comma-separated values', () => {
  test('no sheet takes for formulas', () => {
    const lines = stintsAsCsv([{ ...STINT, note: '=1+1, "so"\nand more' }]);
    expect(lines.split('\r\n')[0]).toBe(HEADS);
    expect(lines).toContain(
      '2026-06-15T18:00:00+02:00,abc,targets,5,8,section,90,96,4.5,20,18,"\'=1+1, ""so""\nand more",',
    );
  });

  test.each([
    {},
    { note: '=1+1, "so"\nand more' },
    { note: '-3 dB, ’tis' },
    { note: "'=not a sum" },
    { note: "''+twice" },
    { note: "'tis" },
    { asked: null, landed: null },
    { earlierRule: true },
    { extent: 'two chords' as const, note: ' spaces ' },
  ])('comes back as it went out: %j', (changed) => {
    const stints = [{ ...STINT, ...changed }, STINT];
    expect(readCsv(stintsAsCsv(stints))).toEqual({
      ok: true,
      stints: [{ ...CONTENT, ...changed }, CONTENT],
    });
  });

  test('is read with its columns in any order, and what may be left out left out', () => {
    const text =
      'minutes;tempo;high;low;exercise;chart;at\n5;100;8;5;free;abc;2026-06-15T18:00:00Z\n';
    expect(readCsv(text)).toMatchObject({
      ok: true,
      stints: [{ minutes: 5, tempoFrom: 100, extent: 'form', asked: null, note: '' }],
    });
  });

  test.each([
    ['', 'no column “at”'],
    ['a,b\n1,2', 'no column “at”'],
    [`${HEADS}\n2026-06-15,abc,targets,5,8,form,90,96,4,,,`, 'Row 2: “at”'],
    [`${HEADS}\n2026-06-15T18:00:00Z,abc,targets,5,8,form,90,fast,4,,,`, 'Row 2: “tempo”'],
    [`${HEADS}\n\n2026-06-15T18:00:00Z,abc,targets,,8,form,90,96,4,,,`, '“low”'],
  ])('that cannot be read says where: %j', (text, says) => {
    const read = readCsv(text);
    expect(read.ok ? '' : read.message).toContain(says);
  });
});
