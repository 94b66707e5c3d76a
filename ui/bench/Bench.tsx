'use client';
/** The bench: rows are frames, columns are candidates, cells are rendered pictures. Everything is in the address. Arrows walk, Enter enlarges, + and − change strength, R sets the reference, D shows differences, C judges. */
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import { noTrim } from '@/core/bench/measure';
import { cautionOf } from '@/core/bench/caution';
import { choiceFor, type ChoiceOnBench } from '@/core/bench/choice';
import { oddProfiles } from '@/core/bench/differing-profiles';
import type { Gamut } from '@/core/bench/display-gamut';
import { bodyOf } from '@/core/frame/body';
import { readings, readingText } from '@/core/look/assumed-encoding';
import type { CellSpec } from '@/browser-workers/bench.worker';
import { call, problemOf, type ProblemText } from '../kit/call';
import { ItemPicker } from '../kit/ItemPicker';
import { Notice } from '../kit/Notice';
import { useOwnAddress } from '../kit/own-address';
import { NameDialog } from '../shelves/NameDialog';
import type { Candidate } from './candidate';
import { Cell } from './Cell';
import { Choose, gamutOf } from './Choose';
import { ColumnHead, type ColumnAct } from './ColumnHead';
import { Enlarged, grays } from './Enlarged';
import { CandidatesMenu, FramesMenu, KeptMenu } from './Menus';
import { Legend, RangePanel, TrimPanel } from './Panels';
import { usePool, type Rendered } from './pool';
import { RowHead, type FrameOnBench } from './RowHead';
import { ExportDialog } from './ExportDialog';
import { TargetDialog, type ChartOnBench } from './TargetDialog';
import {
  addressOf,
  blindOrder,
  isVersion,
  MOST_COLUMNS,
  MOST_ROWS,
  plain,
  STAGES,
  stateOf,
  type Column,
  type State,
} from './state';

interface Props {
  choices: ChoiceOnBench[];
  frames: FrameOnBench[];
  charts: ChartOnBench[];
  exports: { id: string; frame: string; label: string }[];
  sets: { id: string; name: string; frames: string[] }[];
  shelves: { id: string; name: string }[];
  saved: { id: string; name: string; state: string; person: string; mine: boolean }[];
  known: Candidate[];
  may: { judge: boolean; choice: boolean; edit: boolean; frames: boolean; profile: boolean };
}
type Asking =
  | { what: 'add'; to: number | null }
  | { what: 'choose'; column: number }
  | { what: 'save' }
  | { what: 'set' }
  | { what: 'anchor'; row: number }
  | { what: 'chart'; row: number }
  | { what: 'export' }
  | null;

const letters = 'ABCDEFGHIJKLMNOP';

