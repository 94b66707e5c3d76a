/**
 * What a process says of itself: one line of JSON an event, on standard error, each with the request or the job that it
 * belongs to. Passwords, tokens, cookies and contents are never said.
 */
import { AsyncLocalStorage } from 'node:async_hooks';
import pino from 'pino';

/** What every line within bears. */
export type LogContext = { request: string } | { job: string; kind: string };

const kept = globalThis as typeof globalThis & {
  etagereLog?: pino.Logger;
  etagereLogContext?: AsyncLocalStorage<LogContext>;
};
const context = (kept.etagereLogContext ??= new AsyncLocalStorage<LogContext>());

export const SECRETS = ['password', 'current', 'token', 'cookie', 'authorization', 'secret', 'secretKey'];
const secretPaths = SECRETS.flatMap((name) => [name, `*.${name}`, `*.*.${name}`]);

/** Of a fault: what it is and where; drivers hang whole connections on theirs, with what is secret in them. */
function toldError(error: unknown): unknown {
  if (!(error instanceof Error)) return String(error);
  const { name, message, stack } = error;
  const { code } = error as { code?: unknown };
  return {
    type: name,
    message,
    stack,
    ...(typeof code === 'string' ? { code } : {}),
    ...(error.cause === undefined ? {} : { cause: toldError(error.cause) }),
  };
}

export const makeLog = (destination: pino.DestinationStream): pino.Logger =>
  pino(
    {
      level: process.env.ETAGERE_LOG ?? 'warn',
      base: { process: process.env.ETAGERE_PROCESS ?? 'etagere', pid: process.pid },
      timestamp: pino.stdTimeFunctions.isoTime,
      formatters: { level: (level) => ({ level }) },
      serializers: { err: toldError },
      mixin: () => context.getStore() ?? {},
      redact: { paths: secretPaths, censor: 'kept secret' },
    },
    destination,
  );

export const log = (kept.etagereLog ??= makeLog(pino.destination({ fd: 2, sync: true })));

/** Every line that is said within bears the context. */
export const within = <T>(named: LogContext, work: () => T): T => context.run(named, work);
