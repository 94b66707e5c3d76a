/** Calls our own routes from the browser; a fault comes back as the problem that the server told. */
import type { AnswerOf, BodyOf, EndpointName } from '@/core/api';
import { noteAnswered, noteUnanswered } from './connection';

export interface ProblemText {
  code: string;
  message: string;
  where: string;
  remedy: string;
}
/** The problem of an answer that never came. */
export const OFFLINE = 'offline';

export class CallError extends Error {
  constructor(readonly problem: ProblemText) {
    super(problem.message);
  }
}

/** What an endpoint is asked with. */
interface Ask<Name extends EndpointName> {
  /** fills the place in the endpoint's path */ id?: string | number;
  query?: Record<string, string> | URLSearchParams | string;
  body?: BodyOf<Name>;
  signal?: AbortSignal;
}

/** Where an endpoint stands: its method and its address with what is asked. */
export function addressOf(
  name: EndpointName,
  { id, query }: { id?: string | number; query?: Record<string, string> | URLSearchParams | string } = {},
): { method: string; address: string } {
  const [method = 'GET', path = ''] = name.split(' ');
  const search = new URLSearchParams(query).toString();
  const place = path.replace(/\/:\w+/, `/${encodeURIComponent(id ?? '')}`);
  return { method, address: search ? `${place}?${search}` : place };
}

/** Asks an endpoint of ours; the types of what is sent and of what comes back are the endpoint's own. */
export async function call<Name extends EndpointName>(name: Name, ask: Ask<Name> = {}): Promise<AnswerOf<Name>> {
  const { method, address } = addressOf(name, ask);
  const text = ask.body === undefined ? null : JSON.stringify(ask.body);
  // what was done is sent to its end even if the page is left meanwhile (browsers allow that up to 64 kB)
  return answered<AnswerOf<Name>>(address, ask.signal, {
    method,
    keepalive: method !== 'GET' && (text?.length ?? 0) < 60_000,
    signal: ask.signal ?? null,
    body: text,
    ...(text === null ? {} : { headers: { 'content-type': 'application/json' } }),
  });
}

/** Sends bytes as they are to an endpoint that takes them. */
export async function send<Name extends EndpointName>(
  name: Name,
  bytes: Blob | string,
  ask: Omit<Ask<Name>, 'body'> = {},
): Promise<AnswerOf<Name>> {
  const { method, address } = addressOf(name, ask);
  return answered<AnswerOf<Name>>(address, ask.signal, {
    method,
    body: bytes,
    signal: ask.signal ?? null,
    headers: { 'content-type': 'application/octet-stream' },
  });
}

/** Asks whoever sits there for the password again. Resolves to whether they are signed in now. */
type Doorkeeper = () => Promise<boolean>;
let doorkeeper: Doorkeeper | null = null;

/** From now on a call that comes after the session's end waits for this, and is then sent again. */
export function setDoorkeeper(ask: Doorkeeper | null): void {
  doorkeeper = ask;
}

const SIGNED_OUT = 'sign-in-needed';

async function answered<T>(path: string, signal: AbortSignal | undefined, request: RequestInit): Promise<T> {
  try {
    return await once<T>(path, signal, request);
  } catch (error) {
    const isOut = error instanceof CallError && error.problem.code === SIGNED_OUT;
    if (!isOut || !doorkeeper || !(await doorkeeper())) throw error;
    return once<T>(path, signal, request);
  }
}

async function once<T>(path: string, signal: AbortSignal | undefined, request: RequestInit): Promise<T> {
  let response: Response;
  let text: string;
  try {
    response = await fetch(path, request);
    text = await response.text(); /* may be given up, or break off, in the middle of the answer too */
    noteAnswered();
  } catch (error) {
    if (signal?.aborted) throw error;
    noteUnanswered();
    throw new CallError({
      code: OFFLINE,
      message: 'The server cannot be reached.',
      where: '',
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
        where: '',
        remedy: 'Reload the page and try again.',
      },
    );
  return json as T;
}

export const problemOf = (error: unknown): ProblemText =>
  error instanceof CallError
    ? error.problem
    : { code: 'bug', message: (error as Error).message, where: 'this page', remedy: 'Reload the page and try again.' };
