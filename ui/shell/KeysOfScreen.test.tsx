import { fireEvent, screen } from '@testing-library/react';
import { beforeEach, expect, test } from 'vitest';
import { draw } from '../testing/render';
import { KeysOfScreen } from './KeysOfScreen';

beforeEach(() => history.replaceState(null, '', '/bench'));

test('a question mark shows the keys of the screen; typed into a field, it is a question mark', async () => {
  draw(
    <>
      <KeysOfScreen />
      <input aria-label="Title" />
    </>,
  );
  fireEvent.keyDown(screen.getByLabelText('Title'), { key: '?' });
  expect(screen.queryByRole('dialog')).toBeNull();
  fireEvent.keyDown(document.body, { key: '?' });
  const dialog = await screen.findByRole('dialog', { name: 'Keys' });
  expect(dialog.textContent).toContain('make the column the reference');
  expect(dialog.textContent).not.toContain('choose all that was found');
});
