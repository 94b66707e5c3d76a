/** The reading thread of server/arrivals/file-reader.ts: one file after the other, answers in the same order. */
import { parentPort } from 'node:worker_threads';
import type { Descriptor } from '@/core/editor/descriptor';
import { entryOf } from '@/server/arrivals/arrival-entry';
import { inspectFile } from '@/server/arrivals/inspect';
import type { ReadAnswer, ReadRequest } from '@/server/arrivals/file-reader';

let known: readonly Descriptor[] = [];

async function answerTo({ n, path, bytes, sha, descriptors }: ReadRequest): Promise<ReadAnswer> {
  try {
    known = descriptors ?? known;
    const file = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength);
    return { n, entry: await entryOf(inspectFile(path, file, Buffer.alloc(0), known), sha) };
  } catch (error) {
    return { n, bug: (error as Error).stack ?? String(error) };
  }
}

let before: Promise<void> = Promise.resolve();
parentPort?.on('message', (asked: ReadRequest) => {
  before = before.then(async () => parentPort?.postMessage(await answerTo(asked)));
});
