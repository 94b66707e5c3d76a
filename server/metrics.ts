/**
 * Figures for whoever watches, in the text format of Prometheus: of this process, and of the studio as the database has it.
 * Names have no identifiers of people or things in them, so that there are few.
 */
import { Counter, Gauge, Histogram, Registry, collectDefaultMetrics } from 'prom-client';
import { poolState } from './db/pool';
import { studioFigures, type StudioFigures } from './studio/figures';

interface Metrics {
  registry: Registry;
  requests: Counter<'method' | 'route' | 'status'>;
  seconds: Histogram<'method' | 'route'>;
  jobs: Counter<'kind' | 'outcome'>;
  jobSeconds: Histogram<'kind'>;
}

const REQUEST_SECONDS = [0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 1.5, 2.5, 5, 10, 30];
const JOB_SECONDS = [0.1, 0.5, 1, 5, 15, 60, 300, 900];

function gauge(registry: Registry, name: string, help: string, value: () => number): void {
  new Gauge({
    name,
    help,
    registers: [registry],
    collect() {
      this.set(value());
    },
  });
}

function make(): Metrics {
  const registry = new Registry();
  collectDefaultMetrics({ register: registry, prefix: 'etagere_' });
  const registers = [registry];
  gauge(
    registry,
    'etagere_pool_connections',
    'connections to the database that this process has open',
    () => poolState().open,
  );
  gauge(
    registry,
    'etagere_pool_waiting',
    'work of this process that waits for a connection',
    () => poolState().waiting,
  );
  return {
    registry,
    requests: new Counter({
      name: 'etagere_requests_total',
      help: 'requests that were answered',
      labelNames: ['method', 'route', 'status'],
      registers,
    }),
    seconds: new Histogram({
      name: 'etagere_request_seconds',
      help: 'how long requests took',
      labelNames: ['method', 'route'],
      buckets: REQUEST_SECONDS,
      registers,
    }),
    jobs: new Counter({
      name: 'etagere_jobs_total',
      help: 'jobs that came to an end in this process',
      labelNames: ['kind', 'outcome'],
      registers,
    }),
    jobSeconds: new Histogram({
      name: 'etagere_job_seconds',
      help: 'how long jobs took',
      labelNames: ['kind'],
      buckets: JOB_SECONDS,
      registers,
    }),
  };
}

const kept = globalThis as typeof globalThis & { etagereMetrics?: Metrics };
export const metrics = (): Metrics => (kept.etagereMetrics ??= make());

/** A figure of this process, asked for whenever figures are read. */
export const watch = (name: string, help: string, value: () => number): void =>
  gauge(metrics().registry, name, help, value);

const ID = /[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}/gi;
const HASH = /[0-9a-f]{64}/gi;

/** A path without what is in it of things and people; what the application does not have is one route for all. */
export function routeOf(path: string): string {
  const plain = path
    .replace(ID, ':id')
    .replace(HASH, ':hash')
    .replace(/\/\d+(?=\/|$)/g, '/:n');
  if (plain.startsWith('/_next/')) return '/_next';
  const [, first = '', second = ''] = plain.split('/');
  if (first === 'api') return plain.split('/').slice(0, 6).join('/');
  return /^[a-z-]{0,20}$/.test(first) ? `/${first}${second === ':id' ? '/:id' : ''}` : 'other';
}

export function observeRequest(method: string, path: string, status: number, seconds: number): void {
  const route = status === 404 ? 'none' : routeOf(path);
  metrics().requests.inc({ method, route, status });
  metrics().seconds.observe({ method, route }, seconds);
}

export function observeJob(kind: string, outcome: string, seconds: number): void {
  metrics().jobs.inc({ kind, outcome });
  metrics().jobSeconds.observe({ kind }, seconds);
}

/** Figures of the studio; every process that asks the same database says the same. */
const studio: { name: string; help: string; of: (figures: StudioFigures) => number }[] = [
  { name: 'etagere_jobs_waiting', help: 'jobs that wait for a worker', of: (f) => f.waiting },
  { name: 'etagere_jobs_running', help: 'jobs that are worked on', of: (f) => f.running },
  { name: 'etagere_queue_age_seconds', help: 'how long the oldest of them has waited', of: (f) => f.queue_age },
  { name: 'etagere_agents_reporting', help: 'stations that reported within five minutes', of: (f) => f.reporting },
  { name: 'etagere_agents_silent', help: 'enrolled stations that did not', of: (f) => f.silent },
  {
    name: 'etagere_rollout_steps_waiting',
    help: 'file operations that stations have not done yet',
    of: (f) => f.steps,
  },
  { name: 'etagere_database_connections', help: 'connections to the studio’s database', of: (f) => f.connections },
  { name: 'etagere_database_bytes', help: 'size of the studio’s database', of: (f) => f.bytes },
  { name: 'etagere_oldest_transaction_seconds', help: 'age of the oldest open transaction', of: (f) => f.oldest },
];

async function studioText(): Promise<string> {
  const figures = await studioFigures();
  return studio
    .map(({ name, help, of }) => `# HELP ${name} ${help}\n# TYPE ${name} gauge\n${name} ${of(figures)}\n`)
    .join('');
}

/** All figures as text; where the database cannot be reached, those of the process and that it cannot. */
export async function metricsText(process: Pick<Registry, 'metrics'> = metrics().registry): Promise<string> {
  const own = await process.metrics();
  const up = (is: number): string =>
    `# HELP etagere_database_up whether the database can be reached\n# TYPE etagere_database_up gauge\netagere_database_up ${is}\n`;
  try {
    return `${own}\n${await studioText()}${up(1)}`;
  } catch {
    return `${own}\n${up(0)}`;
  }
}
