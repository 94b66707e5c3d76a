'use client';
import { Ellipsis } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { call, problemOf, type ProblemText } from '../kit/call';
import { Menu, MenuEntry } from '../kit/Menu';
import { Notice } from '../kit/Notice';
import { fetchedWhenShown } from '../kit/fetched';
import type { DeriveFrom } from './Derive';

const Companion = fetchedWhenShown(() => import('./Companion').then((module) => module.Companion));
const Derive = fetchedWhenShown(() => import('./Derive').then((module) => module.Derive));

/** What is done more seldom with an item. */
export function ItemMenu({
  id,
  versionId,
  status,
  archived,
  derive,
}: {
  derive: DeriveFrom | null;
  id: string;
  versionId: string;
  status: string;
  archived: boolean;
}) {
  const router = useRouter();
  const [problem, setProblem] = useState<ProblemText | null>(null);
  const [making, setMaking] = useState<'form' | 'companion' | null>(null);
  const act = async (work: () => Promise<unknown>) => {
    setProblem(null);
    try {
      await work();
      router.refresh();
    } catch (error) {
      setProblem(problemOf(error));
    }
  };
  const write = () => void act(() => call('POST /api/items/:id/write', { id }));
  const retire = () => void act(() => call('POST /api/versions/:id/retire', { id: versionId }));
  const putAwayOrBack = () =>
    void act(() => call('POST /api/items/archive', { body: { items: [id], archived: !archived } }));
  return (
    <>
      <Menu title="More to do with the item" face={<Ellipsis aria-hidden size={14} />}>
        {derive && <MenuEntry words="Make another form of it" onSelect={() => setMaking('form')} />}
        {derive?.kind === 'look' && (
          <MenuEntry words="Make a preset that calls it" onSelect={() => setMaking('companion')} />
        )}
        <MenuEntry words="Write title, headings and rights into the file" onSelect={write} />
        {status !== 'retired' && <MenuEntry words="Retire this version" onSelect={retire} />}
        <MenuEntry words={archived ? 'Bring back from the archive' : 'Put into the archive'} onSelect={putAwayOrBack} />
      </Menu>
      <Notice problem={problem} className="basis-full" />
      {derive && making === 'form' && <Derive {...derive} versionId={versionId} onClose={() => setMaking(null)} />}
      {derive && making === 'companion' && (
        <Companion title={derive.title} versionId={versionId} onClose={() => setMaking(null)} />
      )}
    </>
  );
}
