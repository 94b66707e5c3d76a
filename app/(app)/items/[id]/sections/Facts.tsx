import Link from 'next/link';
import type { ItemWithVersions } from '@/server/items/service';
import { may } from '@/server/people/roles';
import { EncodingAndStatus } from '@/ui/item/Encoding';
import { ReadFacts } from '@/ui/item/Facts';
import { KeptTrim } from '@/ui/item/KeptTrim';
import { References } from '@/ui/item/References';
import { Fact } from '@/ui/kit/Fact';
import { Selvedge } from '@/ui/kit/Selvedge';
import { Ago } from '@/ui/kit/time';
import {
  formOfRequest,
  itemOfRequest,
  packsOfRequest,
  personOfRequest,
  referencesOfRequest,
  ribbonsOfRequest,
  type PageProps,
} from '../request';

interface Props extends Pick<PageProps, 'searchParams'> {
  id: string;
}

/** What is recorded of the item, and what was read from the newest version of the form that is shown. */
export async function Facts({ id, searchParams }: Props) {
  const person = await personOfRequest();
  const { item } = await itemOfRequest(id);
  const shown = await formOfRequest(id, searchParams);
  const hasStrength = item.kind === 'look' || item.kind === 'preset';
  return (
    <>
      <div className="mb-4 flex border border-line">
        <Selvedge threads={shown.selvedge} className="h-[112px] w-full" />
      </div>
      <EncodingAndStatus
        key={shown.id}
        versionId={shown.id}
        encoding={shown.encoding}
        confirmedBy={shown.encoding_confirmed_by}
        status={shown.status}
        kind={item.kind}
        approver={shown.approver}
        mayEdit={may(person, 'item.edit')}
        mayApprove={may(person, 'item.approve')}
      />
      <dl className="facts mb-5">
        <Fact name="Headings">{item.headings.join(' / ') || 'none'}</Fact>
        <Scope item={item} />
        {hasStrength && <Strength item={item} />}
        {item.compensation && (
          <Fact name="Trim">
            <KeptTrim itemId={id} trim={item.compensation} mayEdit={may(person, 'item.edit')} />
          </Fact>
        )}
        {item.tags.length > 0 && <Fact name="Tags">{item.tags.join(', ')}</Fact>}
        <Fact name="Origin">
          {item.origin}
          {item.supplier && `, from ${item.supplier}`}
        </Fact>
        <Licence item={item} />
        <CameIn id={id} source={item.source} />
        <Rights item={item} />
        <Ribbons id={id} />
      </dl>
      {item.kind === 'preset' && (
        <References
          versionId={shown.id}
          references={await referencesOfRequest(shown.id)}
          mayEdit={may(person, 'item.edit')}
        />
      )}
      <ReadFacts kind={item.kind} facts={shown.facts} encoding={shown.encoding} />
    </>
  );
}

type Item = ItemWithVersions['item'];

const everyCamera = (kind: string): string =>
  kind === 'camera-profile' ? 'every camera: a general profile' : 'any camera';

const Scope = ({ item: { kind, cameras, lenses, scope, gray } }: { item: Item }) => (
  <Fact name="Scope">
    {cameras.join(', ') || everyCamera(kind)}, {scope.input ?? 'any input'},{' '}
    {scope.result ?? (gray ? 'monochrome, by what it does' : 'color or monochrome')}
    {lenses.length > 0 && <span className="block">{lenses.join(', ')}</span>}
  </Fact>
);

function Strength({ item: { strength_least: least, strength_usual: usual, strength_most: most } }: { item: Item }) {
  if (least === most) return <Fact name="Strength">none: as made or not at all</Fact>;
  return (
    <Fact name="Strength">
      {least}, {usual}, {most} % <span className="text-soft">least, usual, most</span>
    </Fact>
  );
}

function Licence({ item: { licence, supplier } }: { item: Item }) {
  const none = supplier ? <span className="text-ochre">not known</span> : 'own work';
  return <Fact name="Licence">{licence ?? none}</Fact>;
}

async function CameIn({ id, source }: { id: string; source: Record<string, string> }) {
  const packs = await packsOfRequest(id);
  return (
    <Fact name="Came in">
      {packs.map((pack) => (
        <span key={pack.id} className="block">
          <Link className="underline" href={`/packs/${pack.id}`}>
            {pack.name}
          </Link>
        </span>
      ))}
      {!packs.length && 'Added here, not from an arrival'}
      {Object.entries(source).map(([key, value]) => (
        <span key={key} className="block text-[12px] text-soft">
          {key}: {value}
        </span>
      ))}
    </Fact>
  );
}

function Rights({ item: { creator, contact, rights, web_statement: statement } }: { item: Item }) {
  const words = [creator, contact, rights, statement].filter(Boolean).join('; ');
  return words ? <Fact name="Creator and rights">{words}</Fact> : null;
}

async function Ribbons({ id }: { id: string }) {
  const ribbons = await ribbonsOfRequest(id);
  if (!ribbons.length) return null;
  return (
    <Fact name="Ribbons">
      {ribbons.map((ribbon) => (
        <span key={ribbon.whose ?? 'house'} className="block">
          {ribbon.whose ?? 'the house'}{' '}
          <span className="text-[12px] text-soft">
            <Ago at={ribbon.made_at.toISOString()} />
            {ribbon.whose !== ribbon.made_by && `, by ${ribbon.made_by}`}
          </span>
        </span>
      ))}
    </Fact>
  );
}
