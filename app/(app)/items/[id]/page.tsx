import Link from 'next/link';
import { notFound } from 'next/navigation';
import { Problem } from '@/core/problem';
import { verdictsOf } from '@/server/bench/service';
import { listFrames } from '@/server/frames/service';
import { activityOfItem } from '@/server/activity/service';
import { inspectionOf, itemFor, type LineRow } from '@/server/items/service';
import { languageWords } from '@/server/items/search';
import { compareVersions } from '@/server/items/versions';
import { listLicences } from '@/server/licences/service';
import { ribbonsOfItem } from '@/server/ribbons/service';
import { may } from '@/server/people/roles';
import { signedInPerson } from '@/server/web';
import { PageHead } from '@/ui/shell/Shell';
import { Difference } from '@/ui/item/Difference';
import { EditItem } from '@/ui/item/EditItem';
import { EncodingAndStatus } from '@/ui/item/Encoding';
import { LookFacts, OtherFacts, PresetFacts } from '@/ui/item/Facts';
import { Inspection } from '@/ui/item/Inspection';
import { ItemMenu } from '@/ui/item/ItemMenu';
import { ItemView } from '@/ui/item/ItemView';
import { Verdicts } from '@/ui/item/Verdicts';
import { VersionTable } from '@/ui/item/VersionTable';
import { WillItShow } from '@/ui/item/WillItShow';
import { Events } from '@/ui/activity/Events';
import { Refresh } from '@/ui/kit/Refresh';
import { RibbonButton } from '@/ui/kit/RibbonButton';
import { Selvedge } from '@/ui/kit/Selvedge';
import { State } from '@/ui/kit/State';
import { Ago } from '@/ui/kit/time';
import { kindWords } from '@/ui/shelves/model/spine';

const Line = ({ l: line, word }: { l: LineRow; word: string }) => (
  <li className="flex items-center gap-3 border-t border-line py-2">
    <Selvedge threads={line.selvedge} className="h-[34px] w-[40px] shrink-0" />
    <span>
      <Link className="font-serif text-[15px] underline" href={`/items/${line.item_id}`}>
        {line.title}
      </Link>
      <span className="block text-[12px] text-soft">
        {word} {line.kind} version {line.number}
        {typeof line.recipe.size === 'number' ? `, baked at ${line.recipe.size} points` : ''}
        {line.newest > line.number ? `; stale, version ${line.newest} is there` : ''}
      </span>
    </span>
  </li>
);

/** The bench with the frames of a profile's cameras, beside no profile and the camera's own rendering. */
const benchFor = (
  frames: { id: string; camera: string; file_kind: string }[],
  cameras: string[],
  version: string,
): string =>
  `rows=${frames
    .filter((f) => f.file_kind === 'camera data' && cameras.includes(f.camera))
    .slice(0, 6)
    .map((f) => f.id)
    .join('~')}&cols=none~p:${version}~jpeg`;

export async function generateMetadata({ params }: { params: Promise<{ id: string }> }) {
  const person = await signedInPerson();
  const found = await itemFor(person, (await params).id).catch(() => null);
  return { title: found?.item.title ?? 'Item' };
}

