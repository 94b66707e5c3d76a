/** What a browser gets of an answer that was written in many pieces, compressed or as it is. */
import { randomBytes } from 'node:crypto';
import { EventEmitter } from 'node:events';
import { createServer, request, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { gunzipSync } from 'node:zlib';
import { afterEach, describe, expect, test } from 'vitest';
import { compressed } from './compress';
import { gather } from './gather';

type Flushing = ServerResponse & { flush?: () => void };
let server: Server | undefined;
afterEach(() => server?.close());

const port = (): number => (server?.address() as AddressInfo).port;

async function serve(answer: (response: Flushing, request: IncomingMessage) => unknown): Promise<void> {
  server = createServer((asked, response) => compressed(asked, response, () => void answer(response, asked)));
  await new Promise<void>((done) => server?.listen(0, '127.0.0.1', done));
}

/** All bytes as they came, and each time that some came. */
function ask(headers: Record<string, string> = {}): Promise<{ encoding: string; bytes: Buffer; times: number }> {
  return new Promise((done, failed) => {
    const sent = request({ port: port(), headers }, (response) => {
      const chunks: Buffer[] = [];
      response.on('data', (chunk: Buffer) => chunks.push(chunk));
      response.on('error', failed);
      response.on('end', () =>
        done({
          encoding: response.headers['content-encoding'] ?? '',
          bytes: Buffer.concat(chunks),
          times: chunks.length,
        }),
      );
    });
    sent.on('error', failed);
    sent.end();
  });
}

const page = (response: Flushing, pieces: readonly string[]): void => {
  response.setHeader('content-type', 'text/html');
  for (const piece of pieces) {
    response.write(piece);
    response.flush?.();
  }
  response.end();
};
const pieces = Array.from({ length: 400 }, (_, n) => `<p>piece ${n} of the page, ä</p>\n`);

describe('an answer', () => {
  test('of many pieces comes whole, compressed where that is taken', async () => {
    await serve((response) => page(response, pieces));
    const { encoding, bytes } = await ask({ 'accept-encoding': 'gzip' });
    expect(encoding).toBe('gzip');
    expect(gunzipSync(bytes).toString()).toBe(pieces.join(''));
    expect(bytes.length).toBeLessThan(pieces.join('').length / 4);
  });

  test('that is not to be changed on its way comes as it is', async () => {
    await serve((response) => {
      response.setHeader('cache-control', 'no-store, no-transform');
      page(response, pieces);
    });
    const { encoding, bytes } = await ask({ 'accept-encoding': 'gzip' });
    expect([encoding, bytes.toString()]).toEqual(['', pieces.join('')]);
  });

  test('that is short comes as it is, with its length, and whoever wrote it is told', async () => {
    const told: string[] = [];
    await serve((response) => {
      response.setHeader('content-type', 'application/json');
      response.write('{"items":', () => told.push('written'));
      response.end('[]}', () => told.push('ended'));
    });
    const { encoding, bytes } = await ask({ 'accept-encoding': 'gzip' });
    expect([encoding, bytes.toString(), told]).toEqual(['', '{"items":[]}', ['written', 'ended']]);
  });

  test('comes as it is where nothing else is taken', async () => {
    await serve((response) => page(response, pieces));
    const { encoding, bytes } = await ask();
    expect([encoding, bytes.toString()]).toEqual(['', pieces.join('')]);
  });

  test('that is streamed arrives when it is there, compressed too', async () => {
    let further: () => void = () => {};
    await serve(async (response) => {
      response.setHeader('content-type', 'text/html');
      response.write('first');
      response.flush?.();
      await new Promise<void>((done) => (further = done));
      response.end('last');
    });
    const whole = await new Promise<Buffer>((done) => {
      request({ port: port(), headers: { 'accept-encoding': 'gzip' } }, (response) => {
        const chunks: Buffer[] = [];
        response.on('data', (chunk: Buffer) => {
          chunks.push(chunk);
          // the rest is written only once the beginning has come
          if (Buffer.concat(chunks).length > 10) further();
        });
        response.on('end', () => done(Buffer.concat(chunks)));
      }).end();
    });
    expect(gunzipSync(whole).toString()).toBe('firstlast');
  });

  test('of which only the headers are told yet has begun for whoever asked', async () => {
    let further: () => void = () => {};
    await serve(async (response) => {
      response.setHeader('content-type', 'text/event-stream');
      response.flushHeaders();
      await new Promise<void>((done) => (further = done));
      response.end('told');
    });
    const text = await new Promise<string>((done) => {
      request({ port: port() }, (response) => {
        expect(response.headers['content-type']).toBe('text/event-stream');
        response.on('data', (chunk: Buffer) => done(chunk.toString()));
        further();
      }).end();
    });
    expect(text).toBe('told');
  });

  test('that is said at its end alone comes whole, also where it hardly gets smaller', async () => {
    const body = randomBytes(300_000).toString('base64');
    await serve((response) => {
      response.setHeader('content-type', 'text/html');
      response.end(body);
    });
    const { bytes } = await ask({ 'accept-encoding': 'gzip' });
    expect(gunzipSync(bytes).toString()).toBe(body);
  });

  test('larger than what is kept waits for a slow reader', async () => {
    const block = Buffer.alloc(1 << 20, 'x');
    let refused = 0;
    await serve(async (response) => {
      response.setHeader('content-type', 'application/octet-stream');
      for (let n = 0; n < 24; n++)
        if (!response.write(block)) {
          refused++;
          await new Promise((done) => response.once('drain', done));
        }
      response.end();
    });
    expect((await ask()).bytes.length).toBe(24 << 20);
    expect(refused).toBeGreaterThan(0);
  });

  test('whose reader leaves in the middle leaves no stream behind', async () => {
    let writing: Flushing | undefined;
    await serve((response) => {
      writing = response;
      response.setHeader('content-type', 'text/html');
      response.write('x'.repeat(100_000));
    });
    const sent = request({ port: port(), headers: { 'accept-encoding': 'gzip' } }, (response) => {
      response.on('error', () => {});
      sent.destroy();
    });
    sent.on('error', () => {});
    sent.end();
    await expect.poll(() => writing?.destroyed).toBe(true);
    const stream = writing?.on('drain', () => {}) as unknown as { destroyed: boolean };
    expect(stream.destroyed).toBe(true);
  });
});

test('pieces of one turn are given on as one, and whoever waits for them is told', async () => {
  const given: string[] = [];
  const told: number[] = [];
  const response = Object.assign(new EventEmitter(), {
    write: (chunk: Buffer, done: () => void) => (given.push(chunk.toString()), done(), true),
    end: (whole?: Buffer) => (given.push(`${String(whole)} and end`), response.emit('finish'), response),
    flush: () => given.push('flush'),
    flushHeaders: () => given.push('headers'),
  }) as unknown as Flushing;
  gather(response);
  response.write('a', () => told.push(1));
  response.write('b', 'utf8', () => told.push(2));
  response.flush?.();
  expect(given).toEqual([]);
  await expect
    .poll(() => [given, told])
    .toEqual([
      ['ab', 'flush'],
      [1, 2],
    ]);
  response.write('c');
  response.end('d', () => told.push(3));
  expect([given, told]).toEqual([
    ['ab', 'flush', 'cd and end'],
    [1, 2, 3],
  ]);
});
