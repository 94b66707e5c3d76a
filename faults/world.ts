/** A whole installation of its own for the fault suite: started as people start it, driven over HTTP, looked into by SQL. */
import { spawn, type ChildProcess } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import pg from 'pg';

export interface Child {
  name: string;
  pid: number;
}
interface Address {
  url: string;
  signIns: { email: string; role: string; password: string }[];
}
export interface StationTree {
  name: string;
  root: string;
}

const START_MS = 600_000;

export class World {
  private process: ChildProcess | null = null;
  private address: Address = { url: '', signIns: [] };
  private cookie = '';
  /** files that differed from what was placed before anything was killed */ changedByHand: ReadonlySet<string> =
    new Set();

  constructor(readonly data: string) {}

  /** Starts it in an empty data folder and waits until it is ready. */
  async start(): Promise<void> {
    rmSync(this.data, { recursive: true, force: true });
    mkdirSync(this.data, { recursive: true });
    this.process = spawn(process.execPath, ['tools/start.mjs', '--port', '4477', '--workers', '2'], {
      stdio: ['ignore', 'ignore', 'ignore'],
      env: {
        ...process.env,
        ETAGERE_DATA: this.data,
        DATABASE_URL: '',
        ETAGERE_AGENT_SECONDS: '1',
        ETAGERE_FAST_DATABASE: '',
      },
    });
    const file = join(this.data, 'address.json');
    await this.until('the application starts', async () => existsSync(file), START_MS);
    this.address = JSON.parse(readFileSync(file, 'utf8')) as Address;
    await this.signIn();
  }

  async stop(): Promise<void> {
    const child = this.process;
    if (!child || child.exitCode !== null) return;
    const gone = new Promise<void>((resolve) => child.once('exit', () => resolve()));
    child.kill('SIGTERM');
    await gone;
  }

  children(): Child[] {
    return JSON.parse(readFileSync(join(this.data, 'running-children.json'), 'utf8')) as Child[];
  }

  postmaster(): number | null {
    try {
      const [pid] = readFileSync(join(this.data, 'postgres', 'postmaster.pid'), 'utf8').split('\n');
      return Number(pid);
    } catch {
      return null;
    }
  }

  stations(): StationTree[] {
    return JSON.parse(readFileSync(join(this.data, 'stations', 'stations.json'), 'utf8')) as StationTree[];
  }

  async sql<Row extends object>(text: string, values: unknown[] = []): Promise<Row[]> {
    const { port, password } = JSON.parse(readFileSync(join(this.data, 'database.json'), 'utf8')) as {
      port: number;
      password: string;
    };
    const client = new pg.Client({ host: '127.0.0.1', port, password, user: 'etagere', database: 'etagere' });
    client.on('error', () => {});
    await client.connect();
    try {
      return (await client.query<Row>(text, values)).rows;
    } finally {
      await client.end().catch(() => {});
    }
  }

  /** The librarian's session; a restore ends it. */
  async signIn(): Promise<void> {
    const who = this.address.signIns.find(({ role }) => role === 'librarian')!;
    await this.until('the librarian is signed in', async () => {
      const response = await fetch(`${this.address.url}/api/session`, {
        method: 'POST',
        headers: { origin: this.address.url, 'content-type': 'application/json' },
        body: JSON.stringify({ email: who.email, password: who.password }),
      });
      this.cookie = (response.headers.get('set-cookie') ?? '').split(';')[0]!;
      return response.ok;
    });
  }

  /** @param most milliseconds that it may take; what was killed meanwhile never answers */
  async ask<T>(method: string, path: string, body?: unknown, most = 60_000): Promise<T> {
    const isBytes = body instanceof Uint8Array;
    const response = await fetch(this.address.url + path, {
      method,
      signal: AbortSignal.timeout(most),
      headers: {
        origin: this.address.url,
        cookie: this.cookie,
        ...(body === undefined || isBytes ? {} : { 'content-type': 'application/json' }),
      },
      ...(body === undefined ? {} : { body: isBytes ? new Uint8Array(body) : JSON.stringify(body) }),
    });
    if (!response.ok) throw new Error(`${method} ${path}: ${response.status} ${(await response.text()).slice(0, 300)}`);
    return (response.headers.get('content-type') ?? '').includes('json')
      ? ((await response.json()) as T)
      : (new Uint8Array(await response.arrayBuffer()) as T);
  }

  /**
   * Waits until something holds; whatever breaks on the way, as when something was killed, is tried again.
   * @param act what is done each time before it is looked at again, such as a request that may or may not have arrived
   */
  async until(
    what: string,
    holds: () => Promise<boolean>,
    most = 120_000,
    act: () => Promise<unknown> = async () => {},
  ): Promise<void> {
    const end = Date.now() + most;
    let last: unknown;
    for (;;) {
      try {
        if (await holds()) return;
        await act();
        if (await holds()) return;
      } catch (error) {
        last = error;
      }
      if (Date.now() > end) throw new Error(`in vain: ${what}. ${last instanceof Error ? last.message : ''}`);
      await wait(250);
    }
  }
}
