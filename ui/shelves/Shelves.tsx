'use client';
/** Shelves as rows of spines on a ledge. Arrows move among spines, Enter opens, R sets the ribbon, X chooses for a rollout. */
import { Bookmark } from 'lucide-react';
import Link from 'next/link';
import { usePathname, useRouter, useSearchParams } from 'next/navigation';
import { useEffect, useState, type KeyboardEvent } from 'react';
import { call } from '../kit/call';
import { FramePreview } from '../kit/FramePreview';
import { Selvedge } from '../kit/Selvedge';
import { State } from '../kit/State';

export interface Spine { id: string; versionId: string; kind: 'look' | 'preset'; title: string; headings: string[]; shelfId: string; number: number; status: 'draft' | 'approved' | 'retired'; selvedge: [string, string][] | null; mine: boolean; house: boolean; assumed: boolean; points: number | null; stations: number; stale: boolean; matching: number; language: string }
export interface ShelfHead { id: string; name: string; note: string; items: number }
interface Props { shelves: ShelfHead[]; spines: Spine[]; frames: { id: string; name: string }[]; total: number; mayRollOut: boolean }

export function Shelves({ shelves, spines, frames, total, mayRollOut }: Props) {
  const router = useRouter(), path = usePathname(), params = useSearchParams();
  const [at, setAt] = useState<string | null>(params.get('at')), [chosen, setChosen] = useState<ReadonlySet<string>>(new Set()), [hint, setHint] = useState<Record<string, boolean>>({});
  const frame = frames.find((f) => f.id === params.get('frame')) ?? frames[0], current = spines.find((s) => s.id === at) ?? spines[0], filtered = ['q', 'kind', 'status', 'ribbon', 'shelf'].some((k) => params.get(k));
  const set = (key: string, value: string | null) => { const next = new URLSearchParams(params); if (value) next.set(key, value); else next.delete(key); router.replace(`${path}?${next}`, { scroll: false }); };
  const mine = (s: Spine) => hint[s.id] ?? s.mine;

  useEffect(() => { // the address keeps which spine is looked at, without a round trip
    if (!at) return;
    const next = new URLSearchParams(location.search);
    next.set('at', at);
    history.replaceState(null, '', `${location.pathname}?${next}`);
  }, [at]);

  const ribbon = async (s: Spine) => { setHint({ ...hint, [s.id]: !mine(s) }); await call(`/api/items/${s.id}/ribbon`, 'POST', { on: !mine(s), whose: 'mine' }).catch(() => setHint((h) => ({ ...h, [s.id]: s.mine }))); router.refresh(); };
  const toggle = (s: Spine) => { const next = new Set(chosen); if (!next.delete(s.versionId)) next.add(s.versionId); setChosen(next); };
  const onKey = (e: KeyboardEvent<HTMLElement>, s: Spine) => {
    const all = [...document.querySelectorAll<HTMLElement>('[data-spine]')], i = all.findIndex((x) => x.dataset.spine === s.id);
    const step = (to: HTMLElement | undefined) => { if (to) { e.preventDefault(); to.focus(); } };
    if (e.key === 'ArrowRight') step(all[i + 1]);
    else if (e.key === 'ArrowLeft') step(all[i - 1]);
    else if (e.key === 'ArrowDown' || e.key === 'ArrowUp') {
      const here = all[i]!.getBoundingClientRect(), down = e.key === 'ArrowDown';
      const rows = all.map((x) => ({ x, r: x.getBoundingClientRect() })).filter(({ r }) => (down ? r.top > here.top + 20 : r.top < here.top - 20));
      const near = rows.sort((a, b) => Math.abs(a.r.top - here.top) - Math.abs(b.r.top - here.top) || Math.abs(a.r.left - here.left) - Math.abs(b.r.left - here.left))[0];
      step(near?.x);
    } else if (e.key === 'Home') step(all[0]); else if (e.key === 'End') step(all[all.length - 1]);
    else if (e.key === 'r' && !e.ctrlKey && !e.metaKey) { e.preventDefault(); void ribbon(s); } else if (e.key === 'x' && mayRollOut && s.status === 'approved') { e.preventDefault(); toggle(s); }
  };
  const chip = (name: string, key: string, value: string) => <button key={name} className="chip" aria-pressed={params.get(key) === value} onClick={() => set(key, params.get(key) === value ? null : value)}>{name}</button>;

  return (
    <div className="grid grid-cols-[minmax(0,1fr)_292px]">
      <div className="min-w-0 px-6 pb-16 pt-[18px]">
        <div className="mb-3.5 flex items-baseline gap-3.5"><h1 className="text-[26px] leading-tight">Shelves</h1><p className="text-soft" aria-live="polite">{filtered ? `${[...new Map(spines.map((s) => [s.shelfId, s.matching])).values()].reduce((a, b) => a + b, 0)} of ${total} items` : `${total} items on ${shelves.length} ${shelves.length === 1 ? 'shelf' : 'shelves'}`}</p></div>
        {total > 0 && <div className="mb-4 flex flex-wrap items-center gap-2" role="group" aria-label="Narrow down">
          {chip('Looks', 'kind', 'look')}{chip('Presets', 'kind', 'preset')}{chip('Approved', 'status', 'approved')}{chip('Drafts', 'status', 'draft')}{chip('With ribbon', 'ribbon', '1')}
          {filtered && <Link href="/shelves" className="button quiet">Show all</Link>}
          <label className="ml-auto flex items-center gap-2 text-soft">Frame<select className="field text-ink" value={frame?.id ?? ''} onChange={(e) => set('frame', e.target.value)}>{frames.map((f) => <option key={f.id} value={f.id}>{f.name}</option>)}</select></label>
        </div>}
        {shelves.map((shelf) => {
          const own = spines.filter((s) => s.shelfId === shelf.id), more = (own[0]?.matching ?? 0) - own.length;
          if (!own.length && filtered) return null;
          return (
            <section key={shelf.id} aria-label={shelf.name} className="-mx-2 mb-5 px-2" style={{ contentVisibility: 'auto', containIntrinsicSize: 'auto 220px' }}>
              <h2 className="mb-2 flex flex-wrap items-baseline gap-x-2.5 text-[17px] [overflow-wrap:anywhere]">{shelf.name}<span className="font-sans text-[12.5px] font-normal tracking-normal text-soft">{shelf.note || `${shelf.items} items`}</span></h2>
              {own.length ? (
                <div className="flex flex-wrap gap-x-3 gap-y-0">
                  {own.map((s) => (
                    <div key={s.id} className="pt-1 [&:not(:last-child)]:after:hidden">
                      <Link href={`/items/${s.id}${frame ? `?frame=${frame.id}` : ''}`} prefetch={false} data-spine={s.id} className="spine" data-chosen={current?.id === s.id}
                        aria-label={`${s.title}, ${s.kind}, version ${s.number}, ${s.status}${mine(s) ? ', with your ribbon' : ''}${s.house ? ', with the house ribbon' : ''}`}
                        onFocus={() => setAt(s.id)} onMouseEnter={() => setAt(s.id)} onKeyDown={(e) => onKey(e, s)}>
                        <Selvedge threads={s.selvedge} className="h-[80px]" />
                        {mine(s) && <i className="ribbon" />}{s.house && <i className="ribbon house" />}
                        {(s.stale || s.status === 'draft') && <span className="absolute left-0 top-[63px] bg-paper py-px pl-2 pr-1.5 text-[11px] font-semibold text-ochre">{s.stale ? 'stale' : 'draft'}</span>}
                        {chosen.has(s.versionId) && <span className="absolute left-1.5 top-1.5 bg-verd px-1.5 text-[11px] font-semibold text-verd-ink">chosen</span>}
                        <span className="min-h-0 flex-1 px-2 pt-1.5"><span className="line-clamp-3 font-serif text-[14.5px] font-medium leading-[1.14] [overflow-wrap:anywhere]">{s.title}</span></span>
                        <span className="flex justify-between px-2 pb-1.5 text-[11.5px] text-soft"><span>v{s.number}</span><span>{s.kind === 'look' ? (s.points ? `${s.points} pt` : 'look') : s.language}</span></span>
                      </Link>
                      <div className="ledge -mx-1.5" />
                    </div>
                  ))}
                </div>
              ) : <><p className="px-1 py-6 text-soft">Nothing stands here yet. What is taken in at <Link className="underline" href="/intake">Intake</Link> can be put on this shelf.</p><div className="ledge" /></>}
              {more > 0 && (params.get('shelf') ? <p className="mt-2 text-soft">and {more} more: type a few letters to find one.</p> : <button className="button quiet mt-1" onClick={() => set('shelf', shelf.id)}>and {more} more on this shelf</button>)}
            </section>
          );
        })}
        {!spines.length && filtered && <div className="py-10"><p className="mb-1 font-serif text-[18px]">Nothing matches</p><p className="text-soft">Try fewer letters, or <Link className="underline" href="/shelves">show all {total} items</Link>.</p></div>}
        {!shelves.length && <div className="py-10"><p className="mb-1 font-serif text-[18px]">No shelves yet</p><p className="text-soft">The first delivery makes one: drop it at <Link className="underline" href="/intake">Intake</Link>.</p></div>}
        {chosen.size > 0 && (
          <div className="sticky bottom-4 mt-4 flex items-center gap-3 border border-line bg-paper px-4 py-2.5" style={{ boxShadow: 'var(--shade)' }} role="status">
            <b className="font-semibold">{chosen.size} chosen</b><button className="button quiet" onClick={() => setChosen(new Set())}>None</button>
            <Link className="button main ml-auto" href={`/rollouts/new?versions=${[...chosen].join(',')}`}>Roll out</Link>
          </div>
        )}
      </div>
      <aside aria-label="The spine in hand" className="sticky top-[52px] h-[calc(100vh-52px)] overflow-auto border-l border-line bg-sheet p-[18px]">
        {current && frame ? (
          <>
            <h2 className="text-[22px] leading-tight [overflow-wrap:anywhere]">{current.title}</h2>
            <p className="mb-3 mt-1 flex gap-2 text-soft">{current.kind === 'look' ? 'Look' : `Preset of ${current.language}`}, version {current.number} <State of={current.status} /></p>
            <FramePreview frame={frame.id} version={current.versionId} strength={100} width={320} label={`${current.title} on ${frame.name}`} />
            <p className="mb-3 mt-1 text-[12px] text-soft">{frame.name}. Hold to see the original.</p>
            <dl className="facts mb-4 border-b border-line">
              <div><dt>Headings</dt><dd>{current.headings.join(' / ') || 'none'}</dd></div>
              {current.kind === 'look' && <div><dt>Encoding</dt><dd>{current.assumed ? <State of="draft" word="sRGB, assumed" /> : 'sRGB, confirmed'}</dd></div>}
              <div><dt>On stations</dt><dd>{current.stations || 'none'}</dd></div>
            </dl>
            <div className="flex flex-wrap gap-2">
              <Link className="button main" href={`/items/${current.id}?frame=${frame.id}`}>Open</Link>
              <button className="button" aria-pressed={mine(current)} onClick={() => void ribbon(current)}><Bookmark aria-hidden size={13} fill={mine(current) ? 'currentColor' : 'none'} />Ribbon</button>
              {mayRollOut && <button className="button" disabled={current.status !== 'approved'} title={current.status === 'approved' ? undefined : 'Only approved versions are rolled out'} aria-pressed={chosen.has(current.versionId)} onClick={() => toggle(current)}>{chosen.has(current.versionId) ? 'Put back' : 'Choose'}</button>}
            </div>
            <p className="mt-5 text-[12px] text-soft"><kbd className="key">/</kbd> find <kbd className="key">←</kbd><kbd className="key">→</kbd> walk <kbd className="key">R</kbd> ribbon <kbd className="key">X</kbd> choose</p>
          </>
        ) : <p className="text-soft">{current ? 'There is no reference frame to show it on.' : 'The spine in hand is shown here.'}</p>}
      </aside>
    </div>
  );
}
