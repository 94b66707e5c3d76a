'use client';
/** Items, screens and tasks by a few letters, from anywhere: Ctrl and K, or ⌘ and K. */
import { Command } from 'cmdk';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { ItemFound } from '@/core/api/search';
import { useItemsFound } from '../kit/items-found';
import { Modal } from '../kit/Modal';
import { Selvedge } from '../kit/Selvedge';
import { kindWords } from '../shelves/model/spine';
import { openTo, screens, tasks, type Screen } from './model/screens';

interface Props {
  may: readonly string[];
  onClose: () => void;
}

const MOST_ITEMS = 8;
const entry =
  'flex cursor-default items-center gap-3 px-2 py-1.5 data-[selected=true]:bg-verd-wash [overflow-wrap:anywhere]';
const heading =
  '[&_[cmdk-group-heading]]:px-2 [&_[cmdk-group-heading]]:pb-0.5 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:text-[12px] [&_[cmdk-group-heading]]:text-soft';

const bears =
  (words: string) =>
  ({ name }: Screen): boolean =>
    words
      .toLowerCase()
      .split(/\s+/)
      .every((word) => name.toLowerCase().includes(word));

export function Palette({ may, onClose }: Props) {
  const router = useRouter();
  const [typed, setTyped] = useState('');
  const words = typed.trim();
  // what answered to words that are not typed any more is not shown meanwhile: a quick Enter would open it
  const { data, isFetching: fetching } = useItemsFound({ words, most: MOST_ITEMS, keepOld: false });
  const items = data?.items ?? [];
  const go = (href: string) => {
    onClose();
    router.push(href);
  };
  const offered = (list: readonly Screen[]) => list.filter(openTo(may)).filter(bears(words));
  return (
    <Modal title="Go to" width={560} top="12vh" onClose={onClose}>
      <Command shouldFilter={false} label="Go to an item, a screen or a task" loop>
        <Command.Input
          autoFocus
          value={typed}
          onValueChange={setTyped}
          placeholder="An item, a screen, or what you want to do"
          className="field w-full"
        />
        <Command.List className="mt-2 max-h-[56vh] overflow-auto">
          {!fetching && <Command.Empty className="px-2 py-4 text-soft">Nothing has this name.</Command.Empty>}
          <Found items={items} heading={words ? 'Items' : 'Items that you had lately'} onGo={go} />
          <Ways title="Screens" ways={offered(screens.flat())} onGo={go} />
          <Ways title="Tasks" ways={offered(tasks)} onGo={go} />
        </Command.List>
      </Command>
    </Modal>
  );
}

interface FoundProps {
  items: readonly ItemFound[];
  heading: string;
  onGo: (href: string) => void;
}

function Found({ items, heading: title, onGo }: FoundProps) {
  if (!items.length) return null;
  return (
    <Command.Group heading={title} className={heading}>
      {items.map((item) => (
        <Command.Item key={item.id} value={item.id} className={entry} onSelect={() => onGo(`/items/${item.id}`)}>
          <Selvedge threads={item.selvedge} className="h-[26px] w-[32px] shrink-0" />
          <span className="min-w-0 flex-1 font-serif text-[15px]">{item.title}</span>
          <span className="shrink-0 text-[12px] text-soft">
            {kindWords[item.kind] ?? item.kind}, {item.shelf}
          </span>
        </Command.Item>
      ))}
    </Command.Group>
  );
}

interface WaysProps {
  title: string;
  ways: readonly Screen[];
  onGo: (href: string) => void;
}

function Ways({ title, ways, onGo }: WaysProps) {
  if (!ways.length) return null;
  return (
    <Command.Group heading={title} className={heading}>
      {ways.map(({ href, name }) => (
        <Command.Item key={name} value={name} className={entry} onSelect={() => onGo(href)}>
          {name}
        </Command.Item>
      ))}
    </Command.Group>
  );
}
