/** The reading thread of server/arrivals/reader.ts: one file after the other, answers in the same order. */
import { parentPort } from 'node:worker_threads';
import type { Descriptor } from '@/core/editor/descriptor';
import { entryOf } from '@/server/arrivals/arrival-entry';
import { inspectFile } from '@/server/arrivals/inspect';
import type { ReadAnswer, ReadRequest } from '@/server/arrivals/file-reader';

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
