import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, test } from 'vitest';
import { draw } from '../testing/render';
import { refusal, serve } from '../testing/server';
import { router } from '../testing/setup';
import { SeeWorking } from './SeeWorking';
import { Sighting } from './Sighting';
import { stateWith, type SightingShown } from './sightings';

const frames = [
  { id: 'wall', name: 'Wall' },
  { id: 'vessels', name: 'Vessels' },
];
const file = { path: 'Oxbow/Looks/A.cube', title: 'Amber', editor: 'Oxbow 2' };
const station = { id: 'desk', name: 'Glaze desk' };

function show(answer: unknown, files = [file]) {
  const asked = serve({
    'POST /api/stations/desk/sightings': answer,
    'POST /api/sightings/s1/result': { state: 'differs', reason: 'its picture is as it was without it' },
  });
  draw(<SeeWorking station={station} files={files} frames={frames} one={files.length === 1} />);
  return { asked, user: userEvent.setup() };
}

describe('seeing files work', () => {
  test('asks the editor for a picture of the chosen frame', async () => {
    const { asked, user } = show({ asked: [{ id: 's1', path: file.path }], left: [] });
    await user.click(screen.getByRole('button', { name: `See it working: ${file.path}` }));
    await user.selectOptions(screen.getByLabelText('Frame'), 'Vessels');
    await user.click(screen.getByRole('button', { name: 'Ask the editor' }));
    expect(asked[0]?.body).toEqual({ paths: [file.path], frame: 'vessels', by: 'editor' });
    expect(await screen.findByText(/1 picture asked for/)).toBeTruthy();
    expect(router.refresh).toHaveBeenCalled();
  });

  test('tells of each file that cannot be asked for why not', async () => {
    const other = { ...file, path: 'Oxbow/Looks/B.cube', title: 'Bleach' };
    const left = [{ path: other.path, title: 'Bleach', reason: 'Oxbow 2 does not list it yet' }];
    const { user } = show({ asked: [], left }, [file, other]);
    await user.click(screen.getByRole('button', { name: 'See them working' }));
    expect(screen.queryByRole('button', { name: 'Export it by hand' })).toBeNull();
    await user.click(screen.getByRole('button', { name: 'Ask the editors' }));
    expect(await screen.findByText('Bleach: Oxbow 2 does not list it yet.')).toBeTruthy();
  });

  test('leads a person who exports the picture, and says what came of it', async () => {
    const { asked, user } = show({ asked: [{ id: 's1', path: file.path }], left: [] });
    await user.click(screen.getByRole('button', { name: /^See it working/ }));
    await user.click(screen.getByRole('button', { name: 'Export it by hand' }));
    expect((await screen.findByRole('link', { name: 'Save the picture' })).getAttribute('href')).toBe(
      '/api/sightings/s1/picture?of=given',
    );
    await user.upload(screen.getByLabelText('The exported picture'), new File(['x'], 'x.png', { type: 'image/png' }));
    expect(await screen.findByText('Its picture is as it was without it.')).toBeTruthy();
    expect(asked.map(({ path }) => path)).toContain('/api/sightings/s1/result');
  });

  test('says what the server refuses', async () => {
    const { user } = show(() =>
      refusal({ code: 'not-found', message: 'There is no such frame.', where: '', remedy: 'x' }),
    );
    await user.click(screen.getByRole('button', { name: /^See it working/ }));
    await user.click(screen.getByRole('button', { name: 'Ask the editor' }));
    expect(await screen.findByText(/There is no such frame/)).toBeTruthy();
  });
});

describe('what was seen', () => {
  const sighting = (state: SightingShown['state'], reason = 'so'): SightingShown => ({
    id: 's1',
    state,
    reason,
    frame: 'Wall',
    by: 'editor',
  });

  test('takes the place of “listed” where it works, and of nothing else', () => {
    const listed = { state: 'listed', reason: 'it lists it' };
    expect(stateWith(listed, sighting('seen', 'as ours'))).toEqual({ state: 'seen-working', reason: 'as ours' });
    expect(stateWith(listed, sighting('differs'))).toEqual(listed);
    expect(stateWith(listed, undefined)).toEqual(listed);
    const changed = { state: 'conflict', reason: '' };
    expect(stateWith(changed, sighting('seen'))).toEqual(changed);
  });

  test('is shown with its four pictures', async () => {
    draw(<Sighting sighting={sighting('differs', 'not as ours')} title="Amber" editor="Oxbow 2" may />);
    expect(screen.getByText('not as ours')).toBeTruthy();
    await userEvent.setup().click(screen.getByRole('button', { name: 'The pictures of Amber' }));
    const pictures = screen.getAllByRole('img');
    expect(pictures.map((picture) => picture.getAttribute('src')?.split('=')[1])).toEqual([
      'given',
      'back',
      'ours',
      'difference',
    ]);
  });

  test('can be given up while nobody has answered, by who may ask', async () => {
    const asked = serve({ 'DELETE /api/sightings/s1': {} });
    const { rerender } = draw(<Sighting sighting={sighting('asked')} title="Amber" editor="Oxbow 2" may={false} />);
    expect(screen.queryByRole('button')).toBeNull();
    rerender(<Sighting sighting={sighting('asked')} title="Amber" editor="Oxbow 2" may />);
    await userEvent.setup().click(screen.getByRole('button', { name: 'Give up the picture of Amber' }));
    expect(asked.length).toBe(1);
  });
});
