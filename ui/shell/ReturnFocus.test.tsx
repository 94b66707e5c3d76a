import { fireEvent, render, waitFor, type RenderResult } from '@testing-library/react';
import { beforeEach, expect, test } from 'vitest';
import { ReturnFocus } from './ReturnFocus';

/** A page of links, or another in its place. */
function Page({ links, list = '', beside }: { links: string[]; list?: string; beside?: string }) {
  return (
    <main>
      <ReturnFocus />
      {links.map((href) => (
        <a key={href + list} href={href} onClick={(event) => event.preventDefault()}>
          {href.split('?')[0]}
        </a>
      ))}
      {beside && <a href={beside}>Open</a>}
    </main>
  );
}

const goTo = (address: string): void => history.replaceState(null, '', address);

/** Leaves the first page by a link and comes back to a page that has these. */
function leaveAndReturn(left: string, then: string[]): RenderResult {
  goTo('/shelves');
  const view = render(<Page links={['/items/1', left]} />);
  fireEvent.click(view.getByText(left));
  goTo('/items/2');
  view.rerender(<Page links={[]} />);
  goTo('/shelves');
  view.rerender(<Page links={then} />);
  return view;
}

const focused = () => document.activeElement?.getAttribute('href') ?? null;

beforeEach(() => {
  document.body.innerHTML = '';
});

test('the link by which a page was left has the focus when somebody goes back to it', async () => {
  leaveAndReturn('/items/2', ['/items/1', '/items/2']);
  await waitFor(() => expect(focused()).toBe('/items/2'));
});

test('it is found where its address asks for another frame by now', async () => {
  leaveAndReturn('/items/2', ['/items/1?frame=9', '/items/23?frame=9', '/items/2?frame=9']);
  await waitFor(() => expect(focused()).toBe('/items/2?frame=9'));
});

test('another link to the same place does not stand in for it while it is on its way', async () => {
  const view = leaveAndReturn('/items/2', []);
  view.rerender(<Page links={[]} beside="/items/2" />);
  await new Promise((resolve) => setTimeout(resolve, 100));
  expect(focused()).toBeNull();
  view.rerender(<Page links={['/items/2']} beside="/items/2" />);
  await waitFor(() => expect(document.activeElement?.textContent).toBe('/items/2'));
});

test('a link that is drawn anew meanwhile has the focus again, unless somebody did something else', async () => {
  const view = leaveAndReturn('/items/2', ['/items/1', '/items/2']);
  await waitFor(() => expect(focused()).toBe('/items/2'));
  const draw = (list: string) => view.rerender(<Page list={list} links={['/items/1', '/items/2']} />);
  draw('anew');
  await waitFor(() => expect(focused()).toBe('/items/2'));
  fireEvent.pointerDown(document.body);
  draw('once more');
  await new Promise((resolve) => setTimeout(resolve, 60));
  expect(focused()).toBeNull();
});

test('a page that somebody goes on to keeps the focus where it is', async () => {
  goTo('/shelves');
  const view = render(<Page links={['/items/2']} />);
  fireEvent.click(view.getByText('/items/2'));
  goTo('/items/2');
  view.rerender(<Page links={['/shelves']} />);
  fireEvent.click(view.getByText('/shelves'));
  goTo('/shelves');
  view.rerender(<Page links={['/items/2']} />);
  await new Promise((resolve) => setTimeout(resolve, 50));
  expect(focused()).toBeNull();
});
