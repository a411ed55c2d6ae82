import { afterEach, describe, expect, test, vi } from 'vitest';
import { make } from './server';

/** A server that answers so, one after the other; what it was asked. */
function answering(...answers: readonly (Response | Error)[]) {
  const asked: { readonly path: string; readonly body: string }[] = [];
  vi.stubGlobal('fetch', (path: string, { body }: { readonly body: string }) => {
    asked.push({ path, body });
    const answer = answers[asked.length - 1];
    return answer instanceof Response ? Promise.resolve(answer) : Promise.reject(answer);
  });
  return asked;
}

afterEach(() => vi.unstubAllGlobals());

describe('making something', () => {
  test('is tried again under its id after no answer, and has a new id once it is made', async () => {
    const made = () => Response.json({ revision: 1 });
    const asked = answering(new Error('away'), new Response('', { status: 503 }), made(), made());
    expect(await make('/api/charts', { text: '| C |' })).toBeNull();
    expect(await make('/api/charts', { text: '| C |' })).toBeNull();
    const id = await make('/api/charts', { text: '| C |' });
    expect(asked.slice(0, 3)).toEqual(
      Array(3).fill({ path: `/api/charts/${id}`, body: '{"revision":0,"text":"| C |"}' }),
    );
    expect(await make('/api/charts', { text: '| C |' })).not.toBe(id);
  });

  test('what is something else has an id of its own', async () => {
    const asked = answering(new Error('away'), new Error('away'));
    await make('/api/charts', { text: '| C |' });
    await make('/api/charts', { text: '| F |' });
    expect(new Set(asked.map(({ path }) => path)).size).toBe(2);
  });

  test('there already and changed since, it is there; refused, it is not', async () => {
    const asked = answering(
      Response.json({}, { status: 409 }),
      Response.json({}, { status: 400 }),
      Response.json({ revision: 1 }),
    );
    expect(await make('/api/licks', {})).not.toBeNull();
    expect(await make('/api/licks', {})).toBeNull();
    await make('/api/licks', {});
    expect(asked[2]?.path).not.toBe(asked[1]?.path);
  });
});
