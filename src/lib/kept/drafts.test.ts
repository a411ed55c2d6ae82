import * as z from 'zod/mini';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';

/** A browser's storage, as far as drafts use it. */
function storage(room = Infinity) {
  const kept: Record<string, string> = {};
  return Object.assign(kept, {
    getItem: (key: string) => kept[key] ?? null,
    setItem: (key: string, value: string) => {
      if (value.length > room) throw new DOMException('full', 'QuotaExceededError');
      kept[key] = value;
    },
    removeItem: (key: string) => {
      Reflect.deleteProperty(kept, key);
    },
  });
}

const draft = (text: string, revision = 1) => ({ text, plan: '{}', revision });

/** The module as a page of its own has it. */
async function openPage() {
  vi.resetModules();
  const { draftsOf } = await import('./drafts');
  return draftsOf('draft', z.object({ text: z.string(), plan: z.string() }));
}

beforeEach(() => {
  vi.useFakeTimers({ now: 1_000_000 });
  vi.stubGlobal('localStorage', storage());
  vi.stubGlobal('navigator', {});
});

afterEach(() => {
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

describe('drafts', () => {
  test('of a page that is gone are taken up by the next, once', async () => {
    const first = await openPage();
    expect(first.keep('a', draft('| C |'))).toBe(true);
    vi.advanceTimersByTime(60_000);
    const second = await openPage();
    expect(await second.adopt('b')).toBeNull();
    expect(await second.adopt('a')).toMatchObject({ text: '| C |', revision: 1 });
    expect(await second.adopt('a')).toBeNull();
  });

  test('of a page that lives are left to it', async () => {
    const first = await openPage();
    first.keep('a', draft('| C |'));
    vi.advanceTimersByTime(2_000);
    const second = await openPage();
    expect(await second.adopt('a')).toBeNull();
    second.keep('a', draft('| F |'));
    second.drop('a');
    vi.advanceTimersByTime(60_000);
    const third = await openPage();
    expect(await third.adopt('a')).toMatchObject({ text: '| C |' });
  });

  test('the newest comes first, the older waits for the next visit', async () => {
    for (const text of ['| C |', '| F |']) {
      const page = await openPage();
      page.keep('a', draft(text));
      vi.advanceTimersByTime(20_000);
    }
    const third = await openPage();
    expect(await third.adopt('a')).toMatchObject({ text: '| F |' });
    third.drop('a');
    const fourth = await openPage();
    expect(await fourth.adopt('a')).toMatchObject({ text: '| C |' });
  });

  test('what an earlier Corvel kept, and what is no draft, break nothing', async () => {
    localStorage.setItem('corvel:draft:a', JSON.stringify(draft('| G |', 7)));
    localStorage.setItem('corvel:draft:a:torn', '{"text":');
    const page = await openPage();
    expect(await page.adopt('a')).toMatchObject({ text: '| G |', revision: 7 });
  });

  test('what was acknowledged is found by a page that was given something older', async () => {
    const page = await openPage();
    page.acknowledge('a', draft('| C | F |', 5));
    expect(page.newer('a', 3)).toMatchObject({ text: '| C | F |', revision: 5 });
    expect(page.newer('b', 1)).toBeNull();
    // A page that is up to date has no use for it.
    expect(page.newer('a', 5)).toBeNull();
    expect(page.newer('a', 3)).toBeNull();
  });

  test('a full or a blocked storage is said, and nothing is thrown', async () => {
    vi.stubGlobal('localStorage', storage(10));
    const page = await openPage();
    expect(page.keep('a', draft('| C |'))).toBe(false);
    vi.stubGlobal('localStorage', undefined);
    expect(page.keep('a', draft('| C |'))).toBe(false);
    page.drop('a');
    expect(await page.adopt('a')).toBeNull();
  });
});
