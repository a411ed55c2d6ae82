/** A chart being studied, as its screens have it, without a page. */
import { afterEach, beforeEach, vi } from 'vitest';
import { createDocument } from '$lib/study/document.svelte';
import type { ChartPlace } from '$lib/study/place';
import { createStudy, type Study } from '$lib/study/study.svelte';
import { DEFAULT_SETTINGS, type Settings } from '$lib/settings/settings';

interface Studied {
  readonly plan?: string;
  readonly view?: object;
  readonly place?: ChartPlace;
  readonly settings?: Partial<Settings>;
}

/** What is sent meets whatever a test has put in place of `fetch`. */
export function studyOf(
  text: string,
  { plan = '{}', view = {}, place, settings }: Studied = {},
): Study {
  return createStudy({
    id: 'c',
    document: createDocument('c', { text, plan, revision: 1 }),
    settings: { current: { ...DEFAULT_SETTINGS, ...settings }, change: () => undefined },
    view: JSON.stringify(view),
    place: place ?? { index: 0, zone: null },
  });
}

/** For every test of a file: a clock that stands still, and a server that takes whatever is sent. */
export function standsStill(): void {
  beforeEach(() => {
    vi.useFakeTimers({ now: 1_000_000 });
    vi.stubGlobal('fetch', () => Promise.resolve(Response.json({ revision: 2 })));
  });
  afterEach(() => {
    vi.clearAllTimers();
    vi.useRealTimers();
    vi.unstubAllGlobals();
  });
}
