import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test } from 'vitest';
import { draw } from '../testing/render';
import { serve } from '../testing/server';
import { Proposals, type ProposalView } from './Proposals';

const proposal = (part: Partial<ProposalView> = {}): ProposalView => ({
  id: 'one',
  key: 'oxbow@2',
  title: 'Oxbow 2',
  cameFrom: 'oxbow.json, in Autumn pack',
  by: 'Odile Wren',
  at: '2026-11-20T10:00:00Z',
  isNew: false,
  differences: [{ at: 'title', before: 'Oxbow', after: 'Oxbow 2' }],
  outside: [],
  ...part,
});
const show = (part: Partial<ProposalView>, may: boolean) => {
  const asked = serve({ 'POST /api/proposals/one': {} });
  draw(<Proposals proposals={[proposal(part)]} may={may} />);
  return { asked, user: userEvent.setup() };
};

test('who may not decide sees what would change, and that it waits', () => {
  show({}, false);
  expect(screen.getByRole('table', { name: 'What would change for Oxbow 2' }).textContent).toContain('Oxbow 2');
  expect(screen.getByText('It waits for the studio lead.')).toBeTruthy();
  expect(screen.queryByRole('button', { name: 'Use this descriptor' })).toBeNull();
});

test('places outside the editor’s own folders need a word of their own', async () => {
  const { asked, user } = show({ outside: [{ what: 'place looks, linux', template: '{home}/Music' }] }, true);
  const take = screen.getByRole('button', { name: 'Use this descriptor' });
  expect((take as HTMLButtonElement).disabled).toBe(true);
  await user.click(screen.getByRole('checkbox', { name: /^These places are right/ }));
  await user.click(take);
  expect(asked.map(({ body }) => body)).toEqual([{ verb: 'take', outside: true }]);
});

test('a very long value is cut, and says how long it is', () => {
  show({ differences: [{ at: 'cameras', before: 'all', after: 'Perrin Alder, '.repeat(2000) }] }, true);
  expect(screen.getByText(/… \(28000 characters\)$/)).toBeTruthy();
});

test('of many differences the first are shown, and all on demand', async () => {
  const differences = Array.from({ length: 30 }, (_, n) => ({ at: `notes ${n}`, before: null, after: String(n) }));
  const { user } = show({ differences }, true);
  expect(screen.getAllByRole('row')).toHaveLength(9);
  await user.click(screen.getByRole('button', { name: 'Show all 30 differences' }));
  expect(screen.getAllByRole('row')).toHaveLength(31);
});
