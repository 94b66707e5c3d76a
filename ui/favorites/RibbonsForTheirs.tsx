'use client';
/** Sets ribbons on what people at a station chose for themselves. */
import type { ListPlace } from '@/core/api/editor-lists';
import { useState } from 'react';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Modal, ModalFoot } from '../kit/Modal';
import { Notice } from '../kit/Notice';
import { counted } from '../kit/words';

interface RibbonProps {
  place: ListPlace;
  /** of the list, in words */ where: string;
  titles: readonly string[];
  may: { house: boolean; mine: boolean };
}

/** Their own choice becomes ribbons, so that it is known here and comes to other stations too. */
export function RibbonsForTheirs({ place, where, titles, may }: RibbonProps) {
  const [open, setOpen] = useState(false);
  const { busy, problem, runAndRefresh } = useAction();
  const set = async (whose: 'mine' | 'house') => {
    if (await runAndRefresh(() => call('POST /api/favorites/ribbons', { body: { ...place, whose } }))) setOpen(false);
  };
  return (
    <>
      <button className="button quiet" aria-label={`Ribbons for their own at ${where}`} onClick={() => setOpen(true)}>
        Ribbons for their own
      </button>
      {open && (
        <Modal title="Ribbons for their own favorites" onClose={() => setOpen(false)}>
          <p className="mb-2">
            {counted(titles.length, 'item')} that somebody chose at {where}: {titles.join(', ')}.
          </p>
          <p className="mb-2 text-soft">
            A ribbon of the house comes to every station’s list; a ribbon of yours to the stations that are yours.
          </p>
          <Notice problem={problem} />
          <ModalFoot>
            {may.mine && (
              <button className="button" disabled={busy} onClick={() => void set('mine')}>
                My ribbons
              </button>
            )}
            {may.house && (
              <button className="button main" disabled={busy} onClick={() => void set('house')}>
                Ribbons of the house
              </button>
            )}
          </ModalFoot>
        </Modal>
      )}
    </>
  );
}
