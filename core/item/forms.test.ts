import { expect, test } from 'vitest';
import { camerasInScope, inputOfForm, newestForms, scopeToWrite } from './forms';

test('each form stands by its newest version', () => {
  const versions = [
    { variant: '', number: 4 },
    { variant: '', number: 1 },
    { variant: 'for rendered files', number: 3 },
    { variant: 'for rendered files', number: 2 },
  ];
  expect(newestForms(versions).map(({ number }) => number)).toEqual([4, 3]);
});

test('what a form is for: its file counts before its mark, and that before the item', () => {
  const form = { variant: 'for rendered files', facts: {} };
  expect(inputOfForm(form, 'camera data')).toBe('rendered SDR');
  expect(inputOfForm({ ...form, facts: { fileScope: { input: 'rendered HDR' } } }, null)).toBe('rendered HDR');
  expect(inputOfForm({ ...form, facts: { fileScope: { input: 7 } } }, null)).toBe('rendered SDR');
  expect(inputOfForm({ variant: 'stronger', facts: {} }, 'camera data')).toBe('camera data');
  expect(inputOfForm({ variant: 'toString', facts: {} }, null)).toBeNull();
});

test('a file is given the photos of its form and the cameras of its item', () => {
  const plain = { variant: '', facts: {} };
  const item = { scope: { input: null, result: 'color' }, cameras: ['Perrin Alder'] };
  expect(scopeToWrite(plain, item)).toEqual({ input: null, result: 'color', cameras: ['Perrin Alder'] });
  expect(scopeToWrite({ ...plain, variant: 'for rendered files' }, { ...item, cameras: [] })).toEqual({
    input: 'rendered SDR',
    result: 'color',
  });
});

test('the cameras that a file names are read, and what is none is passed over', () => {
  expect(camerasInScope({ cameras: [' Perrin Alder', 'Perrin Alder', 7, '', 'x'.repeat(500)] })).toEqual([
    'Perrin Alder',
  ]);
  expect(camerasInScope({ cameras: 'Perrin Alder' })).toEqual([]);
  expect(camerasInScope(null)).toEqual([]);
});
