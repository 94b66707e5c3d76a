import Link from 'next/link';
import { isPlaceable } from '@/core/editor/accepted-kinds';
import { notFound } from 'next/navigation';
import { orNull } from '@/core/problem';
import { sourceParts } from '@/core/item/fields';
import { isUuid } from '@/core/uuid';
import { counted } from '@/core/words';
import { listFrames } from '@/server/frames/service';
import { signedInPerson } from '@/server/http';
import { licenceChoices } from '@/server/licences/service';
import { packFor, type PackView } from '@/server/packs/service';
import { may } from '@/server/people/roles';
import { Release } from '@/ui/intake/Release';
import { Fact } from '@/ui/kit/Fact';
import { Refresh } from '@/ui/kit/Refresh';
import { SectionHead } from '@/ui/kit/Section';
import { Ago } from '@/ui/kit/time';
import { Members } from '@/ui/packs/Members';
import { PackActions } from '@/ui/packs/PackActions';
import { PackPapers } from '@/ui/packs/PackPapers';
import { benchAddress } from '@/ui/bench/model/laid';
import { MOST_IN_ADDRESS } from '@/ui/shelves/model/selection';
import { PageHead } from '@/ui/shell/Shell';

export const metadata = { title: 'Pack' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const person = await signedInPerson();
  const { id } = await params;
  if (!isUuid(id)) notFound();
  const [view, licences, frames] = await Promise.all([
    orNull(packFor(person, id)),
    licenceChoices(person),
    listFrames(person),
  ]);
  if (!view) notFound();
  const { pack, members, papers, release } = view;
  const standing = members.filter((member) => !member.archived);
  return (
    <div className="px-6 pb-16 pt-[18px]">
      <Refresh subjects={['pack', 'item', 'version', 'arrival']} />
      <PageHead title={pack.name} note={pack.release ? `release ${pack.release}` : 'a pack'}>
        <PackActions
          pack={{
            id: pack.id,
            name: pack.name,
            release: pack.release,
            supplier: pack.supplier,
            licenceId: pack.licence_id,
            source: pack.source,
          }}
          items={standing.map((member) => member.item_id)}
          drafts={standing.filter((member) => member.status === 'draft').map((member) => member.item_id)}
          bench={benchAddress(
            standing.map((one) => ({ kind: one.kind, versionId: one.newest_version_id })),
            frames,
          )}
          rollOut={standing
            .filter((one) => one.status === 'approved' && isPlaceable(one.kind))
            .slice(0, MOST_IN_ADDRESS)
            .map((one) => one.newest_version_id)}
          licences={licences}
          may={{
            edit: may(person, 'item.edit'),
            convert: may(person, 'item.convert'),
            approve: may(person, 'item.approve'),
            archive: may(person, 'item.archive'),
            rollOut: may(person, 'rollout.plan'),
          }}
        />
      </PageHead>
      <div className="mb-6 grid max-w-[1180px] grid-cols-[repeat(auto-fit,minmax(min(100%,380px),1fr))] gap-6">
        <PackFacts view={view} mayLook={may(person, 'arrival.read')} />
        {papers.length > 0 && <PackPapers arrival={pack.arrival_id} papers={papers} />}
      </div>
      {release && <Release pack={release.pack} when={<Ago at={release.pack.at} />} changes={release.changes} />}
      <SectionHead>What came in it: {counted(members.length, 'item')}</SectionHead>
      <Members
        members={members.map((member) => ({
          itemId: member.item_id,
          title: member.title,
          kind: member.kind,
          paths: member.paths,
          number: member.number,
          newest: member.newest,
          status: member.status,
          shelf: member.shelf,
          archived: member.archived,
          stations: member.stations,
          selvedge: member.selvedge,
        }))}
      />
    </div>
  );
}

function PackFacts({ view: { pack, places }, mayLook }: { view: PackView; mayLook: boolean }) {
  const source = sourceParts.flatMap(({ part, label }) => {
    const value = pack.source[part];
    return value ? [{ label, value }] : [];
  });
  return (
    <dl className="facts content-start">
      <Fact name="Supplier">{pack.supplier || 'own work'}</Fact>
      <Fact name="Licence">{pack.licence ?? (pack.supplier ? 'not known' : 'own work')}</Fact>
      {source.map(({ label, value }) => (
        <Fact key={label} name={label}>
          {value}
        </Fact>
      ))}
      <Fact name="Came">
        <Ago at={pack.created_at.toISOString()} />
        {mayLook && (
          <>
            ,{' '}
            <Link className="underline" href={`/intake/${pack.arrival_id}`}>
              see its arrival
            </Link>
          </>
        )}
      </Fact>
      {(pack.previous_id ?? pack.next_id) && (
        <Fact name="Releases">
          {pack.previous_id && (
            <Link className="mr-3 underline" href={`/packs/${pack.previous_id}`}>
              the one before
            </Link>
          )}
          {pack.next_id && (
            <Link className="underline" href={`/packs/${pack.next_id}`}>
              a newer one
            </Link>
          )}
        </Fact>
      )}
      <Fact name="On stations">
        {places.length === 0 && 'none of it'}
        {places.map(({ id, name, files }) => (
          <span key={id} className="block">
            <Link className="underline" href={`/stations/${id}`}>
              {name}
            </Link>
            , {counted(files, 'file')}
          </span>
        ))}
      </Fact>
    </dl>
  );
}
