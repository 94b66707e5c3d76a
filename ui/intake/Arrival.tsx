'use client';
/** What a delivery holds, exceptions first; choose, and accept onto a shelf in one go. */
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import Link from 'next/link';
import { call, problemOf, type ProblemText } from '../kit/call';
import { Notice } from '../kit/Notice';
import { Selvedge } from '../kit/Selvedge';
import { State } from '../kit/State';

export interface Entry { id: number; path: string; size: number; outcome: string; kind: string; format: string; title: string; headings: string[]; needs: { kind: string; name: string; held: boolean }[]; selvedge: [string, string][] | null; note: string; problem: ProblemText | null; heldItem: string | null; heldTitle: string | null; itemId: string | null }
interface Props { id: string; status: string; entries: Entry[]; shelves: { id: string; name: string }[]; may: boolean }

const groups: [string, string, string[]][] = [['Refused', 'not read, and why; the rest is not touched by it', ['refused']], ['Unknown', 'kept out; no reader knows them', ['unknown']], ['New', 'to be taken onto a shelf', ['new']], ['Held already', 'byte for byte the same; not taken twice', ['duplicate']], ['Papers and leftovers', 'not taken', ['document', 'ignored']]];

export function Arrival({ id, status, entries, shelves, may }: Props) {
  const router = useRouter(), fresh = useMemo(() => entries.filter((e) => e.outcome === 'new'), [entries]);
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set()), [shelf, setShelf] = useState(shelves[shelves.length - 1]?.id ?? 'new'), [name, setName] = useState(''), [supplier, setSupplier] = useState(''), [problem, setProblem] = useState<ProblemText | null>(null), [busy, setBusy] = useState(false);
  const open = status === 'ready' && may, chosen = fresh.filter((e) => !left.has(e.id));
  const flip = (ids: number[], take: boolean) => { const next = new Set(left); for (const i of ids) { if (take) next.delete(i); else next.add(i); } setLeft(next); };
  const act = async (work: () => Promise<unknown>, to: string) => { setBusy(true); setProblem(null); try { await work(); router.push(to); router.refresh(); } catch (e) { setProblem(problemOf(e)); setBusy(false); } };

  return (
    <>
      {groups.map(([title, note, outcomes]) => {
        const rows = entries.filter((e) => outcomes.includes(e.outcome));
        if (!rows.length) return null;
        const takeable = open && title === 'New';
        return (
          <section key={title} className="mb-7 max-w-[1180px]" aria-label={title} style={{ contentVisibility: 'auto', containIntrinsicSize: 'auto 300px' }}>
            <h2 className="mb-1 flex items-baseline gap-2.5 text-[17px]">{title}<span className="font-sans text-[12.5px] font-normal tracking-normal text-soft">{rows.length}, {note}</span></h2>
            <table className="list table-fixed">
              <colgroup>{takeable && <col className="w-[34px]" />}<col className="w-[58px]" /><col /><col className="w-[250px]" /><col className="w-[300px]" /></colgroup>
              <thead><tr>{takeable && <th><input type="checkbox" aria-label="All new files" checked={chosen.length === rows.length} onChange={(e) => flip(rows.map((r) => r.id), e.target.checked)} /></th>}<th><span className="sr-only">Selvedge</span></th><th>File</th><th>What it is</th><th>What becomes of it</th></tr></thead>
              <tbody>{rows.map((e) => {
                const folder = e.path.includes('/') ? e.path.slice(0, e.path.lastIndexOf('/')) : '';
                return (
                  <tr key={e.id} data-entry={e.path}>
                    {takeable && <td><input type="checkbox" aria-label={`Take ${e.title}`} checked={!left.has(e.id)} onChange={(x) => flip([e.id], x.target.checked)} /></td>}
                    <td><Selvedge threads={e.selvedge} className={`h-[38px] w-[46px] ${e.selvedge ? '' : 'opacity-40'}`} /></td>
                    <td className="[overflow-wrap:anywhere]"><b className="font-medium">{e.path.slice(folder.length ? folder.length + 1 : 0)}</b>{folder && <span className="block text-[12px] text-soft">{folder}</span>}</td>
                    <td>{e.kind === 'look' || e.kind === 'preset' ? <><span className="font-serif text-[15px] [overflow-wrap:anywhere]">{e.title}</span><span className="block text-[12px] text-soft">{e.outcome === 'duplicate' ? e.kind : e.note}{e.headings.length ? `, under ${e.headings.join(' / ')}` : ''}</span></> : <span className="text-soft">{e.kind || e.outcome}{e.outcome === 'ignored' || e.outcome === 'refused' ? '' : `, ${(e.size / 1000).toFixed(1)} kB`}</span>}</td>
                    <td><State of={e.itemId ? 'accepted' : e.outcome} />{' '}
                      {e.itemId ? <Link className="block text-[12px] underline" href={`/items/${e.itemId}`}>{e.title}</Link> : e.heldItem ? <span className="block text-[12px] text-soft">the same as <Link className="underline" href={`/items/${e.heldItem}`}>{e.heldTitle}</Link></span>
                        : e.problem ? <span className="block text-[12px]"><span className="text-ink">{e.problem.message}</span> <span className="text-soft">{e.problem.where}. {e.problem.remedy}</span></span>
                        : e.outcome === 'new' ? null : <span className="block text-[12px] text-soft">{e.note}</span>}
                      {e.needs.map((n) => <span key={n.name} className={`block text-[12px] ${n.held ? 'text-soft' : 'text-ochre'}`}>needs the {n.kind.replace('-', ' ')} {n.name}, {n.held ? 'held' : 'missing'}</span>)}</td>
                  </tr>);
              })}</tbody>
            </table>
          </section>
        );
      })}
      <Notice problem={problem} className="mb-3" />
      {status === 'failed' && may && <button className="button" disabled={busy} onClick={() => void act(() => call(`/api/intakes/${id}`, 'DELETE'), '/intake')}>Discard the delivery</button>}
      {open && (
        <div className="sticky bottom-0 -mx-6 mt-auto flex flex-wrap items-end gap-3 border-t border-line bg-sheet px-6 py-3">
          <label className="flex flex-col gap-0.5 text-[12px] text-soft">Shelf<select className="field text-[13.5px]" value={shelf} onChange={(e) => setShelf(e.target.value)}>{shelves.map((s) => <option key={s.id} value={s.id}>{s.name}</option>)}<option value="new">a new shelf</option></select></label>
          {shelf === 'new' && <label className="flex flex-col gap-0.5 text-[12px] text-soft">Its name<input className="field text-[13.5px]" value={name} onChange={(e) => setName(e.target.value)} /></label>}
          <label className="flex flex-col gap-0.5 text-[12px] text-soft">Supplier<input className="field text-[13.5px]" value={supplier} onChange={(e) => setSupplier(e.target.value)} placeholder="own work" /></label>
          <button className="button danger ml-auto" disabled={busy} onClick={() => void act(() => call(`/api/intakes/${id}`, 'DELETE'), '/intake')}>Discard the delivery</button>
          <button className="button main" disabled={busy || !chosen.length || (shelf === 'new' && !name.trim())} onClick={() => void act(() => call(`/api/intakes/${id}`, 'POST', { entries: chosen.map((e) => e.id), supplier, ...(shelf === 'new' ? { newShelf: name.trim() } : { shelfId: shelf }) }), '/shelves')}>Accept {chosen.length} {chosen.length === fresh.length ? 'as proposed' : `of ${fresh.length}`}</button>
        </div>
      )}
    </>
  );
}
