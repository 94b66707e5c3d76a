'use client';
/** Many items changed at once: titles, headings, tags, scope, licence; each title and each file name that results is shown first. */
import { useEffect, useState } from 'react';
import type { BulkEdit as BulkChange, BulkRow } from '@/core/api/items';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Modal, ModalFoot } from '../kit/Modal';
import { Notice } from '../kit/Notice';
import { counted } from '../kit/words';
import { BulkFields } from './BulkFields';
import { BulkResult } from './BulkResult';
import { changeOf, changesSomething, emptyForm } from './model/bulk';

const SETTLED_MS = 150;

interface Props {
  items: string[];
  licences: { id: string; name: string }[];
  onDone: (said: string) => void;
  onClose: () => void;
}

export function BulkEdit({ items, licences, onDone, onClose }: Props) {
  const [form, setForm] = useState(emptyForm);
  const [rows, setRows] = useState<BulkRow[]>([]);
  const { busy, problem, run, report, clear } = useAction();
  const change = changeOf(items, form);
  const text = JSON.stringify(change);
  useEffect(() => {
    let live = true;
    const show = async () => {
      try {
        const preview = await call('POST /api/items/bulk/preview', { body: JSON.parse(text) as BulkChange });
        if (!live) return;
        setRows(preview.rows);
        clear();
      } catch (error) {
        if (live) report(error);
      }
    };
    const timer = setTimeout(() => void show(), SETTLED_MS);
    return () => {
      live = false;
      clearTimeout(timer);
    };
  }, [text, report, clear]);
  const apply = async () => {
    const { changed } = await call('POST /api/items/bulk', { body: change });
    onDone(`${counted(changed, 'item')} changed`);
  };
  const refused = rows.some((row) => row.problem);
  const title = `Change ${counted(items.length, 'item')}`;
  return (
    <Modal title={title} width={980} top="6vh" onClose={onClose}>
      <BulkFields form={form} licences={licences} onForm={setForm} />
      <BulkResult rows={rows} />
      <Notice problem={problem} className="mt-2" />
      <ModalFoot>
        <button
          className="button main"
          disabled={busy || refused || !changesSomething(change)}
          onClick={() => void run(apply)}
        >
          {title}
        </button>
      </ModalFoot>
    </Modal>
  );
}
