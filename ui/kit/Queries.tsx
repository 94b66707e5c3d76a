'use client';
/** What screens fetch on their own, after the page: one cache for the tab, so that going back shows at once what was there. */
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';

/** Faults are told where they happen and asked for again by hand; what changed at the server comes by live events. */
export const newQueryClient = (): QueryClient =>
  new QueryClient({
    defaultOptions: { queries: { retry: false, refetchOnWindowFocus: false, staleTime: 10_000 } },
  });

export function Queries({ children }: { children: ReactNode }) {
  const [client] = useState(newQueryClient);
  return <QueryClientProvider client={client}>{children}</QueryClientProvider>;
}
