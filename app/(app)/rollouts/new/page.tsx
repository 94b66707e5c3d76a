import { acceptedKinds } from '@/core/editor/accepted-kinds';
import { candidatesFor } from '@/server/bench/service';
import { searchItems } from '@/server/search/service';
import { may } from '@/server/people/roles';
import { stationChoices } from '@/server/stations/views';
import { signedInPerson } from '@/server/http';
import { PageHead } from '@/ui/shell/Shell';
import { kindWords } from '@/ui/shelves/model/spine';
import { PlanForm } from '@/ui/rollouts/PlanForm';

export const metadata = { title: 'Plan a rollout' };

/** Approved items that are offered. */
const MOST_LISTED = 500;

export default async function Page({
  searchParams,
}: {
  searchParams: Promise<{ versions?: string; stations?: string }>;
}) {
  const person = await signedInPerson();
  if (!may(person, 'rollout.plan'))
    return (
      <div className="px-6 pt-[18px]">
        <PageHead title="Plan a rollout" />
        <p className="text-soft">Rollouts are planned by the librarian or the lead.</p>
      </div>
    );
  const asked = await searchParams;
  const chosen = (asked.versions ?? '').split(',').filter(Boolean);
  const at = new Set((asked.stations ?? '').split(','));
  const [{ rows: spines }, known, stations] = await Promise.all([
    searchItems(person, { status: 'approved', kind: acceptedKinds.join('|') }, MOST_LISTED),
    candidatesFor(person, chosen),
    stationChoices(person),
  ]);
  // in a large library, what was chosen may stand behind the end of the list
  const listed = new Set(spines.map((spine) => spine.version_id));
  const behind = known
    .filter((one) => one.status === 'approved' && !listed.has(one.version_id))
    .map((one) => ({ ...one, selvedge: null }));
  return (
    <div className="flex min-h-[calc(100vh-52px)] flex-col px-6 pt-[18px]">
      <PageHead title="Plan a rollout" note="nothing is written before you confirm" />
      <PlanForm
        chosen={chosen}
        at={stations.flatMap(({ id }) => (at.has(id) ? [id] : []))}
        versions={[...behind, ...spines].map((spine) => ({
          versionId: spine.version_id,
          title: spine.title,
          kind: kindWords[spine.kind] ?? spine.kind,
          number: spine.number,
          selvedge: spine.selvedge,
        }))}
        stations={stations.map((station) => ({
          id: station.id,
          name: station.name,
          groups: station.groups,
          note: station.editors.join(', ') || 'no editor known there',
        }))}
      />
    </div>
  );
}
