import { curesOf, type CheckedThing } from '@/core/editor/checklist';
import { editorKey, type Descriptor } from '@/core/editor/descriptor';
import { orNull } from '@/core/problem';
import { isUuid } from '@/core/uuid';
import { signedInPerson } from '@/server/http';
import { checkAgainst, itemsToInspect, MOST_INSPECTED, type InspectedRow } from '@/server/inspection/service';
import { listShelves } from '@/server/items/service';
import { packFor } from '@/server/packs/service';
import { may, type Person } from '@/server/people/roles';
import { InspectionOfMany } from '@/ui/inspection/InspectionOfMany';
import { inspectionAddress } from '@/ui/inspection/model/item';
import { Refresh } from '@/ui/kit/Refresh';
import { kindWords } from '@/ui/shelves/model/spine';
import { PageHead } from '@/ui/shell/Shell';

export const metadata = { title: 'Inspection' };

interface Props {
  searchParams: Promise<{ items?: string; shelf?: string; pack?: string; target?: string }>;
}

export default async function Page({ searchParams }: Props) {
  const person = await signedInPerson();
  const { target = '', ...asked } = await searchParams;
  const { rows, more } = await itemsToInspect(person, asked);
  return (
    <div className="px-6 pb-16 pt-[18px]">
      <Refresh subjects={['item', 'version', 'editor']} />
      {rows.length ? (
        <Inspected person={person} rows={rows} more={more} target={target} asked={asked} />
      ) : (
        <NothingChosen />
      )}
    </div>
  );
}

function NothingChosen() {
  return (
    <>
      <PageHead title="Inspection" note="nothing is chosen" />
      <p className="max-w-[640px] border-t border-line py-4 text-soft">
        Choose items on the shelves, a shelf or a pack, and take Inspect there: their figures stand side by side, sorted
        by what needs a look, and against what an editor or a card asks.
      </p>
    </>
  );
}

interface InspectedProps {
  person: Person;
  rows: InspectedRow[];
  more: boolean;
  target: string;
  asked: { items?: string; shelf?: string; pack?: string };
}

async function Inspected({ person, rows, more, target, asked }: InspectedProps) {
  const [{ targets, checked }, of] = await Promise.all([checkAgainst(person, rows, target), nameOf(person, asked)]);
  return (
    <InspectionOfMany
      items={rows.map((row) => ({
        id: row.id,
        versionId: row.version_id,
        title: row.title,
        about: `${kindWords[row.kind] ?? row.kind}, version ${row.number}`,
      }))}
      cutAt={more ? MOST_INSPECTED : null}
      of={of}
      address={addressOf(asked, rows)}
      targets={targets.map(targetView)}
      checked={checked && checkedView(checked)}
      may={{
        edit: may(person, 'item.edit'),
        approve: may(person, 'item.approve'),
        convert: may(person, 'item.convert'),
      }}
    />
  );
}

const targetView = (descriptor: Descriptor) => ({
  key: editorKey(descriptor),
  title: descriptor.title,
  isCard: descriptor.kind === 'card',
});

const checkedView = ({ target, things }: { target: Descriptor; things: CheckedThing[] }) => ({
  target: targetView(target),
  things,
  cures: curesOf(things),
});

function addressOf({ shelf, pack }: InspectedProps['asked'], rows: readonly InspectedRow[]): string {
  if (isUuid(shelf)) return inspectionAddress({ shelf });
  if (isUuid(pack)) return inspectionAddress({ pack });
  return inspectionAddress({ items: rows.map(({ id }) => id) });
}

/** What the items are of, in words. */
async function nameOf(person: Person, { shelf, pack }: InspectedProps['asked']): Promise<string> {
  if (isUuid(shelf)) {
    const found = (await listShelves(person)).find(({ id }) => id === shelf);
    return found ? `the shelf ${found.name}` : '';
  }
  if (!isUuid(pack)) return '';
  const found = await orNull(packFor(person, pack));
  return found ? `the pack ${found.pack.name}` : '';
}