export default async function Page({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ frame?: string; strength?: string; older?: string; newer?: string }>;
}) {
  const person = await signedInPerson();
  const { id } = await params;
  const s = await searchParams;
  const found = await itemFor(person, id).catch((error: unknown) => {
    if (error instanceof Problem || (error as { code?: string }).code === '22P02') return null;
    throw error;
  });
  if (!found) notFound();
  const { item, versions, newest, sources, results, placed, packs } = found;
  const older = versions.find((v) => v.id === s.older);
  const newer = versions.find((v) => v.id === s.newer);
  const [inspection, verdicts, frames, licences, ribbons, events, difference] = await Promise.all([
    inspectionOf(person, newest.id),
    verdictsOf(person, id),
    listFrames(person),
    may(person, 'item.edit') ? listLicences(person) : [],
    ribbonsOfItem(person, id),
    activityOfItem(person, id),
    older && newer && older.id !== newer.id ? compareVersions(person, older.id, newer.id) : null,
  ]);
  const strength = Math.min(400, Math.max(0, Math.round(Number(s.strength ?? 100)) || (s.strength === '0' ? 0 : 100)));
  const facts = newest.facts as never;
  const shown = item.kind === 'look' || item.kind === 'preset';
  const kind = kindWords[item.kind] ?? item.kind;
  return (
    <div className="max-w-[1180px] px-6 pb-16 pt-[18px]">
      <Refresh subjects={['item', 'rollout', 'station']} />
      <PageHead
        title={item.title}
        note={
          <>
            {item.kind === 'preset' ? `Preset of ${languageWords(newest.format)}` : kind}, version {newest.number}, on{' '}
            <Link className="underline" href={`/shelves?shelf=${item.shelf_id}`}>
              {item.shelf}
            </Link>
            {item.archived_at && <State of="archived" className="ml-2" />}
          </>
        }
      >
        {may(person, 'item.edit') && (
          <EditItem
            id={item.id}
            revision={item.revision}
            licences={licences.map((l) => ({ id: l.id, name: l.name }))}
            item={{
              title: item.title,
              short_title: item.short_title,
              headings: item.headings,
              position: item.position,
              description: item.description,
              intention: item.intention,
              creator: item.creator,
              rights: item.rights,
              web_statement: item.web_statement,
              supplier: item.supplier,
              tags: item.tags,
              notes: item.notes,
              cameras: item.cameras,
              lenses: item.lenses,
              origin: item.origin,
              licence_id: item.licence_id,
              strength_least: item.strength_least,
              strength_usual: item.strength_usual,
              strength_most: item.strength_most,
              scope: { input: item.scope.input ?? null, result: item.scope.result ?? null },
            }}
          />
        )}
        <RibbonButton itemId={item.id} on={item.mine} whose="mine" may={may(person, 'ribbon.own')} />
        <RibbonButton itemId={item.id} on={item.house} whose="house" may={may(person, 'ribbon.house')} />
        {shown && frames.length > 0 && (
          <Link
            className="button"
            href={`/bench?rows=${frames
              .slice(0, 4)
              .map((f) => f.id)
              .join('~')}&cols=none~l:${newest.id}:${item.strength_usual}`}
          >
            On the bench
          </Link>
        )}
        {item.kind === 'preset' && may(person, 'item.convert') && (
          <Link className="button" href={`/items/${item.id}/convert`}>
            Convert into a look
          </Link>
        )}
        {may(person, 'rollout.plan') &&
          (newest.status === 'approved' && (item.kind === 'look' || item.kind === 'preset') ? (
            <Link className="button main" href={`/rollouts/new?versions=${newest.id}`}>
              Roll out
            </Link>
          ) : null)}
        {may(person, 'item.archive') && (
          <ItemMenu
            id={item.id}
            versionId={newest.id}
            status={newest.status}
            archived={!!item.archived_at}
            derive={
              may(person, 'item.convert') &&
              (item.kind === 'look' || (item.kind === 'camera-profile' && newest.format === 'dcp'))
                ? { kind: item.kind, title: item.title, cameras: item.cameras }
                : null
            }
          />
        )}
      </PageHead>
      {item.aliases.length > 0 && <p className="-mt-2 mb-4 text-soft">also known as {item.aliases.join(', ')}</p>}
      <div className="grid grid-cols-[300px_minmax(0,1fr)] gap-8">
        <aside className="min-w-0">
          <div className="mb-4 flex border border-line">
            <Selvedge threads={newest.selvedge} className="h-[112px] w-full" />
          </div>
          <EncodingAndStatus
            versionId={newest.id}
            encoding={newest.encoding}
            confirmedBy={newest.encoding_confirmed_by}
            status={newest.status}
            kind={item.kind}
            approver={newest.approver}
            mayEdit={may(person, 'item.edit')}
            mayApprove={may(person, 'item.approve')}
          />
          <dl className="facts mb-5">
            <div>
              <dt>Headings</dt>
              <dd>{item.headings.join(' / ') || 'none'}</dd>
            </div>
            <div>
              <dt>Scope</dt>
              <dd>
                {item.cameras.join(', ') || 'any camera'}, {item.scope.input ?? 'any input'},{' '}
                {item.scope.result ?? 'color or monochrome'}
                {item.lenses.length > 0 && <span className="block">{item.lenses.join(', ')}</span>}
              </dd>
            </div>
            {shown && (
              <div>
                <dt>Strength</dt>
                <dd>
                  {item.strength_least === item.strength_most ? (
                    'none: as made or not at all'
                  ) : (
                    <>
                      {item.strength_least}, {item.strength_usual}, {item.strength_most} %{' '}
                      <span className="text-soft">least, usual, most</span>
                    </>
                  )}
                </dd>
              </div>
            )}
            {item.tags.length > 0 && (
              <div>
                <dt>Tags</dt>
                <dd>{item.tags.join(', ')}</dd>
              </div>
            )}
            <div>
              <dt>Origin</dt>
              <dd>
                {item.origin}
                {item.supplier && `, from ${item.supplier}`}
              </dd>
            </div>
            <div>
              <dt>Licence</dt>
              <dd>{item.licence ?? (item.supplier ? <span className="text-ochre">not known</span> : 'own work')}</dd>
            </div>
            <div>
              <dt>Came in</dt>
              <dd>
                {packs.length
                  ? packs.map((k) => (
                      <span key={k.intake_id} className="block">
                        <Link className="underline" href={`/intake/${k.intake_id}`}>
                          {k.name}
                        </Link>
                      </span>
                    ))
                  : 'by itself'}
                {Object.entries(item.source).map(([key, value]) => (
                  <span key={key} className="block text-[12px] text-soft">
                    {key}: {value}
                  </span>
                ))}
              </dd>
            </div>
            {(item.creator || item.rights || item.web_statement) && (
              <div>
                <dt>Creator and rights</dt>
                <dd>{[item.creator, item.rights, item.web_statement].filter(Boolean).join('; ')}</dd>
              </div>
            )}
            {ribbons.length > 0 && (
              <div>
                <dt>Ribbons</dt>
                <dd>
                  {ribbons.map((r) => (
                    <span key={r.whose ?? 'house'} className="block">
                      {r.whose ?? 'the house'}{' '}
                      <span className="text-[12px] text-soft">
                        <Ago at={r.made_at.toISOString()} />
                        {r.whose !== r.made_by && `, by ${r.made_by}`}
                      </span>
                    </span>
                  ))}
                </dd>
              </div>
            )}
          </dl>
          {item.kind === 'look' && 'domain' in newest.facts ? (
            <LookFacts facts={facts} />
          ) : item.kind !== 'preset' ? (
            <OtherFacts facts={newest.facts} />
          ) : (
            <PresetFacts
              settings={(newest.facts.settings ?? {}) as Record<string, unknown>}
              classes={(newest.facts.classes ?? {}) as never}
              unknown={(newest.facts.unknown ?? {}) as Record<string, string>}
            />
          )}
          {(sources.length > 0 || results.length > 0) && (
            <>
              <h2 className="mb-1 mt-5 text-[17px]">Lineage</h2>
              <ul>
                {sources.map((line) => (
                  <Line key={line.version_id} l={line} word="made from" />
                ))}
                {results.map((line) => (
                  <Line key={line.version_id} l={line} word="became the" />
                ))}
              </ul>
            </>
          )}
        </aside>
        <div className="min-w-0">
          {shown ? (
            <ItemView
              title={item.title}
              versionId={newest.id}
              least={item.strength_least}
              most={item.strength_most}
              frames={frames}
              frame={frames.find((f) => f.id === s.frame)?.id ?? frames[0]?.id ?? ''}
              strength={strength}
            />
          ) : (
            <p className="border border-dashed border-line-strong p-8 text-soft">
              {item.kind === 'camera-profile' && newest.format === 'dcp' ? (
                <>
                  A camera profile develops camera data:{' '}
                  <Link className="underline" href={`/bench?${benchFor(frames, item.cameras, newest.id)}`}>
                    see it on the bench
                  </Link>
                  , on frames of {item.cameras.join(', ') || 'its camera'}.
                </>
              ) : (
                `${kind}s are judged by their facts, not on frames.`
              )}
            </p>
          )}
          {item.description && <p className="mt-5 max-w-[68ch]">{item.description}</p>}
          {item.intention && (
            <p className="mt-3 max-w-[68ch]">
              <span className="text-soft">Meant to:</span> {item.intention}
            </p>
          )}
          {item.notes && (
            <p className="mt-3 max-w-[68ch] whitespace-pre-wrap border-l-2 border-line pl-3 text-soft">{item.notes}</p>
          )}
          <h2 className="mb-1 mt-7 text-[17px]">Versions</h2>
          {difference && <Difference {...difference} />}
          <VersionTable
            versions={versions.map((version) => ({
              id: version.id,
              number: version.number,
              variant: version.variant,
              status: version.status,
              file: version.file_name,
              size: version.size,
              notes: version.notes,
              author: version.author,
              at: version.created_at.toISOString(),
              format: version.format,
            }))}
          />
          {inspection && (
            <>
              <h2 className="mb-1 mt-7 text-[17px]">Inspection</h2>
              <Inspection
                i={{
                  verdict: inspection.verdict,
                  findings: inspection.findings,
                  figures: inspection.figures,
                  ramp: inspection.ramp,
                }}
              />
            </>
          )}
          <h2 className="mb-1 mt-7 text-[17px]">Will it show?</h2>
          <WillItShow
            itemId={item.id}
            frame={frames.find((f) => f.id === s.frame)?.id ?? frames[0]?.id ?? ''}
            frames={frames.map(({ id, name, file_kind, camera }) => ({ id, name, file_kind, camera }))}
          />
          <h2 className="mb-1 mt-7 text-[17px]">Verdicts</h2>
          <Verdicts verdicts={verdicts.map((v) => ({ ...v, at: v.at.toISOString() }))} />
          <h2 className="mb-1 mt-7 text-[17px]">Where it is placed</h2>
          {placed.length ? (
            <table className="list">
              <thead>
                <tr>
                  <th>Station</th>
                  <th>Editor</th>
                  <th>File</th>
                  <th>Placed</th>
                </tr>
              </thead>
              <tbody>
                {placed.map((x) => (
                  <tr key={x.station_id + x.path}>
                    <td>
                      <Link className="underline" href={`/stations/${x.station_id}`}>
                        {x.station}
                      </Link>
                    </td>
                    <td>
                      {x.editor_id} {x.editor_version}
                    </td>
                    <td className="text-[12px] [overflow-wrap:anywhere]">{x.path}</td>
                    <td className="whitespace-nowrap text-soft">
                      <Ago at={x.placed_at.toISOString()} />
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          ) : (
            <p className="border-t border-line py-2 text-soft">
              On no station.{' '}
              {newest.status === 'approved'
                ? 'It is approved and can be rolled out.'
                : 'It has to be approved before it is rolled out.'}
            </p>
          )}
          <h2 className="mb-1 mt-7 text-[17px]">What happened</h2>
          <Events
            subject={false}
            events={events.map((activity) => ({
              id: activity.id,
              at: activity.at.toISOString(),
              actor: activity.actor,
              subject: activity.subject,
              subjectId: activity.subject_id,
              action: activity.action,
              before: activity.before,
              after: activity.after,
              title: activity.title,
            }))}
          />
        </div>
      </div>
    </div>
  );
}
