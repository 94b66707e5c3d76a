/** The code that protects the welcome page of an empty studio; bin/start writes it into the data folder and prints it. */
import { timingSafeEqual } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { dataFolder } from '../data-folder';

export function setupCodeIsRight(given: string): boolean {
  let wanted: Buffer;
  try {
    wanted = Buffer.from(readFileSync(join(dataFolder(), 'setup-code'), 'utf8').trim());
  } catch {
    return false;
  }
  const bytes = Buffer.from(given.trim().toUpperCase());
  return wanted.length > 0 && bytes.length === wanted.length && timingSafeEqual(bytes, wanted);
}
