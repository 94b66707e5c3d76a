'use client';
/** One row made otherwise than the rest: with other points, or other settings. */
import { useState } from 'react';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Modal, ModalFoot } from '../kit/Modal';
import { Notice } from '../kit/Notice';
import { carriableOf, type Row } from './model/row';
import { Leave, Points } from './RecipeForm';

export function Otherwise({ id, row, onClose }: { id: string; row: Row; onClose: () => void }) {
  const { busy, problem, runAndRefresh } = useAction();
  const first = row.recipe.tool === 'bake' ? row.recipe : { size: 33, leave: [] };
  const [size, setSize] = useState(first.size);
  const [leave, setLeave] = useState<string[]>([...first.leave]);
  const settings = carriableOf([row], row.recipe);
  const send = async (body: { size: number | null; leave: string[] | null }) => {
    const well = await runAndRefresh(() =>
      call('PATCH /api/conversions/:id/rows', { id, body: { places: [row.place], ...body } }),
    );
    if (well) onClose();
  };
  return (
    <Modal title={`Make ${row.source.title} otherwise`} width={460} top="16vh" onClose={onClose}>
      <div className="flex flex-col gap-3">
        <Points value={size} onChange={setSize} />
        <Leave settings={settings} leave={leave} onChange={setLeave} />
      </div>
      <Notice problem={problem} className="mt-2" />
      <ModalFoot>
        {row.own && (
          <button className="button mr-auto" disabled={busy} onClick={() => void send({ size: null, leave: null })}>
            As the rest
          </button>
        )}
        <button className="button main" disabled={busy} onClick={() => void send({ size, leave })}>
          Work it out
        </button>
      </ModalFoot>
    </Modal>
  );
}
