import type { ReactNode } from 'react';
import { pageBeginning } from '@/server/http';
import { may, type Action } from '@/server/people/roles';
import { Queries } from '@/ui/kit/Queries';
import { Toasts } from '@/ui/kit/Toasts';
import { asked } from '@/ui/shell/model/screens';
import { Shell } from '@/ui/shell/Shell';

export default async function Layout({ children }: { children: ReactNode }) {
  const { person, counts, moment } = await pageBeginning();
  return (
    <Queries>
      <Toasts>
        <Shell
          person={{ name: person.name, email: person.email, role: person.role }}
          counts={counts}
          may={asked.filter((action) => may(person, action as Action))}
          moment={moment}
        >
          {children}
        </Shell>
      </Toasts>
    </Queries>
  );
}
