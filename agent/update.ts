/**
 * The agent brings itself up to date: it takes a program only with the signature of the server that enrolled it, tries it,
 * keeps the one before beside it, and goes back to that where the new one does not work.
 */
import { execFile } from 'node:child_process';
import { createHash, createPublicKey, verify } from 'node:crypto';
import { existsSync } from 'node:fs';
import { chmod, copyFile, readFile, rename, rm, stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { signedWords, type ShippedProgram } from '@/core/sync/protocol';

/** How a program ends that has put a newer one in its place: whoever watches it starts that. */
export const UPDATED = 75;

const TRIAL_MS = 30_000;

export interface OwnProgram {
  /** its file */ file: string;
  /** the folder of the agent's own files */ state: string;
  /** what it calls itself */ version: string;
  /** the server's public key, as it was given at the enrolment (SPKI in DER, base64); null for an agent of before */
  key: string | null;
}

/** Beside the program, with its ending: by that Node.js knows how to read it. */
const beside = ({ file }: OwnProgram, word: string): string => `${file.replace(/\.mjs$/, '')}.${word}.mjs`;
const nextOf = (own: OwnProgram): string => beside(own, 'next');
const beforeOf = (own: OwnProgram): string => beside(own, 'before');
const onTrialOf = ({ state }: OwnProgram): string => join(state, 'on-trial.json');
const refusedOf = ({ state }: OwnProgram): string => join(state, 'refused-programs.json');

const shaOf = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');
const shaOfFile = async (file: string): Promise<string> => shaOf(await readFile(file));

let ownSha: { stamp: string; sha256: string } | null = null;
/** Of the program's own file, which is read anew only where it is another by now. */
async function shaOfOwn(file: string): Promise<string> {
  const { mtimeMs, size } = await stat(file);
  const stamp = `${file} ${mtimeMs} ${size}`;
  if (ownSha?.stamp !== stamp) ownSha = { stamp, sha256: await shaOfFile(file) };
  return ownSha.sha256;
}

/** Hashes of programs that did not work here. */
async function refused(own: OwnProgram): Promise<string[]> {
  return JSON.parse(await readFile(refusedOf(own), 'utf8').catch(() => '[]')) as string[];
}
async function refuse(own: OwnProgram, sha256: string): Promise<void> {
  const all = new Set([...(await refused(own)), sha256]);
  await writeFile(refusedOf(own), JSON.stringify([...all].slice(-20)));
}

function isSigned({ key }: OwnProgram, program: ShippedProgram): boolean {
  if (!key) return false;
  const publicKey = createPublicKey({ key: Buffer.from(key, 'base64'), format: 'der', type: 'spki' });
  return verify(null, Buffer.from(signedWords(program)), publicKey, Buffer.from(program.signature, 'base64'));
}

/** Whether a version comes before another, number by number: "0.10" is not before "0.9". */
export function isBefore(version: string, other: string): boolean {
  const [ours, theirs] = [version, other].map((text) => text.split('.').map(Number)) as [number[], number[]];
  for (let n = 0; n < Math.max(ours.length, theirs.length); n++) {
    const difference = (ours[n] ?? 0) - (theirs[n] ?? 0);
    if (difference !== 0) return difference < 0;
  }
  return false;
}

/** Whether it starts at all here, asked for no more than what it can. */
async function starts(file: string): Promise<boolean> {
  const trial = promisify(execFile)(process.execPath, [file, '--help'], { timeout: TRIAL_MS });
  return trial.then(
    ({ stdout }) => stdout.includes('etagere-agent'),
    () => false,
  );
}

/**
 * Puts the server's program in the place of this one, where it is another.
 * @param fetched writes the program to a file
 * @returns `swapped` where it lies there now and waits to be started; why not, in words; or null where there is nothing to do
 */
export async function update(
  own: OwnProgram,
  shipped: ShippedProgram,
  fetched: (to: string) => Promise<void>,
): Promise<'swapped' | { fault: string } | null> {
  if ((await shaOfOwn(own.file)) === shipped.sha256) return null;
  // whoever can answer in the server's name could else bring a signed program of old back, with its faults
  if (isBefore(shipped.version, own.version)) return null;
  if (!own.key)
    return { fault: 'this agent was enrolled before its server signed programs: enrol it anew to have it updated' };
  if (!isSigned(own, shipped))
    return { fault: 'the program that the server offers is not signed by the server that enrolled this agent' };
  if ((await refused(own)).includes(shipped.sha256))
    return { fault: `version ${shipped.version} did not work here, and the one before was put back` };
  try {
    return await swap(own, shipped, fetched);
  } catch (error) {
    return { fault: `version ${shipped.version} could not be put in place: ${(error as Error).message}` };
  } finally {
    await rm(nextOf(own), { force: true }).catch(() => {});
  }
}

async function swap(
  own: OwnProgram,
  shipped: ShippedProgram,
  fetched: (to: string) => Promise<void>,
): Promise<'swapped' | { fault: string }> {
  const next = nextOf(own);
  await rm(next, { force: true });
  await fetched(next);
  if ((await shaOfFile(next)) !== shipped.sha256)
    return { fault: `version ${shipped.version} came otherwise than it was signed, and was not taken` };
  await chmod(next, (await stat(own.file)).mode);
  if (!(await starts(next))) {
    await refuse(own, shipped.sha256);
    return { fault: `version ${shipped.version} does not start here, and was not taken` };
  }
  await copyFile(own.file, beforeOf(own));
  await writeFile(onTrialOf(own), JSON.stringify({ sha256: shipped.sha256 }));
  await rename(next, own.file);
  return 'swapped';
}

/** Whether a program lies there that has not yet been seen to work. */
export const isOnTrial = (own: OwnProgram): boolean => existsSync(onTrialOf(own));

/** The program works: the one before is needed no more. */
export async function settle(own: OwnProgram): Promise<void> {
  await rm(onTrialOf(own), { force: true });
  await rm(beforeOf(own), { force: true });
}

/** The program did not work: the one before is put back, and this one is not taken again. */
export async function putBack(own: OwnProgram): Promise<void> {
  if (existsSync(beforeOf(own))) {
    await refuse(own, await shaOfFile(own.file));
    await rename(beforeOf(own), own.file);
  }
  await rm(onTrialOf(own), { force: true });
}
