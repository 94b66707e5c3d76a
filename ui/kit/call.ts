/** Calls our own routes from the browser; a fault comes back as the problem that the server told. */
export interface ProblemText {
  code: string;
  message: string;
  where: string;
  remedy: string;
}
export class CallError extends Error {
  constructor(readonly problem: ProblemText) {
    super(problem.message);
  }
}

export async function call<T = Record<string, unknown>>(
  path: string,
  method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE' = 'GET',
  body?: unknown,
  signal?: AbortSignal,
): Promise<T> {
  const text = body === undefined ? null : JSON.stringify(body);
  // what was done is sent to its end even if the page is left meanwhile (browsers allow that up to 64 kB)
  return answered<T>(path, signal, {
    method,
    keepalive: method !== 'GET' && (text?.length ?? 0) < 60_000,
    signal: signal ?? null,
    body: text,
    ...(text === null ? {} : { headers: { 'content-type': 'application/json' } }),
  });
}

/** A file as it is, as the body. */
export const sendFile = <T = Record<string, unknown>>(path: string, file: File): Promise<T> =>
  answered<T>(path, undefined, { method: 'POST', body: file, headers: { 'content-type': 'application/octet-stream' } });

async function answered<T>(path: string, signal: AbortSignal | undefined, request: RequestInit): Promise<T> {
  let response: Response;
  let text: string;
  try {
    response = await fetch(path, request);
    text = await response.text(); /* may be given up, or break off, in the middle of the answer too */
  } catch (error) {
    if (signal?.aborted) throw error;
    throw new CallError({
      code: 'offline',
      message: 'The server cannot be reached.',
      where: path,
      remedy: 'Check the network; nothing that was confirmed is lost. Then try again.',
    });
  }
  let json: { error?: ProblemText } | null = null;
  try {
    json = text ? (JSON.parse(text) as { error?: ProblemText }) : {};
  } catch {
    /* what stands between us and the server answered */
  }
  if (!response.ok || !json)
    throw new CallError(
      json?.error ?? {
        code: 'bug',
        message: `The server answered ${response.status}.`,
        where: path,
        remedy: 'Reload the page and try again.',
      },
    );
  return json as T;
}

export const problemOf = (error: unknown): ProblemText =>
  error instanceof CallError
    ? error.problem
    : { code: 'bug', message: (error as Error).message, where: 'this page', remedy: 'Reload the page and try again.' };
