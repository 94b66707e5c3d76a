import Link from 'next/link';
import { notFound } from 'next/navigation';
import { orNull } from '@/core/problem';
import { signedInPerson } from '@/server/http';
import { may } from '@/server/people/roles';
import { sheetFor } from '@/server/rollouts/sheet';
import { systemNames } from '@/ui/stations/model/systems';
import { Refresh } from '@/ui/kit/Refresh';
import { PageHead } from '@/ui/shell/Shell';
import { NoteByHand } from '@/ui/sheets/NoteByHand';
import { PrintButton } from '@/ui/sheets/PrintButton';
import { SheetOfEditor } from '@/ui/sheets/SheetOfEditor';

export const metadata = { title: 'Sheet' };

export default async function Page({ params }: { params: Promise<{ id: string; station: string }> }) {
  const person = await signedInPerson();
  const { id, station: stationId } = await params;
  const sheet = await orNull(sheetFor(person, id, stationId));
  if (!sheet) notFound();
  const { rollout, station, editors, byHand, waiting } = sheet;
  const mayNote = byHand && rollout.status === 'confirmed' && waiting > 0 && may(person, 'rollout.confirm');
  const hasFiles = editors.some(({ folders }) => folders.some(({ put }) => put.length));
  return (
    <div className="max-w-[820px] px-6 pb-16 pt-[18px]">
      <Refresh subjects={['rollout', 'station']} />
      <PageHead
        title={`${rollout.title}: ${station.name}`}
        note={[systemNames[station.system], station.person].filter(Boolean).join(', ')}
      >
        {hasFiles && (
          <a className="button" href={`/api/rollouts/${rollout.id}/files?station=${station.id}`}>
            Files as a zip
          </a>
        )}
        <PrintButton />
      </PageHead>
      <p className="mb-4 max-w-[660px] text-soft">
        {hasFiles && station.kind !== 'card' && 'The zip has each file where it belongs below the home folder. '}
        {byHand
          ? 'No agent is there: when it is done, say so here.'
          : 'An agent is there, and carries the rollout out itself; this is what it does.'}{' '}
        <Link className="underline" href={`/rollouts/${rollout.id}`}>
          The rollout
        </Link>
      </p>
      {editors.map((editor) => (
        <SheetOfEditor key={editor.title} sheet={editor} />
      ))}
      {mayNote && <NoteByHand rollout={rollout.id} station={station.id} files={waiting} />}
    </div>
  );
}
