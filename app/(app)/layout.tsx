import type { ReactNode } from 'react';
import { navigationCounts } from '@/server/counts';
import { newestEvent } from '@/server/live/service';
import { person } from '@/server/web';
import { Shell } from '@/ui/frame/Shell';

export default async function Layout({ children }: { children: ReactNode }) {
  const p = await person();
  return (
    <Shell person={{ name: p.name, role: p.role }} counts={await navigationCounts(p)} event={await newestEvent()}>
      {children}
    </Shell>
  );
}
