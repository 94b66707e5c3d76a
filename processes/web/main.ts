/** The web server: Next behind a door of our own, which tells from where a request comes and waits for nobody for ever. */
import { createServer } from 'node:http';
import { parseArgs } from 'node:util';
import next from 'next';
import { letIn } from '@/server/http/door';

const { values } = parseArgs({ options: { port: { type: 'string' }, host: { type: 'string' } } });
const port = Number(values.port ?? 4310);
const hostname = values.host ?? '127.0.0.1';
/** Set where a reverse proxy of ours is the only way in (docs/operations.md). */
const behindProxy = process.env.ETAGERE_TRUST_PROXY === '1';

const SLOW_HEADERS_MS = 15_000;
/** A part of an upload, or a backup that is restored, may take long to come. */
const SLOW_REQUEST_MS = 30 * 60_000;

const app = next({ dev: false, hostname, port });
await app.prepare();
const answer = app.getRequestHandler();
const server = createServer((request, response) => {
  letIn(request.headers, request.socket.remoteAddress ?? '', behindProxy);
  void answer(request, response);
});
server.headersTimeout = SLOW_HEADERS_MS;
server.requestTimeout = SLOW_REQUEST_MS;
server.listen(port, hostname);

for (const signal of ['SIGTERM', 'SIGINT'] as const)
  process.on(signal, () => {
    server.close(() => process.exit(0));
    server.closeAllConnections();
  });
