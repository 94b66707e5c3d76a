import { act, fireEvent, screen } from '@testing-library/react';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { draw } from '../testing/render';
import { Opening } from './Opening';

beforeEach(() => {
  vi.useFakeTimers();
  history.replaceState(null, '', '/shelves');
});
afterEach(() => vi.useRealTimers());

const page = () => (
  <>
    <Opening />
    {['/items/1', '/shelves', '/api/versions/1/file', 'https://elsewhere.example/'].map((href) => (
      <a key={href} href={href} onClick={(event) => event.preventDefault()}>
        {href}
      </a>
    ))}
  </>
);
const wait = (ms: number): void =>
  void act(() => {
    vi.advanceTimersByTime(ms);
  });
const follow = (href: string, init = {}) => fireEvent.click(screen.getByText(href), init);

test('a page that is long on its way is said to be fetched; one that comes soon is not', () => {
  draw(page());
  follow('/items/1');
  wait(300);
  expect(screen.queryByRole('status')).toBeNull();
  wait(200);
  expect(screen.getByRole('status').textContent).toBe('Fetching');
});

test.each([
  ['the page that one is on', '/shelves', {}],
  ['a file', '/api/versions/1/file', {}],
  ['another place', 'https://elsewhere.example/', {}],
  ['another tab', '/items/1', { ctrlKey: true }],
])('a link to %s says nothing', (_what, href, init) => {
  draw(page());
  follow(href, init);
  wait(1000);
  expect(screen.queryByRole('status')).toBeNull();
});

test('it goes once the page is there', () => {
  const view = draw(page());
  follow('/items/1');
  wait(500);
  history.replaceState(null, '', '/items/1');
  view.rerender(page());
  expect(screen.queryByRole('status')).toBeNull();
  history.replaceState(null, '', '/shelves');
  view.rerender(page());
  expect(screen.queryByRole('status')).toBeNull();
});
