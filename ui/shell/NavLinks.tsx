'use client';
import Link from 'next/link';
import { usePathname } from 'next/navigation';

const groups = [
  [
    { href: '/intake', name: 'Intake' },
    { href: '/shelves', name: 'Shelves', also: '/items' },
    { href: '/bench', name: 'Bench' },
    { href: '/copies', name: 'Copies' },
    { href: '/coverage', name: 'Coverage' },
  ],
  [
    { href: '/stations', name: 'Stations' },
    { href: '/rollouts', name: 'Rollouts' },
  ],
  [
    { href: '/ribbons', name: 'Ribbons' },
    { href: '/activity', name: 'Activity' },
    { href: '/studio', name: 'Studio' },
  ],
];

export function NavLinks({ counts }: { counts: Record<string, number> }) {
  const path = usePathname();
  return groups.map((links, i) => (
    <ul key={i} className="mb-3">
      {links.map(({ href, name, also }: { href: string; name: string; also?: string }) => {
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
