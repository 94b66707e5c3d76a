import { act, renderHook } from '@testing-library/react';
import { expect, test } from 'vitest';
import { useHoped } from './hoped';

test('what was asked for is shown at once, until the server says anew what holds', () => {
  const { result, rerender } = renderHook(({ said }) => useHoped(said), { initialProps: { said: 'a' } });
  act(() => result.current[1]('b'));
  expect(result.current[0]).toBe('b');
  rerender({ said: 'a' });
  expect(result.current[0]).toBe('b');
  rerender({ said: 'c' });
  expect(result.current[0]).toBe('c');
});
