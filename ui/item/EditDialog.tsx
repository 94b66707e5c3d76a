'use client';
/** What an item is called and what is said of it. Another person's change meanwhile is merged, or both are shown to choose from. */
import { yupResolver } from '@hookform/resolvers/yup';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useQuery } from '@tanstack/react-query';
import { FormProvider, useForm, useWatch } from 'react-hook-form';
import { itemFormSchema, type EditableItem } from '@/core/item/fields';
import { useAction } from '../kit/action';
import { call, CallError, type ProblemText } from '../kit/call';
import { Modal, ModalFoot } from '../kit/Modal';
import { Notice } from '../kit/Notice';
import { Callers } from './Callers';
import { ChooseBetween } from './ChooseBetween';
import { ItemFields } from './ItemFields';
import { changedSince, formOf, itemOf, seenWith, type EditForm, type FieldConflict } from './model/edit-form';

export interface ItemToEdit {
  id: string;
  revision: number;
  item: EditableItem;
  licences: { id: string; name: string }[];
}
type Conflict = ProblemText & { revision: number; fields: FieldConflict[] };

/** The conflict that an answer tells of, if it does. */
function conflictIn(error: unknown): Conflict | null {
  const problem = error instanceof CallError ? (error.problem as Partial<Conflict>) : null;
  return problem?.fields && problem.revision !== undefined ? (problem as Conflict) : null;
}

interface Props extends ItemToEdit {
  onClose: () => void;
  onDone: (words: string) => void;
}

/** Presets that call the item are written anew; says how many were, and which could not be. */
async function writeCallers(id: string): Promise<string> {
  const { written, left } = await call('POST /api/items/:id/referring', { id });
  const done = written === 1 ? 'One preset was written anew.' : `${written} presets were written anew.`;
  return left.length ? `${done} Not written: ${left.join('; ')}.` : done;
}

export function EditDialog({ id, revision, item, licences, onClose, onDone }: Props) {
  const router = useRouter();
  const [start] = useState({ revision, base: { ...item } as Record<string, unknown> });
  const [conflict, setConflict] = useState<Conflict | null>(null);
  const [theirs, setTheirs] = useState<ReadonlySet<string>>(new Set());
  const { busy, problem, run } = useAction();
  const form = useForm<EditForm>({ defaultValues: formOf(item), resolver: yupResolver(itemFormSchema) as never });
  const callers =
    useQuery({
      queryKey: ['referring', id],
      queryFn: ({ signal }) => call('GET /api/items/:id/referring', { id, signal }),
    }).data?.presets ?? [];
  const [anew, setAnew] = useState(true);
  const isRenamed = useWatch({ control: form.control, name: 'title' }) !== item.title;
  const conflicts = conflict?.fields ?? [];
  const send = async (typed: EditForm) => {
    const seen = conflict ? seenWith(start, conflict.revision, conflicts) : start;
    const mine = changedSince(itemOf(typed), seen, conflicts, theirs);
    try {
      const saved = await call('PATCH /api/items/:id', { id, body: { ...seen, mine } });
      const with_ = saved.merged.length
        ? `Saved, together with what ${saved.who || 'someone else'} changed meanwhile.`
        : '';
      onDone([with_, callers.length && isRenamed && anew ? await writeCallers(id) : ''].filter(Boolean).join(' '));
      router.refresh();
    } catch (error) {
      setConflict(conflictIn(error));
      throw error;
    }
  };
  return (
    <Modal title="Edit the item" width={820} top="5vh" onClose={onClose}>
      <FormProvider {...form}>
        <form noValidate onSubmit={(event) => void form.handleSubmit((typed) => run(() => send(typed)))(event)}>
          {callers.length > 0 && <Callers presets={callers} anew={anew} onAnew={setAnew} />}
          <ItemFields licences={licences} />
          <Notice problem={problem} className="mb-3" />
          <ChooseBetween conflicts={conflicts} theirs={theirs} onTheirs={setTheirs} />
          <ModalFoot>
            <button className="button main" disabled={busy}>
              {conflict ? 'Save what is chosen' : 'Save'}
            </button>
          </ModalFoot>
        </form>
      </FormProvider>
    </Modal>
  );
}
