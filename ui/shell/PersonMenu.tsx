'use client';
import { call } from '../kit/call';
import { Menu, MenuEntry, MenuHead, MenuLink } from '../kit/Menu';

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
  return (
    <Menu
      title={`${person.name}, ${person.role}: menu`}
      face={initials(person.name)}
      className="ml-auto grid size-[27px] place-items-center rounded-full bg-[#555] text-[11px] font-semibold text-white"
    >
      <MenuHead>
        <span className="block font-serif text-[15px]">{person.name}</span>
        <span className="text-soft">{person.role}</span>
      </MenuHead>
      <MenuLink words="Your account" href="/account" />
      <MenuEntry words="Light or dark" onSelect={theme} />
      <MenuEntry words="Sign out" onSelect={() => void leave()} />
    </Menu>
  );
}
