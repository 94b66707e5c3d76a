/** The program that ships is signed by the one key of this server, which agents are given when they are enrolled. */
import { createPublicKey, verify } from 'node:crypto';
import { mkdtempSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test, vi } from 'vitest';
import { must } from '@/core/must';
import { signedWords } from '@/core/sync/protocol';
import { shippedProgram, updateKey } from './shipped-program';

const folder = mkdtempSync(join(tmpdir(), 'etagere-key-'));
beforeAll(() => vi.stubEnv('ETAGERE_DATA', folder));
afterAll(() => {
  vi.unstubAllEnvs();
  rmSync(folder, { recursive: true, force: true });
});

test('all who ask at once get one key, which nobody else may read', async () => {
  const given = await Promise.all(Array.from({ length: 6 }, () => updateKey()));
  expect(new Set(given).size).toBe(1);
  expect(statSync(join(folder, 'agent-signing-key.pem')).mode & 0o077).toBe(0);
});

test('what is signed is the version and the hash, and nothing else passes', async () => {
  const program = must(await shippedProgram());
  const key = createPublicKey({ key: Buffer.from(await updateKey(), 'base64'), format: 'der', type: 'spki' });
  const holds = (what: { version: string; sha256: string }): boolean =>
    verify(null, Buffer.from(signedWords(what)), key, Buffer.from(program.signature, 'base64'));
  expect(holds(program)).toBe(true);
  expect(holds({ ...program, sha256: program.sha256.replace(/^./, 'x') })).toBe(false);
  expect(holds({ ...program, version: '9' })).toBe(false);
});

test('nothing is offered where the studio’s server is told so', async () => {
  vi.stubEnv('ETAGERE_AGENT_UPDATES', '0');
  expect(await shippedProgram()).toBeNull();
  vi.stubEnv('ETAGERE_AGENT_UPDATES', '1');
  expect(await shippedProgram()).not.toBeNull();
});
