/**
 * The web server: Next behind a door of our own, which tells from where a request comes and waits for nobody for ever. With
 * `--processes N` several of them share the port, and one above them starts those anew that end.
 */
import cluster from 'node:cluster';
import { randomBytes } from 'node:crypto';
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import { parseArgs } from 'node:util';
import next from 'next';
import { AggregatorRegistry } from 'prom-client';
import { letIn } from '@/server/http/door';
import { log, within } from '@/server/log';
import { metrics, metricsText, observeRequest, watch } from '@/server/metrics';
import { answerAgents } from './agents';
import { balanced, keepBalance } from './balance';
import { compressed } from './compress';
import { answerKeepers, serveMetrics } from './keepers';
import { giveHeaders } from './page-headers';
import { Turns } from './turns';

const { values } = parseArgs({
  options: {
    port: { type: 'string' },
    host: { type: 'string' },
    processes: { type: 'string' },
    /** built as it is asked for, and anew when a source changes */ dev: { type: 'boolean' },
  },
});
const port = Number(values.port ?? 4310);
const hostname = values.host ?? '127.0.0.1';
const processes = Number(values.processes ?? 1);
const dev = values.dev ?? false;
/** Set where a reverse proxy of ours is the only way in (docs/operations.md). */
const behindProxy = process.env.ETAGERE_TRUST_PROXY === '1';
const metricsAt = process.env.ETAGERE_METRICS;

/** So many are answered at once, each for so long before the next may begin: enough for a processor never to wait. */
const AT_ONCE = 4;
const LONGEST_TURN_MS = 250;
const STATIC = '/_next/static/';
const SLOW_HEADERS_MS = 15_000;
/** A part of an upload, or a backup that is restored, may take long to come. */
const SLOW_REQUEST_MS = 30 * 60_000;
/** Longer than proxies and agents keep a connection that lies idle: it is theirs to close, or a request would meet the closing. */
const IDLE_MS = 65_000;
const BEFORE_ANOTHER_MS = 500;

/** Says of each request what it was and how long it took, without what is in its address behind the path. */
function follow(request: IncomingMessage, response: ServerResponse, id: string): void {
  const began = performance.now();
  const method = request.method ?? '';
  const path = (request.url ?? '').split('?')[0] ?? '';
  response.setHeader('x-request-id', id);
  response.on('close', () => {
    const ms = performance.now() - began;
    observeRequest(method, path, response.statusCode, ms / 1000);
    log.info({ request: id, method, path, status: response.statusCode, ms: Math.round(ms) }, 'request');
  });
}

async function serve(): Promise<void> {
  const app = next({ dev, hostname, port });
  await app.prepare();
  const answer = app.getRequestHandler();
  const turns = new Turns(AT_ONCE, LONGEST_TURN_MS);
  watch('etagere_requests_waiting', 'requests of this process that wait for their turn', () => turns.waiting);
  const letsGo = balanced(() => turns.wait, process);
  const server = createServer((request, response) => {
    if (answerKeepers(request, response)) return;
    letIn(request.headers, request.socket.remoteAddress ?? '', behindProxy);
    const id = randomBytes(6).toString('hex');
    follow(request, response, id);
    within({ request: id }, () => {
      if (answerAgents(request, response)) return;
      if (giveHeaders(request, response, dev)) return;
      if (request.url?.startsWith(STATIC)) void answer(request, response);
      else
        turns.take(response, () => {
          if (letsGo()) response.shouldKeepAlive = false;
          compressed(request, response, () => void answer(request, response));
        });
    });
  });
  if (dev) {
    const upgrade = app.getUpgradeHandler();
    server.on('upgrade', (request, socket, head) => void upgrade(request, socket, head));
  }
  server.headersTimeout = SLOW_HEADERS_MS;
  server.requestTimeout = SLOW_REQUEST_MS;
  server.keepAliveTimeout = IDLE_MS;
  server.listen(port, hostname);
  for (const signal of ['SIGTERM', 'SIGINT'] as const)
    process.on(signal, () => {
      server.close(() => process.exit(0));
      server.closeAllConnections();
    });
}

/** Keeps so many servers, which share the port; ends when they have ended. */
function keepServers(): void {
  let ending = false;
  const balance = keepBalance(() => Object.values(cluster.workers ?? {}).filter((worker) => worker !== undefined));
  cluster.on('message', (worker, message) => balance.hear(worker, message));
  for (let n = 0; n < processes; n++) cluster.fork();
  cluster.on('exit', (worker, status, signal) => {
    if (ending) {
      if (!Object.keys(cluster.workers ?? {}).length) process.exit(0);
      return;
    }
    log.warn({ pid: worker.process.pid, status, signal }, 'a web process ended, starting another');
    setTimeout(() => cluster.fork(), BEFORE_ANOTHER_MS);
  });
  for (const signal of ['SIGTERM', 'SIGINT'] as const)
    process.on(signal, () => {
      ending = true;
      for (const worker of Object.values(cluster.workers ?? {})) worker?.kill(signal);
    });
}

/** In each process, also those that only answer: it is what hears that their figures are asked for. */
const all = new AggregatorRegistry();
if (processes > 1 && cluster.isPrimary) {
  keepServers();
  if (metricsAt) serveMetrics(metricsAt, () => metricsText({ metrics: () => all.clusterMetrics() }));
} else {
  AggregatorRegistry.setRegistries(metrics().registry);
  if (metricsAt && cluster.isPrimary) serveMetrics(metricsAt, () => metricsText());
  await serve();
}
