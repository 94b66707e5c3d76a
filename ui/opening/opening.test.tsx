import type { MergedRow } from '@/core/opening/merge';
import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, test } from 'vitest';
import { draw } from '../testing/render';
import { refusal, serve } from '../testing/server';
import { router } from '../testing/setup';
import { OnFrame } from './OnFrame';
import { OpeningMatrix, type OpeningList } from './OpeningMatrix';
import { StudioRules } from './StudioRules';

const any = { when: {}, start: { noise: 'color' } };
const red = { when: { camera: 'Perrin Alder, infrared' }, start: { lens: 'none' } };
const names = { cameras: ['Ondine 40'], profiles: ['Ondine 40 Standard'] };

describe('the studio’s opening rules', () => {
  test('say what a rule is for and begins with, and are moved and removed all at once', async () => {
    const user = userEvent.setup();
    const asked = serve({ 'PUT /api/opening': {} });
    draw(<StudioRules may rules={[any, red]} revision={4} names={names} />);
    expect(screen.getAllByRole('listitem').map((one) => one.textContent)).toEqual([
      expect.stringContaining('1any photonoise reduction: color'),
      expect.stringContaining('2Perrin Alder, infraredlens correction: nonenever taken: the rule for any photo stands'),
    ]);
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Move up: any photo' }).disabled).toBe(true);
    await user.click(screen.getByRole('button', { name: 'Move up: Perrin Alder, infrared' }));
    await user.click(screen.getByRole('button', { name: 'Remove the rule for any photo' }));
    expect(asked.map(({ body }) => body)).toEqual([
      { revision: 4, rules: [red, any] },
      { revision: 4, rules: [red] },
    ]);
    expect(router.refresh).toHaveBeenCalledTimes(2);
  });

  test('are added by a dialog that says what is wrong, and keeps what was typed when the server refuses', async () => {
    const user = userEvent.setup();
    const problem = { code: 'rule-twice', message: 'Two rules are for any photo.', where: 'rules', remedy: 'One.' };
    serve({ 'PUT /api/opening': () => refusal(problem) });
    draw(<StudioRules may rules={[any]} revision={1} names={names} />);
    await user.click(screen.getByRole('button', { name: 'Add a rule' }));
    const dialog = within(await screen.findByRole('dialog', { name: 'Add a rule' }));
    await user.type(dialog.getByLabelText('ISO'), '800-100');
    await user.click(dialog.getByRole('button', { name: 'Save' }));
    expect(await dialog.findByText('The range of ISO ends before it begins.')).toBeDefined();
    expect(dialog.getByText('A rule says at least one thing that a photo is begun with.')).toBeDefined();
    await user.clear(dialog.getByLabelText('ISO'));
    await user.selectOptions(dialog.getByLabelText('Base curve'), 'none');
    await user.click(dialog.getByRole('button', { name: 'Save' }));
    expect(await dialog.findByText(/Two rules are for any photo/)).toBeDefined();
    expect(dialog.getByLabelText<HTMLSelectElement>('Base curve').value).toBe('none');
  });

  test('are only read by those who may not set them', () => {
    draw(<StudioRules may={false} rules={[any]} revision={1} names={names} />);
    expect(screen.queryByRole('button')).toBeNull();
  });
});

const row = (words: string, mark: MergedRow['mark'], cells: MergedRow['cells'], unknown: string[] = []): MergedRow => ({
  words,
  mark,
  cells,
  unknown,
  isWhole: true,
});
const list = (rows: MergedRow[], state = 'in-step'): OpeningList => ({
  station: { id: 's', name: 'Model room' },
  editor: { id: 'oxbow', version: '2', title: 'Oxbow 2' },
  path: 'opening.rules',
  state,
  reason: '',
  rows,
  cannot: [],
  theirOrder: false,
});
const may = { plan: true, set: true };

