import { expect, test } from 'vitest';
import { localAddress } from './local-address';

test.each([
  ['/items/1?frame=2', '/items/1?frame=2'],
  ['/shelves?q=amber%20wash', '/shelves?q=amber%20wash'],
])('%s is gone to', (asked, to) => expect(localAddress(asked)).toBe(to));

test.each([
  undefined,
  '',
  'shelves',
  '/',
  '//elsewhere.example/a',
  '/\\elsewhere.example/a',
  '/\t/elsewhere.example',
  'https://elsewhere.example',
  'javascript:alert(1)',
  '/sign-in?to=/sign-in',
  '/api/items',
])('%s is not', (asked) => expect(localAddress(asked)).toBe('/shelves'));
