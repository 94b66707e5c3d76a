import { act } from '@testing-library/react';
import { useState } from 'react';
import { hydrateRoot } from 'react-dom/client';
import { renderToString } from 'react-dom/server';
import { expect, test } from 'vitest';
import { must } from '@/core/must';
import { earlyChanges, tellAgain } from './early-changes';

function Form() {
  const [asked, setAsked] = useState(true);
  const [title, setTitle] = useState('Ash');
  const [kind, setKind] = useState('look');
  const [size, setSize] = useState('17');
  return (
    <form>
      <input type="checkbox" checked={asked} onChange={(event) => setAsked(event.target.checked)} />
      <input type="text" value={title} onChange={(event) => setTitle(event.target.value)} />
      <select value={kind} onChange={(event) => setKind(event.target.value)}>
        <option value="look">a look</option>
        <option value="preset">a preset</option>
      </select>
      {['17', '33'].map((points) => (
        <input key={points} type="radio" name="size" checked={size === points} onChange={() => setSize(points)} />
      ))}
      <output>{`${asked} ${title} ${kind} ${size}`}</output>
    </form>
  );
}

/** The form as the server sent it, changed by a person before the program comes, and then brought to life. */
function comesToLife(change: (of: (selector: string) => HTMLInputElement) => void, isRestored = false) {
  const place = document.body.appendChild(document.createElement('div'));
  place.innerHTML = renderToString(<Form />);
  const one = (selector: string) => must(place.querySelector<HTMLInputElement>(selector));
  change(one);
  act(() => void hydrateRoot(place, <Form />));
  const changes = earlyChanges(place);
  act(() => tellAgain(changes, isRestored));
  return { changes, told: one('output').textContent, one };
}

test('what was changed before the program came is told to it, and stays shown', () => {
  const { told, one } = comesToLife((of) => {
    of('[type=checkbox]').click();
    of('[type=text]').value = 'Amber Wash';
    of('[type=radio]:last-of-type').click();
  });
  expect(told).toBe('false Amber Wash look 33');
  expect(one('[type=checkbox]').checked).toBe(false);
  expect(one('[type=text]').value).toBe('Amber Wash');
});

test('a choice of a list is never shown otherwise than the program has it', () => {
  const { told, one } = comesToLife((of) => {
    of('select').value = 'preset';
  });
  expect(told).toBe(`true Ash ${one('select').value} 17`);
});

test('what the browser puts back into a page that is loaded again does nothing; words stay', () => {
  const { told, one } = comesToLife((of) => {
    of('[type=checkbox]').checked = false;
    of('[type=text]').value = 'Amber Wash';
  }, true);
  expect(told).toBe('true Amber Wash look 17');
  expect(one('[type=checkbox]').checked).toBe(true);
});

test('what nobody touched is not told', () => {
  expect(comesToLife(() => undefined).changes).toEqual([]);
});
