'use client';
import { call } from '../kit/call';
import { Menu, MenuEntry, MenuHead, MenuLine, MenuLink } from '../kit/Menu';

const initials = (name: string) =>
  name
    .split(/\s+/)
    .map((w) => w[0])
    .slice(0, 2)
    .join('')
    .toUpperCase();

type Theme = 'light' | 'dark' | undefined;
const themes: { theme: Theme; words: string }[] = [
  { theme: undefined, words: 'Light or dark as the system is' },
  { theme: 'light', words: 'Light' },
  { theme: 'dark', words: 'Dark' },
];

/** For this browser, until it is said otherwise. */
function setTheme(theme: Theme): void {
  if (theme) document.documentElement.dataset.theme = theme;
  else delete document.documentElement.dataset.theme;
  document.cookie = `theme=${theme ?? ''}; path=/; max-age=${theme ? 31536000 : 0}; samesite=lax`;
}

/** Painted when the menu is open, and so in a browser. */
function Themes() {
  const now = document.documentElement.dataset.theme;
  return themes.map(({ theme, words }) => (
    <MenuEntry key={words} words={words} beside={now === theme ? '✓' : ''} onSelect={() => setTheme(theme)} />
  ));
}

export function PersonMenu({ person }: { person: { name: string; role: string } }) {
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
      <MenuLine />
      <Themes />
      <MenuLine />
      <MenuEntry words="Sign out" onSelect={() => void leave()} />
    </Menu>
  );
}
