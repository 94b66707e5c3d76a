import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, test, vi } from 'vitest';
import { draw } from '../testing/render';
import { refusal, serve } from '../testing/server';
import { router } from '../testing/setup';
import type { Spine } from './model/spine';
// fetched once here, so that no test waits for it
import './ChosenBar';
import { Shelves } from './Shelves';
import type { ShelvesProps } from './shelves-context';

const spine = (id: string, part: Partial<Spine> = {}): Spine => ({
  id,
  versionId: `${id}-1`,
  kind: 'look',
  title: id,
  shortTitle: '',
  position: 0,
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
const may = {
  convert: true,
  rollOut: true,
  edit: true,
  shelf: true,
  archive: true,
  house: true,
  approve: true,
};
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
  steps: [],
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
/** It is fetched when something is chosen for the first time. */
const barThere = () => screen.findByRole('region', { name: 'What is chosen' });

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
    expect((await barThere()).textContent).toContain('2 chosen');
    expect(card('Ash').getAttribute('aria-label')).toMatch(/, chosen$/);
    fireEvent.keyDown(card('Ash'), { key: 'x' });
    expect(bar()?.textContent).toContain('1 chosen');
  });

  test('are moved together, and then none is chosen', async () => {
    const { user, sent } = open({
      'POST /api/shelves/items': { places: [{ item: 'Ash', shelfId: 'house', before: null }] },
    });
    for (const title of ['Ash', 'Raku']) fireEvent.keyDown(card(title), { key: 'x' });
    await user.selectOptions(within(await barThere()).getByLabelText('Move to a shelf'), 'stage');
    await waitFor(() => expect(bar()).toBeNull());
    expect(sent()).toEqual([
      { method: 'POST', path: '/api/shelves/items', body: { items: ['Ash', 'Raku'], shelfId: 'stage', before: null } },
    ]);
    expect(router.refresh).toHaveBeenCalledOnce();
  });

  test('are rolled out as far as they are approved', async () => {
    open();
    for (const title of ['Ash', 'Tenmoku']) fireEvent.keyDown(card(title), { key: 'x' });
    const link = within(await barThere()).getByRole('link', { name: /Roll out/ });
    expect(link.getAttribute('href')).toBe('/rollouts/new?versions=Ash-1');
  });

  test('by the space bar, and with Shift all up to here', async () => {
    open();
    fireEvent.keyDown(card('Ash'), { key: ' ' });
    expect((await barThere()).textContent).toContain('1 chosen');
    fireEvent.keyDown(card('Tenmoku'), { key: ' ', shiftKey: true });
    expect(bar()?.textContent).toContain('3 chosen');
    fireEvent.keyDown(card('Raku'), { key: ' ' });
    expect(bar()?.textContent).toContain('2 chosen');
  });

  test('all that was found, by Ctrl and A: what is not on the page too', async () => {
    const far = Array.from({ length: 40 }, (_, n) => spine(`Far ${n}`));
    open({ 'GET /api/items?limit=500&offset=0': { rows: [...props().given.spines, ...far] } });
    fireEvent.keyDown(card('Ash'), { key: 'a', ctrlKey: true });
    await waitFor(() => expect(bar()?.textContent).toContain('43 chosen'));
  });

  test('are approved together; what could not be is said, and the rest can be taken back', async () => {
    const left = [{ id: 'Ash', title: 'Ash', why: 'version 1 is approved already' }];
    const { user, sent } = open({
      'POST /api/items/approve': { versions: ['Tenmoku-1'], left },
      'POST /api/items/approve/undo': { changed: 1 },
    });
    for (const title of ['Ash', 'Tenmoku']) fireEvent.keyDown(card(title), { key: 'x' });
    await user.click(within(await barThere()).getByRole('button', { name: 'Approve' }));
    expect(
      await screen.findByText(/1 version approved\. 1 was not approved: Ash \(version 1 is approved already\)\./),
    ).toBeTruthy();
    expect(bar()).toBeNull();
    // the region of toasts takes the pointer a moment after its first toast stands
    await waitFor(() => user.click(screen.getByRole('button', { name: 'Undo' })));
    expect(await screen.findByText('Undone.')).toBeTruthy();
    expect(sent().map(({ path }) => path)).toEqual(['/api/items/approve', '/api/items/approve/undo']);
    expect(sent()[1]?.body).toEqual({ versions: ['Tenmoku-1'] });
  });

  test('there are none for who may do nothing with them', async () => {
    open({}, { may: { ...may, edit: false, rollOut: false, convert: false } });
    fireEvent.keyDown(card('Ash'), { key: 'x' });
    await new Promise((done) => setTimeout(done, 50));
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

describe('what is folded', () => {
  test('a shelf shows its name alone, here and after a reload', async () => {
    localStorage.clear();
    const { user } = open();
    await user.click(screen.getByRole('button', { name: 'House looks: fold' }));
    expect(screen.queryByRole('link', { name: /^Ash, look/ })).toBeNull();
    expect(JSON.parse(localStorage.getItem('etagere-folded') ?? '[]')).toEqual(['house']);
    await user.click(screen.getByRole('button', { name: 'House looks: unfold' }));
    expect(card('Ash')).toBeTruthy();
  });

  test('headings show how many stand under them', async () => {
    localStorage.clear();
    const under = (title: string) => spine(title, { headings: ['Kiln'] });
    const spines = [under('Ash'), under('Raku'), spine('Tenmoku')];
    const { user } = open({}, { given: { ...props().given, spines } });
    await user.click(screen.getByRole('button', { name: 'Kiln: fold' }));
    expect(screen.queryByRole('link', { name: /^Raku, look/ })).toBeNull();
    expect(card('Tenmoku')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Kiln: unfold 2' }));
    expect(card('Raku')).toBeTruthy();
  });
});

describe('the first steps of a studio', () => {
  const step = (name: 'people' | 'shelf' | 'delivery', done: boolean, mine = true) => ({ name, done, mine });
  test('lead on, say what is next, and are hidden when somebody has seen enough', async () => {
    const { user, sent } = open(
      { 'PATCH /api/studio/first-steps': {} },
      { steps: [step('people', true), step('shelf', false), step('delivery', false)] },
    );
    const steps = within(screen.getByRole('region', { name: 'First steps' }));
    expect(steps.getByText('1 of 3 done')).toBeTruthy();
    expect(steps.getByText(/A shelf holds what belongs together/)).toBeTruthy();
    expect(steps.getByRole('link', { name: 'Take a delivery in' }).getAttribute('href')).toBe('/intake');
    await user.click(steps.getByRole('button', { name: 'Make a shelf' }));
    // the dialogs are fetched when one is asked for
    expect(await screen.findByRole('dialog', { name: 'A new shelf' }, { timeout: 10_000 })).toBeTruthy();
    await user.keyboard('{Escape}');
    await user.click(steps.getByRole('button', { name: 'Hide' }));
    await waitFor(() => expect(sent()[0]?.body).toEqual({ hidden: true }));
  });
  test('are not in the way of a search, nor there once all is done', () => {
    open({}, { steps: [] });
    expect(screen.queryByRole('region', { name: 'First steps' })).toBeNull();
  });
});

test('one item on a shelf, and in all, is told as one', () => {
  const house = { ...shelf('house', 'House looks'), items: 1 };
  open({}, { shelves: [house, shelf('stage', 'Stage')], total: 1 });
  expect(screen.getByText('1 item')).toBeTruthy();
  expect(screen.getByText('3 items')).toBeTruthy();
  expect(screen.getByText(/^1 item on 2 shelves/)).toBeTruthy();
});
