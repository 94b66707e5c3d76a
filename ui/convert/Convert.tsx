'use client';
/** Preset into look: what goes in, what is left out and why, the residual at the size; then the draft. */
import { useRouter } from 'next/navigation';
import type { ReactNode } from 'react';
import { FormProvider, useController, useFormContext, useWatch } from 'react-hook-form';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type { AnswerOf } from '@/core/api';
import { versionEndpoints } from '@/core/api/versions';
import { useAction } from '../kit/action';
import { call, problemOf } from '../kit/call';
import { Field } from '../kit/Field';
import { problemWith, useSchemaForm } from '../kit/form';
import { Notice } from '../kit/Notice';
import { PointsOptions } from '../kit/PointsOptions';
import { ReachOptions } from '../kit/ReachOptions';
import { valueText } from '../item/value-words';

type View = AnswerOf<'GET /api/versions/:id/convert'>;
interface Conversion {
  /** points an axis */ size: number;
  /** those that go into the table */ settings: string[];
  title: string;
  /** stops above middle gray; null for display white */ above: number | null;
}

interface Props {
  versionId: string;
  title: string;
  first: View;
  /** with the editor, as it was measured */ agreement: ReactNode;
}

export function Convert({ versionId, title, first, agreement }: Props) {
  const router = useRouter();
  const { busy, problem, run } = useAction();
  const form = useSchemaForm<Conversion>(versionEndpoints['POST /api/versions/:id/convert'].body, {
    size: 33,
    settings: first.carried.map(({ setting }) => setting),
    title,
    above: null,
  });
  const [size, wanted, name, above] = useWatch({
    control: form.control,
    name: ['size', 'settings', 'title', 'above'],
  });
  const settings = wanted.join(',');
  const { data: view = first, error } = useQuery({
    queryKey: ['conversion', versionId, size, settings, above],
    queryFn: ({ signal }) =>
      call('GET /api/versions/:id/convert', {
        id: versionId,
        query: { size: String(size), settings, ...(above === null ? {} : { above: String(above) }) },
        signal,
      }),
    placeholderData: keepPreviousData,
  });
  const convert = (body: Conversion) =>
    run(async () => {
      const made = await call('POST /api/versions/:id/convert', { id: versionId, body });
      router.push(`/items/${made.itemId}`);
    });
  return (
    <FormProvider {...form}>
      <form
        noValidate
        className="grid grid-cols-[minmax(0,1fr)_300px] gap-8 max-[900px]:grid-cols-[minmax(0,1fr)]"
        onSubmit={(event) => void form.handleSubmit(convert)(event)}
      >
        <div>
          <h2 className="mb-1 text-[17px]">Goes into the table</h2>
          <Carried carried={first.carried} />
          <h2 className="mb-1 text-[17px]">Is left out</h2>
          <LeftOut left={first.left} unknown={Object.keys(view.unknown)} />
        </div>
        <div>
          <Notice problem={problem ?? (error && problemOf(error))} className="mb-3" />
          <TitleAndSize />
          <TableError residual={view.residual} />
          {agreement}
          <button className="button main" disabled={busy || !wanted.length || !name.trim()}>
            {busy ? 'Making the look' : 'Make the look'}
          </button>
          <p className="mt-2 text-[12px] text-soft">
            It comes as a draft on the same shelf, and knows what it was made from. Its scope is open: any camera, any
            kind of file{wanted.includes('monochrome') ? ', in monochrome' : ''}; no sample photo limits it.
          </p>
        </div>
      </form>
    </FormProvider>
  );
}

function TitleAndSize() {
  const form = useFormContext<Conversion>();
  return (
    <div className="mb-4 flex flex-col gap-3">
      <Field label="Title of the look" problem={problemWith(form, 'title')}>
        {(attributes) => <input {...attributes} {...form.register('title')} />}
      </Field>
      <Field label="Points an axis" problem={problemWith(form, 'size')}>
        {(attributes) => (
          <select {...attributes} {...form.register('size', { valueAsNumber: true })}>
            <PointsOptions />
          </select>
        )}
      </Field>
      <Field label="Reaches" problem={problemWith(form, 'above')}>
        {(attributes) => (
          <select
            {...attributes}
            {...form.register('above', { setValueAs: (text) => (text === '' || text === null ? null : Number(text)) })}
          >
            <ReachOptions />
          </select>
        )}
      </Field>
    </div>
  );
}

function TableError({ residual }: { residual: View['residual'] }) {
  return (
    <>
      <h2 className="mb-1 text-[15px]">Table error</h2>
      <dl className="facts border-b border-line" aria-live="polite">
        <DeltaE label="Mean" value={residual.meanDeltaE} />
        <DeltaE label="95th percentile" value={residual.p95DeltaE} />
        <DeltaE label="Largest" value={residual.maxDeltaE} />
      </dl>
      <p className="mb-4 mt-1 text-[12px] text-soft">
        Our rendering of the preset against the table, over 20,000 colors.
      </p>
    </>
  );
}

function DeltaE({ label, value }: { label: string; value: number }) {
  return (
    <div>
      <dt>{label}</dt>
      <dd className="font-semibold">
        {value.toFixed(value < 0.1 ? 4 : 2)} <span className="font-normal text-soft">ΔE00</span>
      </dd>
    </div>
  );
}

function Carried({ carried }: { carried: View['carried'] }) {
  const { field } = useController<Conversion, 'settings'>({ name: 'settings' });
  const taken = new Set(field.value);
  const take = (setting: string, on: boolean) => {
    if (on) taken.add(setting);
    else taken.delete(setting);
    // in the order in which they stand, so that one choice is one question to the server
    field.onChange(carried.map((one) => one.setting).filter((one) => taken.has(one)));
  };
  return (
    <table className="list mb-7 table-fixed">
      <colgroup>
        <col className="w-[34px]" />
        <col className="w-[210px]" />
        <col />
      </colgroup>
      <thead>
        <tr>
          <th>
            <span className="sr-only">Take</span>
          </th>
          <th>Setting</th>
          <th>Value</th>
        </tr>
      </thead>
      <tbody>
        {carried.map(({ setting, title, value, unit }) => (
          <tr key={setting}>
            <td>
              <input
                type="checkbox"
                aria-label={`Take ${title}`}
                checked={taken.has(setting)}
                onChange={(event) => take(setting, event.target.checked)}
              />
            </td>
            <td>{title}</td>
            <td className="[overflow-wrap:anywhere]">
              {valueText(value)} <span className="text-soft">{unit}</span>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function LeftOut({ left, unknown }: { left: View['left']; unknown: string[] }) {
  if (!left.length && !unknown.length)
    return <p className="border-t border-line py-2 text-soft">Nothing: all of this preset can go into a table.</p>;
  return (
    <table className="list table-fixed">
      <colgroup>
        <col className="w-[244px]" />
        <col className="w-[90px]" />
        <col />
      </colgroup>
      <thead>
        <tr>
          <th>Setting</th>
          <th>Class</th>
          <th>Why</th>
        </tr>
      </thead>
      <tbody>
        {left.map((entry) => (
          <tr key={entry.setting}>
            <td>{entry.title}</td>
            <td className="text-soft">{entry.class}</td>
            <td>{entry.reason}</td>
          </tr>
        ))}
        {unknown.map((key) => (
          <tr key={key}>
            <td className="font-mono text-[12px]">{key}</td>
            <td className="text-soft">unknown</td>
            <td>is not in the editor’s mapping; it stays in the preset</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
