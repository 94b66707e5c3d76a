import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, test, vi } from 'vitest';
import { draw } from '../testing/render';
import { serve, type Asked } from '../testing/server';
import { BulkEdit } from './BulkEdit';

const one = '018f0000-0000-7000-8000-000000000001';
const two = '018f0000-0000-7000-8000-000000000002';
const row = (id: string, before: string, after: string, problem: string | null = null) => ({
  id,
  kind: 'look',
  before,
  after,
  changes: [],
  files: [],
  problem,
});

function open(rows: (asked: Asked) => unknown[]) {
  const asked = serve({
    'POST /api/items/bulk/preview': (question: Asked) => ({ rows: rows(question) }),
    'POST /api/items/bulk': { changed: 2, undo: { first: 7, last: 8 } },
  });
  const onDone = vi.fn();
  draw(<BulkEdit items={[one, two]} licences={[]} onDone={onDone} onClose={vi.fn()} />);
  const button = screen.getByRole<HTMLButtonElement>('button', { name: 'Change 2 items' });
  return { asked, onDone, button, user: userEvent.setup() };
}

describe('many items changed at once', () => {
  test('show what they become while one types, and are changed by one click', async () => {
    const { asked, onDone, button, user } = open(({ body }) => {
      const { title } = body as { title?: { find: string; replace: string } };
      return [row(one, 'Kiln warm', title ? 'Kiln' : 'Kiln warm'), row(two, 'Ember warm', 'Ember')];
    });
    expect(button.disabled).toBe(true);
    await user.type(screen.getByLabelText('In titles, replace'), ' warm');
    await user.type(screen.getByLabelText('Add tags'), 'costume, ,tungsten');
    expect(await screen.findByText('Kiln')).toBeTruthy();
    // at every pause and not at every key
    expect(asked.filter(({ path }) => path.endsWith('/preview')).length).toBeLessThan(10);
    await user.click(button);
    await vi.waitFor(() => expect(onDone).toHaveBeenCalledWith({ changed: 2, undo: { first: 7, last: 8 } }));
    expect(asked.at(-1)?.body).toMatchObject({
      items: [one, two],
      title: { find: ' warm', replace: '', pattern: '' },
      addTags: ['costume', 'tungsten'],
      removeTags: [],
    });
  });

  test('are not changed while one of them cannot be', async () => {
    const { button, user } = open(() => [row(one, 'Kiln', 'Kiln'), row(two, 'Ember', '', 'A title is needed.')]);
    await user.type(screen.getByPlaceholderText('{title}'), 'x');
    expect(await screen.findByText('A title is needed.')).toBeTruthy();
    expect(button.disabled).toBe(true);
  });
});
