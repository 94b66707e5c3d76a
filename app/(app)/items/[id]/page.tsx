import Link from 'next/link';
import { notFound } from 'next/navigation';
import { Problem } from '@/core/problem';
import { listFrames } from '@/server/frames/service';
import { itemFor, type LineRow } from '@/server/items/service';
import { may } from '@/server/people/roles';
import { person } from '@/server/web';
import { PageHead } from '@/ui/frame/Shell';
import { Describe } from '@/ui/item/Describe';
import { EncodingAndStatus } from '@/ui/item/Encoding';
import { LookFacts, PresetFacts } from '@/ui/item/Facts';
import { ItemView } from '@/ui/item/ItemView';
import { Refresh } from '@/ui/kit/Refresh';
import { RibbonButton } from '@/ui/kit/RibbonButton';
import { Selvedge } from '@/ui/kit/Selvedge';
import { State } from '@/ui/kit/State';
import { Ago } from '@/ui/kit/time';

const Line = ({ l, word }: { l: LineRow; word: string }) => (
  <li className="flex items-center gap-3 border-t border-line py-2">
    <Selvedge threads={l.selvedge} className="h-[34px] w-[40px] shrink-0" />
    <span><Link className="font-serif text-[15px] underline" href={`/items/${l.item_id}`}>{l.title}</Link><span className="block text-[12px] text-soft">{word} {l.kind} version {l.number}{typeof l.recipe.size === 'number' ? `, baked at ${l.recipe.size} points` : ''}{l.newest > l.number ? `; stale, version ${l.newest} is there` : ''}</span></span>
  </li>
);

export async function generateMetadata({ params }: { params: Promise<{ id: string }> }) {
  const p = await person(), found = await itemFor(p, (await params).id).catch(() => null);
  return { title: found?.item.title ?? 'Item' };
}

export default async function Page({ params, searchParams }: { params: Promise<{ id: string }>; searchParams: Promise<{ frame?: string; strength?: string }> }) {
  const p = await person(), { id } = await params, s = await searchParams;
  const found = await itemFor(p, id).catch((e: unknown) => { if (e instanceof Problem || (e as { code?: string }).code === '22P02') return null; throw e; });
  if (!found) notFound();
  const { item, versions, newest, sources, results, placed, packs } = found, frames = await listFrames(p);
  const strength = Math.min(400, Math.max(0, Math.round(Number(s.strength ?? 100)) || (s.strength === '0' ? 0 : 100)));
  const facts = newest.facts as never;
  return (
    <div className="max-w-[1180px] px-6 pb-16 pt-[18px]">
      <Refresh subjects={['item', 'rollout', 'station']} />
      <PageHead title={item.title} note={<>{item.kind === 'look' ? 'Look' : `Preset of ${newest.format.replace('@', ' ')}`}, version {newest.number}, on <Link className="underline" href="/shelves">{item.shelf}</Link></>}>
        {may(p, 'item.edit') && <Describe id={item.id} revision={item.revision} title={item.title} description={item.description} />}
        <RibbonButton itemId={item.id} on={item.mine} whose="mine" may={may(p, 'ribbon.own')} /><RibbonButton itemId={item.id} on={item.house} whose="house" may={may(p, 'ribbon.house')} />
        {item.kind === 'preset' && may(p, 'item.convert') && <Link className="button" href={`/items/${item.id}/convert`}>Convert into a look</Link>}
        {may(p, 'rollout.plan') && (newest.status === 'approved' ? <Link className="button main" href={`/rollouts/new?versions=${newest.id}`}>Roll out</Link> : null)}
      </PageHead>
      <div className="grid grid-cols-[300px_minmax(0,1fr)] gap-8">
        <aside className="min-w-0">
          <div className="mb-4 flex border border-line"><Selvedge threads={newest.selvedge} className="h-[112px] w-full" /></div>
          <EncodingAndStatus versionId={newest.id} encoding={newest.encoding} confirmedBy={newest.encoding_confirmed_by} status={newest.status} kind={item.kind} approver={newest.approver} mayEdit={may(p, 'item.edit')} mayApprove={may(p, 'item.approve')} />
          <dl className="facts mb-5">
            <div><dt>Headings</dt><dd>{item.headings.join(' / ') || 'none'}</dd></div>
            <div><dt>Scope</dt><dd>any camera, any input, {typeof item.scope.result === 'string' ? item.scope.result : 'color or monochrome'}</dd></div>
            <div><dt>Came from</dt><dd>{packs.length ? packs.map((k) => <span key={k.intake_id} className="block"><Link className="underline" href={`/intake/${k.intake_id}`}>{k.name}</Link></span>) : item.supplier || 'own work'}</dd></div>
          </dl>
          {item.kind === 'look' ? <LookFacts facts={facts} /> : <PresetFacts settings={(newest.facts.settings ?? {}) as Record<string, unknown>} classes={(newest.facts.classes ?? {}) as never} unknown={(newest.facts.unknown ?? {}) as Record<string, string>} />}
          {(sources.length > 0 || results.length > 0) && <><h2 className="mb-1 mt-5 text-[17px]">Lineage</h2><ul>{sources.map((l) => <Line key={l.version_id} l={l} word="made from" />)}{results.map((l) => <Line key={l.version_id} l={l} word="became the" />)}</ul></>}
        </aside>
        <div className="min-w-0">
          <ItemView title={item.title} versionId={newest.id} most={item.strength_most} frames={frames} frame={frames.find((f) => f.id === s.frame)?.id ?? frames[0]?.id ?? ''} strength={strength} />
          {item.description && <p className="mt-5 max-w-[68ch]">{item.description}</p>}
          <h2 className="mb-1 mt-7 text-[17px]">Versions</h2>
          <table className="list"><thead><tr><th>Version</th><th>Status</th><th>File</th><th>By</th><th>When</th></tr></thead><tbody>
            {versions.map((v) => <tr key={v.id}><td>{v.number}</td><td><State of={v.status} /></td><td className="[overflow-wrap:anywhere]"><a className="underline" href={`/api/versions/${v.id}/file`} download>{v.file_name}</a><span className="block text-[12px] text-soft">{(v.size / 1000).toFixed(1)} kB, {v.notes}</span></td><td>{v.author ?? 'set-up'}</td><td className="whitespace-nowrap text-soft"><Ago at={v.created_at.toISOString()} /></td></tr>)}
          </tbody></table>
          <h2 className="mb-1 mt-7 text-[17px]">Where it is placed</h2>
          {placed.length ? <table className="list"><thead><tr><th>Station</th><th>Editor</th><th>File</th><th>Placed</th></tr></thead><tbody>
            {placed.map((x) => <tr key={x.station_id + x.path}><td><Link className="underline" href={`/stations/${x.station_id}`}>{x.station}</Link></td><td>{x.editor_id} {x.editor_version}</td><td className="text-[12px] [overflow-wrap:anywhere]">{x.path}</td><td className="whitespace-nowrap text-soft"><Ago at={x.placed_at.toISOString()} /></td></tr>)}
          </tbody></table> : <p className="border-t border-line py-2 text-soft">On no station. {newest.status === 'approved' ? 'It is approved and can be rolled out.' : 'It has to be approved before it is rolled out.'}</p>}
        </div>
      </div>
    </div>
  );
}
