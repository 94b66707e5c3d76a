import { spawnSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { beforeAll, describe, expect, test } from 'vitest';
import { completionOf } from './completion';
import { alone, nouns } from './nouns';
import type { Verb } from './verb';

const every: [string, Verb][] = [];
beforeAll(async () => {
  for (const [noun, { verbs }] of Object.entries(nouns))
    for (const [name, verb] of Object.entries(await verbs())) every.push([`${noun} ${name}`, verb]);
  for (const [name, { verb }] of Object.entries(alone)) every.push([name, await verb()]);
}, 60_000);
const help = (path: string) =>
  spawnSync('bin/etagere', [...path.split(' ').filter(Boolean), '--help'], { encoding: 'utf8' });

describe('each verb', () => {
  test('has an example of its own, of options that it has', () => {
    expect(every.length).toBeGreaterThan(30);
    for (const [path, { example, options = {} }] of every) {
      expect(example, path).toMatch(new RegExp(`^${path}\\b`));
      const known = [...Object.keys(options).map((name) => `--${name}`), '--json'];
      for (const flag of example.match(/ --[a-z-]+/g) ?? []) expect(known, path).toContain(flag.trim());
      if (/ -o /.test(example)) expect(Object.keys(options), path).toContain('output');
    }
  });

  test('says what it does in plain words', () => {
    for (const [path, { about }] of every) expect(about, path).toMatch(/^[^A-Z].{8,}[^.]$|^docs\//);
  });

  test('stands in docs/command-line.md', () => {
    const page = readFileSync('docs/command-line.md', 'utf8');
    const told = (path: string) => {
      const [noun = '', verb] = path.split(' ');
      return (
        page.includes(`\`${path}`) ||
        page.split('\n').some((line) => line.includes(`\`${noun} `) && !!verb && line.includes(verb))
      );
    };
    expect(every.map(([path]) => path).filter((path) => !told(path))).toEqual([]);
  });
});

describe('help', () => {
  test('is there for the whole, for a noun and for a verb, each with an example', () => {
    const whole = help('');
    expect([whole.status, whole.stderr]).toEqual([0, '']);
    for (const noun of Object.keys(nouns)) expect(whole.stdout).toContain(`  ${noun} `);
    expect(whole.stdout).toContain('For example:');
    expect(help('camera').stdout).toContain('anchor');
    for (const path of ['look convert', 'restore'])
      expect(help(path).stdout).toContain(`For example:\n  etagere ${path}`);
  });

  test('names the verbs of a noun that is used without one, or with another', () => {
    for (const words of [['look'], ['look', 'nonsense']]) {
      const { status, stderr } = spawnSync('bin/etagere', words, { encoding: 'utf8' });
      expect(status).toBe(2);
      expect(JSON.parse(stderr)).toMatchObject({
        error: { code: 'usage', remedy: expect.stringContaining('convert') as string },
      });
    }
  });
});

describe('completion', () => {
  const script = async (shell: string) =>
    (await completionOf(nouns, alone).run({ files: [shell], options: {} })) as string;

  test('of bash knows verbs, options and the words behind them', async () => {
    const asked = async (...words: string[]) => {
      const array = words.map((word) => `'${word}'`).join(' ');
      const ask = `COMP_WORDS=(${array}); COMP_CWORD=${words.length - 1}; _etagere; echo "\${COMPREPLY[@]}"`;
      const { stdout } = spawnSync('bash', ['-c', `${await script('bash')}\n${ask}`], { encoding: 'utf8' });
      return stdout.trim();
    };
    expect(await asked('etagere', 'ca')).toBe('camera');
    expect(await asked('etagere', 'look', 'con')).toBe('convert');
    expect(await asked('etagere', 'look', 'convert', '--fo')).toBe('--force --format');
    expect(await asked('etagere', 'camera', 'render', 'x.dcp', '--space', 'p')).toBe('prophoto-linear');
    expect(await asked('etagere', 'look', 'info', 'package.j')).toBe('package.json');
  });

  test('is written for zsh and fish, and for no other', async () => {
    expect(await script('zsh')).toContain('bashcompinit');
    expect(await script('fish')).toContain("-a 'prophoto-linear srgb xyz'");
    await expect(script('csh')).rejects.toMatchObject({ code: 'usage' });
  });
});
