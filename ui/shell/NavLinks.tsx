'use client';
import Link from 'next/link';
import { usePathname } from 'next/navigation';
import { openTo, screens } from './model/screens';

interface Props {
  /** how much waits to be settled, by screen */ counts: Record<string, number>;
  /** the actions that whoever looks may do */ may: readonly string[];
}

export function NavLinks({ counts, may }: Props) {
  const path = usePathname();
  return screens.map((group, i) => (
    <ul key={i} className="mb-3 max-[900px]:mb-0 max-[900px]:flex max-[900px]:flex-wrap">
      {group.filter(openTo(may)).map(({ href, name, also }) => {
        const on = path.startsWith(href) || (also !== undefined && path.startsWith(also));
        const count = counts[name] ?? 0;
        return (
          <li key={href}>
            <Link
              prefetch={false}
              href={href}
              aria-current={on ? 'page' : undefined}
              className={`flex justify-between px-5 py-1.5 ${on ? 'border-l-[3px] border-verd bg-press pl-[14px] font-semibold' : 'hover:bg-press'}`}
            >
              {name}
              {count > 0 && (
                <span className="text-[12px] font-medium text-soft" aria-label={`${count} to settle`}>
                  {count}
                </span>
              )}
            </Link>
          </li>
        );
      })}
    </ul>
  ));
}
