import { follow } from '@/server/live/service';
import { route } from '@/server/http';

/** Server-sent events; the browser's tabs share one stream. */
export const GET = route(async (_person, request) => {
  const encoder = new TextEncoder();
  const stream = new ReadableStream<Uint8Array>({
    async start(controller) {
      const say = (text: string): void => {
        try {
          controller.enqueue(encoder.encode(text));
        } catch {
          /* the client has left */
        }
      };
      say(': here\n\n');
      const beat = setInterval(() => say(': beat\n\n'), 20_000);
      request.signal.addEventListener('abort', () => {
        clearInterval(beat);
        try {
          controller.close();
        } catch {
          /* closed already */
        }
      });
      await follow(request.signal, (m) => say(`data: ${JSON.stringify(m)}\n\n`));
    },
  });
  return new Response(stream, {
    headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-cache, no-transform' },
  });
});
