/** The agent's side of the conversation. It only ever calls out. */
import { writeFile } from 'node:fs/promises';
import {
  MOST_PARTS,
  PART_FILES,
  planSchema,
  type FilesPart,
  type Instructions,
  type InventoryFile,
  type OperationResult,
  type Plan,
  type Report,
  type ReportAnswer,
} from '@/core/sync/protocol';
import { download } from './download';
import { BrokenOff, ServerError } from './faults';

export { ServerError } from './faults';

/** Throws what the server says against it. */
async function answered(response: Response): Promise<Response> {
  if (response.ok) return response;
  const text = await response.text();
  const said = (() => {
    try {
      return (JSON.parse(text) as { error?: { message: string; remedy: string } }).error;
    } catch {
      return undefined;
    }
  })();
  const words = said ? `${said.message} ${said.remedy}` : `the server answered ${response.status}`;
  throw response.status >= 500 ? new BrokenOff(words) : new ServerError(words);
}

export class Server {
  constructor(
    private readonly url: string,
    private readonly token: string | null,
    /** bytes a second at which contents come at most; without, as fast as they can */ private readonly rate?: number,
  ) {}

  private get authorization(): Record<string, string> {
    return this.token ? { authorization: `Bearer ${this.token}` } : {};
  }

  private send = (path: string, request: RequestInit): Promise<Response> =>
    fetch(`${this.url}/api/agent/${path}`, request);

  private async call(path: string, body?: unknown): Promise<Response> {
    const posts = body !== undefined;
    const response = await this.send(path, {
      method: posts ? 'POST' : 'GET',
      signal: AbortSignal.timeout(60_000),
      headers: { ...this.authorization, ...(posts ? { 'content-type': 'application/json' } : {}) },
      ...(posts ? { body: JSON.stringify(body) } : {}),
    });
    return answered(response);
  }

  enrol = async (body: { code: string; system: string; host: string; agentVersion: string }) =>
    (await this.call('enrol', body)).json() as Promise<{
      station: string;
      name: string;
      token: string;
      updateKey?: string;
    }>;
  instructions = async () => (await this.call('instructions')).json() as Promise<Instructions>;
  /** The files of a report that follows, so many at a time. Resolves to how many parts they are. */
  async sendFiles(digest: string, files: readonly InventoryFile[]): Promise<number> {
    const parts = Math.min(MOST_PARTS, Math.ceil(files.length / PART_FILES));
    for (let part = 0; part < parts; part++) {
      const some = files.slice(part * PART_FILES, (part + 1) * PART_FILES);
      await this.call('files', { digest, part, files: some } satisfies FilesPart);
    }
    return parts;
  }
  report = async (r: Report) => (await this.call('report', r)).json() as Promise<ReportAnswer>;
  async plan(): Promise<Plan | null> {
    const { plan } = (await (await this.call('plan')).json()) as { plan: unknown };
    return plan === null ? null : (planSchema.validateSync(plan, { strict: true }) as unknown as Plan);
  }
  results = async (plan: string, results: OperationResult[]) => {
    await this.call(`plan/${plan}/results`, { results });
  };
  sendContent = (sha: string, path: string, bytes: Buffer): Promise<void> =>
    this.sendBytes(`content/${sha}?path=${encodeURIComponent(path)}`, bytes, path);
  private async sendBytes(to: string, bytes: Buffer, what = 'a picture'): Promise<void> {
    const response = await this.send(to, {
      method: 'POST',
      signal: AbortSignal.timeout(300_000),
      headers: { ...this.authorization, 'content-type': 'application/octet-stream' },
      body: new Uint8Array(bytes),
    });
    if (!response.ok) throw new ServerError(`the server did not take ${what}: it answered ${response.status}`);
  }
  /** What an editor made of a picture that it was asked for. */
  async sendPicture(id: string, bytes: Buffer): Promise<void> {
    await this.sendBytes(`picture/${id}`, bytes);
  }
  /** Why it made none. */
  sendPictureFault = async (id: string, message: string): Promise<void> => {
    await this.call(`picture/${id}/fault`, { message });
  };
  /** That a path was shown in the file manager; or why not. */
  tellShown = async (id: string, fault: string): Promise<void> => {
    await this.call(`shown/${id}`, { fault });
  };
  /** Goes on where an earlier try broke off. */
  fetchContent = (sha: string, to: string): Promise<void> => this.fetchTo(`content/${sha}`, to);
  /** The agent's own program; from its beginning, since it may be another by now. */
  async fetchProgram(to: string): Promise<void> {
    const response = await answered(
      await this.send('program', { headers: this.authorization, signal: AbortSignal.timeout(300_000) }),
    );
    await writeFile(to, new Uint8Array(await response.arrayBuffer()), { flag: 'wx' });
  }
  private fetchTo = (path: string, to: string): Promise<void> =>
    download(
      async (from, signal) => {
        const range = from ? { range: `bytes=${from}-` } : undefined;
        const response = await this.send(path, { headers: { ...this.authorization, ...range }, signal });
        if (response.status === 416 && from) return null;
        return answered(response);
      },
      to,
      { rate: this.rate },
    );
}
