'use client';
import Link from 'next/link';
import { DropdownMenu } from 'radix-ui';
import '../kit/nonce';
import { call } from '../kit/call';

const initials = (name: string) =>
  name
    .split(/\s+/)
    .map((w) => w[0])
    .slice(0, 2)
    .join('')
    .toUpperCase();

export function PersonMenu({ person }: { person: { name: string; role: string } }) {
  const theme = () => {
    const next = document.documentElement.dataset.theme === 'dark' ? 'light' : 'dark';
    document.documentElement.dataset.theme = next;
    document.cookie = `theme=${next}; path=/; max-age=31536000; samesite=lax`;
  };
  const leave = async () => {
    await call('DELETE /api/session').catch(() => {});
    location.assign('/sign-in');
  };
  const row = 'flex cursor-default px-3 py-1.5 outline-none data-[highlighted]:bg-press';
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger
        className="ml-auto grid size-[27px] place-items-center rounded-full bg-[#555] text-[11px] font-semibold text-white"
        aria-label={`${person.name}, ${person.role}: menu`}
      >
        {initials(person.name)}
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          sideOffset={8}
          className="z-40 min-w-[200px] border border-line bg-paper py-1.5"
          style={{ boxShadow: 'var(--shade)' }}
        >
          <DropdownMenu.Label className="px-3 pb-2 pt-1">
            <span className="block font-serif text-[15px]">{person.name}</span>
            <span className="text-soft">{person.role}</span>
          </DropdownMenu.Label>
          <DropdownMenu.Item className={row} asChild>
            <Link href="/account">Your account</Link>
          </DropdownMenu.Item>
          <DropdownMenu.Item className={row} onSelect={theme}>
            Light or dark
          </DropdownMenu.Item>
          <DropdownMenu.Item className={row} onSelect={() => void leave()}>
            Sign out
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
