'use client';
/** How much is kept, how much of it nothing refers to, and taking that away. */
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useAction } from '../kit/action';
import { call, problemOf } from '../kit/call';
import { Modal, ModalFoot } from '../kit/Modal';
import { Notice } from '../kit/Notice';
import { size } from '../kit/size';
import { counted, thousands } from '../kit/words';

const KEY = ['contents'];

export function Contents() {
  const queries = useQueryClient();
  const { data, error } = useQuery({ queryKey: KEY, queryFn: ({ signal }) => call('GET /api/contents', { signal }) });
  const { busy, problem, said, run, say } = useAction();
  const [asked, setAsked] = useState(false);
  if (error) return <Notice problem={problemOf(error)} />;
  if (!data) return <p className="text-soft">Counting…</p>;
  const { all, unused, days } = data;
  const remove = () =>
    run(async () => {
      const taken = await call('DELETE /api/contents');
      setAsked(false);
      say(`${counted(taken.contents, 'content')}, ${size(taken.bytes)}, are gone.`);
      await queries.invalidateQueries({ queryKey: KEY });
    });
  return (
    <>
      <p>
        {thousands(all.contents)} contents, {size(all.bytes)}.{' '}
        {unused.contents === 0
          ? `Something refers to each, or has within ${days} days.`
          : `Nothing refers to ${thousands(unused.contents)} of them that are older than ${days} days, ${size(unused.bytes)}.`}
      </p>
      {unused.contents > 0 && (
        <button className="button mt-2" onClick={() => setAsked(true)}>
          Remove what nothing refers to
        </button>
      )}
      <p role="status" className="mt-1 text-soft">
        {said}
      </p>
      {asked && (
        <Modal title="Remove these contents?" width={420} top="30vh" onClose={() => setAsked(false)}>
          <p>
            {counted(unused.contents, 'content')}, {size(unused.bytes)}: of arrivals that were discarded, and results
            that were made anew. No item, version, frame, arrival or rollout needs them. They cannot be brought back,
            except from a backup.
          </p>
          <Notice problem={problem} className="mt-3" />
          <ModalFoot>
            <button className="button danger" disabled={busy} onClick={() => void remove()}>
              Remove {size(unused.bytes)}
            </button>
          </ModalFoot>
        </Modal>
      )}
    </>
  );
}
