'use client';
/** The bench: rows are frames, columns are candidates, cells are rendered pictures. Everything is in the address. Arrows walk, Enter enlarges, + and − change strength, R sets the reference, D shows differences, C judges. */
import { Plus } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { usePathname, useRouter, useSearchParams } from 'next/navigation';
import { useCallback, useEffect, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import { noTrim } from '@/core/bench/measure';
import type { CellSpec } from '@/workers/bench.worker';
import { call, problemOf, type ProblemText } from '../kit/call';
import { ItemPicker } from '../kit/ItemPicker';
import { Notice } from '../kit/Notice';
import { NameDialog } from '../shelves/NameDialog';
import type { Candidate } from './candidate';
import { Cell } from './Cell';
import { Choose } from './Choose';
import { ColumnHead } from './ColumnHead';
import { Enlarged, grays } from './Enlarged';
import { Legend, RangePanel, TrimPanel } from './Panels';
import { usePool, type Rendered } from './pool';
import { cameraOf, RowHead, type FrameOnBench } from './RowHead';
import { addressOf, blindOrder, MOST_COLUMNS, MOST_ROWS, plain, STAGES, stateOf, type Column, type State } from './state';

interface Props { frames: FrameOnBench[]; sets: { id: string; name: string; frames: string[] }[]; shelves: { id: string; name: string }[]; saved: { id: string; name: string; state: string; person: string; mine: boolean }[]; known: Candidate[]; may: { judge: boolean; choice: boolean; edit: boolean; frames: boolean; profile: boolean } }
type Asking = { what: 'add'; to: number | null } | { what: 'choose'; column: number } | { what: 'save' } | { what: 'set' } | { what: 'anchor'; row: number } | null;

const entry = 'flex cursor-default justify-between gap-6 px-3 py-1.5 outline-none data-[highlighted]:bg-verd-wash data-[disabled]:text-soft';
const list = 'z-40 max-h-[60vh] min-w-[230px] overflow-auto border border-line bg-paper py-1';
const letters = 'ABCDEFGHIJKLMNOP';

export function Bench({ frames, sets, shelves, saved, known, may }: Props) {
  const params = useSearchParams(), path = usePathname(), router = useRouter(), pool = usePool();
  const state = useMemo(() => stateOf((k) => params.get(k)), [params]);
  const [candidates, setCandidates] = useState<ReadonlyMap<string, Candidate>>(() => new Map(known.map((c) => [c.versionId, c]))), [at, setAt] = useState<[number, number]>([0, 0]), [picking, setPicking] = useState<number | null>(null), [whites, setWhites] = useState<Record<string, Rendered['white']>>({}), [asking, setAsking] = useState<Asking>(null), [trimming, setTrimming] = useState<number | null>(null), [linked, setLinked] = useState(true), [ranging, setRanging] = useState(false), [problem, setProblem] = useState<ProblemText | null>(null), [said, setSaid] = useState('');
  const back = useRef<HTMLElement | null>(null), byId = useMemo(() => new Map(frames.map((f) => [f.id, f])), [frames]);
  // what the address will be once the router has caught up: keys come faster than it renders, and it writes older addresses back meanwhile
  const ahead = useRef<string | null>(null), text = params.toString();
  useEffect(() => { if (ahead.current !== null && new URLSearchParams(ahead.current).toString() === text) ahead.current = null; }, [text]);
  useEffect(() => { const on = () => { ahead.current = null; }; window.addEventListener('popstate', on); return () => window.removeEventListener('popstate', on); }, []);
  const latest = useCallback((): State => { const p = new URLSearchParams(ahead.current ?? text); return stateOf((k) => p.get(k)); }, [text]);
  const put = useCallback((s: Partial<State>, push = false) => { const next = addressOf({ ...latest(), ...s }), url = next ? `${path}?${next}` : path; ahead.current = next; if (push) history.pushState(null, '', url); else history.replaceState(null, '', url); }, [path, latest]);
  const rows = state.rows.filter((r) => byId.has(r.frame)), { columns } = state, order = state.blind ? blindOrder(columns.length, state.reference, state.blind) : columns.map((_, i) => i);

  // candidates that the address names and that are not known yet
  const missing = columns.flatMap((c) => [c.profile, ...c.parts.map((p) => p.version)]).filter((v) => v.length === 36 && !candidates.has(v)).sort().join();
  useEffect(() => { if (missing) void call<{ candidates: Candidate[] }>(`/api/bench/candidates?versions=${missing}`).then((r) => setCandidates((m) => new Map([...m, ...r.candidates.map((c): [string, Candidate] => [c.versionId, c])]))).catch((e: unknown) => setProblem(problemOf(e))); }, [missing]);

  const nameOf = (c: Column): string => {
    if (c.profile === 'jpeg') return 'Camera’s own JPEG';
    const parts = [candidates.get(c.profile), ...c.parts.map((p) => candidates.get(p.version))].map((x) => x?.title).filter(Boolean);
    return parts.join(' + ') || (c.parts.length || c.profile !== 'plain' ? 'Gone from the shelves' : 'No look');
  };
  const nameAt = (i: number): string => (state.blind && i !== state.reference ? `Candidate ${letters[order.indexOf(i)] ?? i + 1}` : nameOf(columns[i]!));
  const specOf = (f: FrameOnBench, wb: string, c: Column, width = 320): CellSpec => ({ frame: f.id, camera: f.file_kind === 'camera data', width, profile: c.profile, stages: c.stages === 15 ? null : STAGES.filter((_, i) => (c.stages >> i) % 2 === 1).join(','), anchor: c.anchor, wb, stack: c.parts, trim: c.trim, range: c.range ? state.range : null });
  const cautionOf = (f: FrameOnBench, c: Column): string => {
    const p = candidates.get(c.profile), heavy = c.parts.find((x) => x.strength > 100);
    if (p && f.file_kind === 'camera data' && p.cameras.length && !p.cameras.includes(f.camera)) return `for the ${p.cameras[0]}`;
    if (f.file_kind === 'rendered' && (heavy || c.parts.length > 1)) return 'heavy for a rendered file';
    return '';
  };
  const add = (list: Column[], to = columns.length) => { const free = MOST_COLUMNS - columns.length; if (list.length > free) setSaid(`The bench holds ${MOST_COLUMNS} columns; ${Math.max(0, free)} of ${list.length} were added.`); put({ columns: [...columns.slice(0, to), ...list.slice(0, free), ...columns.slice(to)] }, true); };
  const columnFor = (c: Candidate): Column => (c.kind === 'camera-profile' ? { ...plain, profile: c.versionId } : { ...plain, parts: [{ version: c.versionId, strength: c.usual }] });
  const fetched = async (query: string, take: (l: Candidate[]) => void) => { setProblem(null); try { const { candidates: l } = await call<{ candidates: Candidate[] }>(`/api/bench/candidates?${query}`); setCandidates((m) => new Map([...m, ...l.map((c): [string, Candidate] => [c.versionId, c])])); const shown = l.filter((c) => c.shown); if (shown.length) take(shown); else setSaid('Nothing of that kind is on the shelves.'); } catch (e) { setProblem(problemOf(e)); } };
  const set = (i: number, c: Column) => put({ columns: columns.map((x, k) => (k === i ? c : x)) });
  const act = (i: number) => (what: 'left' | 'right' | 'remove' | 'reference' | 'strengths' | 'like' | 'trim' | 'add' | 'choose') => {
    const c = columns[i]!, last = c.parts[c.parts.length - 1];
    if (what === 'reference') put({ reference: i });
    else if (what === 'remove') { setTrimming(null); put({ columns: columns.filter((_, k) => k !== i), reference: state.reference > i ? state.reference - 1 : state.reference === i ? 0 : state.reference }, true); } else if (what === 'left' || what === 'right') { const j = i + (what === 'left' ? -1 : 1); if (j >= 0 && j < columns.length) { const l = [...columns]; [l[i], l[j]] = [l[j]!, l[i]!]; put({ columns: l, reference: state.reference === i ? j : state.reference === j ? i : state.reference }); } } else if (what === 'strengths' && last) add([0, 25, 50, 75, 100, 125, candidates.get(last.version)?.most ?? 150].filter((s, k, l) => s !== last.strength && l.indexOf(s) === k).map((s) => ({ ...c, parts: [...c.parts.slice(0, -1), { ...last, strength: s }] })), i + 1);
    else if (what === 'like') void fetched(`like=${candidates.get(last?.version ?? c.profile)?.itemId}`, (l) => add(l.map(columnFor), i + 1));
    else if (what === 'trim') { if (c.trim) { set(i, { ...c, trim: null }); setTrimming(null); } else { set(i, { ...c, trim: { slope: [1, 1, 1], offset: [0, 0, 0], power: [1, 1, 1] } }); setTrimming(i); } } else if (what === 'add') setAsking({ what: 'add', to: i }); else if (what === 'choose') setAsking({ what: 'choose', column: i });
  };
  const open = (r: number, c: number) => { back.current = document.activeElement as HTMLElement; put({ open: { row: r, columns: c === state.reference || columns.length < 2 ? [c] : [state.reference, c] } }, true); };
  const focus = (r: number, c: number) => { const el = document.querySelector<HTMLElement>(`[data-cell="${rows[r]?.frame}/${order[c]}"]`); if (el) { el.focus(); el.scrollIntoView({ block: 'nearest', inline: 'nearest' }); } };
  const onKey = (e: KeyboardEvent) => {
    const [r, c] = at, i = order[c]!, column = columns[i];
    if (!(e.target as HTMLElement).dataset.cell || e.ctrlKey || e.metaKey || !column) return;
    const last = column.parts[column.parts.length - 1], on = (k: () => void) => { e.preventDefault(); k(); };
    if (e.key === 'ArrowRight') on(() => focus(r, c + 1)); else if (e.key === 'ArrowLeft') on(() => focus(r, c - 1)); else if (e.key === 'ArrowDown') on(() => focus(r + 1, c)); else if (e.key === 'ArrowUp') on(() => focus(r - 1, c)); else if (e.key === 'Enter') on(() => open(r, i));
    else if ((e.key === '+' || e.key === '=' || e.key === '-') && last) on(() => { const now = latest().columns; put({ columns: now.map((x, k) => (k === i ? { ...x, parts: x.parts.map((p, n) => (n === x.parts.length - 1 ? { ...p, strength: Math.max(0, Math.min(400, p.strength + (e.key === '-' ? -5 : 5))) } : p)) } : x)) }); });
    else if (e.key === 'r') on(() => put({ reference: i })); else if (e.key === 'd') on(() => put({ difference: !state.difference })); else if (e.key === 'c' && may.judge && !state.blind && (column.parts.length || column.profile.length === 36)) on(() => setAsking({ what: 'choose', column: i })); else if (e.key === 'Delete') on(() => act(i)('remove'));
  };
  const picked = async (r: number, x: number, y: number) => {
    const row = rows[r]!, f = byId.get(row.frame)!;
    setPicking(null);
    const a = await pool?.pick(specOf(f, row.wb, plain), x, y);
    if (a && 'neutral' in a) put({ rows: rows.map((q, k) => (k === r ? { ...q, wb: `n:${a.neutral.map((v) => Number(v.toFixed(5))).join(',')}` } : q)) }, true); else if (a && 'error' in a) setProblem({ code: 'pick', message: a.error.message, where: f.name, remedy: a.error.remedy });
  };
  const anchored = (r: number) => {
    const f = byId.get(rows[r]!.frame)!, own = columns.findIndex((c) => c.profile.length === 36 && !c.anchor && candidates.get(c.profile)?.cameras.includes(f.camera)), lay = (version: string) => add([{ ...plain, profile: version, anchor: 5000 }], Math.max(1, own + 1));
    if (own >= 0) lay(columns[own]!.profile); else void fetched(`cameras=${encodeURIComponent(f.camera)}`, (l) => lay((l.find((c) => !c.rungs.includes('look')) ?? l[0]!).versionId));
  };
  const anchorColumn = asking?.what === 'anchor' ? columns.find((c) => c.anchor) : undefined, kept = rows.findIndex((r) => whites[r.frame] && byId.get(r.frame)?.file_kind === 'camera data');
  const lights = new Set(rows.map((r) => byId.get(r.frame)!.light)).size, cameras = new Set(rows.map((r) => cameraOf(byId.get(r.frame)!)).filter(Boolean)), title = sets.find((s) => s.frames.length === rows.length && s.frames.every((f) => rows.some((r) => r.frame === f)))?.name ?? 'Bench';
  const save = async (name: string) => { const { id } = await call<{ id: string }>('/api/bench/saved', 'POST', { name, state: addressOf(state), shared: true }); setAsking(null); setSaid(`${name} is kept`); void id; router.refresh(); };

  return (
    <div className="min-h-[calc(100vh-52px)] px-6 pb-16 pt-[18px]" style={{ background: rows.length && state.surround ? grays[state.surround] : undefined }} onKeyDown={onKey}>
      <div className="mb-3 flex items-center gap-2">
        <h1 className="mr-1 whitespace-nowrap text-[26px] leading-tight">{title}</h1>
        <p className="min-w-0 flex-1 truncate text-soft">{rows.length ? `${rows.length} ${rows.length === 1 ? 'frame' : 'frames'}${cameras.size ? `, ${[...cameras].join(', ')}` : ''}, ${lights} ${lights === 1 ? 'light' : 'lights'}` : ''}</p>
        <DropdownMenu.Root modal={false}><DropdownMenu.Trigger className="button"><Plus aria-hidden size={13} />Frames</DropdownMenu.Trigger><DropdownMenu.Portal><DropdownMenu.Content align="end" className={list} style={{ boxShadow: 'var(--shade)' }}>
          {sets.map((s) => <DropdownMenu.Item key={s.id} className={entry} onSelect={() => put({ rows: s.frames.map((frame) => ({ frame, wb: 'as' })) }, true)}><span>{s.name}</span><span className="text-soft">set of {s.frames.length}</span></DropdownMenu.Item>)}
          {sets.length > 0 && <DropdownMenu.Separator className="my-1 border-t border-line" />}
          {frames.map((f) => <DropdownMenu.Item key={f.id} className={entry} disabled={rows.length >= MOST_ROWS || rows.some((r) => r.frame === f.id)} onSelect={() => put({ rows: [...rows, { frame: f.id, wb: 'as' }] }, true)}><span>{f.name}</span><span className="text-soft">{f.file_kind === 'camera data' ? 'camera data' : 'rendered'}</span></DropdownMenu.Item>)}
        </DropdownMenu.Content></DropdownMenu.Portal></DropdownMenu.Root>
        <DropdownMenu.Root modal={false}><DropdownMenu.Trigger className="button"><Plus aria-hidden size={13} />Candidates</DropdownMenu.Trigger><DropdownMenu.Portal><DropdownMenu.Content align="end" className={list} style={{ boxShadow: 'var(--shade)' }}>
          <DropdownMenu.Item className={entry} onSelect={() => setAsking({ what: 'add', to: null })}>Find one by name</DropdownMenu.Item>
          <DropdownMenu.Item className={entry} disabled={!cameras.size} onSelect={() => void fetched(`cameras=${encodeURIComponent([...new Set(rows.map((r) => byId.get(r.frame)!.camera).filter(Boolean))].join('|'))}`, (l) => add(l.map(columnFor)))}>The profiles of these cameras</DropdownMenu.Item>
          <DropdownMenu.Item className={entry} onSelect={() => add([{ ...plain, profile: 'jpeg' }])}>The camera’s own JPEG</DropdownMenu.Item>
          <DropdownMenu.Item className={entry} onSelect={() => add([plain])}>No look</DropdownMenu.Item>
          <DropdownMenu.Separator className="my-1 border-t border-line" />
          {shelves.map((s) => <DropdownMenu.Item key={s.id} className={entry} onSelect={() => void fetched(`shelf=${s.id}`, (l) => add(l.map(columnFor)))}><span>All on {s.name}</span></DropdownMenu.Item>)}
        </DropdownMenu.Content></DropdownMenu.Portal></DropdownMenu.Root>
        <button className="button" aria-pressed={state.difference} onClick={() => put({ difference: !state.difference })}>{state.difference ? 'Pictures' : 'Differences'}</button>
        <button className="button" aria-pressed={ranging} onClick={() => setRanging(!ranging)}>Range</button>
        <button className="button" aria-pressed={!!state.blind} disabled={columns.length < 3} title={columns.length < 3 ? 'Blind needs two candidates beside the reference' : undefined} onClick={() => put({ blind: state.blind ? 0 : 1 + Math.floor(Math.random() * 1e6) })}>{state.blind ? 'Reveal' : 'Blind'}</button>
        <DropdownMenu.Root modal={false}><DropdownMenu.Trigger className="button">Kept</DropdownMenu.Trigger><DropdownMenu.Portal><DropdownMenu.Content align="end" className={list} style={{ boxShadow: 'var(--shade)' }}>
          <DropdownMenu.Item className={entry} disabled={!rows.length} onSelect={() => setAsking({ what: 'save' })}>Keep this bench</DropdownMenu.Item>
          {may.frames && <DropdownMenu.Item className={entry} disabled={!rows.length} onSelect={() => setAsking({ what: 'set' })}>Keep these frames as a set</DropdownMenu.Item>}
          {saved.length > 0 && <DropdownMenu.Separator className="my-1 border-t border-line" />}
          {saved.map((b) => <DropdownMenu.Item key={b.id} className={entry} onSelect={() => history.pushState(null, '', `${path}?${b.state}`)}><span>{b.name}</span><span className="text-soft">{b.mine ? 'mine' : b.person}</span></DropdownMenu.Item>)}
        </DropdownMenu.Content></DropdownMenu.Portal></DropdownMenu.Root>
      </div>
      <p role="status" className={said ? 'mb-2 text-soft' : 'sr-only'}>{said}</p>
      <Notice problem={problem} className="mb-3" />
      {ranging && <RangePanel range={state.range} onRange={(range) => put({ range })} all={columns.every((c) => c.range)} onAll={(on) => put({ columns: columns.map((c) => ({ ...c, range: on })) })} />}
      {trimming !== null && columns[trimming] && <TrimPanel name={nameAt(trimming)} trim={columns[trimming].trim ?? noTrim} linked={linked} onLinked={setLinked} onTrim={(trim) => set(trimming, { ...columns[trimming]!, trim })} onClose={() => setTrimming(null)} />}
      {state.difference && <Legend against={nameAt(state.reference)} />}
      {may.profile && columns.some((c) => c.anchor) && kept >= 0 && !state.blind && <p className="mb-2 flex items-center gap-2 text-[12.5px]">A column is anchored for a neutral that no temperature reaches. <button className="button quiet" onClick={() => setAsking({ what: 'anchor', row: kept })}>Keep it as a profile</button></p>}
      {!rows.length ? (
        <div className="py-12"><p className="mb-1 font-serif text-[20px]">Nothing lies on the bench</p><p className="mb-4 max-w-[56ch] text-soft">Lay frames on it as rows and looks, presets or camera profiles as columns, and see at once whether a candidate holds for the whole set.</p>
          <p className="flex flex-wrap gap-2">{sets.map((s) => <button key={s.id} className="button" onClick={() => put({ rows: s.frames.map((frame) => ({ frame, wb: 'as' })) }, true)}>{s.name}, {s.frames.length} frames</button>)}{frames.length > 0 && <button className="button" onClick={() => put({ rows: frames.filter((f) => f.file_kind === 'rendered').slice(0, 6).map((f) => ({ frame: f.id, wb: 'as' })) }, true)}>The rendered frames</button>}</p></div>
      ) : (
        <div className="overflow-x-auto pb-2"><div role="group" aria-label="The matrix" className="grid gap-x-2 gap-y-2.5" style={{ gridTemplateColumns: `148px repeat(${columns.length}, minmax(168px, 1fr))`, minWidth: 148 + columns.length * 176 }}>
          <p className="pt-1 text-[12px] leading-tight text-soft">{state.blind ? 'blind order' : state.difference ? 'difference against' : 'reference'}<b className="block font-semibold text-ink">{nameAt(state.reference)}</b><span className="mt-1 block">Etagere’s rendering</span></p>
          {order.map((i) => <ColumnHead key={i} column={columns[i]!} name={nameAt(i)} candidates={candidates} reference={i === state.reference} blind={state.blind > 0 && i !== state.reference} act={act(i)} set={(c) => set(i, c)} may={{ judge: may.judge }} />)}
          {rows.map((row, r) => {
            const f = byId.get(row.frame)!, ratio = f.width / f.height;
            return [
              <RowHead key={`${row.frame} head`} frame={f} row={row} white={whites[row.frame] ?? null} picking={picking === r} set={(wb) => put({ rows: rows.map((q, k) => (k === r ? { ...q, wb } : q)) })} onPick={() => setPicking(picking === r ? null : r)} onRemove={() => put({ rows: rows.filter((_, k) => k !== r) }, true)} onUp={() => { if (r) { const l = [...rows]; [l[r - 1], l[r]] = [l[r]!, l[r - 1]!]; put({ rows: l }); } }} onAnchor={() => anchored(r)} />,
              ...order.map((i, c) => { const spec = specOf(f, row.wb, columns[i]!), judged = !columns[i]!.anchor && i === (columns.findIndex((x) => x.profile.length === 36 && !x.anchor && candidates.get(x.profile)?.cameras.includes(f.camera)) + 1 || state.reference + 1) - 1; return (
                <Cell key={`${row.frame} ${i}`} at={`${row.frame}/${i}`} pool={pool} spec={spec} against={state.difference && i !== state.reference ? specOf(f, row.wb, columns[state.reference]!) : null} ratio={ratio} label={`${nameAt(i)} on ${f.name}`} caution={state.blind ? '' : cautionOf(f, columns[i]!)} current={at[0] === r && at[1] === c} picking={picking === r} onFocus={() => setAt([r, c])} onOpen={() => open(r, i)} onPick={(x, y) => void picked(r, x, y)} {...(judged ? { onWhite: (w: Rendered['white']) => setWhites((m) => (JSON.stringify(m[row.frame] ?? null) === JSON.stringify(w) ? m : { ...m, [row.frame]: w })) } : {})} />); }),
            ];
          })}
        </div></div>
      )}
      {rows.length > 0 && <p className="mt-4 text-[12px] leading-6 text-soft"><kbd className="key">←</kbd><kbd className="key">→</kbd><kbd className="key">↑</kbd><kbd className="key">↓</kbd> walk <kbd className="key">Enter</kbd> enlarge <kbd className="key">+</kbd><kbd className="key">−</kbd> strength <kbd className="key">R</kbd> reference <kbd className="key">D</kbd> differences {may.judge && <><kbd className="key">C</kbd> choose or judge </>}<kbd className="key">Delete</kbd> take off</p>}
      {state.open && rows[state.open.row] && <Enlarged pool={pool} title={byId.get(rows[state.open.row]!.frame)!.name} surround={state.surround} onSurround={(surround) => put({ surround })} onClose={() => { put({ open: null }); requestAnimationFrame(() => back.current?.focus()); }} shown={state.open.columns.map((i) => ({ name: nameAt(i), spec: specOf(byId.get(rows[state.open!.row]!.frame)!, rows[state.open!.row]!.wb, columns[i]!, 1500) }))} />}
      <ItemPicker open={asking?.what === 'add'} title={asking?.what === 'add' && asking.to !== null ? 'A look to lay over it' : 'A candidate for the bench'} onClose={() => setAsking(null)} onPick={(item) => { const to = asking?.what === 'add' ? asking.to : null; setAsking(null); void fetched(`item=${item.id}`, (l) => { const c = l[0]!; if (to === null) add([columnFor(c)]); else if (c.kind === 'camera-profile') set(to, { ...columns[to]!, profile: c.versionId }); else set(to, { ...columns[to]!, parts: [...columns[to]!.parts, { version: c.versionId, strength: c.usual }] }); }); }} />
      {asking?.what === 'choose' && columns[asking.column] && <Choose column={columns[asking.column]!} name={nameOf(columns[asking.column]!)} candidates={candidates} frames={rows.map((r) => { const f = byId.get(r.frame)!; return { id: f.id, name: f.name, camera: cameraOf(f), light: f.light }; })} may={{ choice: may.choice, edit: may.edit }} onClose={() => setAsking(null)} onDone={(words) => { setAsking(null); setSaid(words); }} />}
      {asking?.what === 'save' && <NameDialog title="Keep this bench under a name" action="Keep it" noNote name={title === 'Bench' ? '' : title} onClose={() => setAsking(null)} onSave={save} />}
      {asking?.what === 'set' && <NameDialog title="A set of these frames, which should look alike" action="Keep the set" noNote onClose={() => setAsking(null)} onSave={async (name) => { await call('/api/bench/sets', 'POST', { name, frames: rows.map((r) => r.frame) }); setAsking(null); setSaid(`${name} is a frame set now`); router.refresh(); }} />}
      {asking?.what === 'anchor' && anchorColumn && <NameDialog title="Keep the anchored profile" action="Keep it" noNote name={`${candidates.get(anchorColumn.profile)?.title ?? 'Profile'} for ${cameraOf(byId.get(rows[asking.row]!.frame)!)}`} onClose={() => setAsking(null)} onSave={async (name) => { await call('/api/bench/anchor', 'POST', { version: anchorColumn.profile, frame: rows[asking.row]!.frame, wb: rows[asking.row]!.wb, kelvin: anchorColumn.anchor, title: name }); setAsking(null); setSaid(`${name} stands on the shelf of its source, as a draft`); }} />}
    </div>
  );
}
