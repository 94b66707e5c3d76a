/** The agent runs with every sign-in: what each system is told, and real files and programs where they can be had. */
import { spawnSync, type SpawnSyncReturns } from 'node:child_process';
import { chmodSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { strictParser } from '@/core/xml';
import { wayOf } from './install';

let home: string;
beforeEach(() => {
  home = mkdtempSync(join(tmpdir(), 'etagere-install-'));
  mkdirSync(join(home, 'programs'));
  mkdirSync(join(home, '.etagere-agent'));
  writeFileSync(join(home, '.etagere-agent/agent.json'), JSON.stringify({ name: 'Desk', server: 'x', token: 't' }));
});
afterEach(() => rmSync(home, { recursive: true, force: true }));

const asked = (): string[] =>
  existsSync(join(home, 'asked')) ? readFileSync(join(home, 'asked'), 'utf8').trim().split('\n') : [];

/** Stands for a program of the system: notes what it was asked, and ends with a status. */
function program(name: string, status = 0): void {
  const file = join(home, 'programs', name);
  writeFileSync(file, `#!/bin/sh\necho "${name} $*" >> '${home}/asked'\necho "no such thing" >&2\nexit ${status}\n`);
  chmodSync(file, 0o755);
}
const agent = (...words: string[]): SpawnSyncReturns<string> =>
  spawnSync(process.execPath, ['dist/agent.mjs', ...words, '--root', home], {
    encoding: 'utf8',
    env: { NODE_ENV: 'test', HOME: home, PATH: `${join(home, 'programs')}:/bin:/usr/bin` },
  });

const plain = { home: '/home/x', uid: 501, node: '/usr/bin/node', agent: '/home/x/etagere-agent.mjs' };

describe('at a Linux workstation', () => {
  test('a unit of the user is written and begun; taken away, nothing of it is left', () => {
    program('systemctl');
    const { status, stdout } = agent('install', '--system', 'linux', '--rate', '500');
    expect([status, stdout]).toEqual([0, `it runs; what it says stands in ${home}/.etagere-agent/agent.log\n`]);
    const unit = join(home, '.config/systemd/user/etagere-agent.service');
    expect(readFileSync(unit, 'utf8')).toContain(
      `"run" "--root" "${home}" "--state" "${home}/.etagere-agent" "--system" "linux" "--rate" "500"`,
    );
    expect(asked().slice(-2)).toEqual([
      'systemctl --user daemon-reload',
      'systemctl --user enable --now etagere-agent.service',
    ]);
    expect(agent('uninstall', '--system', 'linux').status).toBe(0);
    expect(existsSync(unit)).toBe(false);
    expect(asked().at(-1)).toBe('systemctl --user disable --now etagere-agent.service');
  });

  test('what the system says against it is told', () => {
    program('systemctl', 1);
    const { status, stderr } = agent('install', '--system', 'linux');
    expect([status, stderr]).toEqual([
      1,
      'etagere-agent: systemctl --user daemon-reload ended with 1: no such thing\n',
    ]);
  });

  test('signs that a unit would take apart stay what they are', () => {
    const { file } = wayOf('linux', { ...plain, words: ['run', '--root', '/home/x/50% "$HOME"\\'] });
    expect(file?.text).toContain('"/home/x/50%% \\"$$HOME\\"\\\\"');
  });
});

test('at a Mac, a launch agent that is well-formed whatever its paths are', () => {
  const words = ['run', '--root', '/Users/x/<Looks> & "Co"'];
  const { file, begin } = wayOf('macos', { ...plain, words });
  const texts: string[] = [];
  const { parser } = strictParser('plist');
  let text = '';
  parser.on('opentag', () => (text = ''));
  parser.on('text', (part) => (text += part));
  parser.on('closetag', ({ local }) => local === 'string' && texts.push(text));
  parser.write(file?.text.replace(/<!DOCTYPE[^>]*>/, '') ?? '').close();
  expect(texts).toEqual(['etagere-agent', plain.node, plain.agent, ...words]);
  expect(begin).toEqual([['launchctl', 'bootstrap', 'gui/501', '/home/x/Library/LaunchAgents/etagere-agent.plist']]);
});

test('at a Windows workstation, a task at sign-in, without more rights than the account has', () => {
  program('schtasks');
  const { status } = agent('install', '--system', 'windows');
  expect(status).toBe(0);
  expect(asked().at(-2)).toMatch(/^schtasks \/Create \/F \/SC ONLOGON \/RL LIMITED \/TN etagere-agent \/TR ".*" "run"/);
  expect(asked().at(-1)).toBe('schtasks /Run /TN etagere-agent');
  const [create] = wayOf('windows', { ...plain, words: ['run', '--root', 'C:\\Users\\x "y"\\'] }).begin;
  expect(create?.at(-1)).toBe('"/usr/bin/node" "/home/x/etagere-agent.mjs" "run" "--root" "C:\\Users\\x \\"y\\"\\\\"');
});

test('nothing is installed that is not enrolled', () => {
  rmSync(join(home, '.etagere-agent/agent.json'));
  expect(agent('install', '--system', 'linux')).toMatchObject({ status: 2 });
});
