import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, expect, test, vi } from 'vitest';
import { Describe } from './Describe';
import { trestle as known } from './testing/trestle';

beforeEach(() => localStorage.clear());

test('what is changed is told with what was known, and proposed whole', async () => {
  const fetched = vi
    .spyOn(globalThis, 'fetch')
    .mockImplementation(() => Promise.resolve(Response.json({ id: 'p', editor: 'trestle', version: '2' })));
  render(<Describe person="p" known={known} />);
  expect(screen.getByText(/Nothing is changed/)).toBeTruthy();
  await userEvent.click(screen.getByRole('checkbox', { name: 'the camera' }));
  const table = screen.getByRole('table', { name: '1 difference from what is known' });
  expect(within(table).getByText('honours')).toBeTruthy();
  await userEvent.click(screen.getByRole('button', { name: 'Propose Trestle 2' }));
  const [, request] = fetched.mock.calls.at(-1) ?? [];
  expect(JSON.parse(String(request?.body))).toMatchObject({ editor: 'trestle', honours: ['camera'] });
  expect((await screen.findByRole('status')).textContent).toContain('Trestle 2 is proposed.');
  expect(screen.getByText(/Nothing is changed/)).toBeTruthy();
});

test('a rule that is broken is said, and nothing is proposed', async () => {
  render(<Describe person="p" known={known} />);
  const field = screen.getByRole('textbox', { name: 'looks, Linux' });
  await userEvent.clear(field);
  await userEvent.type(field, 'somewhere');
  expect(screen.getByRole('alert').textContent).toContain('{{home}'.slice(1));
  expect(screen.queryByRole('button', { name: /^Propose/ })).toBeNull();
});

test('is worked on as JSON too, and what was begun is back after a reload', async () => {
  const { unmount } = render(<Describe person="p" known={known} />);
  await userEvent.click(screen.getByRole('button', { name: 'Show its JSON' }));
  const text = screen.getByRole('textbox', { name: 'Descriptor as JSON' });
  await userEvent.clear(text);
  await userEvent.paste(JSON.stringify({ ...known, notes: 'quit it first' }));
  expect(screen.getByText('quit it first', { selector: 'td' })).toBeTruthy();
  unmount();
  render(<Describe person="p" known={known} />);
  expect(screen.getByText('What you were working on here is back.')).toBeTruthy();
  await userEvent.click(screen.getByRole('button', { name: 'Begin anew' }));
  expect(screen.getByText(/Nothing is changed/)).toBeTruthy();
});

test('JSON that the form cannot draw stays JSON, is refused in words, and breaks nothing after a reload', async () => {
  const { unmount } = render(<Describe person="p" known={known} />);
  await userEvent.click(screen.getByRole('button', { name: 'Show its JSON' }));
  const text = screen.getByRole('textbox', { name: 'Descriptor as JSON' });
  await userEvent.clear(text);
  await userEvent.paste(JSON.stringify({ ...known, title: 5, accepts: null, cameras: [1] }));
  expect(screen.getByRole('alert').textContent).toContain('Title must be');
  unmount();
  render(<Describe person="p" known={known} />);
  expect(screen.getByRole('textbox', { name: 'Descriptor as JSON' })).toBeTruthy();
  await userEvent.click(screen.getByRole('button', { name: 'Begin anew' }));
  expect(screen.getByText(/Nothing is changed/)).toBeTruthy();
});

test('what was begun before somebody else described the editor is told to be so', async () => {
  const { unmount } = render(<Describe person="p" known={known} />);
  await userEvent.click(screen.getByRole('checkbox', { name: 'the camera' }));
  expect(screen.queryByText(/described otherwise since you began/)).toBeNull();
  unmount();
  render(<Describe person="p" known={{ ...known, title: 'Trestle 2.1' }} />);
  expect(screen.getByText(/described otherwise since you began/)).toBeTruthy();
  await userEvent.click(screen.getByRole('button', { name: 'Begin anew' }));
  expect(screen.queryByText(/described otherwise since you began/)).toBeNull();
});
