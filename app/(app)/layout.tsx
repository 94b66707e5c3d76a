import type { ReactNode } from 'react';
import { navigationCounts } from '@/server/studio/service';
import { now } from '@/server/live/service';
import { signedInPerson } from '@/server/http';
import { Queries } from '@/ui/kit/Queries';
import { Shell } from '@/ui/shell/Shell';

export default async function Layout({ children }: { children: ReactNode }) {
  const person = await signedInPerson();
  const [counts, moment] = await Promise.all([navigationCounts(person), now()]);
  return (
    <Shell person={{ name: person.name, role: person.role }} counts={counts} moment={moment}>
      <Queries>{children}</Queries>
    </Shell>
  );
}
