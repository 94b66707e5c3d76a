import Link from 'next/link';
import { descriptors } from '@/server/editors/service';
import { coverage } from '@/server/gear/service';
import { may } from '@/server/people/roles';
import { signedInPerson } from '@/server/http';
import { PageHead } from '@/ui/shell/Shell';
import { Coverage } from '@/ui/gear/Coverage';
import { Photos } from '@/ui/gear/Photos';
import { PhotosNow } from '@/ui/gear/PhotosNow';
import { Requests } from '@/ui/gear/Requests';
import { Refresh } from '@/ui/kit/Refresh';

export const metadata = { title: 'Coverage' };

export default async function Page({ searchParams }: { searchParams: Promise<{ gaps?: string }> }) {
  const person = await signedInPerson();
  const gaps = (await searchParams).gaps === '1';
  const [studio, known] = await Promise.all([coverage(person), descriptors()]);
  const askedFor = (id: string) =>
    studio.requests
      .filter((r) => (r.camera_id === id || r.lens_id === id) && r.state !== 'fulfilled')
      .map((r) => ({ wanted: r.wanted, state: r.state }));
  return (
    <div className="max-w-[1180px] px-6 pb-16 pt-[18px]">
      <Refresh subjects={['item', 'camera', 'lens', 'request', 'editor', 'frame', 'arrival']} />
      <PageHead title="Coverage" note="which of our cameras and lenses have what they need">
        <span className="inline-flex gap-2">
          <Link className="chip" href="/coverage" aria-current={!gaps}>
            All
          </Link>
          <Link className="chip" href="/coverage?gaps=1" aria-current={gaps}>
            Gaps only
          </Link>
        </span>
        <a className="button" href="/api/gear/csv" download>
          CSV
        </a>
      </PageHead>
      <Coverage
        gaps={gaps}
        editors={studio.editors}
        suppliers={studio.suppliers}
        may={{ edit: may(person, 'gear.edit'), ask: may(person, 'gear.ask') }}
        unlisted={{
          cameras: studio.unlisted.cameras.map((gear) => [gear.model, gear.conversion].filter(Boolean).join(', ')),
          lenses: studio.unlisted.lenses.map((gear) => gear.model),
        }}
        cameras={studio.cameras.map(({ row, state, sources, reads, named }) => ({
          gear: row,
          state,
          sources,
          reads,
          find: named ? `/shelves?camera=${encodeURIComponent(named)}` : null,
          requests: askedFor(row.id),
        }))}
        lenses={studio.lenses.map(({ lens, state, found, missing }) => ({
          gear: { ...lens, names: [...lens.names] },
          state,
          missing,
          found,
          requests: askedFor(lens.id),
        }))}
      />
      <h2 className="mb-1 mt-8 text-[17px]">Requests</h2>
      <Requests
        may={may(person, 'gear.edit')}
        requests={studio.requests.map((request) => ({
          id: request.id,
          about: request.about,
          wanted: request.wanted,
          askedOf: request.asked_of,
          note: request.note,
          state: request.state,
          stateAt: request.state_at.toISOString(),
          person: request.person,
          at: request.created_at.toISOString(),
          met: request.met,
        }))}
      />
      <h2 className="mb-2 mt-8 text-[17px]">A folder that looks empty</h2>
      <Photos />
      <h2 className="mb-2 mt-8 text-[17px]">What a photo has now</h2>
      <PhotosNow descriptors={known} />
    </div>
  );
}
