/** How a fault reaches the screen: a Problem as it is, a bug under a number that the log bears too. */
import 'server-only';
import { randomUUID } from 'node:crypto';
import { Problem } from '@/core/problem';
import { passingFault, refusalOf } from '../db/faults';
import { log } from '../log';

const statusOf: Record<string, number> = {
  'not-allowed': 403,
  'not-found': 404,
  'sign-in-needed': 401,
  'agent-unknown': 401,
  'sign-in-limit': 429,
  origin: 403,
  'body-limit': 413,
  taken: 409,
  'in-use': 409,
  busy: 503,
  'database-away': 503,
};
const UNPROCESSABLE = 422;

export function problemResponse(error: unknown): Response {
  const problem = error instanceof Problem ? error : (passingFault(error) ?? refusalOf(error));
  if (problem) return Response.json({ error: problem.toJSON() }, { status: statusOf[problem.code] ?? UNPROCESSABLE });
  const incident = randomUUID().slice(0, 8);
  log.error({ err: error, incident }, 'a request failed');
  const told = {
    code: 'bug',
    message: 'Something went wrong that is not your doing.',
    where: `incident ${incident}`,
    remedy: 'Try again; if it stays so, tell the people who look after Etagere this number.',
  };
  return Response.json({ error: told }, { status: 500 });
}
