import { screen } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import { draw } from '../testing/render';
import { References, type Reference } from './References';

const reference: Reference = {
  kind: 'look',
  name: 'Haze',
  state: 'bound',
  item: { id: 'haze', title: 'Haze' },
  twice: false,
  versionId: null,
  meant: [],
};

describe('what a preset refers to', () => {
  test('and what was made from itself: the effect acts twice, and the cure is told', () => {
    draw(<References versionId="v" references={[{ ...reference, twice: true }]} mayEdit />);
    expect(screen.getByText(/the effect acts twice/)).toBeTruthy();
    expect(screen.getByRole('link', { name: 'the look’s page' }).getAttribute('href')).toBe('/items/haze');
  });
  test('and what was not: nothing is said of it', () => {
    draw(<References versionId="v" references={[reference]} mayEdit />);
    expect(screen.queryByText(/twice/)).toBeNull();
  });
});
