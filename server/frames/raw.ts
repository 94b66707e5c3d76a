/** Camera files that are no DNG, brought to DNG by a decoder in a process of its own (processes/raw-decoder/main.ts). */
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { Problem } from '@/core/problem';

const SECONDS = 90;
const MOST = 600e6;

export function dngOfRaw(bytes: Uint8Array, name: string): Promise<Buffer> {
  const broken = (message: string): Problem =>
    new Problem(
      'raw-unreadable',
      message,
      name,
      'Convert the file to DNG with the camera maker’s or any other converter, and bring that in.',
    );
  return new Promise((done, fail) => {
    const child = spawn(process.execPath, ['--max-old-space-size=1024', join(process.cwd(), 'dist', 'raw.mjs')], {
      stdio: ['pipe', 'pipe', 'pipe'],
    });
    const parts: Buffer[] = [];
    let size = 0;
    let said = '';
    const timer = setTimeout(() => {
      child.kill('SIGKILL');
      fail(broken(`The decoder took more than ${SECONDS} seconds.`));
    }, SECONDS * 1000);
    child.stdout.on('data', (bytes: Buffer) => {
      size += bytes.length;
      if (size > MOST) {
        child.kill('SIGKILL');
        fail(broken('The picture is larger than is taken.'));
      } else parts.push(bytes);
    });
    child.stderr.on('data', (bytes: Buffer) => {
      said = (said + bytes.toString()).slice(0, 400);
    });
    child.stdin.on('error', () => {
      /* it ended before it had read all: its exit says why */
    });
    child.on('error', (error) => {
      clearTimeout(timer);
      fail(error);
    });
    child.on('close', (code) => {
      clearTimeout(timer);
      if (code === 0 && size) done(Buffer.concat(parts));
      else fail(broken(code === 2 && said ? said : 'The decoder gave up on this file.'));
    });
    child.stdin.end(bytes);
  });
}
