import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { render, screen, waitFor } from '@testing-library/react';
import { beforeEach, expect, test, vi } from 'vitest';
import { NotShown, notShownWords } from './NotShown';

const answers = vi.fn();
beforeEach(() => {
  answers.mockReset();
  vi.stubGlobal('fetch', answers);
});
const shown = (kind: string) =>
  render(
    <QueryClientProvider client={new QueryClient()}>
      <NotShown kind={kind} version="01a210e5-4862-76ff-8bf1-cca38cebf5bd" />
    </QueryClientProvider>,
  );

test('says which settings and which look are missing from a picture, and nothing where none is', () => {
  expect(notShownWords({ notShown: ['Grain', 'Vignette'], missing: ['Haze'] })).toBe(
    'not shown: grain, vignette; without “Haze”, which is not held',
  );
  expect(notShownWords({ notShown: [], missing: [] })).toBe('');
});

test('is asked for a preset, and for nothing else', async () => {
  answers.mockResolvedValue(Response.json({ notShown: ['Grain'], missing: [] }));
  const { unmount } = shown('look');
  expect(answers).not.toHaveBeenCalled();
  unmount();
  shown('preset');
  await waitFor(() => expect(screen.getByText('not shown: grain')).toBeDefined());
});
