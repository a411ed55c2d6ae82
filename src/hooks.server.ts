import { type Handle, type HandleServerError, redirect, type ServerInit } from '@sveltejs/kit';
import { building } from '$app/environment';
import { log } from '$lib/server/log';
import { cookieOpens, PASSCODE_COOKIE, passcodeInForce } from '$lib/server/passcode';
import { closeStore, currentStore } from '$lib/server/store';

export const init: ServerInit = async () => {
  if (building) return;
  await currentStore();
  process.once('exit', closeStore);
};

const SECURITY_HEADERS = {
  'x-content-type-options': 'nosniff',
  'referrer-policy': 'same-origin',
  'x-frame-options': 'DENY',
  'cross-origin-opener-policy': 'same-origin',
  'cross-origin-resource-policy': 'same-origin',
  'permissions-policy': 'camera=(), geolocation=(), payment=()',
} as const;

/** Open without a database: the engine keeps no state, and the way back needs none. */
const WITHOUT_DATABASE = /^\/(?:api\/engine|docs|recover|unlock|_app)(?:\/|$)/u;

function json(status: number, code: string, message: string): Response {
  return Response.json({ error: { code, message } }, { status });
}

const LOOPBACK_NAMES: ReadonlySet<string> = new Set(['localhost', '127.0.0.1', '[::1]']);

/** A page elsewhere must not reach a loopback server under a name of its own (DNS rebinding). */
const strangerName = (url: URL): boolean =>
  passcodeInForce() === null && !LOOPBACK_NAMES.has(url.hostname);

export const handle: Handle = async ({ event, resolve }) => {
  const began = performance.now();
  const { pathname } = event.url;
  const api = pathname.startsWith('/api/');
  if (!building && strangerName(event.url)) {
    return json(421, 'wrong_host', 'This server answers on localhost only.');
  }
  if (pathname !== '/unlock' && !cookieOpens(event.cookies.get(PASSCODE_COOKIE))) {
    if (api) return json(401, 'locked', 'This server asks for its passcode first.');
    redirect(303, `/unlock?to=${encodeURIComponent(pathname + event.url.search)}`);
  }
  event.locals.store = await currentStore();
  if (event.locals.store.state === 'damaged' && !WITHOUT_DATABASE.test(pathname)) {
    if (api) return json(503, 'damaged', 'The data file is damaged; open /recover in the browser.');
    redirect(303, '/recover');
  }
  const response = await resolve(event);
  for (const [name, value] of Object.entries(SECURITY_HEADERS)) response.headers.set(name, value);
  if (!response.headers.has('cache-control') && !pathname.startsWith('/_app/')) {
    response.headers.set('cache-control', 'no-store');
  }
  response.headers.set('server-timing', `total;dur=${(performance.now() - began).toFixed(1)}`);
  return response;
};

export const handleError: HandleServerError = ({ error, event, status, message }) => {
  if (status === 404) return { message: 'There is nothing at this address.' };
  log('error', message, {
    path: event.url.pathname,
    reason: error instanceof Error ? (error.stack ?? error.message) : String(error),
  });
  return { message: 'Something went wrong on the server. Your saved charts are untouched.' };
};
