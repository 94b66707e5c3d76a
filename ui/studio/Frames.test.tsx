import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test } from 'vitest';
import { draw } from '../testing/render';
import { refusal, serve } from '../testing/server';
import { Frames, type FrameInStudio } from './Frames';

const frame = (name: string, over: Partial<FrameInStudio> = {}): FrameInStudio => ({
  id: name,
  name,
  light: 'daylight',
  subject: 'ceramics',
  camera: '',
  width: 900,
  height: 600,
  archived: false,
  ...over,
});
const frames = [frame('Bowl'), frame('Lamp', { subject: '' }), frame('Old vase', { archived: true })];
const namesIn = (group: string) =>
  within(screen.getByRole('region', { name: group }))
    .getAllByRole('listitem')
    .map((item) => item.querySelector('b')?.textContent);

test('frames stand by what they show; those put away stand apart', () => {
  draw(<Frames frames={frames} may={false} />);
  expect(namesIn('ceramics')).toEqual(['Bowl']);
  expect(namesIn('Other subjects')).toEqual(['Lamp']);
  expect(namesIn('Put away')).toEqual(['Old vase']);
  expect(screen.queryByRole('button')).toBeNull();
});

test('one is put away and another brought back, each by its own name', async () => {
  const asked = serve({ 'POST /api/frames/Bowl/archive': {}, 'POST /api/frames/Old%20vase/archive': {} });
  const user = userEvent.setup();
  draw(<Frames frames={frames} may />);
  await user.click(screen.getByRole('button', { name: 'Put Bowl away' }));
  await user.click(screen.getByRole('button', { name: 'Bring Old vase back' }));
  expect(asked.map(({ body }) => body)).toEqual([{ archived: true }, { archived: false }]);
});

test('what a frame is called is said anew; a name is needed, and what the server says is shown', async () => {
  const asked = serve({
    'PATCH /api/frames/Bowl': refusal({ code: 'gone', message: 'It is gone.', where: 'Bowl', remedy: 'Reload.' }),
  });
  const user = userEvent.setup();
  draw(<Frames frames={frames} may />);
  await user.click(screen.getByRole('button', { name: 'Change Bowl' }));
  const name = screen.getByLabelText('Name');
  await user.clear(name);
  await user.click(screen.getByRole('button', { name: 'Save' }));
  expect(await screen.findByText('A frame needs a name.')).toBeTruthy();
  expect(asked).toEqual([]);
  await user.type(name, 'Blue bowl');
  await user.click(screen.getByRole('button', { name: 'Save' }));
  expect(await screen.findByText(/It is gone\./)).toBeTruthy();
  expect(asked[0]?.body).toEqual({ name: 'Blue bowl', light: 'daylight', subject: 'ceramics' });
});
