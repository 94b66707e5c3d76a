/** Answers go compressed, with the least effort, and in few pieces. */
import { Duplex } from 'node:stream';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { constants } from 'node:zlib';
import compression from 'compression';
import { gather } from './gather';

type Handler = ReturnType<typeof compression>;

/** What is shorter takes longer to compress than to send; it is known of answers that come in one piece. */
const LEAST_BYTES = 6 * 1024;

/**
 * zlib's usual level takes half as long again for pages that are a seventh smaller. A proxy before it that compresses
 * better can ask for answers as they are.
 */
const compress = compression({ level: constants.Z_BEST_SPEED, threshold: LEAST_BYTES });

/** Lets `response` compress what is written to it, where the browser takes that and the kind of content gains by it. */
export function compressed(request: IncomingMessage, response: ServerResponse, answer: () => void): void {
  response.once('close', () => {
    if (!response.writableFinished) release(response);
  });
  compress(request as Parameters<Handler>[0], response as Parameters<Handler>[1], () => {
    gather(response);
    answer();
  });
}

const nothing = (): void => {};

/**
 * When a browser leaves in the middle of an answer, nobody ends the stream that compresses, and it would stay in memory for
 * ever. It can be had only in a roundabout way: who listens for `drain` is given it.
 */
function release(response: ServerResponse): void {
  const stream: unknown = response.on('drain', nothing);
  if (stream !== response && stream instanceof Duplex) stream.destroy();
  else response.off('drain', nothing);
}
