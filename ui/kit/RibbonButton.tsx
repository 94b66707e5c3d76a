'use client';
import { Bookmark } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { useOptimistic, useTransition } from 'react';
import { call } from './call';

export function RibbonButton({
  itemId,
  on,
  whose,
  may,
}: {
  itemId: string;
  on: boolean;
  whose: 'mine' | 'house';
  may: boolean;
}) {
  const router = useRouter();
  const [shown, show] = useOptimistic(on);
  const [, start] = useTransition();
  const name = whose === 'mine' ? 'My ribbon' : 'House ribbon';
  return (
    <button
      className="chip"
      aria-pressed={shown}
      disabled={!may}
      title={may ? undefined : 'Librarian or lead only'}
      onClick={() =>
        start(async () => {
          show(!on);
          await call('POST /api/items/:id/ribbon', { id: itemId, body: { on: !on, whose } }).catch(() => {});
          router.refresh();
        })
      }
    >
      <Bookmark aria-hidden size={13} fill={shown ? 'currentColor' : 'none'} />
      {name}
    </button>
  );
}
