import Link from 'next/link';
import { notFound } from 'next/navigation';
import type { ReactNode } from 'react';
import { orNull } from '@/core/problem';
import type { Step } from '@/core/editor-chart/steps';
import { editorChartFor } from '@/server/editor-charts/service';
import { signedInPerson } from '@/server/http';
import { listShelves } from '@/server/items/service';
import { may } from '@/server/people/roles';
import { GiveBack } from '@/ui/charts/GiveBack';
import { GiveUp } from '@/ui/charts/GiveUp';
import { kindWords } from '@/ui/charts/model/words';
import { Readings } from '@/ui/charts/Readings';
import { Refresh } from '@/ui/kit/Refresh';
import { Ago } from '@/ui/kit/time';
import { PageHead } from '@/ui/shell/Shell';

export const metadata = { title: 'Chart' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const person = await signedInPerson();
  const { id } = await params;
  const view = await orNull(editorChartFor(person, id));
  if (!view) notFound();
  const { chart, readings, steps, fileName } = view;
  const shelves = (await listShelves(person)).filter((shelf) => !shelf.query);
  const mayConvert = may(person, 'item.convert');
  return (
    <div className="max-w-[1180px] px-6 pb-16 pt-[18px]">
      <Refresh subjects={['editor-chart']} />
      <PageHead
        title={chart.what}
        note={
          <>
            chart for {chart.editor}: {kindWords[chart.kind]}, {chart.size} points an axis; by {chart.person},{' '}
            <Ago at={chart.created_at.toISOString()} />
          </>
        }
      >
        {chart.preset_item_id && (
          <Link className="button" href={`/items/${chart.preset_item_id}`}>
            Open the preset
          </Link>
        )}
        {mayConvert && !readings.length && <GiveUp id={id} />}
      </PageHead>
      {readings.length > 0 && (
        <section aria-label="Readings" className="mb-8">
          <Readings
            chart={id}
            title={`${chart.what}, ${chart.editor}`.slice(0, 200)}
            readings={readings.map(({ id: reading, file_name, figures, person: who, read_at }) => ({
              id: reading,
              fileName: file_name,
              figures,
              person: who,
              at: read_at.toISOString(),
            }))}
            shelves={shelves.map(({ id: shelf, name }) => ({ id: shelf, name }))}
            besidePreset={!!chart.preset_item_id}
            may={mayConvert}
          />
        </section>
      )}
      <section aria-label="What to do" className="max-w-[720px]">
        <h2 className="mb-1 text-[17px]">{readings.length ? 'Another reading' : 'What to do'}</h2>
        <Steps
          steps={steps}
          first={
            <a className="button" href={`/api/editor-charts/${id}/file`} download={fileName}>
              Download the chart
            </a>
          }
          last={mayConvert && <GiveBack id={id} />}
        />
      </section>
    </div>
  );
}

interface StepsProps {
  steps: readonly Step[];
  /** what is done in the first step, and in the last */ first: ReactNode;
  last: ReactNode;
}

function Steps({ steps, first, last }: StepsProps) {
  return (
    <ol className="border-t border-line">
      {steps.map(({ title, text }, place) => (
        <li key={title} className="grid grid-cols-[28px_minmax(0,1fr)] border-b border-line py-2">
          <span aria-hidden className="text-soft">
            {place + 1}
          </span>
          <div>
            <b className="font-semibold">{title}</b>
            <p className="text-soft [overflow-wrap:anywhere]">{text}</p>
            {place === 0 && <div className="mt-2">{first}</div>}
            {place === steps.length - 1 && <div className="mt-2">{last}</div>}
          </div>
        </li>
      ))}
    </ol>
  );
}
