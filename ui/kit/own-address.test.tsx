import { act, fireEvent, render, screen } from '@testing-library/react';
import { useEffect } from 'react';
import { beforeEach, describe, expect, test, vi } from 'vitest';
import { offerAddress, useAddressChange, useOwnAddress } from './own-address';

type Own = ReturnType<typeof useOwnAddress>;
let own: Own;
const heard = vi.fn();

function Page({ onDrawn }: { onDrawn: (own: Own) => void }) {
  const own = useOwnAddress();
  useEffect(() => {
    onDrawn(own);
  });
  useAddressChange(heard);
  return (
    <>
      <output>{own.text}</output>
      <a href="/shelves?shelf=house">House looks</a>
      <a href="/studio">Studio</a>
      <a href="/shelves?shelf=house#end">The end of it</a>
    </>
  );
}
const shown = () => screen.getByRole('status').textContent;
const address = () => location.pathname + location.search;

beforeEach(() => {
  history.replaceState(null, '', '/shelves?q=ash');
  heard.mockReset();
  vi.stubGlobal('scrollTo', vi.fn());
  render(<Page onDrawn={(now) => (own = now)} />);
});

describe('a page whose address is its state', () => {
  test('shows what its address holds, and writes what is said', () => {
    expect(shown()).toBe('q=ash');
    act(() => own.setAddress('q=kiln'));
    expect([shown(), address()]).toEqual(['q=kiln', '/shelves?q=kiln']);
    expect(heard).toHaveBeenLastCalledWith('q=kiln');
  });

  test('keeps what it holds anyhow without being drawn anew', () => {
    act(() => own.keepAddress('q=ash&at=raku'));
    expect([shown(), address(), own.last()]).toEqual(['q=ash', '/shelves?q=ash&at=raku', 'q=ash&at=raku']);
  });

  test('is its own link’s target: a step that Back takes back', () => {
    const steps = history.length;
    fireEvent.click(screen.getByText('House looks'));
    expect([shown(), history.length]).toEqual(['shelf=house', steps + 1]);
  });

  test.each(['Studio', 'The end of it'])('leaves other links alone: %s', (words) => {
    const leave = vi.fn((event: Event) => event.preventDefault());
    document.addEventListener('click', leave);
    fireEvent.click(screen.getByText(words));
    document.removeEventListener('click', leave);
    expect(leave).toHaveBeenCalledOnce();
    expect(shown()).toBe('q=ash');
  });

  test('leaves a click alone that opens another tab', () => {
    fireEvent.click(screen.getByText('House looks'), { ctrlKey: true });
    expect(shown()).toBe('q=ash');
  });

  test('follows Back', () => {
    act(() => own.setAddress('q=kiln', true));
    history.replaceState(null, '', '/shelves?q=ash');
    act(() => void window.dispatchEvent(new PopStateEvent('popstate')));
    expect(shown()).toBe('q=ash');
  });

  test('takes what stands outside of it, while it is there', () => {
    act(() => expect(offerAddress('/shelves', 'q=glaze')).toBe(true));
    expect(shown()).toBe('q=glaze');
    expect(offerAddress('/studio', 'q=glaze')).toBe(false);
  });
});
