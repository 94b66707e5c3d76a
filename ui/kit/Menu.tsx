'use client';
/** A menu behind a button, its entries, and a menu inside of it. */
import { ChevronRight, Plus } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import type { ReactNode } from 'react';

const entry =
  'flex cursor-default justify-between gap-6 px-3 py-1.5 outline-none data-[highlighted]:bg-verd-wash data-[disabled]:text-soft';
const sheet = 'max-h-[60vh] overflow-auto border border-line bg-paper py-1';
const floating = { boxShadow: 'var(--shade)' };

interface MenuProps {
  title: string;
  /** it adds something */ plus?: boolean;
  /** what stands on the button instead of the title */ face?: ReactNode;
  className?: string;
  align?: 'start' | 'end';
  children: ReactNode;
}

export function Menu({ title, plus = false, face, className = 'button', align = 'end', children }: MenuProps) {
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger className={className} {...(face ? { 'aria-label': title } : {})}>
        {plus && <Plus aria-hidden size={13} />}
        {face ?? title}
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align={align} className={`z-40 min-w-[220px] ${sheet}`} style={floating}>
          {children}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
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
      <span>{words}</span>
      {beside && <span className="text-soft">{beside}</span>}
    </DropdownMenu.Item>
  );
}

export const MenuLine = () => <DropdownMenu.Separator className="my-1 border-t border-line" />;

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
