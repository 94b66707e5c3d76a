/// <reference lib="webworker" />
/** Renders cells of the bench: develops camera data by a profile's table, lays looks over it, trims, compresses, measures. A thin shell over core. */
import { answerTo } from './bench/answers';
import type { BenchRequest } from './bench/protocol';

declare const self: DedicatedWorkerGlobalScope;

self.onmessage = (event: MessageEvent<BenchRequest>) => {
  void answerTo(event.data).then(({ answer, transfer }) => self.postMessage(answer, transfer));
};
