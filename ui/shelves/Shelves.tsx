'use client';
/** Shelves as rows of spines on a ledge, or as a dense table. Arrows walk, Enter opens, R sets the ribbon, X chooses, Alt and arrows move. */
import { LayoutGrid, Rows3 } from 'lucide-react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useRef, useState, type DragEvent, type KeyboardEvent } from 'react';
import { call, problemOf, type ProblemText } from '../kit/call';
import { groupBy } from '../kit/group';
import { Notice } from '../kit/Notice';
import { useOwnAddress } from '../kit/own-address';
import { BulkEdit } from './BulkEdit';
import { asked, searchOf } from './address';
import { Facets } from './Facets';
import { Flat, useColumns } from './Flat';
import { labelsOf, type Label } from './headings';
import { useFound, type Given } from './search-result';
import { InSight } from './InSight';
import { InHand } from './InHand';
import { NameDialog } from '../kit/NameDialog';
import { ShelfMenu } from './ShelfMenu';
import { DRAG, SpineCard, type SpineActs } from './SpineCard';
import { count, type ShelfView, type Spine } from './spine';
import { Table } from './Table';

interface Props {
  shelves: ShelfView[];
  given: Given;
  frames: { id: string; name: string }[];
  total: number;
  /** how many items are new to whoever looks, to 1,001 */ fresh: number;
  licences: { id: string; name: string }[];
  may: { rollOut: boolean; edit: boolean; shelf: boolean; archive: boolean; house: boolean };
}
type Asking = { what: 'rename'; shelf: ShelfView } | { what: 'new' } | { what: 'save' } | { what: 'bulk' } | null;

