/** The production server: adapter-node's handler, on loopback unless told otherwise. */
import { createServer } from 'node:http';

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
if (LOOPBACK.has(host)) delete process.env.CORVEL_PASSCODE;

// Read by the handler when it is loaded.
process.env.BODY_SIZE_LIMIT ||= '1M';
process.env.PROTOCOL_HEADER ||= 'x-corvel-protocol';
const { handler } = await import('../build/handler.js');

const server = createServer((request, response) => {
  // Plain HTTP here; a proxy that speaks HTTPS sets PROTOCOL_HEADER to a header of its own.
  request.headers['x-corvel-protocol'] = 'http';
  handler(request, response, () => {
    response.statusCode = 404;
    response.end('Not found');
  });
});

server.on('error', (error) => {
  const busy = 'code' in error && error.code === 'EADDRINUSE';
  const hint = `Port ${port} is in use. Choose another: PORT=${port + 1} npm start`;
  console.error(busy ? hint : error.message);
  process.exit(1);
});

server.listen(port, host, () => {
  const address = server.address();
  const open = typeof address === 'object' && address ? address.port : port;
  console.log(`Corvel is ready at http://${host.includes(':') ? `[${host}]` : host}:${open}/`);
});

let stopping = false;
function stop() {
  if (stopping) return;
  stopping = true;
  server.close(() => process.exit(0));
  server.closeIdleConnections();
  setTimeout(() => server.closeAllConnections(), 3000).unref();
}
process.on('SIGTERM', stop);
process.on('SIGINT', stop);
