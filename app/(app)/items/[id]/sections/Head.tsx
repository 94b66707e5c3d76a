import Link from 'next/link';
import { editableOf } from '@/core/item/fields';
import type { ItemWithVersions } from '@/server/items/service';
import { languageWords } from '@/server/search/service';
import { may, type Person } from '@/server/people/roles';
import { EditItem } from '@/ui/item/EditItem';
import { ItemMenu } from '@/ui/item/ItemMenu';
import { RibbonButton } from '@/ui/kit/RibbonButton';
import { State } from '@/ui/kit/State';
import { kindWords } from '@/ui/shelves/model/spine';
import { PageHead } from '@/ui/shell/Shell';
import { framesOfRequest, itemOfRequest, licencesOfRequest, personOfRequest } from '../request';

/** How many frames an item is laid on the bench with. */
const FRAMES = 4;

/** What the item is, and what can be done with it. */
export async function Head({ id }: { id: string }) {
  const person = await personOfRequest();
  const found = await itemOfRequest(id);
  const { item } = found;
  return (
    <>
      <PageHead title={item.title} note={<Note {...found} />}>
        {may(person, 'item.edit') && <Edit found={found} />}
        <RibbonButton itemId={item.id} on={item.mine} whose="mine" may={may(person, 'ribbon.own')} />
        <RibbonButton itemId={item.id} on={item.house} whose="house" may={may(person, 'ribbon.house')} />
        <Ways person={person} found={found} />
        {may(person, 'item.archive') && <More person={person} found={found} />}
      </PageHead>
      {item.aliases.length > 0 && <p className="-mt-2 mb-4 text-soft">also known as {item.aliases.join(', ')}</p>}
    </>
  );
}

interface Part {
  person: Person;
  found: ItemWithVersions;
}

function Note({ item, newest }: ItemWithVersions) {
  const kind =
    item.kind === 'preset' ? `Preset of ${languageWords(newest.format)}` : (kindWords[item.kind] ?? item.kind);
  return (
    <>
      {kind}, version {newest.number}, on{' '}
      <Link className="underline" href={`/shelves?shelf=${item.shelf_id}`}>
        {item.shelf}
      </Link>
      {item.archived_at && <State of="archived" className="ml-2" />}
    </>
  );
}

async function Edit({ found: { item } }: Pick<Part, 'found'>) {
  const licences = await licencesOfRequest();
  return (
    <EditItem
      id={item.id}
      revision={item.revision}
      item={editableOf({
        ...item,
        scope: { input: item.scope.input ?? null, result: item.scope.result ?? null },
      })}
      licences={licences.map(({ id, name }) => ({ id, name }))}
    />
  );
}

/** Where one can go on with it. */
async function Ways({ person, found: { item, newest } }: Part) {
  const frames = await framesOfRequest();
  const hasLook = item.kind === 'look' || item.kind === 'preset';
  const rows = frames.slice(0, FRAMES).map((frame) => frame.id);
  return (
    <>
      {hasLook && rows.length > 0 && (
        <Link className="button" href={`/bench?rows=${rows.join('~')}&cols=none~l:${newest.id}:${item.strength_usual}`}>
          On the bench
        </Link>
      )}
      {item.kind === 'preset' && may(person, 'item.convert') && (
        <Link className="button" href={`/items/${item.id}/convert`}>
          Convert into a look
        </Link>
      )}
      {may(person, 'rollout.plan') && newest.status === 'approved' && hasLook && (
        <Link className="button main" href={`/rollouts/new?versions=${newest.id}`}>
          Roll out
        </Link>
      )}
    </>
  );
}

function More({ person, found: { item, newest } }: Part) {
  const { kind, title, cameras } = item;
  const derivable = kind === 'look' || (kind === 'camera-profile' && newest.format === 'dcp') ? kind : null;
  return (
    <ItemMenu
      id={item.id}
      versionId={newest.id}
      status={newest.status}
      archived={!!item.archived_at}
      derive={may(person, 'item.convert') && derivable ? { kind: derivable, title, cameras } : null}
    />
  );
}
