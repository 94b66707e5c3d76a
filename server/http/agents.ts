/**
 * What agents ask: their own entrance, with a token of their own, which reaches their own station only. The web process
 * answers it before Next does, since a thousand stations ask often and little.
 */
import { readFile } from 'node:fs/promises';
import { Problem } from '@/core/problem';
import { programOf } from '../program';
import { contentFor, planFor, takeResults } from '../rollouts/service';
import { MOST_PICTURE, takePicture, takePictureFault } from '../sightings/result';
import { MOST_CONTENT, takeContent } from '../stations/station-arrival';
import { takeShown } from '../stations/show-there';
import { enrol, instructionsFor, stationOfToken, takeFilesPart, takeReport } from '../stations/service';
import { body, bytesOf } from './body';
import { problemResponse } from './problem-response';

export const AGENTS = '/api/agent/';
const REPORT = 64 << 20;
/** Of five thousand files with the longest paths that are kept, each of their signs written as `\uXXXX`. */
export const MOST_PART_BYTES = 32 << 20;
/** Of what is asked before anybody is known. */
const SMALL = 16 << 10;

type Agent = Awaited<ReturnType<typeof stationOfToken>>;
type Door = (agent: Agent, request: Request, id: string) => Promise<Response>;

/** What an agent may ask for, by method and path; `*` stands for an id. */
const doors: Record<string, Door> = {
  'GET instructions': async (agent) => Response.json(await instructionsFor(agent)),
  'POST report': async (agent, request) => Response.json(await takeReport(agent, await body(request, REPORT))),
  'POST files': async (agent, request) => {
    await takeFilesPart(agent, await body(request, MOST_PART_BYTES));
    return Response.json({});
  },
  'GET plan': async (agent) => Response.json({ plan: await planFor(agent) }),
  'POST plan/*/results': async (agent, request, id) => {
    await takeResults(agent, id, await body(request, REPORT));
    return Response.json({});
  },
  'POST picture/*': async (agent, request, id) => {
    await takePicture(agent, id, await bytesOf(request, MOST_PICTURE));
    return Response.json({});
  },
  'POST picture/*/fault': async (agent, request, id) => {
    await takePictureFault(agent, id, await body(request, SMALL));
    return Response.json({});
  },
  'POST shown/*': async (agent, request, id) => {
    await takeShown(agent, id, await body(request, SMALL));
    return Response.json({});
  },
  'GET content/*': giveContent,
  'POST content/*': receiveContent,
};

/** From which byte a content is asked for (RFC 9110, 14.2): agents ask for all from there on, and for nothing else. */
const rangeOf = (request: Request): number =>
  Number(/^bytes=(\d{1,15})-$/.exec(request.headers.get('range') ?? '')?.[1] ?? 0);

async function giveContent(agent: Agent, request: Request, id: string): Promise<Response> {
  const from = rangeOf(request);
  const { size, chunks } = await contentFor(agent, id, from);
  if (from > 0 && from >= size)
    return new Response(null, { status: 416, headers: { 'content-range': `bytes */${size}` } });
  const stream = new ReadableStream({
    async pull(controller) {
      const next = await chunks.next();
      if (next.done) controller.close();
      else controller.enqueue(new Uint8Array(next.value));
    },
  });
  return new Response(stream, {
    status: from ? 206 : 200,
    headers: {
      'content-type': 'application/octet-stream',
      'content-length': String(size - from),
      ...(from ? { 'content-range': `bytes ${from}-${size - 1}/${size}` } : {}),
    },
  });
}

async function receiveContent(agent: Agent, request: Request, id: string): Promise<Response> {
  const path = new URL(request.url).searchParams.get('path') ?? '';
  await takeContent(agent, id, path, Buffer.from(await bytesOf(request, MOST_CONTENT)));
  return Response.json({});
}

/** The agent itself, for a workstation that has none yet: one file, which nobody needs a token for. */
async function giveProgram(): Promise<Response> {
  return new Response(new Uint8Array(await readFile(programOf('agent.mjs'))), {
    headers: {
      'content-type': 'text/javascript; charset=utf-8',
      'content-disposition': 'attachment; filename="etagere-agent.mjs"',
    },
  });
}

/** @param path behind `/api/agent/` */
export async function answerAgent(request: Request, path: readonly string[]): Promise<Response> {
  try {
    const key = `${request.method} ${path.map((part, i) => (i === 1 ? '*' : part)).join('/')}`;
    if (key === 'POST enrol') return Response.json(await enrol(await body(request, SMALL)));
    if (key === 'GET program') return await giveProgram();
    const agent = await stationOfToken(request.headers.get('authorization'));
    const door = Object.hasOwn(doors, key) ? doors[key] : undefined;
    if (door) return await door(agent, request, path[1] ?? '');
    throw new Problem(
      'not-found',
      'The agent asked for something that is not there.',
      path.join('/'),
      'Bring the agent up to date.',
    );
  } catch (error) {
    return problemResponse(error);
  }
}
