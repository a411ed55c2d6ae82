/// <reference types="@sveltejs/kit" />
/// <reference no-default-lib="true"/>
/// <reference lib="esnext" />
/// <reference lib="webworker" />
/**
 * The app without its server: its files are kept at the first visit, its pages as they were last seen.
 * Edits made meanwhile wait as drafts of the page and are sent on return.
 */
import { build, files, version } from '$service-worker';
import { isShown, pagesShowing } from '$lib/kept/addresses';

const worker = globalThis as unknown as ServiceWorkerGlobalScope;

const SHELL = `corvel-shell-${version}`;
const PAGES = 'corvel-pages';
/** Kept when they are first wanted: most visits want none. */
const SOUNDS = 'corvel-sounds';
const isSound = (path: string): boolean => path.startsWith('/sounds/');
const SHELL_FILES = [...build, ...files.filter((path) => !isSound(path))];

/** How long a page is waited for before the kept one is shown, in milliseconds. */
const PATIENCE = 4_000;
/** How long saves are gathered before the kept page is fetched anew, in milliseconds. */
const SETTLED = 1_500;

/** One file after the other: the page in use has the processor and the connection first. */
async function keepShell(): Promise<void> {
  const cache = await caches.open(SHELL);
  for (const file of SHELL_FILES) await cache.add(file);
  await worker.skipWaiting();
}

worker.addEventListener('install', (event) => {
  event.waitUntil(keepShell());
});

worker.addEventListener('activate', (event) => {
  const old = (names: readonly string[]) =>
    names.filter((name) => name.startsWith('corvel-shell-') && name !== SHELL);
  event.waitUntil(
    caches
      .keys()
      .then((names) => Promise.all(old(names).map((name) => caches.delete(name))))
      .then(() => worker.clients.claim()),
  );
});

/** A page says where it is: it was opened before this worker could see it. */
worker.addEventListener('message', (event) => {
  const open = new URL(String(event.data), worker.location.origin);
  if (open.origin !== worker.location.origin) return;
  const book = new URL('/', open);
  event.waitUntil(Promise.all([fetchAndKeep(book), fetchAndKeep(open)]));
});

const AWAY = `<!doctype html><html lang="en"><meta charset="utf-8"><title>Server away · Corvel</title>
<meta name="viewport" content="width=device-width"><body style="font:1rem/1.5 sans-serif;margin:3rem">
<h1>The server does not answer</h1><p>This page was not opened here before, so it is not kept.
What you have edited is kept in this browser and sent when the server is back.</p>
<p><a href="/">Back to the Book</a></p></body></html>`;

const away = (request: Request): Response =>
  request.mode === 'navigate'
    ? new Response(AWAY, { status: 503, headers: { 'content-type': 'text/html; charset=utf-8' } })
    : Response.error();

/** Pages are the same whatever place in them their address names. */
const keyOf = (url: URL): string => url.origin + url.pathname;

async function keepPage(url: URL, response: Response): Promise<void> {
  if (!response.ok || response.redirected) return;
  const cache = await caches.open(PAGES);
  await cache.put(keyOf(url), response);
}

/** What a page's data is asked for under, when the app goes there by itself. */
const DATA = '/__data.json';

const dataOf = ({ origin, pathname }: URL): URL =>
  new URL(pathname.replace(/\/$/u, '') + DATA, origin);
const pageOf = ({ origin, pathname }: URL): URL =>
  new URL(pathname.slice(0, -DATA.length) || '/', origin);

/** A page kept this long ago, in milliseconds, is new enough. */
const FRESH = 3_000;
const keptAt = new Map<string, number>();

/**
 * Keeps a page as it now is, to be opened by its address or gone to by the app; what was just answered is not asked
 * for again.
 */
async function fetchAndKeep(page: URL, least = FRESH, answered?: Response): Promise<void> {
  const key = keyOf(page);
  const known = Date.now() - (keptAt.get(key) ?? 0) < least;
  if (!known) keptAt.set(key, Date.now());
  try {
    if (answered) await keepPage(page, answered);
    if (known) return;
    if (!answered) await keepPage(page, await fetch(page));
    await keepPage(dataOf(page), await fetch(dataOf(page)));
  } catch {
    // The server is away: what was kept stays.
  }
}

const outOfPatience = (): Promise<never> =>
  new Promise((_, reject) => {
    setTimeout(() => reject(new Error('It takes too long.')), PATIENCE);
  });

/** The page as the server has it; the kept one where it does not answer soon, and where there is none it is waited for. */
async function pageOrKept(request: Request, url: URL): Promise<Response> {
  const kept = await caches.match(keyOf(url), { cacheName: PAGES });
  const asked = fetch(request);
  try {
    const response = await (kept ? Promise.race([asked, outOfPatience()]) : asked);
    // The app may ask for a part of the data only: that is kept whole, beside this. A page that is opened is whole.
    if (response.ok && url.pathname.endsWith(DATA)) void fetchAndKeep(pageOf(url));
    else if (response.ok) void fetchAndKeep(url, FRESH, response.clone());
    return response;
  } catch {
    asked.catch(() => undefined);
    return kept ?? away(request);
  }
}

async function shellFile(request: Request): Promise<Response> {
  return (await caches.match(request, { cacheName: SHELL })) ?? fetch(request);
}

async function soundFile(request: Request): Promise<Response> {
  const cache = await caches.open(SOUNDS);
  const kept = await cache.match(request);
  if (kept) return kept;
  const response = await fetch(request);
  if (response.ok) await cache.put(request, response.clone());
  return response;
}

const refreshing = new Set<string>();

/** What was saved is kept as it now is, once its saves have settled, wherever a kept page shows it. */
async function keepSaved(request: Request, path: string): Promise<Response> {
  const response = await fetch(request);
  if (!response.ok) return response;
  for (const page of pagesShowing(path)) {
    if (refreshing.has(page)) continue;
    refreshing.add(page);
    setTimeout(() => {
      refreshing.delete(page);
      void refresh(new URL(page, worker.location.origin));
    }, SETTLED);
  }
  return response;
}

async function refresh(page: URL): Promise<void> {
  if (await caches.match(keyOf(page), { cacheName: PAGES })) await fetchAndKeep(page, 0);
}

const isPage = (request: Request, url: URL): boolean =>
  (request.mode === 'navigate' || url.pathname.endsWith(DATA)) &&
  !url.pathname.startsWith('/unlock') &&
  !url.pathname.startsWith('/recover');

worker.addEventListener('fetch', (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (url.origin !== worker.location.origin) return;
  if (request.method !== 'GET') {
    if (isShown(url.pathname)) event.respondWith(keepSaved(request, url.pathname));
    return;
  }
  if (SHELL_FILES.includes(url.pathname)) event.respondWith(shellFile(request));
  else if (isSound(url.pathname)) event.respondWith(soundFile(request));
  else if (isPage(request, url)) event.respondWith(pageOrKept(request, url));
});
