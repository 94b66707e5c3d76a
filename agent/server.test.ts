/** What the agent says to a server, and how much at a time. */
import { createServer, type Server as HttpServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterEach, beforeEach, expect, test } from 'vitest';
import { must } from '@/core/must';
import { PART_FILES, type FilesPart } from '@/core/sync/protocol';
import { BrokenOff, ServerError } from './faults';
import { Server } from './server';

let http: HttpServer;
let asked: { path: string; token: string; body: unknown }[];
/** The status of the nth answer; 200 where none is set. */
let statuses: Record<number, number>;
const DIGEST = 'a'.repeat(64);

beforeEach(async () => {
  asked = [];
  statuses = {};
  http = createServer((request, response) => {
    let text = '';
    request.on('data', (chunk: Buffer) => (text += chunk.toString()));
    request.on('end', () => {
      const status = statuses[asked.length] ?? 200;
      asked.push({
        path: request.url ?? '',
        token: request.headers.authorization ?? '',
        body: text ? JSON.parse(text) : null,
      });
      response.writeHead(status, { 'content-type': 'application/json' });
      response.end(status === 200 ? '{}' : '{"error":{"message":"No.","remedy":"Do else."}}');
    });
  });
  await new Promise<void>((done) => http.listen(0, '127.0.0.1', done));
});
afterEach(() => http.close());

const server = () => new Server(`http://127.0.0.1:${(http.address() as AddressInfo).port}`, 'token');
const files = (n: number) =>
  Array.from({ length: n }, (_, i) => ({ path: `Looks/${i}.cube`, size: 1, sha256: DIGEST }));
const parts = () => asked.map(({ body }) => body as FilesPart);

test('many files go in parts, each with the digest of all and its place', async () => {
  expect(await server().sendFiles(DIGEST, files(2 * PART_FILES + 7))).toBe(3);
  expect(asked.map(({ path, token }) => [path, token])).toEqual(Array(3).fill(['/api/agent/files', 'Bearer token']));
  expect(parts().map(({ digest, part, files: some }) => [digest, part, some.length])).toEqual([
    [DIGEST, 0, PART_FILES],
    [DIGEST, 1, PART_FILES],
    [DIGEST, 2, 7],
  ]);
  expect(must(must(parts()[2]).files[0]).path).toBe(`Looks/${2 * PART_FILES}.cube`);
});

test('a part that a broken server did not take ends the report, to be tried again', async () => {
  statuses = { 1: 503 };
  await expect(server().sendFiles(DIGEST, files(3 * PART_FILES))).rejects.toBeInstanceOf(BrokenOff);
  expect(asked).toHaveLength(2);
});

test('a part that is refused says why', async () => {
  statuses = { 0: 400 };
  const refused = server().sendFiles(DIGEST, files(PART_FILES));
  await expect(refused).rejects.toBeInstanceOf(ServerError);
  await expect(refused).rejects.toThrow('No. Do else.');
});
