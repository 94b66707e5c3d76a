/** Agents are answered without Next: the same answers, at a fraction of what a page costs. */
import type { IncomingMessage, ServerResponse } from 'node:http';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { ReadableStream } from 'node:stream/web';
import { AGENTS, answerAgent } from '@/server/http/agents';
import { log } from '@/server/log';

/** A request as the rest of the application takes it. */
function asked(incoming: IncomingMessage, url: URL): Request {
  const headers = new Headers();
  for (const [name, value] of Object.entries(incoming.headers)) if (typeof value === 'string') headers.set(name, value);
  const method = incoming.method ?? 'GET';
  if (method === 'GET' || method === 'HEAD') return new Request(url, { method, headers });
  return new Request(url, {
    method,
    headers,
    body: Readable.toWeb(incoming) as BodyInit,
    duplex: 'half',
  } as RequestInit);
}

async function send(answer: Response, outgoing: ServerResponse): Promise<void> {
  outgoing.statusCode = answer.status;
  answer.headers.forEach((value, name) => outgoing.setHeader(name, value));
  if (answer.body) await pipeline(Readable.fromWeb(answer.body as ReadableStream), outgoing);
  else outgoing.end();
}

/** Whether it was an agent's request, which is answered then. */
export function answerAgents(incoming: IncomingMessage, outgoing: ServerResponse): boolean {
  if (!incoming.url?.startsWith(AGENTS) || !URL.canParse(incoming.url, 'http://agent')) return false;
  const url = new URL(incoming.url, 'http://agent');
  if (!url.pathname.startsWith(AGENTS)) return false;
  const path = url.pathname.slice(AGENTS.length).split('/');
  void answerAgent(asked(incoming, url), path)
    .then((answer) => send(answer, outgoing))
    .catch((error: unknown) => {
      log.warn({ err: error }, 'an agent left before it was answered');
      outgoing.destroy();
    });
  return true;
}
