/** The production server: adapter-node's handler, on loopback unless told otherwise. */
import { randomBytes } from 'node:crypto';
import { createServer } from 'node:http';
import { createServer as createSecureServer } from 'node:https';
import { fileURLToPath } from 'node:url';
import { setFlagsFromString } from 'node:v8';
import { readyToShare } from './share.js';

// V8 would let its heap double before clearing it: most of what a server that saves all day holds would be refuse.
setFlagsFromString('--heap-growing-percent=25');

const host = process.env.HOST || '127.0.0.1';
const port = Number(process.env.PORT || 4173);
const LOOPBACK = new Set(['127.0.0.1', '::1', 'localhost']);

if (!LOOPBACK.has(host) && !process.env.CORVEL_PASSCODE) {
  console.error(
    `Corvel will not listen on ${host} without a passcode: other machines could read and change ` +
      'your charts. Set CORVEL_PASSCODE, or leave HOST out to stay on this machine.',
  );
  process.exit(1);
}

// Other devices come by HTTPS, one port on; who sits here as always, and is not asked for the passcode.
const sharing = process.env.CORVEL_SHARED
  ? await readyToShare(process.env.CORVEL_DATA || 'data')
  : null;
const sharedPort = Number(process.env.SHARE_PORT || port + 1);
const local = randomBytes(24).toString('base64url');
if (sharing) {
  const [address = 'localhost'] = process.env.SHARE_ADDRESS
    ? [process.env.SHARE_ADDRESS]
    : sharing.addresses;
  process.env.CORVEL_PASSCODE = sharing.passcode;
  process.env.CORVEL_LOCAL = local;
  process.env.CORVEL_SIGNING = sharing.signing;
  process.env.CORVEL_SHARE = JSON.stringify({
    address: `https://${address}:${sharedPort}/`,
    fingerprint: sharing.fingerprint,
    passcode: sharing.passcode,
    certificate: sharing.authority,
  });
}

// Read by the handler when it is loaded.
process.env.BODY_SIZE_LIMIT ||= '257M';
process.env.PROTOCOL_HEADER ||= 'x-corvel-protocol';
const built = (path) => fileURLToPath(new URL(`../build/${path}`, import.meta.url));
process.env.CORVEL_ENGINE ||= built('engine/engine.worker.js');
process.env.CORVEL_DESK ||= built('desk/desk.worker.js');
const { handler } = await import('../build/handler.js').catch((error) => {
  // A second server on one data folder is refused in a sentence; anything else is a fault.
  console.error(error?.name === 'AlreadyRunning' ? error.message : error);
  process.exit(1);
});

/** Largest request that is still read to its end so that its connection can go on, in bytes. */
const DRAINED = 4 * 1024 * 1024;

/** A form sent by another site is refused by the framework in words of its own. */
function isForeignForm({ method = 'GET', url = '', headers }) {
  const { origin } = headers;
  if (!url.startsWith('/api/') || method === 'GET' || method === 'HEAD' || !origin) return false;
  return !URL.canParse(origin) || new URL(origin).host !== headers.host;
}

/**
 * @param {import('node:http').IncomingMessage} request
 * @param {import('node:http').ServerResponse} response
 * @param {'http' | 'https'} protocol
 */
function serve(request, response, protocol) {
  // A proxy that speaks HTTPS sets PROTOCOL_HEADER to a header of its own.
  request.headers['x-corvel-protocol'] = protocol;
  // Nobody says so himself.
  delete request.headers['x-corvel-local'];
  // A port that other machines reach says nothing of who asks.
  if (sharing && protocol === 'http' && LOOPBACK.has(host)) {
    request.headers['x-corvel-local'] = local;
  }
  response.setHeader('x-content-type-options', 'nosniff');
  if (Number(request.headers['content-length'] ?? 0) > DRAINED) {
    response.setHeader('connection', 'close');
  }
  // A file that is gone when it is read, as after a new build, ends its own answer and nothing else.
  response.on('pipe', (source) => source.once('error', () => response.destroy()));
  // What was refused unread would hold up the next request of its connection.
  response.once('finish', () => {
    if (request.complete || request.destroyed) return;
    request.resume();
    setTimeout(() => request.destroy(), 5000).unref();
  });
  if (isForeignForm(request)) {
    const error = { code: 'forbidden', message: 'This may not be asked from another site.' };
    response.writeHead(403, { 'content-type': 'application/json' });
    response.end(JSON.stringify({ error }));
    return;
  }
  handler(request, response, () => {
    response.statusCode = 404;
    response.end('Not found');
  });
}

const server = createServer((request, response) => serve(request, response, 'http'));
const shared =
  sharing &&
  createSecureServer({ key: sharing.key, cert: sharing.certificates }, (request, response) =>
    serve(request, response, 'https'),
  );

for (const [one, taken, variable] of [
  [server, port, 'PORT'],
  [shared, sharedPort, 'SHARE_PORT'],
])
  one?.on('error', (error) => {
    const busy = 'code' in error && error.code === 'EADDRINUSE';
    const hint = `Port ${taken} is used by another program. Set ${variable} to one that is free.`;
    console.error(busy ? hint : error.message);
    process.exit(1);
  });

// A page that asks again within a minute finds its connection as it left it.
server.keepAliveTimeout = 65_000;
server.listen(port, host, () => {
  const address = server.address();
  const open = typeof address === 'object' && address ? address.port : port;
  console.log(`Corvel is ready at http://${host.includes(':') ? `[${host}]` : host}:${open}/`);
});

if (sharing && shared) {
  shared.keepAliveTimeout = 65_000;
  shared.listen(sharedPort, process.env.SHARE_HOST || '0.0.0.0', async () => {
    const { address, fingerprint } = JSON.parse(process.env.CORVEL_SHARE ?? '{}');
    const { default: qrcode } = await import('qrcode');
    console.log(await qrcode.toString(address, { type: 'terminal', small: true }));
    console.log(`Other devices of this network open ${address}`);
    console.log(`Passcode: ${sharing.passcode}`);
    console.log(
      `Fingerprint of the certificate “Corvel on this network” (SHA-256): ${fingerprint}`,
    );
    console.log(
      'The first time, a device warns of the certificate: compare the fingerprint, then trust it.',
    );
  });
}

let stopping = false;
function stop() {
  if (stopping) return;
  stopping = true;
  // What is streamed ends itself; nothing else of a server says that it stops.
  process.emit('sveltekit:shutdown', 'SIGTERM');
  const servers = shared ? [server, shared] : [server];
  let open = servers.length;
  for (const one of servers) {
    one.close(() => (--open === 0 ? process.exit(0) : undefined));
    one.closeIdleConnections();
    setTimeout(() => one.closeAllConnections(), 3000).unref();
  }
}
process.on('SIGTERM', stop);
process.on('SIGINT', stop);
