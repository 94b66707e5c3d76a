'use client';
/** Keeps a column as a look: what goes into the table, and what of the column no table can hold. */
import Link from 'next/link';
import { useState } from 'react';
import type { AnswerOf } from '@/core/api';
import { encodingText } from '@/core/look/assumed-encoding';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Field } from '../kit/Field';
import { Modal, ModalFoot } from '../kit/Modal';
import { Notice } from '../kit/Notice';
import { useBench } from './bench-context';
import { leftOfColumn, titleOfKept, type Column } from './model/column';

interface Props {
  column: Column;
  name: string;
  onClose: () => void;
}
type Kept = AnswerOf<'POST /api/bench/look'>;

const SIZES = [17, 33, 65];

export function KeepColumn({ column, name, onClose }: Props) {
  const { candidates } = useBench();
  const { busy, problem, run } = useAction();
  const [title, setTitle] = useState(() => titleOfKept(column, name));
  const [size, setSize] = useState(33);
  const [kept, setKept] = useState<Kept | null>(null);
  const left = leftOfColumn(column);
  const layers = column.layers.map(({ version, strength, assumed }) => ({
    version,
    strength,
    assumed: assumed ? encodingText(assumed) : null,
  }));
  const keep = () =>
    run(async () => {
      setKept(await call('POST /api/bench/look', { body: { title, size, layers, trim: column.trim, left } }));
    });
  if (kept) return <IsKept kept={kept} title={title} onClose={onClose} />;
  return (
    <Modal title="Keep it as a look" width={440} top="16vh" onClose={onClose}>
      <form
        noValidate
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          void keep();
        }}
      >
        <Field label="Title">
          {(attributes) => (
            <input autoFocus {...attributes} value={title} onChange={(event) => setTitle(event.target.value)} />
          )}
        </Field>
        <Field label="Points an axis">
          {(attributes) => (
            <select {...attributes} value={size} onChange={(event) => setSize(Number(event.target.value))}>
              {SIZES.map((points) => (
                <option key={points}>{points}</option>
              ))}
            </select>
          )}
        </Field>
        <div className="text-[12.5px]">
          <h3 className="text-soft">Goes into the table</h3>
          <ul>
            {column.layers.map((one, place) => (
              <li key={place}>
                {candidates.get(one.version)?.title ?? 'Gone from the shelves'} at {one.strength} %
              </li>
            ))}
            {column.trim && <li>the trim</li>}
          </ul>
          {left.length > 0 && (
            <>
              <h3 className="mt-2 text-soft">Is left out</h3>
              <ul>
                {left.map((words) => (
                  <li key={words} className="text-ochre">
                    {words}
                  </li>
                ))}
              </ul>
            </>
          )}
        </div>
        <Notice problem={problem} />
        <ModalFoot>
          <button className="button main" disabled={busy || !title.trim()}>
            {busy ? 'Making the look' : 'Keep it'}
          </button>
        </ModalFoot>
      </form>
    </Modal>
  );
}

function IsKept({ kept, title, onClose }: { kept: Kept; title: string; onClose: () => void }) {
  return (
    <Modal title="Kept as a draft" width={440} top="16vh" onClose={onClose}>
      <p>
        <Link className="font-serif text-[15px] underline" href={`/items/${kept.itemId}`}>
          {title}
        </Link>{' '}
        knows what it was made of. The table is off by {kept.error.meanDeltaE.toFixed(2)} ΔE00 on average, at most{' '}
        {kept.error.maxDeltaE.toFixed(2)}.
      </p>
      <div className="mt-4 flex justify-end">
        <button className="button" onClick={onClose}>
          Back to the bench
        </button>
      </div>
    </Modal>
  );
}
