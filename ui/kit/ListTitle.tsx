/** The name of a thing in a list of such, which leads to it. */
import Link from 'next/link';
import type { ReactNode } from 'react';

export const ListTitle = ({ href, children }: { href: string; children: ReactNode }) => (
  <Link href={href} className="font-serif text-[15.5px] font-medium hover:underline [overflow-wrap:anywhere]">
    {children}
  </Link>
);
