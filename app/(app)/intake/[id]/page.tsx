import { notFound } from 'next/navigation';
import { Problem } from '@/core/problem';
import { listShelves } from '@/server/items/service';
import { heldNames, intakeFor } from '@/server/packs/service';
import { may } from '@/server/people/roles';
import { person } from '@/server/web';
import { PageHead } from '@/ui/frame/Shell';
import { Arrival } from '@/ui/intake/Arrival';
import { Reading } from '@/ui/intake/Reading';
import { Notice } from '@/ui/kit/Notice';
import { State } from '@/ui/kit/State';

export const metadata = { title: 'Arrival' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const p = await person(), { id } = await params;
  const found = await intakeFor(p, id).catch((e: unknown) => { if (e instanceof Problem) return null; throw e; });
  if (!found) notFound();
  const { intake, entries } = found, shelves = await listShelves(p);
  const held = await heldNames([...new Set(entries.flatMap((e) => e.needs.map((n) => n.name)))]), inPack = new Set(entries.filter((e) => e.kind === 'look').map((e) => e.title));
  const count = (o: string) => entries.filter((e) => e.outcome === o).length;
  return (
    <div className="flex min-h-[calc(100vh-52px)] flex-col px-6 pt-[18px]">
      <PageHead title={intake.name} note={<span className="inline-flex gap-2"><State of={intake.status} />{intake.status !== 'reading' && `${entries.length} files: ${count('new')} new, ${count('duplicate')} held, ${count('refused')} refused`}</span>} />
      {intake.status === 'reading' && intake.job_id && <Reading jobId={intake.job_id} />}
      {intake.status === 'failed' && <Notice problem={intake.error} className="my-4" />}
      {intake.status !== 'reading' && <Arrival id={intake.id} status={intake.status} may={may(p, 'intake.accept')} shelves={shelves.map(({ id: s, name }) => ({ id: s, name }))}
        entries={entries.map((e) => ({ id: e.id, path: e.path, size: e.size, outcome: e.outcome, kind: e.kind, format: e.format, title: e.title, headings: e.headings, needs: e.needs.map((n) => ({ ...n, held: held.has(n.name) || inPack.has(n.name) })), selvedge: e.selvedge, note: e.note, problem: e.problem, heldItem: e.held_item, heldTitle: e.held_title, itemId: e.item_id }))} />}
    </div>
  );
}
