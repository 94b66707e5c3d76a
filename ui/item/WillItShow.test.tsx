import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, test, vi } from 'vitest';
import { draw } from '../testing/render';
import { refusal, serve } from '../testing/server';
import { router } from '../testing/setup';
import { WillItShow } from './WillItShow';

const photo = { name: 'Mine.jpg', camera: 'Perrin Alder', kind: 'rendered' as const, result: 'monochrome' as const };
vi.mock('./photo-asked', async (whole) => ({
  ...(await whole<typeof import('./photo-asked')>()),
  photoAskedOf: (file: File) =>
    Promise.resolve(file.name.endsWith('.jpg') ? { ...photo, maker: '', serial: '', range: null } : null),
}));

const all = { plan: true, approve: true, archive: true, convert: true, bringIn: true, runEditor: true };
const row = (cure: string, more: object = {}) => ({
  editor: 'oxbow@2',
  title: 'Oxbow 2',
  variant: '',
  station: { id: 'desk', name: 'Glaze desk' },
  version: 'v1',
  needs: ['n1'],
  answer: 'no',
  findings: [{ code: 'x', cure, hides: true, words: 'It is so', remedy: 'Do this.' }],
  ...more,
});
const answer = (cure: string, more: object = {}, launcher = true) => ({
  item: 'Kaolin',
  photo: 'Bowl',
  shelf: 's1',
  launcher,
  at: [row(cure, more)],
});

function show(found: object, may = all, others: Record<string, unknown> = {}) {
  const asked = serve({
    'GET /api/items/i1/foretell?frame=f1': found,
    'POST /api/items/i1/foretell': found,
    'POST /api/rollouts': { id: 'r1' },
    'POST /api/stations/desk/editor': {},
    'POST /api/versions/v1/approve': {},
    'POST /api/items/archive': {},
    'POST /api/shelves/s1/away': {},
    ...others,
  });
  const frames = [{ id: 'f1', name: 'Bowl', file_kind: 'camera data', camera: 'Perrin Alder' }];
  draw(<WillItShow itemId="i1" frames={frames} frame="f1" may={may} />);
  return { asked, user: userEvent.setup() };
}

describe('what stands in the way of an item', () => {
  test.each([
    ['roll out', 'Plan it', '/api/rollouts', { title: '', versions: ['v1'], stations: ['desk'] }],
    ['roll out what it needs', 'Plan that', '/api/rollouts', { title: '', versions: ['n1'], stations: ['desk'] }],
    ['approve', 'Approve it', '/api/versions/v1/approve', undefined],
    ['bring back', 'Bring it back', '/api/items/archive', { items: ['i1'], archived: false }],
    ['show shelf', 'Show the shelf', '/api/shelves/s1/away', { away: false }],
    ['start', 'Start it', '/api/stations/desk/editor', { editor: 'oxbow@2', verb: 'launch' }],
    ['take in there', 'Have it taken in', '/api/stations/desk/editor', { editor: 'oxbow@2', verb: 'import' }],
  ])('is done away with by a button: %s', async (cure, words, path, body) => {
    const { asked, user } = show(answer(cure));
    await user.click(await screen.findByRole('button', { name: `${words}: Oxbow 2 at Glaze desk` }));
    await waitFor(() => expect(asked.map((one) => one.path)).toContain(path));
    if (body) expect(asked.find((one) => one.path === path)?.body).toEqual(body);
    if (path === '/api/rollouts') expect(router.push).toHaveBeenCalledWith('/rollouts/r1');
  });

  test('an editor is quit before it is started again', async () => {
    const { asked, user } = show(answer('restart'));
    await user.click(await screen.findByRole('button', { name: /^Restart it/ }));
    await waitFor(() => {
      const verbs = asked
        .filter((one) => one.path.endsWith('/editor'))
        .map((one) => (one.body as { verb: string }).verb);
      expect(verbs).toEqual(['quit', 'launch']);
    });
  });

  test('has no button for who may not, nor where no launcher or no station is', async () => {
    show(answer('roll out'), { ...all, plan: false });
    expect(await screen.findByText('Do this.')).toBeTruthy();
    expect(screen.queryByRole('button', { name: /^Plan it/ })).toBeNull();
  });

  test('leaves real stations to the people there', async () => {
    show(answer('start', {}, false));
    expect(await screen.findByText('Do this.')).toBeTruthy();
    expect(screen.queryByRole('button', { name: /^Start it/ })).toBeNull();
  });

  test('says what the server refuses', async () => {
    const no = { code: 'encoding', message: 'Nobody has confirmed its encoding.', where: '', remedy: 'x' };
    const { user } = show(answer('approve'), all, { 'POST /api/versions/v1/approve': () => refusal(no) });
    await user.click(await screen.findByRole('button', { name: /^Approve it/ }));
    expect(await screen.findByText(/Nobody has confirmed its encoding/)).toBeTruthy();
  });
});

describe('a photo at hand', () => {
  test('is asked about by what its file says, and named in the choice', async () => {
    const { asked, user } = show(answer('roll out'));
    await user.upload(screen.getByLabelText('The photo to ask about'), new File(['x'], 'Mine.jpg'));
    expect(await screen.findByText(/Perrin Alder, rendered, without color; it was read here/)).toBeTruthy();
    await waitFor(() =>
      expect(asked.find((one) => one.method === 'POST')?.body).toEqual({
        photo: { ...photo, maker: '', serial: '', range: null },
      }),
    );
    expect(screen.getByRole('option', { name: 'Mine.jpg' })).toBeTruthy();
  });

  test('is no text file', async () => {
    const { asked, user } = show(answer('roll out'));
    await user.upload(screen.getByLabelText('The photo to ask about'), new File(['x'], 'Notes.txt'));
    expect(await screen.findByText('Notes.txt is no photo that is read here.')).toBeTruthy();
    expect(asked.every((one) => one.method === 'GET')).toBe(true);
  });
});