export function Bench({ choices, frames, charts, exports, sets, shelves, saved, known, may }: Props) {
  const { text, say, last } = useOwnAddress();
  const router = useRouter();
  const pool = usePool();
  const state = useMemo(() => {
    const query = new URLSearchParams(text);
    return stateOf((k) => query.get(k));
  }, [text]);
  const [candidates, setCandidates] = useState<ReadonlyMap<string, Candidate>>(
    () => new Map(known.map((c) => [c.versionId, c])),
  );
  const [at, setAt] = useState<[number, number]>([0, 0]);
  const [picking, setPicking] = useState<number | null>(null);
  const [whites, setWhites] = useState<Record<string, Rendered['white']>>({});
  const [asking, setAsking] = useState<Asking>(null);
  const [trimming, setTrimming] = useState<number | null>(null);
  const [linked, setLinked] = useState(true);
  const [ranging, setRanging] = useState(false);
  const [problem, setProblem] = useState<ProblemText | null>(null);
  const [said, setSaid] = useState('');
  const back = useRef<HTMLElement | null>(null);
  const byId = useMemo(() => new Map(frames.map((f) => [f.id, f])), [frames]);
  const latest = useCallback((): State => {
    const query = new URLSearchParams(last());
    return stateOf((k) => query.get(k));
  }, [last]);
  // whites come with the cells; they are taken up together, since each redraws the whole matrix
  const came = useRef<Record<string, Rendered['white']>>({});
  const taking = useRef<ReturnType<typeof setTimeout> | null>(null);
  const tellWhite = useCallback((frame: string, white: Rendered['white']) => {
    came.current[frame] = white;
    taking.current ??= setTimeout(() => {
      taking.current = null;
      const all = came.current;
      came.current = {};
      setWhites((m) =>
        Object.entries(all).every(([k, v]) => JSON.stringify(m[k] ?? null) === JSON.stringify(v))
          ? m
          : { ...m, ...all },
      );
    }, 120);
  }, []);
  useEffect(
    () => () => {
      if (taking.current) clearTimeout(taking.current);
    },
    [],
  );
  const put = useCallback(
    (s: Partial<State>, push = false) => say(addressOf({ ...latest(), ...s }), push),
    [say, latest],
  );
  const rows = state.rows.filter((r) => byId.has(r.frame));
  const { columns } = state;
  const order = state.blind ? blindOrder(columns.length, state.reference, state.blind) : columns.map((_, i) => i);

  // candidates that the address names and that are not known yet
  const missing = columns
    .flatMap((c) => [c.profile, ...c.parts.map((p) => p.version)])
    .filter((v) => isVersion(v) && !candidates.has(v))
    .sort()
    .join();
  useEffect(() => {
    if (missing)
      void call<{ candidates: Candidate[] }>(`/api/bench/candidates?versions=${missing}`)
        .then((r) =>
          setCandidates((m) => new Map([...m, ...r.candidates.map((c): [string, Candidate] => [c.versionId, c])])),
        )
        .catch((e: unknown) => setProblem(problemOf(e)));
  }, [missing]);

  const nameOf = (column: Column): string => {
    if (column.profile === 'jpeg') return 'Camera’s own JPEG';
    if (column.profile.startsWith('x:'))
      return [
        `Export: ${column.profile.slice(2)}`,
        ...column.parts.map((p) => candidates.get(p.version)?.title).filter(Boolean),
      ].join(' + ');
    const parts = [candidates.get(column.profile), ...column.parts.map((p) => candidates.get(p.version))]
      .map((x) => x?.title)
      .filter(Boolean);
    return (
      parts.join(' + ') || (column.parts.length || column.profile !== 'plain' ? 'Gone from the shelves' : 'No look')
    );
  };
  const nameAt = (i: number): string =>
    state.blind && i !== state.reference ? `Candidate ${letters[order.indexOf(i)] ?? i + 1}` : nameOf(columns[i]!);
  const ofExport = useMemo(() => new Map(exports.map((e) => [`${e.frame} ${e.label.toLowerCase()}`, e.id])), [exports]);
  const labels = [...new Map(exports.map((e) => [e.label.toLowerCase(), e.label])).values()];
  const chartOf = (frame: FrameOnBench): CellSpec['chart'] => {
    const c = frame.chart_id && frame.chart_corners && charts.find((x) => x.id === frame.chart_id);
    return c ? { corners: frame.chart_corners!, columns: c.columns, rows: c.rows, patches: c.patches } : null;
  };
  const gamut = useMemo(() => (state.mark ? ((gamutOf() || 'srgb') as Gamut) : 'srgb'), [state.mark]);
  const specOf = (frame: FrameOnBench, wb: string, column: Column, width = 320): CellSpec => ({
    frame: frame.id,
    camera: frame.file_kind === 'camera data',
    width,
    profile: column.profile.startsWith('x:') ? 'plain' : column.profile,
    export: column.profile.startsWith('x:')
      ? (ofExport.get(`${frame.id} ${column.profile.slice(2).toLowerCase()}`) ?? '')
      : null,
    chart: chartOf(frame),
    mark: state.mark && !state.difference ? gamut : null,
    stages: column.stages === 15 ? null : STAGES.filter((_, i) => (column.stages >> i) % 2 === 1).join(','),
    anchor: column.anchor,
    wb,
    stack: column.parts.map((part) => ({
      version: part.version,
      strength: part.strength,
      reading: part.reading ? readingText(readings[part.reading - 1]!) : '',
    })),
    trim: column.trim,
    range: column.range ? state.range : null,
  });
  const cautionFor = (frame: FrameOnBench, column: Column): string =>
    cautionOf(
      { camera: bodyOf(frame), fileKind: frame.file_kind },
      {
        profileFor: candidates.get(column.profile)?.cameras ?? null,
        anchored: column.anchor !== null,
        looks: column.parts.map((p) => ({ strength: p.strength, roots: candidates.get(p.version)?.roots ?? [] })),
      },
    );
  const add = (list: Column[], to = columns.length) => {
    const free = MOST_COLUMNS - columns.length;
    if (list.length > free)
      setSaid(`The bench holds ${MOST_COLUMNS} columns; ${Math.max(0, free)} of ${list.length} were added.`);
    put({ columns: [...columns.slice(0, to), ...list.slice(0, free), ...columns.slice(to)] }, true);
  };
  const columnFor = (candidate: Candidate): Column =>
    candidate.kind === 'camera-profile'
      ? { ...plain, profile: candidate.versionId }
      : { ...plain, parts: [{ version: candidate.versionId, strength: candidate.usual }] };
  const fetched = async (query: string, take: (l: Candidate[]) => void) => {
    setProblem(null);
    try {
      const { candidates } = await call<{ candidates: Candidate[] }>(`/api/bench/candidates?${query}`);
      setCandidates((m) => new Map([...m, ...candidates.map((c): [string, Candidate] => [c.versionId, c])]));
      const shown = candidates.filter((c) => c.shown);
      if (shown.length) take(shown);
      else setSaid('Nothing of that kind is on the shelves.');
    } catch (error) {
      setProblem(problemOf(error));
    }
  };
  const set = (i: number, c: Column) => put({ columns: columns.map((x, k) => (k === i ? c : x)) });
  const act = (i: number) => (what: ColumnAct) => {
    const column = columns[i]!;
    const last = column.parts[column.parts.length - 1];
    if (what === 'reference') put({ reference: i });
    else if (what === 'remove') {
      setTrimming(null);
      put(
        {
          columns: columns.filter((_, k) => k !== i),
          reference: state.reference > i ? state.reference - 1 : state.reference === i ? 0 : state.reference,
        },
        true,
      );
    } else if (what === 'left' || what === 'right') {
      const j = i + (what === 'left' ? -1 : 1);
      if (j >= 0 && j < columns.length) {
        const l = [...columns];
        [l[i], l[j]] = [l[j]!, l[i]!];
        put({ columns: l, reference: state.reference === i ? j : state.reference === j ? i : state.reference });
      }
    } else if (what === 'strengths' && last)
      add(
        [0, 25, 50, 75, 100, 125, candidates.get(last.version)?.most ?? 150]
          .filter((s, k, l) => s !== last.strength && l.indexOf(s) === k)
          .map((s) => ({ ...column, parts: [...column.parts.slice(0, -1), { ...last, strength: s }] })),
        i + 1,
      );
    else if (what === 'like')
      void fetched(`like=${candidates.get(last?.version ?? column.profile)?.itemId}`, (l) =>
        add(l.map(columnFor), i + 1),
      );
    else if (what === 'trim') {
      if (column.trim) {
        set(i, { ...column, trim: null });
        setTrimming(null);
      } else {
        set(i, { ...column, trim: { slope: [1, 1, 1], offset: [0, 0, 0], power: [1, 1, 1] } });
        setTrimming(i);
      }
    } else if (what === 'unexport')
      void (async () => {
        setProblem(null);
        try {
          for (const e of exports)
            if (e.label.toLowerCase() === column.profile.slice(2).toLowerCase())
              await call(`/api/exports/${e.id}`, 'DELETE');
          setSaid(`The exports of ${column.profile.slice(2)} are gone`);
          put({ columns: latest().columns.filter((x) => x.profile !== column.profile), reference: 0 }, true);
          router.refresh();
        } catch (error) {
          setProblem(problemOf(error));
        }
      })();
    else if (what === 'add') setAsking({ what: 'add', to: i });
    else if (what === 'choose') setAsking({ what: 'choose', column: i });
  };
  const open = (r: number, c: number) => {
    back.current = document.activeElement as HTMLElement;
    put({ open: { row: r, columns: c === state.reference || columns.length < 2 ? [c] : [state.reference, c] } }, true);
  };
  const focus = (r: number, c: number) => {
    const el = document.querySelector<HTMLElement>(`[data-cell="${rows[r]?.frame}/${order[c]}"]`);
    if (el) {
      el.focus();
      el.scrollIntoView({ block: 'nearest', inline: 'nearest' });
    }
  };
  const onKey = (event: KeyboardEvent) => {
    const [ofFrame, ofColumn] = ((event.target as HTMLElement).dataset.cell ?? '').split('/');
    const i = Number(ofColumn);
    const r = rows.findIndex((x) => x.frame === ofFrame);
    const c = order.indexOf(i);
    const column = columns[i]; // by the cell itself: focus may be newer than what was rendered last
    if (!ofFrame || event.ctrlKey || event.metaKey || !column) return;
    const last = column.parts[column.parts.length - 1];
    const on = (k: () => void) => {
      event.preventDefault();
      k();
    };
    if (event.key === 'ArrowRight') on(() => focus(r, c + 1));
    else if (event.key === 'ArrowLeft') on(() => focus(r, c - 1));
    else if (event.key === 'ArrowDown') on(() => focus(r + 1, c));
    else if (event.key === 'ArrowUp') on(() => focus(r - 1, c));
    else if (event.key === 'Enter') on(() => open(r, i));
    else if (
      (event.key === '+' || event.key === '=' || event.key === '-') &&
      last &&
      !candidates.get(last.version)?.fixed
    )
      on(() => {
        const now = latest().columns;
        put({
          columns: now.map((column, k) =>
            k === i
              ? {
                  ...column,
                  parts: column.parts.map((part, n) =>
                    n === column.parts.length - 1
                      ? { ...part, strength: Math.max(0, Math.min(400, part.strength + (event.key === '-' ? -5 : 5))) }
                      : part,
                  ),
                }
              : column,
          ),
        });
      });
    else if (event.key === 'r') on(() => put({ reference: i }));
    else if (event.key === 'd') on(() => put({ difference: !state.difference }));
    else if (event.key === 'c' && may.judge && !state.blind && (column.parts.length || isVersion(column.profile)))
      on(() => setAsking({ what: 'choose', column: i }));
    else if (event.key === 'Delete') on(() => act(i)('remove'));
  };
  const picked = async (r: number, x: number, y: number) => {
    const row = rows[r]!;
    const frame = byId.get(row.frame)!;
    setPicking(null);
    const answer = await pool?.pick(specOf(frame, row.wb, plain), x, y);
    if (answer && 'neutral' in answer)
      put(
        {
          rows: rows.map((row, k) =>
            k === r ? { ...row, wb: `n:${answer.neutral.map((v) => Number(v.toFixed(5))).join(',')}` } : row,
          ),
        },
        true,
      );
    else if (answer && 'error' in answer)
      setProblem({ code: 'pick', message: answer.error.message, where: frame.name, remedy: answer.error.remedy });
  };
  const anchored = (r: number) => {
    const frame = byId.get(rows[r]!.frame)!;
    const own = columns.findIndex(
      (column) =>
        isVersion(column.profile) &&
        !column.anchor &&
        !candidates.get(column.profile)?.icc &&
        candidates.get(column.profile)?.cameras.includes(frame.camera),
    );
    const lay = (version: string) => add([{ ...plain, profile: version, anchor: 5000 }], Math.max(1, own + 1));
    if (own >= 0) lay(columns[own]!.profile);
    else
      void fetched(`cameras=${encodeURIComponent(frame.camera)}`, (candidates) => {
        const dcp = candidates.filter((c) => !c.icc);
        const first = dcp.find((c) => !c.rungs.includes('look')) ?? dcp[0];
        if (first) lay(first.versionId);
        else setSaid('There is no DNG profile of this camera to anchor.');
      });
  };
  const anchorColumn = asking?.what === 'anchor' ? columns.find((c) => c.anchor) : undefined;
  const kept = rows.findIndex((r) => whites[r.frame] && byId.get(r.frame)?.file_kind === 'camera data');
  const odd = oddProfiles(
    rows.map((row) => {
      const frame = byId.get(row.frame)!;
      return { id: frame.id, camera: bodyOf(frame), profile: frame.profile };
    }),
  );
  const lights = new Set(rows.map((r) => byId.get(r.frame)!.light)).size;
  const cameras = new Set(rows.map((r) => bodyOf(byId.get(r.frame)!)).filter(Boolean));
  const title =
    sets.find((s) => s.frames.length === rows.length && s.frames.every((f) => rows.some((r) => r.frame === f)))?.name ??
    'Bench';
  const save = async (name: string) => {
    const { id } = await call<{ id: string }>('/api/bench/saved', 'POST', {
      name,
      state: addressOf(state),
      shared: true,
    });
    setAsking(null);
    setSaid(`${name} is kept`);
    void id;
    router.refresh();
  };

  return (
    <div
      className="min-h-[calc(100vh-52px)] px-6 pb-16 pt-[18px]"
      style={{ background: rows.length && state.surround ? grays[state.surround] : undefined }}
      onKeyDown={onKey}
    >
      <div className="mb-3 flex items-center gap-2">
        <h1 className="mr-1 whitespace-nowrap text-[26px] leading-tight">{title}</h1>
        <p className="min-w-0 flex-1 truncate text-soft">
          {rows.length
            ? `${rows.length} ${rows.length === 1 ? 'frame' : 'frames'}${cameras.size ? `, ${[...cameras].join(', ')}` : ''}, ${lights} ${lights === 1 ? 'light' : 'lights'}`
            : ''}
        </p>
        <FramesMenu
          frames={frames}
          sets={sets}
          full={rows.length >= MOST_ROWS}
          on={(id) => rows.some((r) => r.frame === id)}
          onSet={(list) => put({ rows: list.map((frame) => ({ frame, wb: 'as' })) }, true)}
          onFrame={(frame) => put({ rows: [...rows, { frame, wb: 'as' }] }, true)}
        />
        <CandidatesMenu
          shelves={shelves}
          labels={labels}
          cameras={cameras.size > 0}
          mayBring={may.frames && rows.length > 0}
          onFind={() => setAsking({ what: 'add', to: null })}
          onProfiles={() =>
            void fetched(
              `cameras=${encodeURIComponent(
                [
                  ...new Set(
                    rows.flatMap((row) => {
                      const frame = byId.get(row.frame)!;
                      return frame.camera ? [frame.camera, bodyOf(frame)] : [];
                    }),
                  ),
                ].join('|'),
              )}`,
              (l) => add(l.map(columnFor)),
            )
          }
          onColumn={(profile) => add([{ ...plain, profile }])}
          onShelf={(id) => void fetched(`shelf=${id}`, (l) => add(l.map(columnFor)))}
          onBring={() => setAsking({ what: 'export' })}
        />
        <button
          className="button"
          aria-pressed={state.difference}
          onClick={() => put({ difference: !state.difference })}
        >
          {state.difference ? 'Pictures' : 'Differences'}
        </button>
        <button
          className="button"
          aria-pressed={state.mark}
          disabled={state.difference}
          title="Mark what this display cannot show"
          onClick={() => put({ mark: !state.mark })}
        >
          Gamut
        </button>
        <button className="button" aria-pressed={ranging} onClick={() => setRanging(!ranging)}>
          Range
        </button>
        <button
          className="button"
          aria-pressed={!!state.blind}
          disabled={columns.length < 3}
          title={columns.length < 3 ? 'Blind needs two candidates beside the reference' : undefined}
          onClick={() => put({ blind: state.blind ? 0 : 1 + Math.floor(Math.random() * 1e6) })}
        >
          {state.blind ? 'Reveal' : 'Blind'}
        </button>
        <KeptMenu
          saved={saved}
          some={rows.length > 0}
          maySet={may.frames}
          onKeep={() => setAsking({ what: 'save' })}
          onSet={() => setAsking({ what: 'set' })}
          onOpen={(address) => say(address, true)}
        />
      </div>
      <p role="status" className={said ? 'mb-2 text-soft' : 'sr-only'}>
        {said}
      </p>
      <Notice problem={problem} className="mb-3" />
      {ranging && (
        <RangePanel
          range={state.range}
          onRange={(range) => put({ range })}
          all={columns.every((c) => c.range)}
          onAll={(on) => put({ columns: columns.map((c) => ({ ...c, range: on })) })}
        />
      )}
      {trimming !== null && columns[trimming] && (
        <TrimPanel
          name={nameAt(trimming)}
          trim={columns[trimming].trim ?? noTrim}
          linked={linked}
          onLinked={setLinked}
          onTrim={(trim) => set(trimming, { ...columns[trimming]!, trim })}
          onClose={() => setTrimming(null)}
        />
      )}
      {state.mark && !state.difference && (
        <p className="mb-2 text-[12.5px] text-soft">
          What {gamut === 'srgb' ? 'an sRGB display' : gamut === 'p3' ? 'a P3 display' : 'a Rec. 2020 display'} cannot
          show stands in a checker of grays; the browser says that this display{' '}
          {gamutOf() ? 'is one' : 'is of a gamut that it does not know, sRGB is assumed'}.
        </p>
      )}
      {state.difference && <Legend against={nameAt(state.reference)} />}
      {may.profile && columns.some((c) => c.anchor) && kept >= 0 && !state.blind && (
        <p className="mb-2 flex items-center gap-2 text-[12.5px]">
          A column is anchored for a neutral that no temperature reaches.{' '}
          <button className="button quiet" onClick={() => setAsking({ what: 'anchor', row: kept })}>
            Keep it as a profile
          </button>
        </p>
      )}
      {!rows.length ? (
        <div className="py-12">
          <p className="mb-1 font-serif text-[20px]">Nothing lies on the bench</p>
          <p className="mb-4 max-w-[56ch] text-soft">
            Lay frames on it as rows and looks, presets or camera profiles as columns, and see at once whether a
            candidate holds for the whole set.
          </p>
          <p className="flex flex-wrap gap-2">
            {sets.map((s) => (
              <button
                key={s.id}
                className="button"
                onClick={() => put({ rows: s.frames.map((frame) => ({ frame, wb: 'as' })) }, true)}
              >
                {s.name}, {s.frames.length} frames
              </button>
            ))}
            {frames.length > 0 && (
              <button
                className="button"
                onClick={() =>
                  put(
                    {
                      rows: frames
                        .filter((f) => f.file_kind === 'rendered')
                        .slice(0, 6)
                        .map((f) => ({ frame: f.id, wb: 'as' })),
                    },
                    true,
                  )
                }
              >
                The rendered frames
              </button>
            )}
          </p>
        </div>
      ) : (
        <div className="overflow-x-auto pb-2">
          <div
            role="group"
            aria-label="The matrix"
            className="grid gap-x-2 gap-y-2.5"
            style={{
              gridTemplateColumns: `148px repeat(${columns.length}, minmax(168px, 1fr))`,
              minWidth: 148 + columns.length * 176,
            }}
          >
            <p className="pt-1 text-[12px] leading-tight text-soft">
              {state.blind ? 'blind order' : state.difference ? 'difference against' : 'reference'}
              <b className="block font-semibold text-ink">{nameAt(state.reference)}</b>
              <span className="mt-1 block">Etagere’s rendering</span>
            </p>
            {order.map((i) => (
              <ColumnHead
                key={i}
                column={columns[i]!}
                name={nameAt(i)}
                candidates={candidates}
                reference={i === state.reference}
                blind={state.blind > 0 && i !== state.reference}
                act={act(i)}
                set={(c) => set(i, c)}
                may={{ judge: may.judge, frames: may.frames }}
              />
            ))}
            {rows.map((row, r) => {
              const frame = byId.get(row.frame)!;
              const ratio = frame.width / frame.height;
              return [
                <RowHead
                  key={`${row.frame} head`}
                  frame={frame}
                  row={row}
                  white={whites[row.frame] ?? null}
                  picking={picking === r}
                  set={(wb) => put({ rows: rows.map((q, k) => (k === r ? { ...q, wb } : q)) })}
                  onPick={() => setPicking(picking === r ? null : r)}
                  onRemove={() => put({ rows: rows.filter((_, k) => k !== r) }, true)}
                  onUp={() => {
                    if (r) {
                      const l = [...rows];
                      [l[r - 1], l[r]] = [l[r]!, l[r - 1]!];
                      put({ rows: l });
                    }
                  }}
                  onAnchor={() => anchored(r)}
                  most={odd.get(frame.id) ?? null}
                  choice={choiceFor(choices, { camera: bodyOf(frame), light: frame.light, kind: frame.file_kind })}
                  onChoice={(choice) =>
                    add([
                      {
                        ...plain,
                        profile: choice.profileVersion ?? 'plain',
                        parts: choice.lookVersion ? [{ version: choice.lookVersion, strength: choice.strength }] : [],
                      },
                    ])
                  }
                  onChart={may.frames || frame.chart_id ? () => setAsking({ what: 'chart', row: r }) : null}
                />,
                ...order.map((i, c) => {
                  const spec = specOf(frame, row.wb, columns[i]!);
                  const judged =
                    !columns[i]!.anchor &&
                    i ===
                      (columns.findIndex(
                        (column) =>
                          isVersion(column.profile) &&
                          !column.anchor &&
                          candidates.get(column.profile)?.cameras.includes(frame.camera),
                      ) + 1 || state.reference + 1) -
                        1;
                  return (
                    <Cell
                      key={`${row.frame} ${i}`}
                      at={`${row.frame}/${i}`}
                      pool={pool}
                      spec={spec}
                      against={
                        state.difference && i !== state.reference
                          ? specOf(frame, row.wb, columns[state.reference]!)
                          : null
                      }
                      ratio={ratio}
                      label={`${nameAt(i)} on ${frame.name}`}
                      caution={state.blind ? '' : cautionFor(frame, columns[i]!)}
                      current={at[0] === r && at[1] === c}
                      picking={picking === r}
                      onFocus={() => setAt([r, c])}
                      onOpen={() => open(r, i)}
                      onPick={(x, y) => void picked(r, x, y)}
                      {...(judged ? { onWhite: (w: Rendered['white']) => tellWhite(row.frame, w) } : {})}
                    />
                  );
                }),
              ];
            })}
          </div>
        </div>
      )}
      {rows.length > 0 && (
        <p className="mt-4 text-[12px] leading-6 text-soft">
          <kbd className="key">←</kbd>
          <kbd className="key">→</kbd>
          <kbd className="key">↑</kbd>
          <kbd className="key">↓</kbd> walk <kbd className="key">Enter</kbd> enlarge <kbd className="key">+</kbd>
          <kbd className="key">−</kbd> strength <kbd className="key">R</kbd> reference <kbd className="key">D</kbd>{' '}
          differences{' '}
          {may.judge && (
            <>
              <kbd className="key">C</kbd> choose or judge{' '}
            </>
          )}
          <kbd className="key">Delete</kbd> take off
        </p>
      )}
      {state.open && rows[state.open.row] && (
        <Enlarged
          pool={pool}
          others={order.filter((i) => !state.open!.columns.includes(i)).map((i) => ({ column: i, name: nameAt(i) }))}
          onAdd={(i) => put({ open: { row: state.open!.row, columns: [...state.open!.columns, i].slice(0, 4) } })}
          onDrop={(k) =>
            put({ open: { row: state.open!.row, columns: state.open!.columns.filter((_, n) => n !== k) } })
          }
          title={byId.get(rows[state.open.row]!.frame)!.name}
          surround={state.surround}
          onSurround={(surround) => put({ surround })}
          onClose={() => {
            put({ open: null });
            requestAnimationFrame(() => back.current?.focus());
          }}
          shown={state.open.columns.map((i) => ({
            name: nameAt(i),
            spec: specOf(byId.get(rows[state.open!.row]!.frame)!, rows[state.open!.row]!.wb, columns[i]!, 1500),
          }))}
        />
      )}
      <ItemPicker
        open={asking?.what === 'add'}
        title={asking?.what === 'add' && asking.to !== null ? 'A look to lay over it' : 'A candidate for the bench'}
        onClose={() => setAsking(null)}
        onPick={(item) => {
          const to = asking?.what === 'add' ? asking.to : null;
          setAsking(null);
          void fetched(`item=${item.id}`, (candidates) => {
            const candidate = candidates[0]!;
            if (to === null) add([columnFor(candidate)]);
            else if (candidate.kind === 'camera-profile') set(to, { ...columns[to]!, profile: candidate.versionId });
            else
              set(to, {
                ...columns[to]!,
                parts: [...columns[to]!.parts, { version: candidate.versionId, strength: candidate.usual }],
              });
          });
        }}
      />
      {asking?.what === 'choose' && columns[asking.column] && (
        <Choose
          column={columns[asking.column]!}
          name={nameOf(columns[asking.column]!)}
          candidates={candidates}
          frames={rows.map((row) => {
            const frame = byId.get(row.frame)!;
            return { id: frame.id, name: frame.name, camera: bodyOf(frame), light: frame.light };
          })}
          may={{ choice: may.choice, edit: may.edit }}
          onClose={() => setAsking(null)}
          onDone={(words) => {
            setAsking(null);
            setSaid(words);
          }}
        />
      )}
      {asking?.what === 'export' && (
        <ExportDialog
          frames={rows.map((row) => {
            const frame = byId.get(row.frame)!;
            return { id: frame.id, name: frame.name };
          })}
          labels={labels}
          onClose={() => setAsking(null)}
          onDone={(label) => {
            setAsking(null);
            router.refresh();
            if (!columns.some((c) => c.profile.toLowerCase() === `x:${label.toLowerCase()}`))
              add([{ ...plain, profile: `x:${label}` }]);
          }}
        />
      )}
      {asking?.what === 'chart' && rows[asking.row] && (
        <TargetDialog
          pool={pool}
          frame={byId.get(rows[asking.row]!.frame)!}
          charts={charts}
          columns={columns.map((column, i) => ({
            name: nameAt(i),
            spec: specOf(byId.get(rows[asking.row]!.frame)!, rows[asking.row]!.wb, column),
          }))}
          may={may.frames}
          onClose={() => setAsking(null)}
          onSaved={(words) => {
            setAsking(null);
            setSaid(words);
            router.refresh();
          }}
        />
      )}
      {asking?.what === 'save' && (
        <NameDialog
          title="Keep this bench under a name"
          action="Keep it"
          noNote
          name={title === 'Bench' ? '' : title}
          onClose={() => setAsking(null)}
          onSave={save}
        />
      )}
      {asking?.what === 'set' && (
        <NameDialog
          title="A set of these frames, which should look alike"
          action="Keep the set"
          noNote
          onClose={() => setAsking(null)}
          onSave={async (name) => {
            await call('/api/bench/sets', 'POST', { name, frames: rows.map((r) => r.frame) });
            setAsking(null);
            setSaid(`${name} is a frame set now`);
            router.refresh();
          }}
        />
      )}
      {asking?.what === 'anchor' && anchorColumn && (
        <NameDialog
          title="Keep the anchored profile"
          action="Keep it"
          noNote
          about={`Its scope comes from this frame: the ${bodyOf(byId.get(rows[asking.row]!.frame)!)} alone. It can be widened on its page.`}
          name={`${candidates.get(anchorColumn.profile)?.title ?? 'Profile'} for ${bodyOf(byId.get(rows[asking.row]!.frame)!)}`}
          onClose={() => setAsking(null)}
          onSave={async (name) => {
            await call('/api/bench/anchor', 'POST', {
              version: anchorColumn.profile,
              frame: rows[asking.row]!.frame,
              wb: rows[asking.row]!.wb,
              kelvin: anchorColumn.anchor,
              title: name,
            });
            setAsking(null);
            setSaid(`${name} stands on the shelf of its source, as a draft`);
          }}
        />
      )}
    </div>
  );
}
