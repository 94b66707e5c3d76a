import { describe, expect, test } from 'vitest';
import { Progress } from './progress';
import { tell } from './tell';

describe('an answer for people', () => {
  test('facts stand in two columns, nothing as a dash', () =>
    expect(tell({ size: 33, title: '', assumed: true })).toBe('size     33\ntitle    –\nassumed  yes\n'));

  test('a list of facts is a table', () =>
    expect(
      tell([
        { path: 'a.cube', kind: 'look' },
        { path: 'notes.txt', kind: 'document' },
      ]),
    ).toBe('path       kind\na.cube     look\nnotes.txt  document\n'));

  test('rows of numbers are numbers, whole', () =>
    expect(
      tell([
        [0.1, 0.30000000000000004],
        [1, 0],
      ]),
    ).toBe('0.1  0.30000000000000004\n1    0\n'));

  test('what takes more than a line stands below, under its name', () =>
    expect(tell({ verdict: 'caution', findings: [{ code: 'fold', figure: 2 }] })).toBe(
      'verdict  caution\n\nfindings\n  code  figure\n  fold  2\n',
    ));

  test('a page is handed on as it is', () => expect(tell('# Page\n')).toBe('# Page\n'));
});

describe('progress', () => {
  const terminal = (isTTY: boolean) => {
    const written: string[] = [];
    const stream = { isTTY, write: (text: string) => written.push(text) } as unknown as NodeJS.WriteStream;
    return { written, stream };
  };

  test('is shown on a terminal for what takes more than a second, and is gone at the end', async () => {
    const { written, stream } = terminal(true);
    const progress = new Progress(stream, 20);
    progress.at('1 of 2, a.cube');
    expect(written).toEqual([]);
    await new Promise((done) => setTimeout(done, 40));
    progress.at('2 of 2, b.cube');
    expect(written.at(-1)).toContain('2 of 2, b.cube');
    progress.end();
    expect(written.at(-1)).toBe('\r\u001b[K');
  });

  test('is no part of a file or pipe', async () => {
    const { written, stream } = terminal(false);
    const progress = new Progress(stream, 0);
    await new Promise((done) => setTimeout(done, 10));
    progress.at('1 of 2');
    progress.end();
    expect(written).toEqual([]);
  });
});
