import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test, vi } from 'vitest';
import { assumedEncoding } from '@/core/look/look';
import { draw } from '../testing/render';
import { EncodingForm } from './EncodingForm';

const takes = { primaries: 'sRGB', transfer: 'sRGB', range: 'full', referred: 'display', white: 'D65' } as const;

test('what a look gives is told apart only where a person says that it is something else', async () => {
  const onConfirm = vi.fn();
  draw(<EncodingForm encoding={assumedEncoding} busy={false} onConfirm={onConfirm} onClose={vi.fn()} />);
  const user = userEvent.setup();
  const confirm = () => user.click(screen.getByRole('button', { name: 'Confirm' }));
  await user.selectOptions(screen.getByLabelText('Transfer'), 'gamma 2.4');
  await confirm();
  await vi.waitFor(() => expect(onConfirm).toHaveBeenLastCalledWith({ ...takes, transfer: 'gamma 2.4', output: null }));

  await user.click(screen.getByLabelText('the output uses a different encoding'));
  await user.selectOptions(screen.getByLabelText('Primaries given'), 'Rec. 2020');
  await confirm();
  await vi.waitFor(() =>
    expect(onConfirm).toHaveBeenLastCalledWith({
      ...takes,
      transfer: 'gamma 2.4',
      output: { primaries: 'Rec. 2020', transfer: 'sRGB', range: 'full' },
    }),
  );

  await user.click(screen.getByLabelText('the output uses a different encoding'));
  expect(screen.queryByLabelText('Primaries given')).toBeNull();
  await confirm();
  await vi.waitFor(() => expect(onConfirm).toHaveBeenLastCalledWith({ ...takes, transfer: 'gamma 2.4', output: null }));
});
