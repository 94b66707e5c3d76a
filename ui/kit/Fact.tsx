import type { ReactNode } from 'react';

/** One line of a list of facts. */
export const Fact = ({ name, children }: { name: string; children: ReactNode }) => (
  <div>
    <dt>{name}</dt>
    <dd>{children}</dd>
  </div>
);
