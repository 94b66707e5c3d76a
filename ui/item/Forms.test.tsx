import { screen } from '@testing-library/react';
import { beforeEach, expect, test } from 'vitest';
import { draw } from '../testing/render';
import { Forms, type FormShown } from './Forms';

const form = (variant: string, status: string): FormShown => ({
  versionId: variant || 'plain',
  number: 2,
  variant,
  purpose: 'for any photo',
  status,
  selvedge: null,
});
const forms = [form('', 'approved'), form('for rendered files', 'draft')];
const href = (name: string | RegExp) => screen.getByRole('link', { name }).getAttribute('href');

beforeEach(() => history.replaceState(null, '', '/items/one?frame=f&strength=40'));

test('each form is told with what it is for and its own status, and the one shown is marked', () => {
  draw(<Forms forms={forms} shown="for rendered files" bench="/bench?x" />);
  expect(screen.getByRole('link', { current: 'page' }).textContent).toMatch(
    /^for rendered files.*for any photo.*draft/,
  );
  expect(screen.getByRole('link', { name: /^Plain form/ }).textContent).toMatch(/approved$/);
  expect(href('All forms on the bench')).toBe('/bench?x');
});

test('another form is shown on the same frame at the same strength, and can be compared with', () => {
  draw(<Forms forms={forms} shown="plain" bench={null} />);
  expect(href(/^for rendered files/)).toBe('?frame=f&strength=40&form=for+rendered+files');
  expect(href('Compare with “for rendered files”')).toBe('?frame=f&strength=40&older=for+rendered+files&newer=plain');
});
