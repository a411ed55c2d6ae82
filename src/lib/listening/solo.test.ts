import { expect, test } from 'vitest';
import { soloHeard } from './solo';

const heard = (since: number | null, state: 'hearing' | 'off' = 'hearing') =>
  soloHeard({
    state,
    sounding: null,
    notes: since === null ? [] : [{ at: 9, length: 1 }],
    now: () => 10 + (since ?? 0),
  });

test('the player plays, rests, or is gone, by how long ago he played', () => {
  expect(heard(0.5)).toBe('playing');
  expect(heard(0.7)).toBe('resting');
  expect(heard(7.9)).toBe('resting');
  expect(heard(8.1)).toBeNull();
  expect(heard(null)).toBeNull();
  expect(heard(0.5, 'off')).toBeNull();
});
