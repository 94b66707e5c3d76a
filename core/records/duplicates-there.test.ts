import { describe, expect, it } from 'vitest';
import { duplicatesThere, type FileThere } from './duplicates-there';

const file = (path: string, sha: string, item: string | null, editor = 'Oxbow 2'): FileThere => ({
  path,
  editor,
  sha,
  ours: item === null ? null : { item, title: item.toUpperCase() },
});
const none = () => false;
const told = (files: FileThere[], isNear: (one: string, other: string) => boolean = none) =>
  duplicatesThere(files, isNear).map(({ how, keep, others }) => [how, keep.path, others.map(({ path }) => path)]);

describe('what lies twice at a station', () => {
  it('is told by its bytes: ours stays, whatever theirs is called', () => {
    expect(told([file('a old copy', '1', null), file('b', '1', 'x'), file('c', '2', 'y')])).toEqual([
      ['bytes', 'b', ['a old copy']],
    ]);
  });

  it('is not told where all of it is theirs, nor where each lies in another editor’s folders', () => {
    expect(told([file('a', '1', null), file('b', '1', null)])).toEqual([]);
    expect(told([file('a', '1', 'x'), file('b', '1', null, 'Marlstone 4')])).toEqual([]);
  });

  it('is told by the effect of two of ours in one editor, each once', () => {
    const near = (one: string, other: string) => [one, other].every((item) => ['x', 'y', 'z'].includes(item));
    const files = [file('a', '1', 'x'), file('b', '2', 'y'), file('c', '3', 'z'), file('d', '4', 'other')];
    expect(told(files, near)).toEqual([['effect', 'a', ['b', 'c']]]);
    expect(told([file('a', '1', 'x'), file('b', '2', 'y', 'Marlstone 4')], near)).toEqual([]);
    // two files of one item, such as two variants, are meant
    expect(told([file('a', '1', 'x'), file('b', '2', 'x')], () => true)).toEqual([]);
  });

  it('tells what goes by its bytes not once more by its effect', () => {
    const files = [file('a', '1', 'x'), file('b', '1', 'y'), file('c', '2', 'z')];
    expect(told(files, () => true)).toEqual([
      ['bytes', 'a', ['b']],
      ['effect', 'a', ['c']],
    ]);
  });
});
