'use client';
/** Asks for a chart: through which editor, with what switched on, for which kind of file. */
import { useRouter } from 'next/navigation';
import { useId, useState } from 'react';
import { FormProvider, useController, useFormContext, useWatch } from 'react-hook-form';
import type { BodyOf } from '@/core/api';
import { newChart } from '@/core/api/editor-charts';
import { sheetKinds, sizesOf } from '@/core/editor-chart/steps';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Field } from '../kit/Field';
import { problemWith, useSchemaForm } from '../kit/form';
import { ItemPicker } from '../kit/ItemPicker';
import { Notice } from '../kit/Notice';
import { kindWords } from './model/words';

type Fields = Required<BodyOf<'POST /api/editor-charts'>>;

/** An item of the library, as it was chosen. */
export interface Chosen {
  id: string;
  title: string;
}

interface Props {
  /** of editors that are described here: offered, not asked for */ editors: readonly string[];
  /** the preset that one came from, and which form of it */ preset: Chosen | null;
  form: string | null;
  /** its editor */ editor: string;
}

export function NewChart({ editors, preset, form: version, editor }: Props) {
  const router = useRouter();
  const { busy, problem, run } = useAction();
  const form = useSchemaForm<Fields>(newChart, {
    editor,
    what: preset?.title ?? '',
    preset: preset?.id ?? null,
    form: version,
    size: 33,
    kind: '16 bits',
    file: 'tiff',
    profile: null,
  });
  const make = (body: Fields) =>
    run(async () => {
      const made = await call('POST /api/editor-charts', { body });
      router.push(`/convert/charts/${made.id}`);
    });
  return (
    <FormProvider {...form}>
      <form
        noValidate
        aria-label="Make a chart"
        className="flex flex-col gap-3 border border-line bg-sheet p-4"
        onSubmit={(event) => void form.handleSubmit(make)(event)}
      >
        <h2 className="text-[17px]">Make a chart</h2>
        <Editor editors={editors} />
        <SwitchedOn first={preset} />
        <Sheet />
        <Notice problem={problem} />
        <button className="button main self-start" disabled={busy}>
          Make the chart
        </button>
      </form>
    </FormProvider>
  );
}

function Editor({ editors }: { editors: readonly string[] }) {
  const form = useFormContext<Fields>();
  const list = useId();
  return (
    <Field label="Editor, with its version" problem={problemWith(form, 'editor')}>
      {(attributes) => (
        <>
          <input {...attributes} list={list} {...form.register('editor')} />
          <datalist id={list}>
            {editors.map((title) => (
              <option key={title}>{title}</option>
            ))}
          </datalist>
        </>
      )}
    </Field>
  );
}

/** In words, or a preset that the library holds: then our rendering of it is compared with the editor's. */
function SwitchedOn({ first }: { first: Chosen | null }) {
  const form = useFormContext<Fields>();
  const [preset, setPreset] = useState(first);
  const [picking, setPicking] = useState(false);
  const take = (chosen: Chosen | null) => {
    setPreset(chosen);
    form.setValue('preset', chosen?.id ?? null);
    // another form than the newest is only that of the preset that one came from
    form.setValue('form', null);
    if (chosen) form.setValue('what', chosen.title, { shouldValidate: true });
  };
  return (
    <div className="flex flex-col gap-1.5">
      <Field label="What is switched on there" problem={problemWith(form, 'what')}>
        {(attributes) => <input {...attributes} {...form.register('what')} />}
      </Field>
      {preset ? (
        <p className="flex flex-wrap items-baseline gap-x-2 text-[12.5px]">
          <span>
            The preset <b className="font-semibold">{preset.title}</b> of the library
          </span>
          <button type="button" className="button quiet" onClick={() => take(null)}>
            It is not that one
          </button>
        </p>
      ) : (
        <button type="button" className="button self-start" onClick={() => setPicking(true)}>
          Choose a preset of the library
        </button>
      )}
      {picking && (
        <ItemPicker
          title="The preset that is switched on"
          kind="preset"
          onPick={(item) => {
            take(item);
            setPicking(false);
          }}
          onClose={() => setPicking(false)}
        />
      )}
    </div>
  );
}

/** The kind of file, its points, its form. */
function Sheet() {
  const form = useFormContext<Fields>();
  const kind = useWatch({ control: form.control, name: 'kind' });
  // its options change with the kind, so that what is chosen is said by the form and not by the list
  const { field: size } = useController({ control: form.control, name: 'size' });
  return (
    <>
      <Field label="It is tried on" problem={problemWith(form, 'kind')}>
        {(attributes) => (
          <select
            {...attributes}
            {...form.register('kind', {
              // each kind has sizes of its own
              onChange: (event: { target: { value: Fields['kind'] } }) => {
                const sizes = sizesOf(event.target.value);
                if (!sizes.includes(form.getValues('size'))) size.onChange(sizes[1] ?? 33);
              },
            })}
          >
            {sheetKinds.map((one) => (
              <option key={one} value={one}>
                {kindWords[one]}
              </option>
            ))}
          </select>
        )}
      </Field>
      <div className="flex gap-3">
        <Field label="Points an axis" className="flex-1" problem={problemWith(form, 'size')}>
          {(attributes) => (
            <select
              {...attributes}
              ref={size.ref}
              value={size.value}
              onChange={(event) => size.onChange(Number(event.target.value))}
            >
              {sizesOf(kind).map((points) => (
                <option key={points}>{points}</option>
              ))}
            </select>
          )}
        </Field>
        {kind !== 'camera data' && (
          <Field label="File" className="flex-1" problem={problemWith(form, 'file')}>
            {(attributes) => (
              <select {...attributes} {...form.register('file')}>
                <option value="tiff">TIFF</option>
                <option value="png">PNG</option>
              </select>
            )}
          </Field>
        )}
      </div>
      {kind === 'camera data' && <CameraProfile />}
    </>
  );
}

function CameraProfile() {
  const form = useFormContext<Fields>();
  const [profile, setProfile] = useState<Chosen | null>(null);
  const [picking, setPicking] = useState(false);
  const problem = problemWith(form, 'profile');
  return (
    <div className="flex flex-col gap-1">
      <button type="button" className="button self-start" onClick={() => setPicking(true)}>
        {profile ? `Developed by ${profile.title}` : 'Choose the camera profile'}
      </button>
      {problem && <p className="text-[12px] text-madder">{problem}</p>}
      {picking && (
        <ItemPicker
          title="The profile by which the editor develops the chart"
          kind="camera-profile"
          onPick={(item) => {
            setProfile(item);
            form.setValue('profile', item.id, { shouldValidate: true });
            setPicking(false);
          }}
          onClose={() => setPicking(false)}
        />
      )}
    </div>
  );
}
