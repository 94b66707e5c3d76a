'use client';
/** Studios that restores have put aside: databases that stay until a person drops them. */
import { useState } from 'react';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Modal, ModalFoot } from '../kit/Modal';
import { Notice } from '../kit/Notice';
import { size } from '../kit/size';

export interface KeptStudio {
  name: string;
  bytes: number;
}

export function KeptStudios({ kept }: { kept: KeptStudio[] }) {
  const { busy, problem, runAndRefresh } = useAction();
  const [asked, setAsked] = useState<KeptStudio | null>(null);
  if (!kept.length) return null;
  const drop = async ({ name }: KeptStudio) => {
    if (await runAndRefresh(() => call('DELETE /api/kept/:n', { id: name }))) setAsked(null);
  };
  return (
    <>
      <p className="mb-1 mt-4 text-soft">
        What restores have put aside, each a database of its own. To have one back, see docs/operations.md.
      </p>
      <table className="list" aria-label="Put aside by restores">
        <tbody>
          {kept.map((studio) => (
            <tr key={studio.name}>
              <td className="[overflow-wrap:anywhere]">{studio.name}</td>
              <td className="text-right">{size(studio.bytes)}</td>
              <td className="text-right">
                <button className="button danger" aria-label={`Delete ${studio.name}`} onClick={() => setAsked(studio)}>
                  Delete
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {asked && (
        <Modal title="Delete it for good?" width={420} top="30vh" onClose={() => setAsked(null)}>
          <p className="[overflow-wrap:anywhere]">
            {asked.name}, {size(asked.bytes)}: the whole studio as it was before a restore. It cannot be brought back.
          </p>
          <Notice problem={problem} className="mt-3" />
          <ModalFoot>
            <button className="button danger" disabled={busy} onClick={() => void drop(asked)}>
              Delete it
            </button>
          </ModalFoot>
        </Modal>
      )}
    </>
  );
}
