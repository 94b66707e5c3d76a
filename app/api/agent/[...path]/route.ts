import { Problem } from '@/core/problem';
import { contentFor, planFor, takeResults } from '@/server/rollouts/service';
import { MOST_CONTENT, takeContent } from '@/server/stations/station-arrival';
import { enrol, instructionsFor, stationOfToken, takeReport } from '@/server/stations/service';
import { body, problemResponse } from '@/server/http';

type C = { params: Promise<{ path: string[] }> };
const REPORT = 32 << 20;

/** The agents' door: a token of their own, which reaches their own station only. */
async function answer(request: Request, { params }: C): Promise<Response> {
  try {
    const [what, id, more] = (await params).path;
    const post = request.method === 'POST';
    if (what === 'enrol' && post) return Response.json(await enrol(await body(request)));
    const agent = await stationOfToken(request.headers.get('authorization'));
    if (what === 'instructions' && !post) return Response.json(await instructionsFor(agent));
    if (what === 'report' && post) return Response.json(await takeReport(agent, await body(request, REPORT)));
    if (what === 'plan' && !post && !id) return Response.json({ plan: await planFor(agent) });
    if (what === 'plan' && post && id && more === 'results') {
      await takeResults(agent, id, await body(request, REPORT));
      return Response.json({});
    }
    if (what === 'content' && !post && id) {
      const { size, chunks } = await contentFor(agent, id);
      const stream = new ReadableStream({
        async pull(readableStreamDefaultController) {
          const iteratorResult = await chunks.next();
          if (iteratorResult.done) readableStreamDefaultController.close();
          else readableStreamDefaultController.enqueue(new Uint8Array(iteratorResult.value));
        },
      });
      return new Response(stream, {
        headers: { 'content-type': 'application/octet-stream', 'content-length': String(size) },
      });
    }
    if (what === 'content' && post && id) {
      if (Number(request.headers.get('content-length') ?? Infinity) > MOST_CONTENT)
        throw new Problem('limit-size', 'The content is too large.', id, 'Bring it in by hand.');
      await takeContent(
        agent,
        id,
        new URL(request.url).searchParams.get('path') ?? '',
        Buffer.from(await request.arrayBuffer()),
      );
      return Response.json({});
    }
    throw new Problem(
      'not-found',
      'The agent asked for something that is not there.',
      (await params).path.join('/'),
      'Bring the agent up to date.',
    );
  } catch (error) {
    return problemResponse(error);
  }
}
export const GET = answer;
export const POST = answer;
