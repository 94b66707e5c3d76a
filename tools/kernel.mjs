// Compiles kernel/*.ts (AssemblyScript) to WebAssembly, as a module that holds its bytes: one file for browser and server, loaded without a request.
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { hashOf, root, say } from './checkout.mjs';

const target = join(root, 'core/look/kernel/bytes.gen.ts');

export async function ensureKernel() {
  const hash = hashOf(['kernel', 'tools/kernel.mjs']);
  if (existsSync(target) && readFileSync(target, 'utf8').includes(hash)) return;
  const { default: asc } = await import('assemblyscript/asc');
  const { error, stdout, stderr, binary } = await compile(asc);
  if (error) {
    say(`the kernel does not compile: ${stderr || stdout}`);
    throw error;
  }
  mkdirSync(join(root, 'core/look/kernel'), { recursive: true });
  writeFileSync(
    target,
    `/* eslint-disable */\n// Made by tools/kernel.mjs from kernel/lut.ts (${hash}); not kept in the repository.\nexport const bytes = '${Buffer.from(binary).toString('base64')}';\n`,
  );
}

async function compile(asc) {
  let binary = null;
  let text = '';
  let errors = '';
  const { error } = await asc.main(
    [
      'kernel/lut.ts',
      '--baseDir',
      root,
      '--outFile',
      'lut.wasm',
      '-O3',
      '--noAssert',
      '--runtime',
      'stub',
      '--enable',
      'simd',
      '--importMemory',
      '--initialMemory',
      '1',
    ],
    {
      stdout: {
        write: (t) => {
          text += t;
        },
      },
      stderr: {
        write: (t) => {
          errors += t;
        },
      },
      writeFile: (name, data) => {
        if (name.endsWith('.wasm')) binary = data;
      },
    },
  );
  return { error, stdout: text, stderr: errors, binary };
}
