import { screen } from '@testing-library/react';
import { expect, test } from 'vitest';
import { draw } from '../testing/render';
import { Events, type EventLine } from './Events';

const event = (over: Partial<EventLine>): EventLine => ({
  id: 1,
  at: '2026-11-20T10:00:00Z',
  actor: 'Odile Wren',
  subject: 'item',
  subjectId: 'one',
  action: 'approved',
  before: null,
  after: null,
  title: 'Amber Proscenium',
  ...over,
});
/** The sentence of a line, without its time. */
const told = () => screen.getAllByRole('listitem').map((line) => line.lastElementChild?.textContent);

test('a line says who did what as a sentence, with the item as a link', () => {
  draw(<Events events={[event({ after: { status: 'approved', version: 2 } })]} />);
  expect(told()).toEqual(['Odile Wren approved Amber Proscenium, version 2']);
  expect(screen.getByRole('link').getAttribute('href')).toBe('/items/one');
});

test('fields that were changed are told by their names; nothing else of what is kept comes through', () => {
  const before = { title: 'Amber', web_statement: '', revision: 3 };
  const after = { title: 'Amber Proscenium', web_statement: 'https://house.example', revision: 3 };
  draw(<Events events={[event({ action: 'renamed', before, after })]} />);
  expect(told()[0]).toBe(
    'Odile Wren renamed Amber ProsceniumTitle: Amber → Amber ProsceniumWeb statement: – → https://house.example',
  );
});

test('what is gone is told by the name that it had, and the worker is Etagere', () => {
  draw(
    <Events
      events={[
        event({ subject: 'bench', action: 'removed', before: { name: 'Two lights', state: 'rows=1' }, title: null }),
        event({ id: 2, subject: 'arrival', action: 'read', after: { entries: 9 }, actor: 'worker', title: null }),
      ]}
    />,
  );
  expect(told()).toEqual([
    'Odile Wren removed the bench Two lights',
    'Etagere read what is gone since and found 9 files in it',
  ]);
});
