/** Bodies of requests, with limits that hold whatever the headers say. */
import 'server-only';
import { Problem } from '@/core/problem';

const MEGABYTE = 1 << 20;

const refuse = (message: string, remedy: string): Problem => new Problem('input-invalid', message, 'body', remedy);

/** Zero characters, which the database cannot hold, are dropped. */
const withoutZero = (_: string, value: unknown): unknown =>
  typeof value === 'string' ? value.replaceAll('\0', '') : value;

function parsed(text: string): unknown {
  try {
    return JSON.parse(text || '{}', text.includes('\\u0000') ? withoutZero : undefined);
  } catch {
    throw refuse('The request is no JSON.', 'Reload the page and try again.');
  }
}

/** A request's JSON object. What it holds is for the service to check. */
export async function body<T extends object>(request: Request, most = MEGABYTE): Promise<T> {
  const text = await request.text();
  if (text.length > most) throw refuse('The request is too large.', 'Send less at once.');
  const value = parsed(text);
  if (typeof value !== 'object' || value === null || Array.isArray(value))
    throw refuse('The request is no JSON object.', 'Reload the page and try again.');
  return value as T;
}

/** A request's bytes. */
export async function bytesOf(request: Request, most: number): Promise<Uint8Array> {
  const parts: Uint8Array[] = [];
  let size = 0;
  for await (const part of (request.body ?? []) as unknown as AsyncIterable<Uint8Array>) {
    size += part.length;
    if (size > most)
      throw new Problem('limit-size', `At most ${most / 1e6} MB are taken at once.`, 'the file', 'Send a smaller one.');
    parts.push(part);
  }
  return new Uint8Array(Buffer.concat(parts));
}
