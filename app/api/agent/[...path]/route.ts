import { answerAgent } from '@/server/http/agents';

type Context = { params: Promise<{ path: string[] }> };

/** Where Next answers by itself, as in development; else the web process has done so before (processes/web). */
const answer = async (request: Request, { params }: Context): Promise<Response> =>
  answerAgent(request, (await params).path);
export const GET = answer;
export const POST = answer;
