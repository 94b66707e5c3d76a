import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { EndpointName } from '@/core/api';
import { addressOf, call as ask, CallError } from './call';

/** Of this test's own server, whose paths no endpoint has. */
const call = (address: string, signal?: AbortSignal) => ask(`GET ${address}` as EndpointName, signal ? { signal } : {});

let server: Server;
let at = '';
beforeAll(async () => {
  server = createServer((incomingMessage, serverResponse) => {
    if (incomingMessage.url === '/whole') serverResponse.end('{"n":3}');
    else if (incomingMessage.url === '/nothing') {
      serverResponse.statusCode = 204;
      serverResponse.end();
    } else if (incomingMessage.url === '/refused') {
      serverResponse.statusCode = 409;
      serverResponse.end(
        '{"error":{"code":"held","message":"It is held already.","where":"kiln.cube","remedy":"Leave it out."}}',
      );
    } else if (incomingMessage.url === '/markup') serverResponse.end('<h1>Sign in to the network</h1>');
    else if (incomingMessage.url === '/gateway') {
      serverResponse.statusCode = 502;
      serverResponse.end('<h1>Bad gateway</h1>');
    } else {
      serverResponse.setHeader('content-length', '100');
      serverResponse.write('{"n":');
      if (incomingMessage.url === '/torn') setTimeout(() => serverResponse.destroy(), 30);
    } // the rest never comes
  }).listen(0, '127.0.0.1');
  await new Promise((done) => server.once('listening', done));
  at = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(() => {
  server.closeAllConnections();
  server.close();
});
const fault = async (path: string) => {
  const error: unknown = await call(at + path).catch((x: unknown) => x);
  expect(error).toBeInstanceOf(CallError);
  return (error as CallError).problem;
};

test('an answer is given, an empty one as nothing', async () => {
  expect(await call(`${at}/whole`)).toEqual({ n: 3 });
  expect(await call(`${at}/nothing`)).toEqual({});
});
test('what the server refused is told as it said it', async () => {
  expect(await fault('/refused')).toMatchObject({ code: 'held', where: 'kiln.cube' });
});
test('an answer that breaks off is none', async () => {
  expect((await fault('/torn')).code).toBe('offline');
});
test('an answer given up in its middle is none: it is rejected as given up', async () => {
  const stop = new AbortController();
  const answer = call(`${at}/held`, stop.signal);
  setTimeout(() => stop.abort(), 60);
  await expect(answer).rejects.toMatchObject({ name: 'AbortError' });
});
test('what is no answer of ours is a fault, with any status', async () => {
  expect((await fault('/markup')).code).toBe('bug');
  expect((await fault('/gateway')).message).toBe('The server answered 502.');
});

test('an endpoint’s address is its path with what is asked', () => {
  expect(addressOf('POST /api/rollouts/:id', { id: 'a b' })).toEqual({
    method: 'POST',
    address: '/api/rollouts/a%20b',
  });
  expect(addressOf('GET /api/search', { query: { q: 'ash & kiln', most: '3' } }).address).toBe(
    '/api/search?q=ash+%26+kiln&most=3',
  );
  expect(addressOf('GET /api/items', { query: 'shelf=x&limit=100' }).address).toBe('/api/items?shelf=x&limit=100');
});
