import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, test, vi } from 'vitest';
import { draw } from '../testing/render';
import { refusal, serve } from '../testing/server';
import { router } from '../testing/setup';
import type { Spine } from './model/spine';
import { Shelves } from './Shelves';
import type { ShelvesProps } from './shelves-context';

const spine = (id: string, part: Partial<Spine> = {}): Spine => ({
  id,
  versionId: `${id}-1`,
  kind: 'look',
  title: id,
  headings: [],
  shelfId: 'house',
  shelf: 'House looks',
  number: 1,
  status: 'approved',
  selvedge: null,
  mine: false,
  house: false,
  assumed: false,
  points: 33,
  stations: 0,
  stale: false,
  fresh: false,
  matching: 3,
  language: '',
  cameras: [],
  supplier: '',
  licence: null,
  tags: [],
  creator: '',
  revision: 1,
  variants: 0,
  made: '',
  changed: '',
  ...part,
});

const shelf = (id: string, name: string) => ({ id, name, note: '', items: 3, query: null, away: false });
const may = { rollOut: true, edit: true, shelf: true, archive: true, house: true };
const props = (part: Partial<ShelvesProps> = {}): ShelvesProps => ({
  shelves: [shelf('house', 'House looks'), shelf('stage', 'Stage')],
  given: {
    search: '',
    flat: false,
    spines: [spine('Ash'), spine('Raku'), spine('Tenmoku', { status: 'draft' })],
    counts: { n: 3, more: false, facets: [] },
  },
  frames: [],
  total: 3,
  fresh: 0,
  licences: [],
  may,
  ...part,
});

function open(answers: Record<string, unknown> = {}, part: Partial<ShelvesProps> = {}) {
  const asked = serve({ 'GET /api/events?since=': { events: [], moment: '' }, ...answers });
  draw(<Shelves {...props(part)} />);
  const sent = () => asked.filter(({ method }) => method !== 'GET');
  return { user: userEvent.setup(), sent };
}
const card = (title: string) => screen.getByRole('link', { name: new RegExp(`^${title}, look`) });
const bar = () => screen.queryByRole('region', { name: 'What is chosen' });

beforeEach(() => {
  history.replaceState(null, '', '/shelves');
  vi.stubGlobal(
    'ResizeObserver',
    class {
      observe() {}
      disconnect() {}
    },
  );
});

describe('spines that are chosen', () => {
  test('by key, one by one, and put back the same way', async () => {
    open();
    expect(bar()).toBeNull();
    fireEvent.keyDown(card('Ash'), { key: 'x' });
    fireEvent.keyDown(card('Raku'), { key: 'x' });
    expect(bar()?.textContent).toContain('2 chosen');
    expect(card('Ash').getAttribute('aria-label')).toMatch(/, chosen$/);
    fireEvent.keyDown(card('Ash'), { key: 'x' });
    expect(bar()?.textContent).toContain('1 chosen');
  });

  test('are moved together, and then none is chosen', async () => {
    const { user, sent } = open({ 'POST /api/shelves/items': {} });
    for (const title of ['Ash', 'Raku']) fireEvent.keyDown(card(title), { key: 'x' });
    await user.selectOptions(within(bar() as HTMLElement).getByLabelText('Move to a shelf'), 'stage');
    await waitFor(() => expect(bar()).toBeNull());
    expect(sent()).toEqual([
      { method: 'POST', path: '/api/shelves/items', body: { items: ['Ash', 'Raku'], shelfId: 'stage', before: null } },
    ]);
    expect(router.refresh).toHaveBeenCalledOnce();
  });

  test('are rolled out as far as they are approved', () => {
    open();
    for (const title of ['Ash', 'Tenmoku']) fireEvent.keyDown(card(title), { key: 'x' });
    const link = within(bar() as HTMLElement).getByRole('link', { name: /Roll out/ });
    expect(link.getAttribute('href')).toBe('/rollouts/new?versions=Ash-1');
  });

  test('there are none for who may do nothing with them', () => {
    open({}, { may: { ...may, edit: false, rollOut: false } });
    fireEvent.keyDown(card('Ash'), { key: 'x' });
    expect(bar()).toBeNull();
  });
});

describe('a ribbon', () => {
  test('is shown at once, and taken back where the server says no', async () => {
    const refuse = () => refusal({ code: 'x', message: 'No.', where: '', remedy: '' });
    const { sent } = open({ 'POST /api/items/Ash/ribbon': refuse });
    fireEvent.keyDown(card('Ash'), { key: 'r' });
    expect(card('Ash').getAttribute('aria-label')).toContain('with your ribbon');
    await waitFor(() => expect(card('Ash').getAttribute('aria-label')).not.toContain('with your ribbon'));
    expect(sent()[0]?.body).toEqual({ on: true, whose: 'mine' });
  });
});

test('a spine moves along its shelf by Alt and an arrow; at its end there is no step', async () => {
  const { sent } = open({ 'POST /api/shelves/items': {} });
  fireEvent.keyDown(card('Raku'), { key: 'ArrowLeft', altKey: true });
  fireEvent.keyDown(card('Ash'), { key: 'ArrowLeft', altKey: true });
  await waitFor(() => expect(router.refresh).toHaveBeenCalled());
  expect(sent().map(({ body }) => body)).toEqual([{ items: ['Raku'], shelfId: 'house', before: 'Ash' }]);
});

test('the spine that is looked at is told beside them, and kept in the address', async () => {
  open();
  const hand = () => screen.getByRole('complementary', { name: 'The spine in hand' });
  expect(within(hand()).getByRole('heading', { name: 'Ash' })).toBeTruthy();
  fireEvent.focus(card('Tenmoku'));
  expect(within(hand()).getByRole('heading', { name: 'Tenmoku' })).toBeTruthy();
  await waitFor(() => expect(location.search).toBe('?at=Tenmoku'));
});
