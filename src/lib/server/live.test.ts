import { expect, test } from 'vitest';
import { messageSchema } from '$lib/live/messages';
import { liveStream, tellAll, tellOfChange, toldSoFar } from './live';

/** A browser that listens: what it has been told so far. */
async function browser() {
  const stream = liveStream();
  if (!stream) throw new Error('no room');
  const reader = stream.getReader();
  const decoder = new TextDecoder();
  let text = '';
  const next = async () => {
    const { value } = await reader.read();
    text += decoder.decode(value);
  };
  await next();
  return {
    next,
    leave: () => reader.cancel(),
    told: () =>
      [...text.matchAll(/^data: (.*)$/gmu)].map(([, data = '']) =>
        messageSchema.parse(JSON.parse(data)),
      ),
  };
}

const TOLD = [
  ...['/api/licks/l', '/api/stints', '/api/cards', '/api/settings', '/api/takes/t'],
  ...['/api/archive', '/api/archive/back'],
];

const put = (path: string, response: Response, method = 'PUT') =>
  tellOfChange(new Request(`http://localhost${path}`, { method }), path, response);
const saved = (revision: number) => new Response('{}', { headers: { etag: `"${revision}"` } });

test('every browser hears how many are open, and what is saved and played', async () => {
  const [first, second] = [await browser(), await browser()];
  await first.next();
  await first.next();
  await second.next();
  expect(first.told()).toEqual([
    { kind: 'devices', count: 1, told: toldSoFar() },
    { kind: 'devices', count: 2, told: toldSoFar() },
  ]);
  const before = toldSoFar();
  put('/api/charts/abc', saved(7));
  // A page that was made before knows by this that it has missed something.
  expect(toldSoFar()).not.toBe(before);
  const zone = { low: 5, high: 8 };
  const stage = {
    kind: 'stage',
    page: 'p',
    chart: 'abc',
    playing: true,
    index: 3,
    shift: -2,
    zone,
  } as const;
  tellAll(stage);
  for (const one of [first, second]) {
    await one.next();
    await one.next();
    expect(one.told().slice(-2)).toEqual([
      { kind: 'changed', path: '/api/charts/abc', revision: 7, told: toldSoFar() },
      stage,
    ]);
  }
  await second.leave();
  await first.next();
  expect(first.told().at(-1)).toEqual({ kind: 'devices', count: 1, told: toldSoFar() });
  await first.leave();
});

test('only what has changed something that pages show is told', async () => {
  const one = await browser();
  await one.next();
  put('/api/charts/abc', saved(2), 'GET');
  put('/api/charts/abc', new Response('{}', { status: 409 }));
  put('/api/charts/abc/view', saved(2));
  put('/api/charts/abc/opened', saved(2), 'POST');
  put('/api/engine/route', saved(2), 'POST');
  put('/unlock', saved(2), 'POST');
  for (const path of TOLD) put(path, new Response(null, { status: 204 }), 'POST');
  for (let count = 0; count < TOLD.length; count += 1) await one.next();
  expect(
    one.told().map((message) => (message.kind === 'changed' ? message.path : message.kind)),
  ).toEqual(['devices', ...TOLD]);
  await one.leave();
});

test('there is room for so many, and again when one has left', async () => {
  const all = [];
  for (let stream = liveStream(); stream; stream = liveStream()) all.push(stream);
  expect(all).toHaveLength(64);
  await all[0]?.cancel();
  const again = liveStream();
  expect(again).not.toBeNull();
  for (const stream of [...all.slice(1), again]) await stream?.cancel();
});
