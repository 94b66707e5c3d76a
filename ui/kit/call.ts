/** Calls our own routes from the browser; a fault comes back as the problem that the server told. */
import type { AnswerOf, BodyOf, EndpointName } from '@/core/api';
import { noteAnswered, noteUnanswered } from './connection';
import { saveFile } from './save-file';

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

const answered = <T>(path: string, signal: AbortSignal | undefined, request: RequestInit): Promise<T> =>
  behindDoor(() => once<T>(path, signal, request));

/** Does it again where whoever sits there has signed in again in between. */
async function behindDoor<T>(ask: () => Promise<T>): Promise<T> {
  try {
    return await ask();
  } catch (error) {
    const isOut = error instanceof CallError && error.problem.code === SIGNED_OUT;
    if (!isOut || !doorkeeper || !(await doorkeeper())) throw error;
    return ask();
  }
}

interface Reached {
  response: Response;
  content: Blob;
}

async function reached(path: string, signal: AbortSignal | undefined, request: RequestInit): Promise<Reached> {
  try {
    const response = await fetch(path, request);
    const content = await response.blob(); /* may be given up, or break off, in the middle of the answer too */
    noteAnswered();
    return { response, content };
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
}

async function once<T>(path: string, signal: AbortSignal | undefined, request: RequestInit): Promise<T> {
  const { response, content } = await reached(path, signal, request);
  return json<T>(response, await content.text());
}

/** Throws what the server says against it. */
function json<T>(response: Response, text: string): T {
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

/** Has the server make a file of an endpoint, which answers with its bytes; saved under the name that it gives. */
export async function askForFile(name: EndpointName, ask: Pick<Ask<EndpointName>, 'id' | 'query'> = {}): Promise<void> {
  const { method, address } = addressOf(name, ask);
  await behindDoor(async () => {
    const { response, content } = await reached(address, undefined, { method });
    if (!response.ok) json(response, await content.text());
    else saveFile(content, fileNameOf(response));
  });
}

/** RFC 8187, as `attachment` in server/http writes it. */
const fileNameOf = (response: Response): string =>
  decodeURIComponent(/filename\*=UTF-8''(\S+)/.exec(response.headers.get('content-disposition') ?? '')?.[1] ?? 'file');

export const problemOf = (error: unknown): ProblemText =>
  error instanceof CallError
    ? error.problem
    : { code: 'bug', message: (error as Error).message, where: 'this page', remedy: 'Reload the page and try again.' };
