import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { isInside, planSchema } from './protocol';
import { decide, documentation, merge, type Decision, type State } from './three-way';
import { addLines, removeLines } from './index-lines';
import { resolveTemplate } from './place-templates';

const state = fc.constantFrom<State>(null, 'A', 'B', 'C');

describe('the three-way view', () => {
  test('every combination is in the table, once', () => {
    const rows = documentation()
      .split('\n')
      .filter((l) => /^\| [–A]/.test(l));
    expect(rows).toHaveLength(15); // the ways to be alike or not, of three states that may be nothing
    expect(new Set(rows).size).toBe(15);
  });
  test.each([
    [null, 'A', null, 'put'],
    ['A', 'B', 'A', 'put'],
    ['A', null, 'A', 'remove'],
    ['A', 'A', 'A', 'in-step'],
    ['A', 'A', 'B', 'changed-there'],
    ['A', 'A', null, 'gone-there'],
    [null, null, 'A', 'theirs'],
    [null, 'A', 'A', 'in-step'],
    [null, 'A', 'B', 'conflict'],
    ['A', 'B', 'C', 'conflict'],
    ['A', 'B', null, 'conflict'],
    ['A', null, 'B', 'conflict'],
    ['A', 'B', 'B', 'in-step'],
  ] as const)('base %s, should %s, is %s: %s', (b, s, i, d) => expect(decide(b, s, i)).toBe(d));
  test('what they changed is never written over', () =>
    fc.assert(
      fc.property(state, state, state, (state, should, is) => {
        const decision = decide(state, should, is);
        if (decision === 'put' || decision === 'remove') expect(is).toBe(state);
      }),
    ));
  /** What lies there after an agent did as it was told, which does nothing but write and remove. */
  const carriedOut = (decision: Decision, should: State, is: State): State => {
    if (decision === 'put') {
      if (should === null) throw new Error('there is nothing to put');
      return should;
    }
    return decision === 'remove' ? null : is;
  };
  test('carrying a decision out brings it in step', () =>
    fc.assert(
      fc.property(state, state, state, (base, should, is) => {
        const decision = decide(base, should, is);
        fc.pre(decision === 'put' || decision === 'remove');
        expect(decide(should, should, carriedOut(decision, should, is))).toBe('in-step');
      }),
    ));
  test('where nothing is to be carried out, the next look says the same, and nobody’s work is touched', () =>
    fc.assert(
      fc.property(state, state, state, (base, should, is) => {
        const decision = decide(base, should, is);
        fc.pre(decision !== 'put' && decision !== 'remove');
        const after = carriedOut(decision, should, is);
        expect([after, decide(base, should, after)]).toEqual([is, decision]);
      }),
    ));
  test('whoever did nothing is never told of a conflict', () =>
    fc.assert(
      fc.property(state, state, (base, other) => {
        // neither where only we want a change, nor where only they made one
        expect(decide(base, other, base)).not.toBe('conflict');
        expect(decide(base, base, other)).not.toBe('conflict');
      }),
    ));
  test('macOS and Windows fold case and Unicode form, Linux only the form', () => {
    const composed = new Map([['Looks/Café.cube', 'A']]);
    const decomposed = new Map([['looks/cafe\u0301.cube', 'A']]);
    expect(merge(composed, composed, decomposed, 'macos')).toHaveLength(1);
    expect(
      merge(composed, composed, decomposed, 'linux')
        .map((r) => r.decision)
        .sort(),
    ).toEqual(['gone-there', 'theirs']);
  });
});

describe('an index of files', () => {
  test('gets lines at its end, in its own line endings, each once', () => {
    expect(addLines('OLD.cube\r\n', ['A.cube', 'old.CUBE', 'a.cube'])).toEqual({
      text: 'OLD.cube\r\nA.cube\r\n',
      added: ['A.cube'],
    });
    expect(addLines('', ['A'])).toEqual({ text: 'A\n', added: ['A'] });
    expect(addLines('x', ['A']).text).toBe('x\nA\n');
  });
  test('taken out again, it is byte for byte what it was, whatever others added', () =>
    fc.assert(
      fc.property(
        fc.array(fc.stringMatching(/^[a-z]{1,6}$/)),
        fc.uniqueArray(fc.stringMatching(/^[A-Z]{1,4}9$/)),
        (theirs, ours) => {
          const before = theirs.map((t) => `${t}\n`).join('');
          const { text, added } = addLines(before, ours);
          expect(removeLines(text, added)).toBe(before);
          expect(removeLines(`${text}later\n`, added)).toBe(`${before}later\n`);
        },
      ),
    ));
});

describe('paths', () => {
  test.each(['../x', '/etc/passwd', 'C:/x', 'a/../../b', 'a\\b', 'a//b', './a', 'a\u0000b', ''])(
    '%j does not stay inside',
    (p) => expect(isInside(p)).toBe(false),
  );
  test.each(['a', 'a/b c/d.cube', 'a/..b/c', 'ä/ö'])('%j stays inside', (p) => expect(isInside(p)).toBe(true));
  test('a plan that steps out is refused by the agent', () => {
    expect(() =>
      planSchema.validateSync(
        {
          id: '01a210e5-4862-76ff-8bf1-cca38cebf5bd',
          operations: [{ n: 0, do: 'put', place: 'x', path: '../x', sha256: 'a'.repeat(64), size: 1, expect: null }],
        },
        { strict: true },
      ),
    ).toThrow(/inside/);
  });
  test('templates resolve by system', () => {
    expect(resolveTemplate('{config}/x/y', 'macos')).toBe('Library/Application Support/x/y');
    expect(resolveTemplate('{home}/Oxbow', 'linux')).toBe('Oxbow');
  });
});
