/**
 * The agent's program as this server ships it, signed, so that agents that were enrolled here take it and no other. The key
 * lies in the data folder and in no backup: whoever has it can put programs onto every workstation of the studio.
 */
import {
  createHash,
  createPrivateKey,
  createPublicKey,
  generateKeyPairSync,
  randomUUID,
  sign,
  type KeyObject,
} from 'node:crypto';
import { link, mkdir, readFile, rm, stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { AGENT_VERSION, signedWords, type ShippedProgram } from '@/core/sync/protocol';
import { dataFolder } from '../data-folder';
import { programOf } from '../program';

const keyFile = (): string => join(dataFolder(), 'agent-signing-key.pem');
const isMissing = (error: unknown): boolean => (error as NodeJS.ErrnoException).code === 'ENOENT';

/** A key of which there is one, also where several processes ask for it first. */
async function madeKey(): Promise<string> {
  const { privateKey } = generateKeyPairSync('ed25519');
  const text = privateKey.export({ format: 'pem', type: 'pkcs8' }).toString();
  await mkdir(dataFolder(), { recursive: true });
  const own = `${keyFile()}.${randomUUID()}`;
  await writeFile(own, text, { mode: 0o600 });
  try {
    await link(own, keyFile());
    return text;
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error;
    return await readFile(keyFile(), 'utf8');
  } finally {
    await rm(own, { force: true });
  }
}

async function signingKey(): Promise<KeyObject> {
  const text = await readFile(keyFile(), 'utf8').catch((error: unknown) => {
    if (isMissing(error)) return madeKey();
    throw error;
  });
  return createPrivateKey(text);
}

/** What an agent is given when it is enrolled: the public key (SPKI in DER, base64) by which it takes programs. */
export async function updateKey(): Promise<string> {
  return createPublicKey(await signingKey())
    .export({ format: 'der', type: 'spki' })
    .toString('base64');
}

/** Ed25519 (RFC 8032) by the key that agents know, in base64. */
export const signed = async (words: Uint8Array): Promise<string> =>
  sign(null, words, await signingKey()).toString('base64');

let known: { stamp: string; program: ShippedProgram } | null = null;

/** The program with its signature; null where none is built, or the studio's server is not to update agents. */
export async function shippedProgram(): Promise<ShippedProgram | null> {
  if (process.env.ETAGERE_AGENT_UPDATES === '0') return null;
  const file = programOf('agent.mjs');
  const found = await stat(file).catch(() => null);
  if (!found) return null;
  const stamp = `${file} ${found.mtimeMs} ${found.size} ${dataFolder()}`;
  if (known?.stamp === stamp) return known.program;
  const bytes = await readFile(file);
  const unsigned = { version: AGENT_VERSION, sha256: createHash('sha256').update(bytes).digest('hex') };
  const signature = await signed(Buffer.from(signedWords(unsigned)));
  known = { stamp, program: { ...unsigned, size: bytes.length, signature } };
  return known.program;
}
