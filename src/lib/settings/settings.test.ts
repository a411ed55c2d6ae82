import { describe, expect, test } from 'vitest';
import { STANDARD_NECK } from 'corvel-core';
import {
  DEFAULT_SETTINGS,
  INSTRUMENT_LIMIT,
  instrumentOf,
  neckOf,
  readSettings,
  settingsRequest,
  settingsSchema,
} from './settings';

const guitar = instrumentOf(DEFAULT_SETTINGS, null);
const accepts = (changed: object) =>
  settingsSchema.safeParse({ ...DEFAULT_SETTINGS, ...changed }).success;

describe('settings', () => {
  test('begin with a guitar, and come back as they were written', () => {
    expect(neckOf(guitar)).toEqual(STANDARD_NECK);
    expect(readSettings('{}')).toEqual(DEFAULT_SETTINGS);
    const changed = {
      ...DEFAULT_SETTINGS,
      boxNames: 'letter',
      pedals: { 'key b': 'tap' },
    } as const;
    expect(readSettings(JSON.stringify(changed))).toEqual(changed);
  });

  test.each([
    ['no instrument', { instruments: [] }],
    ['too many', { instruments: Array.from({ length: INSTRUMENT_LIMIT + 1 }, () => guitar) }],
    ['a name of blanks', { instruments: [{ ...guitar, name: '   ' }] }],
    ['half a fret', { instruments: [{ ...guitar, frets: 21.5 }] }],
    ['three strings', { instruments: [{ ...guitar, tuning: ['E2', 'A2', 'D3'] }] }],
    ['too loud', { mix: { ...DEFAULT_SETTINGS.mix, master: 1.01 } }],
    ['below silence', { mix: { ...DEFAULT_SETTINGS.mix, master: -0.01 } }],
    ['an unknown part', { mix: { ...DEFAULT_SETTINGS.mix, solo: 'harp' } }],
    ['heard a second late and more', { latencies: { microphone: 1.01 } }],
    ['an unknown pedal action', { pedals: { 'key b': 'dance' } }],
  ])('%s is refused', (_, changed) => {
    expect(accepts(changed)).toBe(false);
  });

  test('what lies at a bound is taken', () => {
    const most = Array.from({ length: INSTRUMENT_LIMIT }, (_, index) => ({
      ...guitar,
      id: String(index),
      name: 'x'.repeat(60),
    }));
    expect(accepts({ instruments: most })).toBe(true);
    expect(accepts({ mix: { ...DEFAULT_SETTINGS.mix, master: 0 } })).toBe(true);
    expect(accepts({ latencies: { microphone: 1, line: -0.5 } })).toBe(true);
  });

  test('an instrument that is gone is the first', () => {
    const bass = { ...guitar, id: 'bass', name: 'Bass', tuning: ['E1', 'A1', 'D2', 'G2'] };
    const both = { ...DEFAULT_SETTINGS, instruments: [guitar, bass] };
    expect(['bass', 'gone', null].map((id) => instrumentOf(both, id).name)).toEqual([
      ...['Bass', 'Guitar', 'Guitar'],
    ]);
    expect(neckOf({ ...guitar, tuning: ['nonsense'] })).toEqual(STANDARD_NECK);
  });
});

test('settings are saved first on revision 0, and on none below', () => {
  const saves = (revision: number) =>
    settingsRequest.safeParse({ ...DEFAULT_SETTINGS, revision }).success;
  expect([0, 1, -1, 0.5].map(saves)).toEqual([true, true, false, false]);
});
