import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, test, vi } from 'vitest';
import { draw } from '../testing/render';
import { serve } from '../testing/server';
import { GearForm, type Gear } from './GearForm';

const camera: Gear = {
  id: 'one',
  maker: 'Korva',
  model: 'Korva M4',
  names: ['M4', 'KORVA M4'],
  mount: 'K',
  conversion: '',
  serials: ['100'],
  sensor_width: 36,
  sensor_height: null,
};

function open(kind: 'camera' | 'lens', gear: Gear | null) {
  const asked = serve({
    'POST /api/gear/lenses': { id: 'new' },
    'PUT /api/gear/cameras/one': { id: 'one' },
    'DELETE /api/gear/cameras/one': {},
  });
  const onClose = vi.fn();
  draw(<GearForm kind={kind} gear={gear} onClose={onClose} />);
  return { asked, onClose, user: userEvent.setup() };
}

describe('a camera or a lens of the studio', () => {
  test('is sent as lists and numbers, as it was typed with commas', async () => {
    const { asked, onClose, user } = open('camera', camera);
    await user.type(screen.getByLabelText('Other names that it bears, with commas'), ', Emfour ,');
    await user.clear(screen.getByLabelText('Sensor width, mm'));
    await user.type(screen.getByLabelText('Sensor height, mm'), '24.5');
    await user.click(screen.getByRole('button', { name: 'Save' }));
    await vi.waitFor(() => expect(onClose).toHaveBeenCalledOnce());
    expect(asked[0]?.body).toEqual({
      maker: 'Korva',
      model: 'Korva M4',
      names: ['M4', 'KORVA M4', 'Emfour'],
      mount: 'K',
      conversion: '',
      serials: ['100'],
      sensor_width: null,
      sensor_height: 24.5,
    });
  });

  test('needs a model, and a sensor that could be', async () => {
    const { asked, onClose, user } = open('camera', camera);
    await user.clear(screen.getByLabelText('Model, as its files name it'));
    await user.type(screen.getByLabelText('Sensor height, mm'), '900');
    await user.click(screen.getByRole('button', { name: 'Save' }));
    const said = await screen.findAllByRole('alert');
    expect(said.map((alert) => alert.textContent)).toEqual([
      'It needs a model.',
      'The height of the sensor is in millimetres, at most 200.',
    ]);
    expect(asked).toEqual([]);
    expect(onClose).not.toHaveBeenCalled();
  });

  test('of a list, what is wrong with one of its entries stands below the field', async () => {
    const { user } = open('lens', null);
    await user.type(screen.getByLabelText('Model, as its files name it'), 'Long one');
    await user.type(screen.getByLabelText('Other names that it bears, with commas'), `short, ${'x'.repeat(121)}`);
    await user.click(screen.getByRole('button', { name: 'List it' }));
    expect((await screen.findByRole('alert')).textContent).toContain('at most 120 characters');
    expect(screen.queryByLabelText('Sensor width, mm')).toBeNull();
  });

  test('is taken off the list after a second word', async () => {
    const { asked, onClose, user } = open('camera', camera);
    await user.click(screen.getByRole('button', { name: 'Take off the list' }));
    expect(asked).toEqual([]);
    await user.click(screen.getByRole('button', { name: 'Take Korva M4 off the list' }));
    await vi.waitFor(() => expect(onClose).toHaveBeenCalledOnce());
    expect(asked[0]).toMatchObject({ method: 'DELETE', path: '/api/gear/cameras/one' });
  });
});
