'use client';
/** The button by which an item is edited, and what came of it. */
import { useState } from 'react';
import { fetchedWhenShown } from '../kit/fetched';
import type { ItemToEdit } from './EditDialog';

/** Fetched when it is opened, with what checks forms. */
const EditDialog = fetchedWhenShown(() => import('./EditDialog').then((module) => module.EditDialog));

export function EditItem(props: ItemToEdit) {
  const [open, setOpen] = useState(false);
  const [said, setSaid] = useState('');
  const done = (words: string) => {
    setSaid(words);
    setOpen(false);
  };
  return (
    <>
      <button className="button" onClick={() => setOpen(true)}>
        Edit
      </button>
      {said && (
        <span role="status" className="text-soft">
          {said}
        </span>
      )}
      {open && <EditDialog {...props} onClose={() => setOpen(false)} onDone={done} />}
    </>
  );
}
