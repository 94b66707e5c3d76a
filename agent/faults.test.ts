/** What is the network's fault, and what is the program's. */
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { BrokenOff, isUnreachable, ServerError } from './faults';

let silent: Server;
let address = '';
beforeAll(async () => {
  silent = createServer(() => {});
  await new Promise<void>((done) => silent.listen(0, '127.0.0.1', done));
  address = `http://127.0.0.1:${(silent.address() as AddressInfo).port}`;
});
afterAll(() => {
  silent.closeAllConnections();
  silent.close();
});

const thrownBy = async (work: () => Promise<unknown>): Promise<unknown> =>
  work().then(
    () => null,
    (error: unknown) => error,
  );

test.each([
  ['nobody listens', () => fetch('http://127.0.0.1:1/'), true],
  ['the name is nobody’s', () => fetch('http://nobody.invalid/'), true],
  ['no answer comes in time', () => fetch(address, { signal: AbortSignal.timeout(50) }), true],
  ['the server is not well', () => Promise.reject(new BrokenOff('500')), true],
  ['the server says no', () => Promise.reject(new ServerError('no')), false],
  ['the program has a fault', async () => (await Promise.resolve(undefined as never as { x: { y: 1 } })).x.y, false],
])('where %s', async (_, work, is) => {
  const error = await thrownBy(work);
  expect(error).not.toBeNull();
  expect(isUnreachable(error)).toBe(is);
});