describe('opening rules at a station', () => {
  test('show what comes, what stays theirs beside the studio’s, and columns of what is said alone', () => {
    draw(
      <OpeningMatrix
        may={may}
        lists={[
          list(
            [
              row('any photo', 'both', {
                lens: { is: 'none', should: 'matched', will: 'none' },
                noise: { is: 'none', should: 'color', will: 'color' },
              }),
              row('rendered SDR', 'theirs', { lens: { is: 'none', should: null, will: 'none' } }, ['glow']),
            ],
            'update-due',
          ),
        ]}
      />,
    );
    expect(screen.getAllByRole('columnheader').map((one) => one.textContent)).toEqual([
      'Station and editor',
      'For',
      'Lens correction',
      'Noise reduction',
    ]);
    const [, first, second] = screen.getAllByRole('row');
    expect(first?.textContent).toContain('none the studio’s: matched');
    expect(first?.textContent).toContain('none color');
    expect(second?.textContent).toContain('their own');
    expect(second?.textContent).toContain('and what is not known here: glow');
    expect(screen.getByRole('button', { name: 'Put the studio’s over theirs: Model room, Oxbow 2' })).toBeDefined();
  });

  test('are planned, over theirs where that is said, and a rule of theirs becomes the studio’s', async () => {
    const user = userEvent.setup();
    const asked = serve({
      'POST /api/opening/plan': { rollout: '0190a000-0000-7000-8000-000000000001' },
      'POST /api/opening/take': {},
    });
    const own = [
      row('any photo', 'taken-off', { noise: { is: null, should: 'color', will: null } }),
      row('rendered SDR', 'theirs', { lens: { is: 'none', should: null, will: 'none' } }),
    ];
    draw(<OpeningMatrix may={may} lists={[list(own)]} />);
    expect(screen.queryByRole('button', { name: /^Bring in step/ })).toBeNull();
    await user.click(screen.getByRole('button', { name: /^Make it the studio’s: rendered SDR/ }));
    await user.click(screen.getByRole('button', { name: /^Put the studio’s over theirs/ }));
    const place = { station: 's', editor: 'oxbow', version: '2' };
    expect(asked.map(({ body }) => body)).toEqual([
      { ...place, rule: 'rendered SDR' },
      { places: [place], insist: true },
    ]);
    expect(router.push).toHaveBeenCalledWith('/rollouts/0190a000-0000-7000-8000-000000000001');
  });
});

describe('a frame, as lists of rules have it begun', () => {
  const frame = { id: 'f1', name: 'LEY 0044' };
  const who = (count: number) =>
    Array.from({ length: count }, (_, n) => ({ words: `Desk ${n}, Oxbow 2`, station: `s${n}`, rule: 'any photo' }));
  const studio = { words: 'the studio', station: null, rule: '' };

  test('has a picture for each way, with how far it is from the studio’s and what it does not show', () => {
    draw(
      <OnFrame
        frame={frame}
        camera
        begun={[
          {
            beginnings: [{ start: {}, who: [studio], lens: '', database: '', needsDatabase: false, notShown: [] }],
            apart: null,
          },
          {
            beginnings: [
              {
                start: { curve: 'none' },
                who: who(1),
                lens: '',
                database: '',
                needsDatabase: true,
                notShown: ['look: Gone (nothing of that name is held)'],
              },
            ],
            apart: { mean: 4.118, p95: 9 },
          },
        ]}
        database={{ version: 'v1', title: 'Lens Bureau' }}
        unsure={[{ words: 'Room, Oxbow 2', reason: 'it is broken' }]}
      />,
    );
    const other = within(screen.getByRole('figure', { name: 'As begun by Desk 0, Oxbow 2' }));
    expect(other.getByText('ΔE00 4.12 from the studio’s on average')).toBeTruthy();
    expect(other.getByText('not shown: look: Gone (nothing of that name is held)')).toBeTruthy();
    const whole = other.getByRole('img', { name: /^(?!A piece).*, as begun by Desk 0, Oxbow 2$/ });
    expect(new URL(whole.getAttribute('src') ?? '', 'http://x').searchParams.get('start')).toBe('{"curve":"none"}');
    expect(other.getByRole('img', { name: /^A piece .* at full size/ }).getAttribute('src')).toMatch(/&piece=yes$/);
    const remedy = other.getByRole('link', { name: 'Roll out Lens Bureau there' });
    expect(remedy.getAttribute('href')).toMatch(/^\/rollouts\/new\?versions=v1&stations=/);
    expect(screen.getByText('Room, Oxbow 2: not known, since it is broken')).toBeTruthy();
    expect(screen.getByText(/No picture shows the raw engine/)).toBeTruthy();
  });

  test('names a dozen of those that begin it alike, and counts the others', () => {
    const begun = [
      {
        beginnings: [
          { start: {}, who: [studio, ...who(40)], lens: '', database: '', needsDatabase: false, notShown: [] },
        ],
        apart: null,
      },
    ];
    draw(<OnFrame frame={frame} camera={false} begun={begun} database={null} unsure={[]} />);
    expect(screen.getByText('and 29 more')).toBeTruthy();
    expect(screen.getByRole('img').getAttribute('alt')).toMatch(/Desk 1, Oxbow 2; 38 more$/);
    expect(screen.getByText(/This frame is no camera data/)).toBeTruthy();
  });
});
