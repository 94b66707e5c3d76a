/** Draws a component as it stands in the application: with the cache of what screens fetch, and toasts. */
import { QueryClientProvider } from '@tanstack/react-query';
import { render, renderHook, type RenderHookResult, type RenderResult } from '@testing-library/react';
import type { ReactNode } from 'react';
import { newQueryClient } from '../kit/Queries';
import { Toasts } from '../kit/Toasts';

function around(): ({ children }: { children: ReactNode }) => ReactNode {
  const client = newQueryClient();
  return function Application({ children }) {
    return (
      <QueryClientProvider client={client}>
        <Toasts>{children}</Toasts>
      </QueryClientProvider>
    );
  };
}

export const draw = (component: ReactNode): RenderResult => render(component, { wrapper: around() });

export const drawHook = <Result, Props>(
  hook: (props: Props) => Result,
  initialProps: Props,
): RenderHookResult<Result, Props> => renderHook(hook, { wrapper: around(), initialProps });
