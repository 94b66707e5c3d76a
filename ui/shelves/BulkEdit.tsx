'use client';
/** Many items changed at once: titles, headings, tags, scope, licence; each title and each file name that results is shown first. */
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { FormProvider, useWatch } from 'react-hook-form';
import type { AnswerOf } from '@/core/api';
import { itemEndpoints, type BulkEdit as BulkChange } from '@/core/api/items';
import { useAction } from '../kit/action';
import { call, problemOf } from '../kit/call';
import { useWrittenForm } from '../kit/form';
import { Modal, ModalFoot } from '../kit/Modal';
import { Notice } from '../kit/Notice';
import { counted } from '../kit/words';
import { BulkFields } from './BulkFields';
import { BulkResult } from './BulkResult';
import { useSettled } from '../kit/settled';
import { changeOf, changesSomething, emptyForm, type BulkForm } from './model/bulk';

const SETTLED_MS = 150;

interface Props {
  items: string[];
  licences: { id: string; name: string }[];
  onDone: (done: AnswerOf<'POST /api/items/bulk'>) => void;
  onClose: () => void;
}

export function BulkEdit({ items, licences, onDone, onClose }: Props) {
  const form = useWrittenForm<BulkForm, BulkChange>(
    itemEndpoints['POST /api/items/bulk'].body,
    (typed) => changeOf(items, typed),
    emptyForm,
  );
  const { busy, problem, run } = useAction();
  const change = changeOf(items, useWatch({ control: form.control }) as BulkForm);
  const shown = useSettled(change, SETTLED_MS);
  const { data, error } = useQuery({
    queryKey: ['bulk change', shown],
    queryFn: ({ signal }) => call('POST /api/items/bulk/preview', { body: shown, signal }),
    placeholderData: keepPreviousData,
  });
  const rows = data?.rows ?? [];
  const apply = (body: BulkChange) =>
    run(async () => {
      onDone(await call('POST /api/items/bulk', { body }));
    });
  const refused = rows.some((row) => row.problem);
  const title = `Change ${counted(items.length, 'item')}`;
  return (
    <Modal title={title} width={980} top="6vh" onClose={onClose}>
      <FormProvider {...form}>
        <form noValidate onSubmit={(event) => void form.handleSubmit(apply)(event)}>
          <BulkFields licences={licences} />
          <BulkResult rows={rows} />
          <Notice problem={problem ?? (error && problemOf(error))} className="mt-2" />
          <ModalFoot>
            <button className="button main" disabled={busy || refused || !changesSomething(change)}>
              {title}
            </button>
          </ModalFoot>
        </form>
      </FormProvider>
    </Modal>
  );
}
