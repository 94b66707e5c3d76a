/** The reading thread of server/packs/reader.ts: one file after the other, answers in the same order. */
import { parentPort } from 'node:worker_threads';
import type { Descriptor } from '@/core/editor/descriptor';
import { entryOf } from '@/server/packs/arrival-entry';
import { inspectFile } from '@/server/packs/inspect';
import type { ReadAnswer, ReadRequest } from '@/server/packs/file-reader';

let known: readonly Descriptor[] = [];
parentPort!.on('message', (readRequest: ReadRequest) => {
  let answer: ReadAnswer;
  try {
    known = readRequest.descriptors ?? known;
    answer = {
      n: readRequest.n,
      entry: entryOf(
        inspectFile(
          readRequest.path,
          Buffer.from(readRequest.bytes.buffer, readRequest.bytes.byteOffset, readRequest.bytes.byteLength),
          Buffer.alloc(0),
          known,
        ),
        readRequest.sha,
      ),
    };
  } catch (error) {
    answer = { n: readRequest.n, bug: (error as Error).stack ?? String(error) };
  }
  parentPort!.postMessage(answer);
});
