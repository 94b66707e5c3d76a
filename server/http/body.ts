/** Bodies of requests, with limits that hold whatever the headers say. */
import 'server-only';
import { Problem } from '@/core/problem';
import { storable } from '@/core/text';

const MEGABYTE = 1 << 20;

const refuse = (message: string, remedy: string): Problem => new Problem('input-invalid', message, 'body', remedy);

function parsed(text: string): unknown {
  try {
    return storable(JSON.parse(text || '{}'));
  } catch {
    throw refuse('The request is no JSON.', 'Reload the page and try again.');
  }
}

/** Refused before it is read where the headers say how large it is, else as soon as it is. */
async function read(request: Request, most: number): Promise<Buffer> {
  const tooLarge = (): Problem =>
    new Problem(
      'body-limit',
      `At most ${most < MEGABYTE ? `${Math.floor(most / 1024)} kB` : `${Math.floor(most / MEGABYTE)} MB`} are taken here at once.`,
      'the request',
      'Send less at once.',
    );
  if (Number(request.headers.get('content-length') ?? 0) > most) throw tooLarge();
  const parts: Uint8Array[] = [];
  let size = 0;
  for await (const part of (request.body ?? []) as unknown as AsyncIterable<Uint8Array>) {
    size += part.length;
    if (size > most) throw tooLarge();
    parts.push(part);
  }
  return Buffer.concat(parts);
}

/** A request's JSON object. What it holds is for the service to check. */
export async function body<T extends object>(request: Request, most = MEGABYTE): Promise<T> {
  const value = parsed((await read(request, most)).toString('utf8'));
  if (typeof value !== 'object' || value === null || Array.isArray(value))
    throw refuse('The request is no JSON object.', 'Reload the page and try again.');
  return value as T;
}

/** A request's bytes. */
export const bytesOf = async (request: Request, most: number): Promise<Uint8Array> =>
  new Uint8Array(await read(request, most));

/** A request's text. */
export const textOf = async (request: Request, most: number): Promise<string> =>
  (await read(request, most)).toString('utf8');
