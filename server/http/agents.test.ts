/** What agents fetch: whole, or gone on with from a byte on. */
import { randomBytes } from 'node:crypto';
import { beforeAll, expect, test } from 'vitest';
import { must } from '@/core/must';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { blobChunks, bytesOf, CHUNK, getBlob, putBlob } from '../blobs/service';
import { pool, transaction } from '../db/pool';
import { people, withDatabase } from '../db/testing/database';
import { bringDescriptor } from '../editors/service';
import { confirmRollout, planFor } from '../rollouts/service';
import { addStation, agent, approvedLook, enrolled, planned } from '../rollouts/testing/world';
import { answerAgent } from './agents';

withDatabase();
let [token, sha] = ['', ''];
beforeAll(async () => {
  await transaction((sql) => bringDescriptor(sql, { personId: null, name: 't' }, oxbow2, 'd'));
  const desk = await addStation('Desk', 'linux', ['oxbow@2']);
  token = await enrolled(desk, 'linux');
  const { versionId } = await approvedLook(0);
  await confirmRollout(people.lead, await planned({ versions: [versionId], stations: [desk] }));
  sha = must(must((await planFor(await agent(token)))?.operations[0]).sha256);
});

const fetched = (range?: string): Promise<Response> =>
  answerAgent(
    new Request(`http://x/api/agent/content/${sha}`, {
      headers: { authorization: `Bearer ${token}`, ...(range ? { range } : {}) },
    }),
    ['content', sha],
  );
const bodyOf = async (response: Response): Promise<Buffer> => Buffer.from(await response.arrayBuffer());

test('a content comes whole, or from the byte on that is asked for', async () => {
  const whole = await getBlob(bytesOf(sha));
  const all = await fetched();
  expect([all.status, (await bodyOf(all)).equals(whole)]).toEqual([200, true]);
  const rest = await fetched('bytes=1000-');
  expect(rest.status).toBe(206);
  expect(rest.headers.get('content-range')).toBe(`bytes 1000-${whole.length - 1}/${whole.length}`);
  expect(rest.headers.get('content-length')).toBe(String(whole.length - 1000));
  expect((await bodyOf(rest)).equals(whole.subarray(1000))).toBe(true);
});

test('from its end on there is nothing, which is said; a range that is none is passed over', async () => {
  const { length } = await getBlob(bytesOf(sha));
  const beyond = await fetched(`bytes=${length}-`);
  expect([beyond.status, beyond.headers.get('content-range')]).toEqual([416, `bytes */${length}`]);
  for (const odd of ['bytes=-5', 'bytes=5-9', 'items=5-', 'bytes=x-', 'bytes=0-'])
    expect((await fetched(odd)).status, odd).toBe(200);
});

test('contents of many chunks are gone on with within one, at its edge and behind it', async () => {
  const bytes = randomBytes(2 * CHUNK + 100);
  const large = await transaction((sql) => putBlob(sql, bytes));
  for (const from of [0, 1, CHUNK - 1, CHUNK, CHUNK + 7, 2 * CHUNK + 99, 2 * CHUNK + 100]) {
    const parts: Buffer[] = [];
    for await (const part of blobChunks(large, pool(), from)) parts.push(part);
    expect(Buffer.concat(parts).equals(bytes.subarray(from)), String(from)).toBe(true);
  }
});
