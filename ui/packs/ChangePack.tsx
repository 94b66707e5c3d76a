'use client';
/** What is said of a pack: its name and release, from whom it is, and under which licence; of its items as well, if one says so. */
import { FormProvider } from 'react-hook-form';
import type { BodyOf } from '@/core/api';
import { packFields } from '@/core/api/packs';
import { sourceParts, type ItemSource } from '@/core/item/fields';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Field } from '../kit/Field';
import { useWrittenForm } from '../kit/form';
import { Modal, ModalFoot } from '../kit/Modal';
import { Notice } from '../kit/Notice';
import { useToast } from '../kit/toast';
import { counted } from '../kit/words';

export interface PackSaid {
  id: string;
  name: string;
  release: string;
  supplier: string;
  licenceId: string | null;
  source: ItemSource;
}

interface Form extends Omit<PackSaid, 'id' | 'licenceId'> {
  licence: string;
  items: boolean;
}
type Body = BodyOf<'PATCH /api/packs/:id'>;

const bodyOf = ({ licence, ...form }: Form): Body => ({ ...form, licenceId: licence || null });

interface Props {
  pack: PackSaid;
  licences: { id: string; name: string }[];
  onClose: () => void;
}

export function ChangePack({ pack: { id, licenceId, ...said }, licences, onClose }: Props) {
  const { busy, problem, runAndRefresh } = useAction();
  const tell = useToast();
  const form = useWrittenForm<Form, Body>(packFields, bodyOf, { ...said, licence: licenceId ?? '', items: true });
  const { register, formState } = form;
  const save = async (body: Body) => {
    const well = await runAndRefresh(async () => {
      const { changed } = await call('PATCH /api/packs/:id', { id, body });
      tell({ words: changed ? `The pack and ${counted(changed, 'item')} of it are changed.` : 'The pack is changed.' });
    });
    if (well) onClose();
  };
  return (
    <Modal title="Change the pack" width={680} top="8vh" onClose={onClose}>
      <FormProvider {...form}>
        <form noValidate onSubmit={(event) => void form.handleSubmit(save)(event)}>
          <div className="grid grid-cols-2 gap-3">
            <Field label="Name" problem={formState.errors.name?.message}>
              {(attributes) => <input {...attributes} {...register('name')} />}
            </Field>
            <Field label="Release" problem={formState.errors.release?.message}>
              {(attributes) => <input {...attributes} {...register('release')} />}
            </Field>
            <Field label="Supplier" problem={formState.errors.supplier?.message}>
              {(attributes) => <input {...attributes} placeholder="own work" {...register('supplier')} />}
            </Field>
            <Field label="Licence">
              {(attributes) => (
                <select {...attributes} {...register('licence')}>
                  <option value="">none noted</option>
                  {licences.map((licence) => (
                    <option key={licence.id} value={licence.id}>
                      {licence.name}
                    </option>
                  ))}
                </select>
              )}
            </Field>
            {sourceParts.map(({ part, label, type }) => (
              <Field key={part} label={label} problem={formState.errors.source?.[part]?.message}>
                {(attributes) => <input {...attributes} type={type} {...register(`source.${part}`)} />}
              </Field>
            ))}
          </div>
          <label className="mt-3 flex items-center gap-2">
            <input type="checkbox" {...register('items')} />
            Say supplier, licence and source of all that came in it as well
          </label>
          <Notice problem={problem} className="mt-2" />
          <ModalFoot>
            <button className="button main" disabled={busy}>
              Save
            </button>
          </ModalFoot>
        </form>
      </FormProvider>
    </Modal>
  );
}
