/** What a page is given on its way, and what of an answer comes to the browser. */
import { IncomingMessage, ServerResponse } from 'node:http';
import { Socket } from 'node:net';
import { describe, expect, test } from 'vitest';
import { giveHeaders } from './page-headers';

function given(url: string, headers: Record<string, string> = {}) {
  const request = new IncomingMessage(new Socket());
  Object.assign(request, { url, headers, method: 'GET' });
  const response = new ServerResponse(request);
  return { answered: giveHeaders(request, response), request, response };
}

describe('a page', () => {
  test('has a policy with a nonce of its own, which Next is told in the request', () => {
    const [one, other] = [given('/shelves?q=a'), given('/shelves?q=a')];
    const policy = String(one.response.getHeader('content-security-policy'));
    expect(policy).toMatch(/script-src 'self' 'nonce-[\w+/=]{40,}' 'strict-dynamic'/);
    expect(policy).not.toMatch(/unsafe-eval'(?! *;)/);
    expect(one.request.headers['content-security-policy']).toBe(policy);
    expect(other.response.getHeader('content-security-policy')).not.toBe(policy);
  });

  test('takes no policy and no address from whoever asks', () => {
    const { request } = given('/items/1', {
      'content-security-policy': "script-src 'nonce-mine'",
      'x-address': '//evil',
    });
    expect(request.headers['content-security-policy']).not.toContain('mine');
    expect(request.headers['x-address']).toBe('/items/1');
  });

  test.each([
    ['/shelves?q=a&_rsc=1x2y', '/shelves?q=a'],
    ['/shelves?_rsc=1x2y', '/shelves'],
    ['/shelves?_rsc=1x2y&q=a&view=table', '/shelves?q=a&view=table'],
    ['/stations', '/stations'],
    // nobody's address, and no reason for the process to end
    ['//?_rsc=1', '//'],
    ['http://[::/?_rsc=1', 'http://[::/'],
  ])('is known by its address: %s', (asked, typed) => {
    expect(given(asked).request.headers['x-address']).toBe(typed);
  });

  const parts = (tree: unknown): string => encodeURIComponent(JSON.stringify(tree));

  test.each([
    ['no JSON', 'nonsense'],
    ['half of a sign', '%'],
    ['another kind of thing', parts({})],
    ['parts that are none', parts(['', { children: 1 }])],
    ['two of them', `${parts(['', {}])}, ${parts(['', {}])}`],
    ['more than a page has', parts(['', { children: ['x'.repeat(50_000), {}] }])],
  ])('is answered whole where what a browser says of the parts it shows is %s', (_, said) => {
    const headers = { rsc: '1', 'next-router-state-tree': said };
    for (const url of ['/shelves?_rsc=1x2y', '/_next/image?url=x'])
      expect(given(url, headers).request.headers).not.toHaveProperty('next-router-state-tree');
  });

  test('is answered in part where a browser says which parts it shows', () => {
    const said = parts(['', { children: ['(app)', { children: ['shelves', {}, null, 'refetch'] }] }, null, null, 16]);
    const { request } = given('/shelves?_rsc=1x2y', { 'next-router-state-tree': said });
    expect(request.headers['next-router-state-tree']).toBe(said);
  });

  test.each([
    ['/shelves?q=a%00b', '/shelves?q=ab'],
    ['//evil.example/%00', '/evil.example/'],
    ['/\\evil.example/%00', '/evil.example/'],
    ['http://evil.example/%00', '/http://evil.example/'],
  ])('with a zero character is asked for without it: %s', (asked, to) => {
    const { answered, response } = given(asked);
    expect([answered, response.statusCode, response.getHeader('location')]).toEqual([true, 307, to]);
  });
});

test.each(['/api/search?q=%00', '/api', '/_next/static/a.js', '/icon.svg?1'])(
  '%s has the usual headers alone',
  (url) => {
    const { answered, request, response } = given(url);
    expect(answered).toBe(false);
    expect(response.getHeader('x-content-type-options')).toBe('nosniff');
    expect(response.getHeader('content-security-policy')).toBeUndefined();
    expect(request.headers['x-address']).toBeUndefined();
  },
);

test('what begins like a route is a page all the same', () => {
  expect(given('/apiary').response.getHeader('content-security-policy')).toBeTruthy();
});
