/** Asks the server from inside a worker. */

/** What a person can be told: what happened, and what to do. */
export class Fault extends Error {
  constructor(
    message: string,
    readonly remedy: string,
  ) {
    super(message);
  }
}

interface Told {
  message: string;
  remedy: string;
}

function toldIn(bytes: ArrayBuffer): Told | undefined {
  try {
    return (JSON.parse(new TextDecoder().decode(bytes)) as { error?: Told }).error;
  } catch {
    return undefined; // what stands between us and the server answered
  }
}

/**
 * An answer of the server, whole. Where two workers ask for the same large answer at once, the browser's cache can break
 * one off: that one is asked for again, past the cache.
 */
export async function ask(
  path: string,
  cache: RequestCache = 'default',
): Promise<{ headers: Headers; bytes: ArrayBuffer }> {
  let response: Response;
  let bytes: ArrayBuffer;
  try {
    response = await fetch(path, { cache });
    bytes = await response.arrayBuffer();
  } catch {
    if (cache === 'default') return ask(path, 'no-store');
    throw new Fault('The server cannot be reached.', 'Check the network, then try again.');
  }
  if (response.ok) return { headers: response.headers, bytes };
  const told = toldIn(bytes);
  throw new Fault(told?.message ?? `The server answered ${response.status}.`, told?.remedy ?? 'Reload the page.');
}

/** The JSON that an answer carries in one of its headers, beside its bytes. */
export function headerOf<T>(headers: Headers, name: string): T {
  const text = headers.get(name);
  if (text === null) throw new Fault('The server’s answer is not whole.', 'Reload the page.');
  return JSON.parse(text) as T;
}
