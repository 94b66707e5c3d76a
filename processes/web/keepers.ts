/** What whoever keeps the server asks: whether it lives, whether it can work, and its figures. Nobody signs in for that. */
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import { isReady } from '@/server/db/ready';

const text = (response: ServerResponse, status: number, body: string, type = 'text/plain; charset=utf-8'): void => {
  response.writeHead(status, { 'content-type': type, 'cache-control': 'no-store' });
  response.end(body);
};

/**
 * Answers `/health` (the process answers at all) and `/ready` (the database is there, with every table that this version
 * needs); false for any other address.
 */
export function answerKeepers(request: IncomingMessage, response: ServerResponse): boolean {
  const path = (request.url ?? '').split('?')[0];
  if (path === '/health') {
    text(response, 200, 'lives\n');
    return true;
  }
  if (path !== '/ready') return false;
  void isReady().then(
    (why) => text(response, why === null ? 200 : 503, `${why ?? 'ready'}\n`),
    () => text(response, 503, 'the database cannot be reached\n'),
  );
  return true;
}

/** Serves figures on an address of its own, which is not for the world: `ETAGERE_METRICS`, such as 127.0.0.1:9410. */
export function serveMetrics(address: string, figures: () => Promise<string>): Server {
  const [, host = '127.0.0.1', port = ''] = /^(?:(.*):)?(\d+)$/.exec(address) ?? [];
  const server = createServer((_, response) => {
    figures().then(
      (body) => text(response, 200, body, 'text/plain; version=0.0.4; charset=utf-8'),
      (error: unknown) => text(response, 500, `${String(error)}\n`),
    );
  });
  return server.listen(Number(port), host);
}
