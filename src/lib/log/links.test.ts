import { expect, test } from 'vitest';
import { DRILLS, LICK, SHEET } from '$core/log/blocks';
import { FREE } from '$core/log/stints';
import { blockAddress, screenFor, sessionAt, sessionOver } from './links';

const here = { chart: 'abc', zone: { low: 5, high: 8 } };

test.each([
  [DRILLS, '/drills?chart=abc'],
  [LICK, '/licks?'],
  [SHEET, '/plan/abc/practice?at=1&zone=5-8&sheet=last'],
  [FREE, '/plan/abc/play?at=1&zone=5-8&line=none'],
  ['arpeggios', '/plan/abc/play?at=1&zone=5-8&line=arpeggios'],
])('%s is practised on its own screen', (exercise, address) => {
  expect(screenFor({ ...here, exercise })).toBe(address);
});

test('the chord is counted from 1, the tempo is whole', () => {
  const asked = { ...here, exercise: FREE, index: 2, tempo: 92.5, extent: 'two bars' } as const;
  expect(screenFor(asked)).toBe('/plan/abc/play?at=3&zone=5-8&line=none&bpm=93&extent=two+bars');
});

test('a block of a session says which it is, counted from 1', () => {
  const along = 'session=5.8&block=3&go=1';
  expect(blockAddress({ ...here, exercise: LICK }, '5.8', 2)).toBe(`/licks?${along}`);
  expect(blockAddress({ ...here, exercise: DRILLS }, '5.8', 2)).toBe(`/drills?chart=abc&${along}`);
  expect(sessionOver('session=5')).toBe('/log?session=5&over=1');
  expect(sessionAt('session=5', 2)).toBe('/log?session=5&begun=2');
});
