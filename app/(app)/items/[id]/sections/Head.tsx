import Link from 'next/link';
import { isPlaceable } from '@/core/editor/accepted-kinds';
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
import { benchAddress } from '@/ui/bench/model/laid';
import {
  formOfRequest,
  framesOfRequest,
  itemOfRequest,
  licencesOfRequest,
  personOfRequest,
  type PageProps,
} from '../request';

/** How many frames an item is laid on the bench with. */
const FRAMES = 4;

interface Props extends Pick<PageProps, 'searchParams'> {
  id: string;
}

/** What the item is, and what can be done with the form of it that is shown. */
export async function Head({ id, searchParams }: Props) {
  const person = await personOfRequest();
  const found = await itemOfRequest(id);
  const shown = await formOfRequest(id, searchParams);
  const { item } = found;
  return (
    <>
      <PageHead title={item.title} note={<Note item={found.item} shown={shown} />}>
        {may(person, 'item.edit') && <Edit item={found.item} />}
        <RibbonButton itemId={item.id} on={item.mine} whose="mine" may={may(person, 'ribbon.own')} />
        <RibbonButton itemId={item.id} on={item.house} whose="house" may={may(person, 'ribbon.house')} />
        <Ways person={person} item={found.item} shown={shown} />
        {may(person, 'item.archive') && <More person={person} item={found.item} shown={shown} />}
      </PageHead>
      {item.aliases.length > 0 && <p className="-mt-2 mb-4 text-soft">also known as {item.aliases.join(', ')}</p>}
    </>
  );
}

type Item = ItemWithVersions['item'];

interface Part {
  person: Person;
  item: Item;
  /** the newest version of the form that is shown */ shown: ItemWithVersions['newest'];
}

function Note({ item, shown }: Pick<Part, 'item' | 'shown'>) {
  const kind =
    item.kind === 'preset' ? `Preset of ${languageWords(shown.format)}` : (kindWords[item.kind] ?? item.kind);
  return (
    <>
      {kind}, version {shown.number}, on{' '}
      <Link prefetch={false} className="underline" href={`/shelves?shelf=${item.shelf_id}`}>
        {item.shelf}
      </Link>
      {item.archived_at && <State of="archived" className="ml-2" />}
    </>
  );
}

async function Edit({ item }: Pick<Part, 'item'>) {
  const licences = await licencesOfRequest();
  return (
    <EditItem
      id={item.id}
      revision={item.revision}
      item={editableOf({
        ...item,
        scope: { input: item.scope.input ?? null, result: item.scope.result ?? null },
      })}
      licences={licences}
    />
  );
}

/** Where one can go on with it. */
async function Ways({ person, item, shown }: Part) {
  const frames = await framesOfRequest();
  const hasLook = item.kind === 'look' || item.kind === 'preset';
  const laid = { kind: item.kind, versionId: shown.id, strength: item.strength_usual };
  const bench = hasLook ? benchAddress([laid], frames, FRAMES) : null;
  return (
    <>
      {bench && (
        <Link prefetch={false} className="button" href={bench}>
          On the bench
        </Link>
      )}
      {item.kind === 'preset' && may(person, 'item.convert') && (
        <Link className="button" href={`/items/${item.id}/convert${shown.variant ? `?form=${shown.id}` : ''}`}>
          Convert
        </Link>
      )}
      {may(person, 'rollout.plan') && shown.status === 'approved' && isPlaceable(item.kind) && (
        <Link prefetch={false} className="button main" href={`/rollouts/new?versions=${shown.id}`}>
          Roll out
        </Link>
      )}
    </>
  );
}

function More({ person, item, shown }: Part) {
  const { kind, title, cameras } = item;
  const derivable = kind === 'look' || (kind === 'camera-profile' && shown.format === 'dcp') ? kind : null;
  return (
    <ItemMenu
      id={item.id}
      versionId={shown.id}
      status={shown.status}
      archived={!!item.archived_at}
      derive={may(person, 'item.convert') && derivable ? { kind: derivable, title, cameras } : null}
    />
  );
}