export function Shelves({ shelves, given, frames, total, fresh, licences, may }: Props) {
  const router = useRouter();
  const { text, setAddress: say, keepAddress: note, last } = useOwnAddress();
  const params = useMemo(() => new URLSearchParams(text), [text]);
  const [at, setAt] = useState<string | null>(params.get('at'));
  const [chosen, setChosen] = useState<ReadonlyMap<string, Spine>>(new Map());
  const [hint, setHint] = useState<Record<string, boolean>>({});
  const [seen, setSeen] = useState<Spine[]>([]);
  const [asking, setAsking] = useState<Asking>(null);
  const [problem, setProblem] = useState<ProblemText | null>(null);
  const [said, setSaid] = useState('');
  const {
    flat,
    spines,
    counts,
    late,
    search: answered,
  } = useFound(
    searchOf((k) => params.get(k)),
    given,
    (e) => setProblem(problemOf(e)),
  );
  const view = params.get('view') === 'table' ? 'table' : 'spines';
  const shelfId = params.get('shelf');
  const shelf = shelves.find((s) => s.id === shelfId);
  const frame = frames.find((f) => f.id === params.get('frame')) ?? frames[0];
  const pool = seen.length && flat ? seen : spines;
  const current = pool.find((s) => s.id === at) ?? pool[0];
  const filtered = asked.some((k) => params.get(k));
  const twins = new Set(
    [...groupBy(pool, (s) => s.title.toLowerCase()).values()]
      .filter((l) => l.length > 1)
      .flat()
      .map((s) => s.id),
  );
  const go = (change: Record<string, string | null>) => {
    const next = new URLSearchParams(last());
    for (const [key, value] of Object.entries(change))
      if (value) next.set(key, value);
      else next.delete(key);
    next.delete('at');
    say(next.toString());
  };
  const mine = (s: Spine) => hint[s.id] ?? s.mine;
  const search = answered;

  useEffect(() => {
    // the address keeps which spine is looked at, without a round trip
    if (!at) return;
    const timer = setTimeout(() => {
      const next = new URLSearchParams(last());
      next.set('at', at);
      note(next.toString());
    }, 150);
    return () => clearTimeout(timer);
  }, [at, last, note]);

  const act = async (work: () => Promise<unknown>, words = '') => {
    setProblem(null);
    try {
      await work();
      if (words) setSaid(words);
      router.refresh();
    } catch (error) {
      setProblem(problemOf(error));
    }
  };
  const ribbon = async (spine: Spine) => {
    setHint({ ...hint, [spine.id]: !mine(spine) });
    await call(`/api/items/${spine.id}/ribbon`, 'POST', { on: !mine(spine), whose: 'mine' }).catch(() =>
      setHint((h) => ({ ...h, [spine.id]: spine.mine })),
    );
    router.refresh();
  };
  const toggle = (spine: Spine) => {
    const next = new Map(chosen);
    if (!next.delete(spine.id)) next.set(spine.id, spine);
    setChosen(next);
  };
  const move = (ids: string[], to: string, before: string | null) =>
    act(
      () => call('/api/shelves/items', 'POST', { items: ids, shelfId: to, before }),
      `${ids.length === 1 ? 'Moved' : `${ids.length} items moved`}`,
    );
  /** One place to the left or right on its own shelf. */
  const nudge = (spine: Spine, by: -1 | 1) => {
    const own = pool.filter((x) => x.shelfId === spine.shelfId);
    const i = own.findIndex((x) => x.id === spine.id);
    const before = by < 0 ? own[i - 1] : own[i + 2];
    if (by < 0 ? i > 0 : i < own.length - 1)
      void move([spine.id], spine.shelfId, before?.id ?? null).then(() =>
        requestAnimationFrame(() => document.querySelector<HTMLElement>(`[data-spine="${spine.id}"]`)?.focus()),
      );
  };
  const onKey = (event: KeyboardEvent<HTMLElement>, spine: Spine) => {
    if ((event.target as HTMLElement).tagName === 'INPUT') return;
    const all = [...document.querySelectorAll<HTMLElement>('[data-spine]')];
    const i = all.findIndex((x) => x.dataset.spine === spine.id);
    const step = (to: HTMLElement | undefined) => {
      if (to) {
        event.preventDefault();
        to.focus();
      }
    };
    if (event.altKey && (event.key === 'ArrowLeft' || event.key === 'ArrowRight')) {
      event.preventDefault();
      if (may.edit && !shelf?.query) nudge(spine, event.key === 'ArrowLeft' ? -1 : 1);
    } else if (event.key === 'ArrowRight') step(all[i + 1]);
    else if (event.key === 'ArrowLeft') step(all[i - 1]);
    else if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      const here = all[i]!.getBoundingClientRect();
      const down = event.key === 'ArrowDown';
      const gap = view === 'table' ? 4 : 20;
      const rows = all
        .map((x) => ({ x, r: x.getBoundingClientRect() }))
        .filter(({ r }) => (down ? r.top > here.top + gap : r.top < here.top - gap));
      step(
        rows.sort(
          (a, b) =>
            Math.abs(a.r.top - here.top) - Math.abs(b.r.top - here.top) ||
            Math.abs(a.r.left - here.left) - Math.abs(b.r.left - here.left),
        )[0]?.x,
      );
    } else if (event.key === 'Home') step(all[0]);
    else if (event.key === 'End') step(all[all.length - 1]);
    else if (event.key === 'r' && !event.ctrlKey && !event.metaKey) {
      event.preventDefault();
      void ribbon(spine);
    } else if (event.key === 'x' && (may.edit || may.rollOut)) {
      event.preventDefault();
      toggle(spine);
    }
  };
  const chip = (name: string, key: string, value: string) => (
    <button
      key={name}
      className="chip"
      aria-pressed={params.get(key) === value}
      onClick={() => go({ [key]: params.get(key) === value ? null : value })}
    >
      {name}
    </button>
  );
  const doing = useRef<SpineActs>({ open: () => {}, at: () => {}, key: () => {}, dropBefore: () => {} });
  useEffect(() => {
    doing.current = {
      open: (s) => router.push(`/items/${s.id}${frame ? `?frame=${frame.id}` : ''}`),
      at: (s) => setAt(s.id),
      key: onKey,
      dropBefore: (ids, spine) => {
        if (!ids.includes(spine.id)) void move(chosen.has(ids[0]!) ? [...chosen.keys()] : ids, spine.shelfId, spine.id);
      },
    };
  });
  const acts = useMemo<SpineActs>(
    () => ({
      open: (s) => doing.current.open(s),
      at: (s) => doing.current.at(s),
      key: (e, s) => doing.current.key(e, s),
      dropBefore: (ids, s) => doing.current.dropBefore(ids, s),
    }),
    [],
  );
  const page = useRef<HTMLDivElement>(null);
  const columns = useColumns(page);
  const cards = (list: Spine[]) => {
    const labels = labelsOf(list, columns);
    return list.map((s, i) => card(s, labels?.[i] ?? null));
  };
  const card = (spine: Spine, label: Label | null) => (
    <SpineCard
      key={spine.id}
      s={spine}
      label={label}
      frame={frame?.id ?? null}
      current={current?.id === spine.id}
      chosen={chosen.has(spine.id)}
      mine={mine(spine)}
      twin={twins.has(spine.id)}
      movable={may.edit && !params.get('archived')}
      acts={acts}
    />
  );
  const byShelf = groupBy(spines, (s) => s.shelfId);
  const dropOn = (id: string) => (event: DragEvent) => {
    const ids = event.dataTransfer.getData(DRAG);
    if (ids) {
      event.preventDefault();
      void move(chosen.has(ids) ? [...chosen.keys()] : ids.split(','), id, null);
    }
  };
  const shown = shelves.filter((s) => !s.away && !s.query);
  const away = shelves.filter((s) => s.away);
  const filling = shelves.filter((s) => s.query && !s.away);
  const picked = [...chosen.values()];
  const ready = picked.filter((s) => s.status === 'approved' && (s.kind === 'look' || s.kind === 'preset'));
  const reorder = (shelf: ShelfView, by: -1 | 1) => {
    const ids = shelves.map((x) => x.id);
    const visible = shown.map((x) => x.id);
    const i = visible.indexOf(shelf.id);
    const other = visible[i + by];
    if (!other) return;
    const a = ids.indexOf(shelf.id);
    const b = ids.indexOf(other);
    [ids[a], ids[b]] = [ids[b]!, ids[a]!];
    void act(() => call('/api/shelves/order', 'POST', { shelves: ids }));
  };
  const menu = (shelf: ShelfView) => (
    <ShelfMenu
      name={shelf.name}
      mayEdit={may.shelf}
      empty={shelf.items === 0}
      onAway={() =>
        void act(() => call(`/api/shelves/${shelf.id}/away`, 'POST', { away: true }), `${shelf.name} is put away`)
      }
      onRename={() => setAsking({ what: 'rename', shelf })}
      onMove={(by) => reorder(shelf, by)}
      onHeadings={() =>
        void act(() => call(`/api/shelves/${shelf.id}/headings`, 'POST'), `${shelf.name} is ordered by headings`)
      }
      onRemove={() =>
        void act(() => call(`/api/shelves/${shelf.id}`, 'DELETE'), `${shelf.name} is taken away`).then(() => {
          if (shelfId === shelf.id) go({ shelf: null });
        })
      }
    />
  );

  return (
    <div className="grid grid-cols-[minmax(0,1fr)_292px]">
      <div ref={page} className="min-w-0 px-6 pb-16 pt-[18px]">
        <div className="mb-3.5 flex items-baseline gap-3.5">
          <h1 className="min-w-0 text-[26px] leading-tight [overflow-wrap:anywhere]">
            {shelf ? shelf.name : 'Shelves'}
          </h1>
          <p className="whitespace-nowrap text-soft" aria-live="polite" aria-busy={late}>
            {shelf && !shelf.query && !asked.some((k) => k !== 'shelf' && params.get(k))
              ? `${shelf.items.toLocaleString('en')} ${shelf.items === 1 ? 'item' : 'items'}`
              : filtered
                ? `${count(counts.n, counts.more)} of ${total.toLocaleString('en')} items`
                : `${total.toLocaleString('en')} items on ${shown.length + away.length} ${shown.length + away.length === 1 ? 'shelf' : 'shelves'}`}
          </p>
          {shelf && (
            <>
              <Link prefetch={false} href="/shelves" className="button quiet">
                All shelves
              </Link>
              {menu(shelf)}
            </>
          )}
          <span className="ml-auto inline-flex self-center" role="group" aria-label="Show as">
            <button
              className="chip !rounded-r-none"
              aria-pressed={view === 'spines'}
              onClick={() => go({ view: null })}
            >
              <LayoutGrid aria-hidden size={13} />
              Spines
            </button>
            <button
              className="chip !rounded-l-none !border-l-0"
              aria-pressed={view === 'table'}
              onClick={() => go({ view: 'table' })}
            >
              <Rows3 aria-hidden size={13} />
              Table
            </button>
          </span>
        </div>
        {(total > 0 || filtered) && (
          <div className="mb-4 flex flex-wrap items-center gap-2" role="group" aria-label="Narrow down">
            <Facets facets={counts.facets} get={(k) => params.get(k)} set={(k, v) => go({ [k]: v })} />
            {chip('With ribbon', 'ribbon', 'any')}
            {chip('Recent', 'recent', '1')}
            {(fresh > 0 || params.get('fresh')) &&
              chip(`New to you ${count(Math.min(fresh, 1000), fresh > 1000)}`, 'fresh', '1')}
            {fresh > 0 && params.get('fresh') && (
              <button
                className="button quiet"
                onClick={() =>
                  void act(() => call('/api/items/seen', 'POST', {}), 'What comes from now on is new').then(() =>
                    go({ fresh: null }),
                  )
                }
              >
                I have seen them
              </button>
            )}
            {filtered && !shelf && (
              <Link
                prefetch={false}
                href={view === 'table' ? '/shelves?view=table' : '/shelves'}
                className="button quiet"
              >
                Show all
              </Link>
            )}
            {filtered && !shelfId && may.shelf && (
              <button className="button quiet" onClick={() => setAsking({ what: 'save' })}>
                Keep as a shelf
              </button>
            )}
          </div>
        )}
        <p role="status" className="sr-only">
          {said}
        </p>
        <Notice problem={problem} className="mb-3" />
        {filling.length > 0 && !flat && (
          <p className="mb-4 flex flex-wrap items-center gap-2 text-soft">
            Shelves that fill themselves:{' '}
            {filling.map((shelf) => (
              <Link
                prefetch={false}
                key={shelf.id}
                className="chip"
                href={`/shelves?shelf=${shelf.id}`}
                title={shelf.note}
              >
                {shelf.name}
              </Link>
            ))}
          </p>
        )}
        {flat
          ? counts.n > 0 &&
            (view === 'table' ? (
              <Table
                search={search}
                first={spines}
                total={counts.more ? 100_000 : counts.n}
                sort={params.get('sort') ?? (shelf && !shelf.query ? 'shelf' : params.get('recent') ? '' : 'title')}
                down={params.get('down') === '1'}
                onSort={(sort, down) => go({ sort, down: down ? '1' : null })}
                chosen={new Set(chosen.keys())}
                onChoose={toggle}
                onAt={(s) => setAt(s.id)}
                onKey={onKey}
                onRows={setSeen}
                may={may.edit || may.rollOut}
              />
            ) : (
              <div
                onDragOver={(event) => {
                  if (shelf && !shelf.query && event.dataTransfer.types.includes(DRAG)) event.preventDefault();
                }}
                onDrop={shelf && !shelf.query ? dropOn(shelf.id) : undefined}
              >
                <Flat
                  search={search}
                  first={spines}
                  total={counts.more ? Math.max(counts.n, shelf && !shelf.query ? shelf.items : 0) : counts.n}
                  columns={columns}
                  labelled={!!shelf && !shelf.query && !params.get('sort')}
                  render={card}
                  onRows={setSeen}
                />
              </div>
            ))
          : shown.map((shelf, place) => {
              const own = byShelf.get(shelf.id) ?? [];
              const more = (own[0]?.matching ?? 0) - own.length;
              if (!own.length && filtered) return null;
              return (
                <section
                  key={shelf.id}
                  aria-label={shelf.name}
                  className="-mx-2 mb-5 px-2"
                  style={{ contentVisibility: 'auto', containIntrinsicSize: 'auto 220px' }}
                  onDragOver={(event) => {
                    if (may.edit && event.dataTransfer.types.includes(DRAG)) event.preventDefault();
                  }}
                  onDrop={dropOn(shelf.id)}
                >
                  <h2 className="mb-2 flex flex-wrap items-baseline gap-x-2.5 text-[17px] [overflow-wrap:anywhere]">
                    <Link prefetch={false} href={`/shelves?shelf=${shelf.id}`} className="hover:underline">
                      {shelf.name}
                    </Link>
                    <span className="font-sans text-[12.5px] font-normal tracking-normal text-soft">
                      {shelf.note || `${shelf.items.toLocaleString('en')} items`}
                    </span>
                    {menu(shelf)}
                  </h2>
                  {own.length ? (
                    <div className="flex flex-wrap gap-x-3 gap-y-0">
                      {place < 10 ? cards(own) : <InSight render={() => cards(own)} />}
                    </div>
                  ) : (
                    <>
                      <p className="px-1 py-6 text-soft">
                        Nothing stands here yet. What is taken in at{' '}
                        <Link className="underline" href="/intake">
                          Intake
                        </Link>{' '}
                        can be put on this shelf, or dragged here.
                      </p>
                      <div className="ledge" />
                    </>
                  )}
                  {more > 0 && (
                    <button className="button quiet mt-1" onClick={() => go({ shelf: shelf.id })}>
                      and {more >= 1000 - own.length ? '1,000 or' : more.toLocaleString('en')} more on this shelf
                    </button>
                  )}
                </section>
              );
            })}
        {counts.n === 0 && filtered && (
          <div className="py-10">
            <p className="mb-1 font-serif text-[18px]">
              {shelf && !shelf.query && !params.get('q') ? 'Nothing stands here yet' : 'Nothing matches'}
            </p>
            <p className="text-soft">
              Try fewer letters or take a facet off, or{' '}
              <Link prefetch={false} className="underline" href="/shelves">
                show all {total.toLocaleString('en')} items
              </Link>
              .
            </p>
          </div>
        )}
        {!shelves.length && (
          <div className="py-10">
            <p className="mb-1 font-serif text-[18px]">No shelves yet</p>
            <p className="text-soft">
              The first delivery makes one: drop it at{' '}
              <Link className="underline" href="/intake">
                Intake
              </Link>
              .
            </p>
          </div>
        )}
        {!flat && (may.shelf || away.length > 0) && (
          <div className="mt-2 flex flex-wrap items-center gap-2">
            {may.shelf && (
              <button className="button quiet" onClick={() => setAsking({ what: 'new' })}>
                New shelf
              </button>
            )}
            {away.length > 0 && (
              <span className="flex flex-wrap items-center gap-2 text-soft">
                Put away:{' '}
                {away.map((shelf) => (
                  <button
                    key={shelf.id}
                    className="chip"
                    onClick={() =>
                      void act(
                        () => call(`/api/shelves/${shelf.id}/away`, 'POST', { away: false }),
                        `${shelf.name} is back`,
                      )
                    }
                  >
                    {shelf.name}
                  </button>
                ))}
              </span>
            )}
          </div>
        )}
        {chosen.size > 0 && (
          <div
            className="sticky bottom-4 z-20 mt-4 flex flex-wrap items-center gap-2 border border-line bg-paper px-4 py-2.5"
            style={{ boxShadow: 'var(--shade)' }}
            role="region"
            aria-label="What is chosen"
          >
            <b className="font-semibold">{chosen.size} chosen</b>
            <button className="button quiet" onClick={() => setChosen(new Map())}>
              None
            </button>
            {may.edit && (
              <button className="button ml-auto" onClick={() => setAsking({ what: 'bulk' })}>
                Change together
              </button>
            )}
            {may.edit && !params.get('archived') && (
              <select
                aria-label="Move to a shelf"
                className="field"
                value=""
                onChange={(e) => void move([...chosen.keys()], e.target.value, null).then(() => setChosen(new Map()))}
              >
                <option value="">Move to …</option>
                {shelves
                  .filter((s) => !s.query)
                  .map((shelf) => (
                    <option key={shelf.id} value={shelf.id}>
                      {shelf.name}
                    </option>
                  ))}
              </select>
            )}
            {may.archive && (
              <button
                className="button danger"
                onClick={() => {
                  const archived = !params.get('archived');
                  void act(
                    () => call('/api/items/archive', 'POST', { items: [...chosen.keys()], archived }),
                    archived ? 'Archived' : 'Brought back',
                  ).then(() => setChosen(new Map()));
                }}
              >
                {params.get('archived') ? 'Bring back' : 'Archive'}
              </button>
            )}
            {may.rollOut &&
              (ready.length ? (
                <Link
                  className="button main"
                  href={`/rollouts/new?versions=${ready.map((s) => s.versionId).join(',')}`}
                >
                  Roll out{ready.length < picked.length ? ` ${ready.length} approved` : ''}
                </Link>
              ) : (
                <button className="button main" disabled title="Only approved looks and presets are rolled out">
                  Roll out
                </button>
              ))}
          </div>
        )}
      </div>
      <InHand
        s={current}
        frame={frame}
        frames={frames}
        onFrame={(id) => go({ frame: id })}
        mine={!!current && mine(current)}
        chosen={!!current && chosen.has(current.id)}
        onRibbon={() => current && void ribbon(current)}
        onChoose={() => current && toggle(current)}
        may={may.edit || may.rollOut}
        ahead={pool
          .filter((s) => s.kind === 'look' || s.kind === 'preset')
          .slice(0, 60)
          .map((s) => s.versionId)}
      />
      {asking?.what === 'rename' && (
        <NameDialog
          title="Rename the shelf"
          action="Rename"
          name={asking.shelf.name}
          note={asking.shelf.note}
          onClose={() => setAsking(null)}
          onSave={async (name, note) => {
            await call(`/api/shelves/${asking.shelf.id}`, 'PATCH', { name, note });
            setAsking(null);
            router.refresh();
          }}
        />
      )}
      {asking?.what === 'new' && (
        <NameDialog
          title="A new shelf"
          action="Make it"
          onClose={() => setAsking(null)}
          onSave={async (name, note) => {
            await call('/api/shelves', 'POST', { name, note });
            setAsking(null);
            router.refresh();
          }}
        />
      )}
      {asking?.what === 'save' && (
        <NameDialog
          title="A shelf that fills itself by this search"
          action="Keep it"
          name={params.get('q') ?? ''}
          onClose={() => setAsking(null)}
          onSave={async (name, note) => {
            const { id } = await call<{ id: string }>('/api/shelves', 'POST', {
              name,
              note,
              query: Object.fromEntries(
                [...params].filter(([k]) => asked.includes(k) && k !== 'shelf' && k !== 'archived'),
              ),
            });
            setAsking(null);
            router.push(`/shelves?shelf=${id}`);
          }}
        />
      )}
      {asking?.what === 'bulk' && (
        <BulkEdit
          items={[...chosen.keys()]}
          licences={licences}
          onClose={() => setAsking(null)}
          onDone={(words) => {
            setAsking(null);
            setChosen(new Map());
            setSaid(words);
            router.refresh();
          }}
        />
      )}
    </div>
  );
}
