'use client';
/** Another form of a look or a camera profile: worked out with its error first, then kept as an item of its own. */
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { FormProvider, useFormContext, useWatch } from 'react-hook-form';
import type { AnswerOf } from '@/core/api';
import { versionEndpoints } from '@/core/api/versions';
import type { Form } from '@/core/conversion/recipe';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Field } from '../kit/Field';
import { problemWith, useSchemaForm } from '../kit/form';
import { Modal, ModalFoot } from '../kit/Modal';
import { Notice } from '../kit/Notice';

export interface DeriveFrom {
  kind: 'look' | 'camera-profile';
  title: string;
  cameras: string[];
}
type Worked = AnswerOf<'POST /api/versions/:id/derive/preview'>;
interface Asked {
  form: Form;
  title: string;
  points: number;
  kelvin: number;
  camera: string;
}

const forms: Record<DeriveFrom['kind'], readonly { form: Form; words: string }[]> = {
  look: [
    { form: 'cube', words: 'a table (.cube)' },
    { form: 'clf', words: 'Common LUT Format' },
    { form: 'icc-link', words: 'an ICC device link' },
    { form: 'icc-abstract', words: 'an ICC abstract profile' },
  ],
  'camera-profile': [
    { form: 'icc-input', words: 'an ICC input profile' },
    { form: 'without-look', words: 'without its look table' },
    { form: 'without-map', words: 'without its hue and saturation map' },
    { form: 'straight', words: 'with a straight tone curve' },
    { form: 'editor-curve', words: 'without a tone curve' },
    { form: 'first-light', words: 'for its first light alone' },
    { form: 'second-light', words: 'for its second light alone' },
    { form: 'other-camera', words: 'for another camera' },
  ],
};

export function Derive({ kind, title, versionId, onClose }: DeriveFrom & { versionId: string; onClose: () => void }) {
  const router = useRouter();
  const { busy, problem, run } = useAction();
  const [worked, setWorked] = useState<Worked | null>(null);
  const form = useSchemaForm<Asked>(versionEndpoints['POST /api/versions/:id/derive'].body, {
    form: kind === 'look' ? 'cube' : 'icc-input',
    title,
    points: 33,
    kelvin: 5000,
    camera: '',
  });
  const workOut = async (asked: Asked) =>
    setWorked(await call('POST /api/versions/:id/derive/preview', { id: versionId, body: asked }));
  const save = async (asked: Asked) => {
    const { itemId } = await call('POST /api/versions/:id/derive', { id: versionId, body: asked });
    onClose();
    router.push(`/items/${itemId}`);
  };
  const words = worked ? 'Save' : 'Work it out';
  return (
    <Modal title={`Another form of ${title}`} onClose={onClose}>
      <p className="mb-3 text-soft">It becomes a draft beside this one, and knows what it was made from.</p>
      <FormProvider {...form}>
        <form
          noValidate
          // what was worked out was of something else
          onChange={() => setWorked(null)}
          onSubmit={(event) => void form.handleSubmit((asked) => run(() => (worked ? save : workOut)(asked)))(event)}
        >
          <WhatFor kind={kind} />
          <Details kind={kind} />
          <WorkedOut worked={worked} />
          <Notice problem={problem} className="mb-3" />
          <ModalFoot>
            <button className={`button ${worked ? 'main' : ''}`} disabled={busy}>
              {busy ? 'Working' : words}
            </button>
          </ModalFoot>
        </form>
      </FormProvider>
    </Modal>
  );
}

function WhatFor({ kind }: { kind: DeriveFrom['kind'] }) {
  const form = useFormContext<Asked>();
  return (
    <>
      <Field label="As" className="mb-3" problem={problemWith(form, 'form')}>
        {(attributes) => (
          <select {...attributes} {...form.register('form')}>
            {forms[kind].map((choice) => (
              <option key={choice.form} value={choice.form}>
                {choice.words}
              </option>
            ))}
          </select>
        )}
      </Field>
      <Field label="Title" className="mb-3" problem={problemWith(form, 'title')}>
        {(attributes) => <input {...attributes} {...form.register('title')} />}
      </Field>
    </>
  );
}

/** What only some of the forms ask for. */
function Details({ kind }: { kind: DeriveFrom['kind'] }) {
  const form = useFormContext<Asked>();
  const wanted = useWatch({ control: form.control, name: 'form' });
  return (
    <div className="mb-3 flex gap-3">
      {(kind === 'look' || wanted === 'icc-input') && (
        <Field label="Points an axis" className="flex-1" problem={problemWith(form, 'points')}>
          {(attributes) => (
            <select {...attributes} {...form.register('points', { valueAsNumber: true, shouldUnregister: true })}>
              {[17, 33, 65].map((size) => (
                <option key={size}>{size}</option>
              ))}
            </select>
          )}
        </Field>
      )}
      {wanted === 'icc-input' && (
        <Field label="Light, in kelvin" className="flex-1" problem={problemWith(form, 'kelvin')}>
          {(attributes) => (
            <input
              type="number"
              step={50}
              {...attributes}
              {...form.register('kelvin', { valueAsNumber: true, shouldUnregister: true })}
            />
          )}
        </Field>
      )}
      {wanted === 'other-camera' && (
        <Field label="The camera, as its files name it" className="flex-1" problem={problemWith(form, 'camera')}>
          {(attributes) => <input {...attributes} {...form.register('camera', { shouldUnregister: true })} />}
        </Field>
      )}
    </div>
  );
}

function WorkedOut({ worked }: { worked: Worked | null }) {
  return (
    <p role="status" className={worked ? 'mb-3 border-l-2 border-line pl-3' : 'sr-only'}>
      {worked && wordsOf(worked)}
    </p>
  );
}

function wordsOf({ said, bytes, residual }: Worked): string {
  const size = (bytes / 1000).toLocaleString('en', { maximumFractionDigits: 0 });
  if (!residual) return `${said}, ${size} kB. Nothing is approximated.`;
  const { meanDeltaE, p95DeltaE, maxDeltaE } = residual;
  const figures = `mean ${meanDeltaE.toFixed(2)}, 95 % ${p95DeltaE.toFixed(2)}, max ${maxDeltaE.toFixed(2)}`;
  return `${said}, ${size} kB. ΔE00 to the source: ${figures}.`;
}
