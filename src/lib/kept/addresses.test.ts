import { expect, test } from 'vitest';
import { isShown, isWholeBook, pagesShowing } from './addresses';

test.each([
  ['/api/charts', ['/']],
  ['/api/charts/ab1', ['/', '/plan/ab1']],
  ['/api/licks/ab1', ['/licks', '/licks/ab1']],
  ['/api/takes/ab1', ['/licks', '/licks/ab1']],
  ['/api/stints/ab1', ['/', '/log', '/drills']],
  ['/api/cards', ['/drills']],
  ['/api/settings', ['/settings']],
  ['/api/engine/chart', []],
])('what is saved at %s shows on %j', (path, pages) => {
  expect(pagesShowing(path)).toEqual(pages);
});

test('how a chart is looked at shows nowhere else; an archive is a whole book', () => {
  expect(['/api/charts/ab1', '/api/stints', '/api/settings'].map(isShown)).toEqual([
    ...[true, true, true],
  ]);
  expect(
    ['/api/charts/ab1/view', '/api/charts/ab1/opened', '/api/takes/ab1/sound', '/api/live'].map(
      isShown,
    ),
  ).toEqual([false, false, false, false]);
  expect(['/api/archive', '/api/archive/undo', '/api/archives'].map(isWholeBook)).toEqual([
    ...[true, true, false],
  ]);
});
