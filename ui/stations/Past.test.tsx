import { fireEvent, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, test } from 'vitest';
import { must } from '@/core/must';
import { draw } from '../testing/render';
import { router } from '../testing/setup';
import { DayChoice } from './DayChoice';
import { PastChanges, PastFiles, PastLists } from './Past';

const file = {
  path: 'Oxbow/Looks/House/Scrim.cube',
  editor: 'Oxbow 2',
  title: 'Scrim' as string | null,
  item_id: 'a' as string | null,
  number: 2 as number | null,
  placed_at: new Date('2026-11-01T10:00:00Z'),
  gone_at: null as Date | null,
  rollout_id: 'r' as string | null,
  rollout: 'Looks for the kiln' as string | null,
};

describe('what lay there', () => {
  test('names the item as it was then, how long it lay, and by which rollout', () => {
    draw(
      <PastFiles
        files={[
          file,
          { ...file, path: 'b', item_id: null, gone_at: new Date('2026-11-03T10:00:00Z') },
          { ...file, path: 'c', title: null, number: null, rollout_id: null, rollout: null },
        ]}
      />,
    );
    const [first, gone, theirs] = [1, 2, 3].map((n) => must(screen.getAllByRole('row')[n])) as [
      HTMLElement,
      HTMLElement,
      HTMLElement,
    ];
    expect(within(first).getByRole('link', { name: 'Scrim, version 2' }).getAttribute('href')).toBe('/items/a');
    expect(first.textContent).toContain('and lies there still');
    expect(within(first).getByRole('link', { name: 'Looks for the kiln' })).toBeTruthy();
    expect(gone.textContent).toContain('held no more');
    expect(gone.textContent).not.toContain('lies there still');
    expect(theirs.textContent).toContain('theirs, put back');
  });
  test('is changed by rollouts, each of which leads to its day', () => {
    const change = { rollout_id: 'r', title: 'Looks', at: new Date('2026-11-03T10:00:00Z'), person: 'Odile Wren' };
    draw(<PastChanges address="/p" changes={[{ ...change, put: 2, removed: 1, undoes: true }]} />);
    expect(screen.getByRole('link', { name: '2026-11-03' }).getAttribute('href')).toBe('/p?on=2026-11-03');
    expect(screen.getByRole('listitem').textContent).toContain(
      '2 files written, 1 taken away, taking another back, by Odile Wren',
    );
  });
});

describe('a day', () => {
  test('is chosen, and gone back and forth from; none is to come', async () => {
    const user = userEvent.setup();
    const { unmount } = draw(<DayChoice address="/p" day="2026-03-01" today="2026-03-02" />);
    await user.click(screen.getByRole('button', { name: 'The day before' }));
    expect(router.push).toHaveBeenLastCalledWith('/p?on=2026-02-28');
    await user.click(screen.getByRole('button', { name: 'The day after' }));
    expect(router.push).toHaveBeenLastCalledWith('/p');
    router.push.mockReset();
    for (const asked of ['0002-01-01', '2026-03-09', ''])
      fireEvent.change(screen.getByLabelText('On which day'), { target: { value: asked } });
    expect(router.push).not.toHaveBeenCalled();
    fireEvent.change(screen.getByLabelText('On which day'), { target: { value: '2026-01-31' } });
    expect(router.push).toHaveBeenLastCalledWith('/p?on=2026-01-31');
    unmount();
    draw(<DayChoice address="/p" day="2026-03-02" today="2026-03-02" />);
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'The day after' }).disabled).toBe(true);
  });
});

test('what editors’ lists gained and lost is told with both counts; where none is kept, that', () => {
  const list = { told_at: new Date(), title: 'Oxbow 2', before: 1, after: 2, gone: [], refused: [], more: 0 };
  const { rerender } = draw(<PastLists lists={[{ ...list, came: [{ path: 'p', title: 'Kaolin' }] }]} />);
  expect(screen.getByText(/Oxbow 2 listed 1 before and 2 after/).textContent).toMatch(/Came: Kaolin\./);
  rerender(<PastLists lists={[]} />);
  expect(screen.getByText(/No list has gained or lost anything/)).toBeTruthy();
});
