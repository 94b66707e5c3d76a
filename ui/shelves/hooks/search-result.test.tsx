import { waitFor } from '@testing-library/react';
import { describe, expect, test, vi } from 'vitest';
import { drawHook } from '../../testing/render';
import { refusal, serve } from '../../testing/server';
import { useSearchResult, type GivenResult } from './search-result';

const result = (n: number) => ({ flat: true, spines: [], counts: { n, more: false, facets: [] } });
const given = (search: string, n: number): GivenResult => ({ search, ...result(n) });

function search(answers: Record<string, unknown>, first: { search: string; given: GivenResult }) {
  const asked = serve(answers);
  const onFault = vi.fn();
  const hook = drawHook((props: typeof first) => useSearchResult(props.search, props.given, onFault), first);
  const now = () => {
    const { counts, late, search: of } = hook.result.current;
    return { n: counts.n, late, of };
  };
  return { asked, onFault, hook, now };
}

describe('the result of a search', () => {
  test('is what came with the page, and nothing is asked', () => {
    const { now, asked } = search({}, { search: 'q=ash', given: given('q=ash', 3) });
    expect([now(), asked]).toEqual([{ n: 3, late: false, of: 'q=ash' }, []]);
  });

  test('stays until the next is here, and says that it is late', async () => {
    const page = given('q=as', 9);
    const answers = { 'GET /api/search/spines?q=ash': result(2) };
    const { hook, now } = search(answers, { search: 'q=as', given: page });
    hook.rerender({ search: 'q=ash', given: page });
    expect(now()).toEqual({ n: 9, late: true, of: 'q=as' });
    await waitFor(() => expect(now()).toEqual({ n: 2, late: false, of: 'q=ash' }));
  });

  test('is asked for anew when the page came anew, since something changed', async () => {
    let n = 2;
    const page = given('q=as', 9);
    const answers = { 'GET /api/search/spines?q=ash': () => result(n++) };
    const { hook, now } = search(answers, { search: 'q=ash', given: page });
    await waitFor(() => expect(now().late).toBe(false));
    const before = now().n;
    hook.rerender({ search: 'q=ash', given: given('q=as', 9) });
    await waitFor(() => expect(now().n).toBeGreaterThan(before));
    // and when the page itself came with it, that holds
    hook.rerender({ search: 'q=ash', given: given('q=ash', 100) });
    expect(now()).toEqual({ n: 100, late: false, of: 'q=ash' });
  });

  test('tells a fault, and the last that was found stays', async () => {
    const refuse = () => refusal({ code: 'x', message: 'No.', where: '', remedy: '' });
    const { now, onFault } = search(
      { 'GET /api/search/spines?q=ash': refuse },
      { search: 'q=ash', given: given('q=as', 9) },
    );
    await waitFor(() => expect(onFault).toHaveBeenCalledOnce());
    expect(now()).toMatchObject({ n: 9, late: true });
  });
});
