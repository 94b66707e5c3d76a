import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, expect, test, vi } from 'vitest';
import type { Candidate } from '@/core/api/bench';
import { draw } from '../testing/render';
import { serve } from '../testing/server';
import { JudgeDialog } from './JudgeDialog';
import { emptyColumn, type Column } from './model/column';

const look: Candidate = {
  versionId: 'look-1',
  itemId: 'item-1',
  title: 'Harbor Dusk',
  kind: 'look',
  number: 2,
  status: 'approved',
  cameras: [],
  supplier: '',
  most: 150,
  usual: 100,
  fixed: false,
  rungs: [],
  noCurve: false,
  icc: '',
  shown: true,
  intention: 'evening without mud',
  roots: ['look-1'],
  doubled: false,
  notShown: [],
  missing: [],
  trim: null,
};
const column: Column = { ...emptyColumn, layers: [{ version: 'look-1', strength: 60, assumed: null }] };
const frames = [
  { id: 'f1', name: 'Quay', camera: 'Korva M4', light: 'daylight' },
  { id: 'f2', name: 'Pier', camera: 'Korva M4', light: 'daylight' },
];

function open(more: Partial<Parameters<typeof JudgeDialog>[0]> = {}) {
  const asked = serve({ 'POST /api/bench/verdict': { verdicts: 2, choices: 1, provisional: true } });
  const onDone = vi.fn();
  draw(
    <JudgeDialog
      column={column}
      name="Harbor Dusk"
      candidates={new Map([['look-1', look]])}
      frames={frames}
      blind={false}
      may={{ choice: true, edit: true }}
      onClose={vi.fn()}
      onDone={onDone}
      {...more}
    />,
  );
  return { asked, onDone, user: userEvent.setup() };
}

beforeEach(() => localStorage.clear());

test('a house choice is made for the cases at hand, each once', async () => {
  const { asked, onDone, user } = open();
  await user.click(screen.getByLabelText('it does'));
  await user.type(screen.getByLabelText('In words'), 'holds in the whites ');
  await user.click(screen.getByLabelText('advise 60 % as its usual strength'));
  await user.click(screen.getByLabelText('make it the house choice'));
  expect(screen.getByText('Cases: Korva M4, daylight')).toBeTruthy();
  await user.click(screen.getByLabelText('in any light'));
  expect(screen.getByText('Cases: Korva M4, any light')).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'Choose for 1 case' }));
  await vi.waitFor(() => expect(onDone).toHaveBeenCalledWith('2 verdicts saved, 1 house choice made'));
  expect(asked[0]?.body).toMatchObject({
    look: 'look-1',
    strength: 60,
    frames: ['f1', 'f2'],
    words: 'holds in the whites',
    asMeant: true,
    advise: true,
    chosen: true,
    choice: { client: '', anyCamera: false, anyLight: true, anyKind: false },
  });
});

test('what is not chosen is no house choice', async () => {
  const { asked, onDone, user } = open();
  await user.click(screen.getByLabelText('make it the house choice'));
  await user.click(screen.getByRole('button', { name: 'not chosen' }));
  expect(screen.getByLabelText<HTMLInputElement>('make it the house choice').disabled).toBe(true);
  await user.click(screen.getByRole('button', { name: 'Save the verdict' }));
  await vi.waitFor(() => expect(onDone).toHaveBeenCalled());
  expect(asked[0]?.body).toMatchObject({ chosen: false, choice: null, asMeant: null });
});

test('a verdict is provisional until the display was calibrated of late, which the browser keeps in mind', async () => {
  const { onDone, user } = open();
  expect(screen.getByText(/The verdict is provisional/)).toBeTruthy();
  const today = new Date().toISOString().slice(0, 10);
  await user.type(screen.getByLabelText('calibrated on'), today);
  await user.click(screen.getByRole('button', { name: 'Save the verdict' }));
  await vi.waitFor(() => expect(onDone).toHaveBeenCalled());
  expect(localStorage.getItem('etagere-calibrated')).toBe(today);
});

test('words that are too long are told before anything is sent', async () => {
  const { asked, user } = open();
  const beside = screen.getByLabelText('With or without a step beside it');
  await user.click(beside);
  await user.paste('x'.repeat(201));
  await user.click(screen.getByRole('button', { name: 'Save the verdict' }));
  expect((await screen.findByRole('alert')).textContent).toBe('At most 200 signs.');
  expect(asked).toEqual([]);
});

test('judged blind, nothing is said of what it is, and it is kept that it was so', async () => {
  const { asked, user } = open({ blind: true, name: 'Candidate B' });
  expect(screen.getByRole('dialog', { name: 'Candidate B' }).textContent).not.toMatch(/Harbor Dusk|60 %|evening/);
  expect(screen.queryByLabelText('make it the house choice')).toBeNull();
  await user.click(screen.getByRole('button', { name: 'Save the verdict' }));
  expect(asked[0]?.body).toMatchObject({ blind: true, look: 'look-1', chosen: true, choice: null });
});

test('what stands against a house choice is said before anything is filled in', () => {
  const draft = new Map([['look-1', { ...look, status: 'draft' }]]);
  open({ candidates: draft });
  expect(screen.getByText('Not yet: Harbor Dusk is a draft: approve it first.')).toBeTruthy();
  expect(screen.getByLabelText<HTMLInputElement>('make it the house choice').disabled).toBe(true);
});
