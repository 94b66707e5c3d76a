import { describe, expect, test } from 'vitest';
import { HELP, readOptions } from './options';

const here = { home: '/home/odile', platform: 'linux' as const };
const read = (line: string) => readOptions(line.split(' ').filter(Boolean), here);

describe('what the agent is asked', () => {
  test('with no word, and with --help, it says what it can', () => {
    for (const line of ['', 'help', '--help', '-h', 'run --help']) expect(read(line)).toEqual({ help: HELP });
    for (const verb of ['enrol', 'run', 'once', 'status', 'undo']) expect(HELP).toContain(`etagere-agent ${verb}`);
  });
  test('what is usual need not be said', () => {
    expect(read('enrol --server http://x --code ABC')).toEqual({
      verb: 'enrol',
      root: '/home/odile',
      state: '/home/odile/.etagere-agent',
      system: 'linux',
      values: expect.objectContaining({ server: 'http://x', code: 'ABC' }) as unknown,
    });
    expect(readOptions(['run'], { home: '/Users/odile', platform: 'darwin' })).toMatchObject({ system: 'macos' });
    expect(readOptions(['run'], { home: '/home/odile', platform: 'win32' })).toMatchObject({ system: 'windows' });
  });
  test('what is said holds', () => {
    expect(read('once --root /srv/desk --state /srv/state --system macos --every 5')).toMatchObject({
      root: '/srv/desk',
      state: '/srv/state',
      system: 'macos',
      values: { every: '5' },
    });
  });
  test.each([
    ['dance', 'there is no verb "dance"'],
    ['run --sytem linux', "Unknown option '--sytem'"],
    ['run --system amiga', '--system must be macos, windows or linux'],
    ['run --root', '--root'],
    ['run --proxy proxy.house', '--proxy must be an address such as http://proxy.house:3128'],
  ])('%s is told in a sentence, not in a trace', (line, words) => {
    const { fault } = read(line) as { fault: string };
    expect(fault).toContain(words);
    expect(fault).not.toContain('\n');
  });
  test('on a system that Etagere does not know, it has to be said', () => {
    expect(readOptions(['run'], { home: '/', platform: 'aix' })).toEqual({
      fault: '--system must be macos, windows or linux',
    });
  });
});
