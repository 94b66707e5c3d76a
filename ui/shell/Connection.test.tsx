import { act, fireEvent, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, expect, test, vi } from 'vitest';
import { call, problemOf } from '../kit/call';
import { noteAnswered } from '../kit/connection';
import { draw } from '../testing/render';
import { router } from '../testing/setup';
import { Connection } from './Connection';

afterEach(() => act(() => noteAnswered()));

/** A server that is there, or not. */
function server() {
  const state = { there: true };
  vi.stubGlobal('fetch', async () => {
    if (!state.there) throw new TypeError('Failed to fetch');
    return new Response('{}');
  });
  return state;
}

const page = (
  <>
    <Connection />
    <input aria-label="Title" />
    <a href="/shelves" onClick={(event) => event.preventDefault()}>
      Shelves
    </a>
  </>
);

test('a call without an answer is told by a banner, and what is typed stays; it goes on when there is an answer', async () => {
  const state = server();
  draw(page);
  const user = userEvent.setup();
  await user.type(screen.getByLabelText('Title'), 'Kiln');
  expect(screen.queryByRole('alert')).toBeNull();

  state.there = false;
  const fault = await call('GET /api/events').catch(problemOf);
  expect(fault).toMatchObject({ code: 'offline', where: '' });
  expect((await screen.findByRole('alert')).textContent).toContain('The server does not answer.');
  expect(screen.getByLabelText<HTMLInputElement>('Title').value).toBe('Kiln');

  state.there = true;
  await user.click(screen.getByRole('button', { name: 'Try now' }));
  await waitFor(() => expect(screen.queryByRole('alert')).toBeNull());
  expect(await screen.findByText('Etagere answers again.')).toBeTruthy();
  expect(router.refresh).toHaveBeenCalledOnce();
});

test('no link leads away while the server is gone', async () => {
  const state = server();
  const followed = vi.fn();
  draw(
    <>
      <Connection />
      <a href="/shelves" onClick={followed}>
        Shelves
      </a>
    </>,
  );
  state.there = false;
  act(() => void window.dispatchEvent(new Event('offline')));
  await screen.findByRole('alert');
  fireEvent.click(screen.getByRole('link', { name: 'Shelves' }));
  expect(followed).not.toHaveBeenCalled();
});

test('one call that breaks off while the server is there is no reason for a banner', async () => {
  let first = true;
  vi.stubGlobal('fetch', async () => {
    if (!first) return new Response('{}');
    first = false;
    throw new TypeError('Failed to fetch');
  });
  draw(page);
  await call('GET /api/events').catch(() => {});
  await new Promise((done) => setTimeout(done, 50));
  expect(screen.queryByRole('alert')).toBeNull();
});
