import { follow } from '@/server/live/service';
import { route, sessionToken } from '@/server/http';

const BEAT_MS = 20_000;

/** Server-sent events; the browser's tabs share one stream, which ends with the session. */
export const GET = route(async (_person, request) => {
  const encoder = new TextEncoder();
  const session = await sessionToken();
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
      const beat = setInterval(() => say(': beat\n\n'), BEAT_MS);
      const close = () => {
        clearInterval(beat);
        try {
          controller.close();
        } catch {
          /* closed already */
        }
      };
      request.signal.addEventListener('abort', close);
      await follow(request.signal, session, (message) => say(`data: ${JSON.stringify(message)}\n\n`), close);
    },
  });
  return new Response(stream, {
    headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-cache, no-transform' },
  });
});
