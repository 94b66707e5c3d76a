import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, test } from 'vitest';
import type { EditableItem } from '@/core/item/fields';
import { draw } from '../testing/render';
import { refusal, serve as serveAll, type Asked } from '../testing/server';
import { router } from '../testing/setup';
// fetched once here, so that no test waits for it
import './EditDialog';
import { EditItem } from './EditItem';

const item: EditableItem = {
  title: 'Tenmoku',
  short_title: '',
  sort_title: '',
  position: 0,
  headings: ['Kiln'],
  tags: [],
  description: '',
  intention: '',
  cameras: [],
  scope: { input: null, result: null },
  lenses: [],
  origin: 'bought',
  licence_id: null,
  supplier: 'Sable Row Looks',
  source: {},
  creator: '',
  rights: '',
  web_statement: '',
  contact: '',
  strength_least: 0,
  strength_usual: 100,
  strength_most: 150,
  notes: '',
};
const licences = [{ id: '0198c0de-0000-7000-8000-000000000001', name: 'One seat' }];

/** Nothing calls the item, unless said. What was read is no change, and left out of what was asked. */
function serve(answers: Record<string, unknown>, presets: object[] = []): Asked[] {
  const all = serveAll({ 'GET /api/items/tenmoku/referring': { presets }, ...answers });
  const changes: Asked[] = [];
  const push = all.push.bind(all);
  all.push = (...asked) => {
    changes.push(...asked.filter(({ method }) => method !== 'GET'));
    return push(...asked);
  };
  return changes;
}

async function open() {
  const user = userEvent.setup();
  const page = draw(<EditItem id="tenmoku" revision={4} item={item} licences={licences} />);
  /** Another person's change has come in, and the page was drawn anew. */
  const overtake = () =>
    page.rerender(
      <EditItem id="tenmoku" revision={5} item={{ ...item, title: 'Theirs', notes: 'theirs' }} licences={licences} />,
    );
  await user.click(screen.getByRole('button', { name: 'Edit' }));
  const dialog = within(await screen.findByRole('dialog', { name: 'Edit the item' }));
  const type = async (label: string, text: string) => {
    const field = dialog.getByLabelText(label);
    await user.clear(field);
    if (text) await user.type(field, text);
  };
  return { user, dialog, type, overtake, save: () => user.click(dialog.getByRole('button', { name: /^Save/ })) };
}

describe('editing an item', () => {
  test('only what was changed is sent, with what was seen', async () => {
    const asked = serve({ 'PATCH /api/items/tenmoku': { merged: [], who: '' } });
    const { type, save, user, dialog } = await open();
    await type('Title', 'Tenmoku, deep');
    await type('Tags, with commas', 'glaze, dark');
    await user.selectOptions(dialog.getByLabelText('Works on'), 'camera data');
    await save();
    expect(asked).toHaveLength(1);
    expect(asked[0]?.body).toEqual({
      revision: 4,
      base: item,
      mine: {
        title: 'Tenmoku, deep',
        tags: ['glaze', 'dark'],
        scope: { input: 'camera data', result: null },
      },
    });
    expect(screen.queryByRole('dialog')).toBeNull();
    expect(router.refresh).toHaveBeenCalled();
  });

  test('a change that comes in behind the open dialog takes nothing of what was typed, nor of what was seen', async () => {
    const asked = serve({ 'PATCH /api/items/tenmoku': { merged: [], who: '' } });
    const { type, save, overtake, dialog } = await open();
    await type('Title', 'Mine');
    overtake();
    expect(dialog.getByLabelText('Title')).toHaveProperty('value', 'Mine');
    await save();
    expect(asked[0]?.body).toMatchObject({ revision: 4, base: { title: 'Tenmoku' }, mine: { title: 'Mine' } });
  });

  test('what cannot be is said below its field, and nothing is sent', async () => {
    const asked = serve({});
    const { type, save, dialog } = await open();
    await type('Title', '');
    await save();
    expect(await dialog.findByText('An item needs a title.')).toBeTruthy();
    expect(dialog.getByLabelText(/^Title/).getAttribute('aria-invalid')).toBe('true');
    expect(asked).toEqual([]);
  });

  test('what another person changed meanwhile is shown beside one’s own, and what is chosen is sent', async () => {
    const conflict = {
      code: 'edited-meanwhile',
      message: 'Piet changed title of this item while you did.',
      where: 'Tenmoku',
      remedy: 'Choose which to keep; nothing of either is lost until you do.',
      revision: 5,
      who: 'Piet',
      fields: [{ field: 'title', base: 'Tenmoku', mine: 'Mine', theirs: 'Theirs' }],
    };
    let tries = 0;
    const asked = serve({ 'PATCH /api/items/tenmoku': () => (tries++ ? { merged: [], who: '' } : refusal(conflict)) });
    const { type, save, user, dialog } = await open();
    await type('Title', 'Mine');
    await type('Notes', 'ask Piet');
    await save();
    expect(await dialog.findByText('Piet changed title of this item while you did.')).toBeTruthy();
    await user.click(dialog.getByLabelText('theirs: Theirs'));
    await save();
    expect(asked[1]?.body).toMatchObject({
      revision: 5,
      base: { title: 'Theirs' },
      mine: { title: 'Theirs', notes: 'ask Piet' },
    });
  });

  test('what takes no strength is as made', async () => {
    const asked = serve({ 'PATCH /api/items/tenmoku': { merged: [], who: '' } });
    const { save, user, dialog } = await open();
    await user.click(dialog.getByLabelText('Takes a strength'));
    await save();
    expect(asked[0]?.body).toMatchObject({ mine: { strength_least: 100, strength_most: 100 } });
  });

  test('a rename tells which presets call it by its name, and has them written anew unless that is not wanted', async () => {
    const presets = [{ itemId: 'p', title: 'Late Call', name: 'Tenmoku', editor: 'Oxbow 2' }];
    const answers = {
      'PATCH /api/items/tenmoku': { merged: [], who: '' },
      'POST /api/items/tenmoku/referring': { written: 1, left: [] },
    };
    const asked = serve(answers, presets);
    const { type, save, dialog } = await open();
    expect((await dialog.findByRole('note')).textContent).toContain('Late Call (Oxbow 2)');
    await type('Title', 'Tenmoku, deep');
    await save();
    expect(asked.map(({ method, path }) => `${method} ${path}`)).toEqual([
      'PATCH /api/items/tenmoku',
      'POST /api/items/tenmoku/referring',
    ]);
    expect(await screen.findByText('One preset was written anew.')).toBeTruthy();
  });

  test('presets that call it stay as they are where that is said', async () => {
    const presets = [{ itemId: 'p', title: 'Late Call', name: 'Tenmoku', editor: 'Oxbow 2' }];
    const asked = serve({ 'PATCH /api/items/tenmoku': { merged: [], who: '' } }, presets);
    const { type, save, dialog, user } = await open();
    await type('Title', 'Tenmoku, deep');
    await user.click(await dialog.findByLabelText(/write it anew/));
    await save();
    expect(asked.map(({ method }) => method)).toEqual(['PATCH']);
  });

  test('nothing is written anew where the title stays', async () => {
    const presets = [{ itemId: 'p', title: 'Late Call', name: 'Tenmoku', editor: 'Oxbow 2' }];
    const asked = serve({ 'PATCH /api/items/tenmoku': { merged: [], who: '' } }, presets);
    const { type, save, dialog } = await open();
    await dialog.findByRole('note');
    await type('Notes', 'dark');
    await save();
    expect(asked.map(({ method }) => method)).toEqual(['PATCH']);
  });
});
