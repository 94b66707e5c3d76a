'use client';
/** A preset that calls a look at a strength and touches nothing else, for an editor whose presets can. */
import { useRouter } from 'next/navigation';
import { FormProvider } from 'react-hook-form';
import { useQuery } from '@tanstack/react-query';
import { presetFormEndpoints } from '@/core/api/preset-forms';
import { useAction } from '../kit/action';
import { call, problemOf } from '../kit/call';
import { Field } from '../kit/Field';
import { problemWith, useSchemaForm } from '../kit/form';
import { Modal, ModalFoot } from '../kit/Modal';
import { Notice } from '../kit/Notice';

interface Asked {
  to: string;
  title: string;
  strength: number;
}

export function Companion({ versionId, title, onClose }: { versionId: string; title: string; onClose: () => void }) {
  const router = useRouter();
  const { busy, problem, run } = useAction();
  const { data, error } = useQuery({
    queryKey: ['preset languages'],
    queryFn: ({ signal }) => call('GET /api/preset-languages', { signal }),
  });
  const form = useSchemaForm<Asked>(presetFormEndpoints['POST /api/versions/:id/companion'].body, {
    to: '',
    title,
    strength: 100,
  });
  const make = (body: Asked) =>
    run(async () => {
      const made = await call('POST /api/versions/:id/companion', { id: versionId, body });
      router.push(`/items/${made.itemId}`);
    });
  return (
    <Modal title="A preset that calls it" width={440} top="14vh" onClose={onClose}>
      <p className="mb-3 text-soft">
        It calls {title} at a strength and touches nothing else, so that the effect is there once.
      </p>
      <FormProvider {...form}>
        <form noValidate className="flex flex-col gap-3" onSubmit={(event) => void form.handleSubmit(make)(event)}>
          <Field label="Editor" problem={problemWith(form, 'to')}>
            {(attributes) => (
              <select {...attributes} {...form.register('to')}>
                <option value="">Choose</option>
                {data?.languages
                  .filter(({ calls }) => calls)
                  .map((one) => (
                    <option key={one.id} value={one.id}>
                      {one.title}
                    </option>
                  ))}
              </select>
            )}
          </Field>
          <Field label="Title" problem={problemWith(form, 'title')}>
            {(attributes) => <input {...attributes} {...form.register('title')} />}
          </Field>
          <Field label="Strength, in percent" problem={problemWith(form, 'strength')}>
            {(attributes) => (
              <input {...attributes} inputMode="decimal" {...form.register('strength', { valueAsNumber: true })} />
            )}
          </Field>
          <Notice problem={problem ?? (error && problemOf(error))} />
          <ModalFoot>
            <button className="button main" disabled={busy}>
              Make the preset
            </button>
          </ModalFoot>
        </form>
      </FormProvider>
    </Modal>
  );
}
