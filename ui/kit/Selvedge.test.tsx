import { readFileSync } from 'node:fs';
import { render } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import { selvedge } from '@/core/look/selvedge';
import { fixedThreads } from './fixed-threads';
import { bands, Selvedge } from './Selvedge';

const unchanged = selvedge((r, g, b, out, at) => out.set([r, g, b], at));
const drawn = (threads: [string, string][] | null): HTMLElement =>
  render(<Selvedge threads={threads} />).container.firstElementChild as HTMLElement;

describe('the threads of an item', () => {
  test('have the fixed colors of the core, in the style sheet too', () => {
    expect(unchanged.map(([fixed]) => fixed)).toEqual([...fixedThreads]);
    const sheet = readFileSync('app/globals.css', 'utf8').replace(/\s+/g, '');
    expect(sheet).toContain(`--fixed:${bands(fixedThreads).replace(/\s+/g, '')};`);
  });

  test('are drawn with what the item makes of them', () => {
    const style = drawn(unchanged).style;
    expect(style.getPropertyValue('--made')).toBe(bands(fixedThreads));
    expect(style.getPropertyValue('--fixed')).toBe('');
  });

  test('of another set of colors bring these along', () => {
    const other: [string, string][] = [
      ['#000000', '#111111'],
      ['#ffffff', '#eeeeee'],
    ];
    const style = drawn(other).style;
    expect(style.getPropertyValue('--fixed')).toBe('linear-gradient(#000000 0 50%,#ffffff 0 100%)');
    expect(style.getPropertyValue('--made')).toBe('linear-gradient(#111111 0 50%,#eeeeee 0 100%)');
  });

  test('are a plain field where there are none', () => {
    expect(drawn(null).className).toContain('bg-press');
  });
});
