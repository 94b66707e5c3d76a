'use client';
/** A menu behind a button, its entries, and a menu inside of it. */
import { ChevronRight } from 'lucide-react';
import Link from 'next/link';
import { DropdownMenu } from 'radix-ui';
import { useState, type KeyboardEvent, type MouseEvent, type ReactNode } from 'react';

const row = 'flex cursor-default justify-between gap-6 px-3 py-1.5 outline-none data-[highlighted]:bg-verd-wash';
const entry = `${row} data-[disabled]:text-soft`;
const sheet = 'max-h-[60vh] overflow-auto border border-line bg-paper py-1';
const floating = { boxShadow: 'var(--shade)' };

interface MenuProps {
  title: string;
  /** a sign before the title, or after it */ before?: ReactNode;
  after?: ReactNode;
  /** what stands on the button instead of the title; the title is then said to readers of screens */ face?: ReactNode;
  className?: string;
  align?: 'start' | 'end';
  children: ReactNode;
}

/**
 * Until it is opened for the first time a menu is a plain button: a page of shelves has seventy of them, and all that
 * a menu needs besides took 18 of the 74 ms in which the server painted that page.
 */
export function Menu(props: MenuProps) {
  const { title, face, className = 'button' } = props;
  const [opened, setOpened] = useState<'by pointer' | 'by key' | null>(null);
  if (opened) return <OpenedMenu {...props} className={className} byKey={opened === 'by key'} />;
  // a click of no pointer is that of Enter or Space
  const onClick = (event: MouseEvent) => setOpened(event.detail === 0 ? 'by key' : 'by pointer');
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key !== 'ArrowDown') return;
    event.preventDefault();
    setOpened('by key');
  };
  return (
    <button
      type="button"
      aria-haspopup="menu"
      aria-expanded={false}
      aria-label={face ? title : undefined}
      className={className}
      onClick={onClick}
      onKeyDown={onKeyDown}
    >
      <Face {...props} />
    </button>
  );
}

const Face = ({ title, before, after, face }: MenuProps) => (
  <>
    {before}
    {face ?? title}
    {after}
  </>
);

function OpenedMenu(props: MenuProps & { byKey: boolean }) {
  const { title, face, className, align = 'end', byKey, children } = props;
  const [takeFirst] = useState(() => (byKey ? focusFirstOnce() : undefined));
  return (
    <DropdownMenu.Root modal={false} defaultOpen>
      <DropdownMenu.Trigger className={className} {...(face ? { 'aria-label': title } : {})}>
        <Face {...props} />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          ref={takeFirst}
          align={align}
          sideOffset={4}
          className={`z-40 min-w-[200px] ${sheet}`}
          style={floating}
        >
          {children}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

/** Who opens a menu by a key is on its first entry; the menu itself knows only of keys pressed since it is there. */
function focusFirstOnce(): (sheet: HTMLElement | null) => void {
  let done = false;
  return (sheet) => {
    if (!sheet || done) return;
    done = true;
    requestAnimationFrame(() => {
      sheet.querySelector<HTMLElement>('[role^="menuitem"]:not([data-disabled])')?.focus();
    });
  };
}

interface EntryProps {
  words: string;
  beside?: string;
  off?: boolean;
  /** it takes something away */ grave?: boolean;
  onSelect: () => void;
}

export function MenuEntry({ words, beside, off = false, grave = false, onSelect }: EntryProps) {
  return (
    <DropdownMenu.Item className={grave ? `${entry} text-madder` : entry} disabled={off} onSelect={onSelect}>
      <span className="[overflow-wrap:anywhere]">{words}</span>
      {beside && <span className="text-soft">{beside}</span>}
    </DropdownMenu.Item>
  );
}

/** Leads to another screen. */
export const MenuLink = ({ words, href }: { words: string; href: string }) => (
  <DropdownMenu.Item className={entry} asChild>
    <Link href={href}>{words}</Link>
  </DropdownMenu.Item>
);

interface SwitchProps {
  words: string;
  on: boolean;
  onSwitch: () => void;
}

/** Switches something on or off; the menu stays open. */
export const MenuSwitch = ({ words, on, onSwitch }: SwitchProps) => (
  <DropdownMenu.CheckboxItem
    checked={on}
    onCheckedChange={onSwitch}
    onSelect={(event) => event.preventDefault()}
    className="flex cursor-default items-center gap-2 px-3 py-1.5 outline-none data-[highlighted]:bg-verd-wash"
  >
    <span aria-hidden className="w-4">
      {on ? '✓' : ''}
    </span>
    {words}
  </DropdownMenu.CheckboxItem>
);

export const MenuLine = () => <DropdownMenu.Separator className="my-1 border-t border-line" />;

export const MenuHead = ({ children }: { children: ReactNode }) => (
  <DropdownMenu.Label className="px-3 pb-1 pt-1.5">{children}</DropdownMenu.Label>
);

export function MenuGroup({ title, children }: { title: string; children: ReactNode }) {
  return (
    <DropdownMenu.Group>
      <DropdownMenu.Label className="px-3 pb-0.5 pt-2 text-[12px] text-soft">{title}</DropdownMenu.Label>
      {children}
    </DropdownMenu.Group>
  );
}

export function SubMenu({ title, children }: { title: string; children: ReactNode }) {
  return (
    <DropdownMenu.Sub>
      <DropdownMenu.SubTrigger className={entry}>
        {title}
        <ChevronRight aria-hidden size={13} className="self-center" />
      </DropdownMenu.SubTrigger>
      <DropdownMenu.Portal>
        <DropdownMenu.SubContent className={`z-50 min-w-[210px] ${sheet}`} style={floating}>
          {children}
        </DropdownMenu.SubContent>
      </DropdownMenu.Portal>
    </DropdownMenu.Sub>
  );
}
