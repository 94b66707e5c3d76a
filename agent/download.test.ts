import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { createServer, type Server as HttpServer, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { afterAll, afterEach, beforeEach, expect, test } from 'vitest';
import { download } from './download';
import { ServerError } from './faults';
import { Server } from './server';
import { Scratch } from './testing/scratch';

const scratch = new Scratch('etagere-download-');
afterAll(() => scratch.remove());

const content = Buffer.from(Array.from({ length: 3000 }, (_, n) => n % 251));
const sha = 'a'.repeat(64);
let http: HttpServer;
let asked: (string | undefined)[];
/** What is done with an answer that is to break off. */
let breaks: ((response: ServerResponse, rest: Buffer) => void) | null;
let knowsRanges: boolean;
let file: string;
let n = 0;

beforeEach(async () => {
  asked = [];
  breaks = null;
  knowsRanges = true;
  file = join(scratch.base, `content-${++n}`);
  http = createServer((request, response) => {
    asked.push(request.headers.range);
    const from = knowsRanges ? Number(/\d+/.exec(request.headers.range ?? '')?.[0] ?? 0) : 0;
    if (from >= content.length) return void response.writeHead(416).end();
    response.writeHead(from ? 206 : 200, { 'content-length': content.length - from });
    if (breaks) breaks(response, content.subarray(from));
    else response.end(content.subarray(from));
  });
  await new Promise<void>((done) => http.listen(0, '127.0.0.1', done));
});
afterEach(() => {
  http.closeAllConnections();
  http.close();
});

const server = (rate?: number) => new Server(`http://127.0.0.1:${(http.address() as AddressInfo).port}`, 't', rate);

test('a download that breaks off is gone on with where it ended, not begun anew', async () => {
  // ended once what was sent has come into the file, so that nothing of it is lost on the way
  breaks = (response, rest) => {
    response.write(rest.subarray(0, 1200));
    const ended = setInterval(() => {
      if (!existsSync(file) || readFileSync(file).length < 1200) return;
      clearInterval(ended);
      response.destroy();
    }, 20);
  };
  await expect(server().fetchContent(sha, file)).rejects.toThrow();
  expect(readFileSync(file).length).toBe(1200);
  breaks = null;
  await server().fetchContent(sha, file);
  expect(readFileSync(file).equals(content)).toBe(true);
  expect(asked).toEqual([undefined, 'bytes=1200-']);
});

test('a server that knows nothing of it sends the whole, which takes the place of the part', async () => {
  writeFileSync(file, content.subarray(0, 700));
  knowsRanges = false;
  await server().fetchContent(sha, file);
  expect(readFileSync(file).equals(content)).toBe(true);
});

test('where more lies there than there is, it is fetched anew', async () => {
  writeFileSync(file, Buffer.alloc(content.length + 5));
  await server().fetchContent(sha, file);
  expect(readFileSync(file).equals(content)).toBe(true);
  expect(asked).toEqual([`bytes=${content.length + 5}-`, undefined]);
});

test('comes no faster than it may', async () => {
  const began = Date.now();
  await server(10_000).fetchContent(sha, file);
  expect(Date.now() - began).toBeGreaterThanOrEqual(290);
  expect(readFileSync(file).length).toBe(content.length);
});

test('is not given up while it is held back on purpose', async () => {
  const url = `http://127.0.0.1:${(http.address() as AddressInfo).port}`;
  await download((_from, signal) => fetch(url, { signal }), file, { idle: 100, rate: 10_000 });
  expect(readFileSync(file).length).toBe(content.length);
});

test('one that stands still is broken off, whatever has come is kept', async () => {
  breaks = (response, rest) => void response.write(rest.subarray(0, 500));
  const url = `http://127.0.0.1:${(http.address() as AddressInfo).port}`;
  const stalls = download((_from, signal) => fetch(url, { signal }), file, { idle: 800 });
  await expect(stalls).rejects.toThrow(/nothing came for 0\.8 s|abort/i);
  expect(readFileSync(file).length).toBe(500);
});

test('what the server refuses is said as it says it', async () => {
  http.removeAllListeners('request');
  http.on('request', (_request, response) =>
    response.writeHead(404).end('{"error":{"message":"No plan needs it.","remedy":"Fetch the plan again."}}'),
  );
  await expect(server().fetchContent(sha, file)).rejects.toThrow(ServerError);
});
