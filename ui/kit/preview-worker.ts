'use client';
/**
 * The one worker of all previews. It outlives the screens, so that the page that is opened next finds it running, with the
 * frames and looks that were seen last.
 */
import type { PreviewAhead, PreviewAnswer, PreviewFirst, PreviewRequest } from '@/browser-workers/preview.worker';

/** One preview's way to the worker. */
export interface PreviewChannel {
  ask(request: Omit<PreviewRequest, 'channel'>): void;
  askAhead(ahead: PreviewAhead): void;
  close(): void;
}
type Listener = (answer: PreviewAnswer) => void;

const NOT_STARTED = 'the preview could not be started';

const listeners = new Map<number, Listener>();
let worker: Worker | null = null;
let channels = 0;

function started(): Worker {
  if (worker) return worker;
  const made = new Worker(new URL('../../browser-workers/preview.worker.ts', import.meta.url), {
    type: 'module',
    name: 'preview',
  });
  made.onmessage = ({ data: answer }: MessageEvent<PreviewAnswer>) => listeners.get(answer.channel)?.(answer);
  made.onerror = () => {
    // the next one that asks starts another
    worker = null;
    for (const [channel, listen] of listeners) listen({ id: latest.get(channel) ?? 0, channel, error: NOT_STARTED });
  };
  worker = made;
  return made;
}

/** The number of the newest request by channel, for telling what went wrong. */
const latest = new Map<number, number>();

/** What a page that is about to be opened will show first: fetched while the page is still on its way. */
export const fetchFirst = (first: PreviewFirst['first']): void =>
  started().postMessage({ first } satisfies PreviewFirst);

export function openChannel(listen: Listener): PreviewChannel {
  channels += 1;
  const channel = channels;
  listeners.set(channel, listen);
  return {
    ask(request) {
      latest.set(channel, request.id);
      started().postMessage({ ...request, channel } satisfies PreviewRequest);
    },
    askAhead(ahead) {
      started().postMessage(ahead);
    },
    close() {
      listeners.delete(channel);
      latest.delete(channel);
      worker?.postMessage({ close: channel });
    },
  };
}
