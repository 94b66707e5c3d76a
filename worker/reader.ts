/** The reading thread of server/packs/reader.ts: one file after the other, answers in the same order. */
import { parentPort } from 'node:worker_threads';
import type { Descriptor } from '@/core/editor/descriptor';
import { entryOf } from '@/server/packs/entry';
import { inspectFile } from '@/server/packs/inspect';
import type { ReadAnswer, ReadRequest } from '@/server/packs/reader';

let known: readonly Descriptor[] = [];
parentPort!.on('message', (q: ReadRequest) => {
  let answer: ReadAnswer;
  try {
    known = q.descriptors ?? known;
    answer = {
      n: q.n,
      entry: entryOf(
        inspectFile(
          q.path,
          Buffer.from(q.bytes.buffer, q.bytes.byteOffset, q.bytes.byteLength),
          Buffer.alloc(0),
          known,
        ),
        q.sha,
      ),
    };
  } catch (e) {
    answer = { n: q.n, bug: (e as Error).stack ?? String(e) };
  }
  parentPort!.postMessage(answer);
});
