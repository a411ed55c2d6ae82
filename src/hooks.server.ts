import { type Handle, type HandleServerError, redirect, type ServerInit } from '@sveltejs/kit';
import { building } from '$app/environment';
import { warmEngine } from '$lib/server/engine';
import { tellOfChange } from '$lib/server/live';
import { log } from '$lib/server/log';
import { cookieOpens, PASSCODE_COOKIE, passcodeInForce } from '$lib/server/passcode';
import { PROBLEM_WORDS, problemOf } from '$lib/server/problems';
import { isHere } from '$lib/server/share';
import { closeStore, currentStore, reportDamage } from '$lib/server/store';

/** Milliseconds after the start at which a thread is made ready for questions. */
const WARMING = 3_000;

export const init: ServerInit = async () => {
  if (building) return;
  await currentStore();
  // Not before the first page, which has the processor first.
  setTimeout(warmEngine, WARMING).unref();
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

function json(
  status: number,
  code: string,
  message: string,
  headers: Readonly<Record<string, string>> = {},
): Response {
  return Response.json({ error: { code, message } }, { status, headers });
}

/** What a device needs before it is let in: the passcode’s page, and the certificate to trust. */
const OPEN_TO_ALL: ReadonlySet<string> = new Set(['/unlock', '/share/certificate']);

const READING: ReadonlySet<string> = new Set(['GET', 'HEAD', 'OPTIONS']);

/** Whether another site's page asks for a change. Programs send neither header. */
function foreignChange({ method, headers }: Request, url: URL): boolean {
  if (READING.has(method)) return false;
  const site = headers.get('sec-fetch-site');
  if (site !== null && site !== 'same-origin' && site !== 'none') return true;
  const origin = headers.get('origin');
  return origin !== null && (!URL.canParse(origin) || new URL(origin).host !== url.host);
}

const FOREIGN = 'This may not be asked from another site.';

/** The framework's own answers under /api, in the words and the shape of ours. */
const PLAIN_ERRORS: Readonly<Record<number, readonly [code: string, message: string]>> = {
  403: ['forbidden', FOREIGN],
  404: ['not_found', 'There is nothing at this address.'],
  405: ['method_not_allowed', 'This address does not answer to that method.'],
  413: ['too_large', 'The request is too large.'],
};

function apiError(response: Response): Response {
  const type = response.headers.get('content-type') ?? '';
  if (response.status < 400 || type.startsWith('application/json')) return response;
  const [code, message] = PLAIN_ERRORS[response.status] ?? [
    'internal',
    'Something went wrong on the server.',
  ];
  const allow = response.headers.get('allow');
  return json(response.status, code, message, allow === null ? {} : { allow });
}

/** The names of this machine, as they stand in the header: an address made of it may hide the rest. */
const LOOPBACK_HOST = /^(?:localhost|127\.0\.0\.1|\[::1\])(?::\d{1,5})?$/iu;

/** A page elsewhere must not reach a loopback server under a name of its own (DNS rebinding). */
const strangerName = (request: Request, url: URL): boolean =>
  (passcodeInForce() === null || isHere(request)) &&
  !LOOPBACK_HOST.test(request.headers.get('host') ?? url.host);

export const handle: Handle = async ({ event, resolve }) => {
  const began = performance.now();
  const { pathname } = event.url;
  const api = pathname.startsWith('/api/');
  if (!building && strangerName(event.request, event.url)) {
    return json(421, 'wrong_host', 'This server answers on localhost only.');
  }
  if (foreignChange(event.request, event.url)) {
    return api ? json(403, 'forbidden', FOREIGN) : new Response(FOREIGN, { status: 403 });
  }
  const here = isHere(event.request);
  if (!here && !OPEN_TO_ALL.has(pathname) && !cookieOpens(event.cookies.get(PASSCODE_COOKIE))) {
    if (api) return json(401, 'locked', 'This server asks for its passcode first.');
    redirect(303, `/unlock?to=${encodeURIComponent(pathname + event.url.search)}`);
  }
  event.locals.store = await currentStore();
  const { store } = event.locals;
  if (store.state === 'closed' && !WITHOUT_DATABASE.test(pathname)) {
    if (api) return json(503, store.kind, PROBLEM_WORDS[store.kind]);
    redirect(303, '/recover');
  }
  const response = answered(await resolve(event), event.locals.problem, api);
  tellOfChange(event.request, pathname, response);
  for (const [name, value] of Object.entries(SECURITY_HEADERS)) response.headers.set(name, value);
  if (!response.headers.has('cache-control') && !pathname.startsWith('/_app/')) {
    response.headers.set('cache-control', 'no-store');
  }
  response.headers.set('server-timing', `total;dur=${(performance.now() - began).toFixed(1)}`);
  return response;
};

/** What the data file did not do is no fault of the server: it may be asked again. */
function answered(response: Response, problem: App.Locals['problem'], api: boolean): Response {
  if (!problem) return api ? apiError(response) : response;
  const retry = { 'retry-after': '2' };
  return api
    ? json(503, problem, PROBLEM_WORDS[problem], retry)
    : new Response(response.body, { status: 503, headers: { ...retry, ...HTML } });
}

const HTML = { 'content-type': 'text/html; charset=utf-8' } as const;

export const handleError: HandleServerError = ({ error, event, status, message }) => {
  if (status === 404) return { message: 'There is nothing at this address.' };
  const problem = problemOf(error);
  if (problem) {
    log('warn', `data file: ${problem.kind}`, { reason: problem.message });
    if (problem.kind === 'damaged') reportDamage(problem);
    event.locals.problem = problem.kind;
    return { message: PROBLEM_WORDS[problem.kind] };
  }
  log('error', message, {
    path: event.url.pathname,
    reason: error instanceof Error ? (error.stack ?? error.message) : String(error),
  });
  return { message: 'Something went wrong on the server. Your saved charts are untouched.' };
};
