/** The code that protects the welcome page of an empty studio: made by whoever starts it, kept as a hash. */
import { createHash, randomInt, timingSafeEqual } from 'node:crypto';
import { Problem } from '@/core/problem';
import { pool } from '../db/pool';
import * as q from './queries';

/** No letters or digits that look alike. */
const ALPHABET = 'ABCDEFGHJKMNPQRSTUVWXYZ23456789';
const LENGTH = 10;

const digest = (code: string): Buffer => createHash('sha256').update(code).digest();

/** A new code; the one before holds no longer. Throws a Problem where there is somebody already. */
export async function makeSetupCode(): Promise<string> {
  if ((await q.countPeople(pool())) > 0)
    throw new Problem('not-allowed', 'There are people already.', 'people', 'One of them has to add others.');
  const code = Array.from({ length: LENGTH }, () => ALPHABET[randomInt(ALPHABET.length)]).join('');
  await q.setSetupCode(pool(), digest(code));
  return code;
}

export async function setupCodeIsRight(given: string): Promise<boolean> {
  const wanted = await q.setupCode(pool());
  return wanted !== null && timingSafeEqual(digest(given.trim().toUpperCase()), wanted);
}
