import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test, vi } from 'vitest';
import { draw } from '../testing/render';
import { serve } from '../testing/server';
import { ExportDialog } from './ExportDialog';

function open() {
  const asked = serve({ 'POST /api/frames/f1/exports?label=Oxbow++2': { id: 'made' } });
  const onDone = vi.fn();
  draw(<ExportDialog frames={[{ id: 'f1', name: 'Quay' }]} labels={[]} onClose={vi.fn()} onDone={onDone} />);
  const user = userEvent.setup();
  return { asked, onDone, user, bring: () => user.click(screen.getByRole('button', { name: 'Bring it in' })) };
}
const label = 'Label: the editor, and what it was made with';

test('the picture is sent as it is, its label beside it', async () => {
  const { asked, onDone, user, bring } = open();
  await user.type(screen.getByLabelText(label), ' Oxbow  2 ');
  await user.upload(screen.getByLabelText('Picture'), new File(['picture'], 'quay.jpg', { type: 'image/jpeg' }));
  await bring();
  await vi.waitFor(() => expect(onDone).toHaveBeenCalledWith('Oxbow 2'));
  expect(asked[0]?.body).toBeInstanceOf(File);
});

test('without a picture, or under a label that an address could not hold, nothing is sent', async () => {
  const { asked, user, bring } = open();
  await user.type(screen.getByLabelText(label), 'Oxbow: 2');
  await bring();
  const said = await screen.findAllByRole('alert');
  expect(said.map((alert) => alert.textContent)).toEqual([
    'A label has none of the signs ! ~ and :',
    'Choose the picture.',
  ]);
  expect(asked).toEqual([]);
});
