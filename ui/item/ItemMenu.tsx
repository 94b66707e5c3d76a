'use client';
import { Ellipsis } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { DropdownMenu } from 'radix-ui';
import { useState } from 'react';
import { call, problemOf, type ProblemText } from '../kit/call';
import { Notice } from '../kit/Notice';
import { Derive, type DeriveFrom } from './Derive';

const item = 'cursor-default px-3 py-1.5 outline-none data-[highlighted]:bg-verd-wash';

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
  const [deriving, setDeriving] = useState(false);
  const act = async (work: () => Promise<unknown>) => {
    setProblem(null);
    try {
      await work();
      router.refresh();
    } catch (error) {
      setProblem(problemOf(error));
    }
  };
  return (
    <>
      <DropdownMenu.Root modal={false}>
        <DropdownMenu.Trigger className="button" aria-label="More to do with the item">
          <Ellipsis aria-hidden size={14} />
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content
            align="end"
            className="z-40 min-w-[220px] border border-line bg-paper py-1"
            style={{ boxShadow: 'var(--shade)' }}
          >
            {derive && (
              <DropdownMenu.Item className={item} onSelect={() => setDeriving(true)}>
                Make another form of it
              </DropdownMenu.Item>
            )}
            <DropdownMenu.Item
              className={item}
              onSelect={() => void act(() => call('POST /api/items/:id/write', { id }))}
            >
              Write title and headings into the file
            </DropdownMenu.Item>
            {status !== 'retired' && (
              <DropdownMenu.Item
                className={item}
                onSelect={() => void act(() => call('POST /api/versions/:id/retire', { id: versionId }))}
              >
                Retire this version
              </DropdownMenu.Item>
            )}
            <DropdownMenu.Item
              className={item}
              onSelect={() =>
                void act(() => call('POST /api/items/archive', { body: { items: [id], archived: !archived } }))
              }
            >
              {archived ? 'Bring back from the archive' : 'Put into the archive'}
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      <Notice problem={problem} className="basis-full" />
      {derive && deriving && <Derive {...derive} versionId={versionId} onClose={() => setDeriving(false)} />}
    </>
  );
}
