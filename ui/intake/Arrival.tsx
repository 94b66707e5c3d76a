'use client';
/** What a delivery holds, by what is to be decided, exceptions first; corrected in bulk, and accepted onto a shelf in one go. */
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { Fragment, useState } from 'react';
import { call, problemOf, type ProblemText } from '../kit/call';
import { ItemPicker } from '../kit/ItemPicker';
import { groupBy } from '../kit/group';
import { Notice } from '../kit/Notice';
import { Selvedge } from '../kit/Selvedge';
import { State } from '../kit/State';
import { AcceptBar } from './AcceptBar';
import { usualShelf } from './usual-shelf';

export interface Entry {
  id: number;
  path: string;
  size: number;
  outcome: string;
  proposal: string;
  corrected: boolean;
  kind: string;
  format: string;
  title: string;
  headings: string[];
  needs: { kind: string; name: string; where: string }[];
  selvedge: [string, string][] | null;
  note: string;
  caution: string;
  problem: ProblemText | null;
  targetItem: string | null;
  targetTitle: string | null;
  targetPath: string | null;
  likeness: { by: string; mean?: number; p95?: number; max?: number; words: string; mark?: string } | null;
  confidence: number;
  evidence: string[];
  mismatches: string[];
  itemId: string | null;
}
export interface GroupOfEntries {
  group: string;
  count: number;
  rows: Entry[];
}
interface Props {
  id: string;
  name: string;
  status: string;
  groups: GroupOfEntries[];
  only: string | null;
  takeable: number;
  shelves: { id: string; name: string }[];
  licences: { id: string; name: string }[];
  may: boolean;
  supplier: string;
}

const words: Record<string, [string, string]> = {
  refused: ['Refused', 'not read, and why; the rest is not touched by it'],
  unknown: ['Unknown', 'kept out; no reader knows them'],
  again: ['Look again', 'proposed with a doubt; say what they are'],
  version: ['New versions', 'of items that are held; what changed is said'],
  variant: ['Variants', 'of one design: they stand together as one item'],
  effect: ['The same effect as something held', 'another name or table, within what counts as a copy here; left out'],
  new: ['New', 'to be taken onto a shelf'],
  frame: ['Frames', 'pictures to preview on'],
  descriptor: ['Descriptors', 'what Etagere knows of an editor'],
  held: ['Held already', 'the same content; not taken twice'],
  papers: ['Papers and leftovers', 'not taken'],
};
const becomes: [string, string][] = [
  ['new', 'a new item'],
  ['version', 'a new version of …'],
  ['variant', 'a variant of …'],
  ['duplicate', 'nothing: held already'],
  ['document', 'nothing: leave it out'],
];
const taken = ['new', 'version', 'variant', 'frame', 'descriptor'];
const figures = (l: NonNullable<Entry['likeness']>): string => {
  if (l.mean === undefined || !Number.isFinite(l.mean)) return '';
  if (l.max! < 0.05) return ', no difference in color';
  return `, ΔE00 ${l.mean.toFixed(2)} in the mean, ${l.max!.toFixed(1)} at most`;
};

export function Arrival({ id, name, status, groups, only, takeable, shelves, licences, may, supplier }: Props) {
  const router = useRouter();
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set());
  const [problem, setProblem] = useState<ProblemText | null>(null);
  const [busy, setBusy] = useState(false);
  const [pick, setPick] = useState<{ entries?: number[]; group?: string; outcome: string; kind?: string } | null>(null);
  const open = status === 'ready' && may;
  const kinds = [
    ...groupBy(
      groups.flatMap((g) => g.rows).filter((e) => e.outcome === 'new'),
      (e) => e.kind,
    ),
  ]
    .sort((a, b) => b[1].length - a[1].length)
    .map(([k]) => k);
  const flip = (ids: number[], take: boolean) => {
    const next = new Set(left);
    for (const i of ids) {
      if (take) next.delete(i);
      else next.add(i);
    }
    setLeft(next);
  };
  const act = async (work: () => Promise<unknown>, to?: string) => {
    setBusy(true);
    setProblem(null);
    try {
      await work();
      if (to) router.push(to);
      router.refresh();
    } catch (error) {
      setProblem(problemOf(error));
    }
    setBusy(false);
  };
  const correct = (c: { entries?: number[]; group?: string; outcome: string; itemId?: string; kind?: string }) =>
    act(() => call(`/api/intakes/${id}`, 'PATCH', c));
  const choose = (scope: { entries?: number[]; group?: string; kind?: string }, outcome: string, has: boolean) => {
    if ((outcome === 'version' || outcome === 'variant') && !has) setPick({ ...scope, outcome });
    else void correct({ entries: scope.entries, group: scope.group, outcome });
  };

  return (
    <>
      {groups.map(({ group, count, rows }) => {
        const [title, note] = words[group]!;
        const takes = open && rows.some((e) => taken.includes(e.outcome));
        const correctable =
          open && rows.some((e) => e.kind && !['refused', 'unknown', 'papers', 'descriptor'].includes(group));
        const folders = [
          ...groupBy(rows, (e) => (e.path.includes('/') ? e.path.slice(0, e.path.lastIndexOf('/')) : '')),
        ];
        return (
          <section
            key={group}
            className="mb-7 max-w-[1180px]"
            aria-label={title}
            style={{ contentVisibility: 'auto', containIntrinsicSize: 'auto 300px' }}
          >
            <h2 className="mb-1 flex items-baseline gap-2.5 text-[17px]">
              {title}
              <span className="font-sans text-[12.5px] font-normal tracking-normal text-soft">
                {count}, {note}
              </span>
              {correctable && rows.length > 1 && (
                <label className="ml-auto font-sans text-[12.5px] font-normal tracking-normal text-soft">
                  all of these become{' '}
                  <select
                    aria-label={`All of ${title} become`}
                    className="field ml-1 h-[26px] text-ink"
                    value=""
                    disabled={busy}
                    onChange={(event) =>
                      choose(
                        { group },
                        event.target.value,
                        event.target.value === 'version' || event.target.value === 'variant',
                      )
                    }
                  >
                    <option value="">as proposed</option>
                    {becomes.map(([value, word]) => (
                      <option key={value} value={value}>
                        {word}
                      </option>
                    ))}
                  </select>
                </label>
              )}
            </h2>
            <table className="list table-fixed">
              <colgroup>
                {takes && <col className="w-[34px]" />}
                <col className="w-[58px]" />
                <col />
                <col className="w-[270px]" />
                <col className="w-[320px]" />
              </colgroup>
              <thead>
                <tr>
                  {takes && (
                    <th>
                      <input
                        type="checkbox"
                        aria-label={`All of ${title}`}
                        checked={rows.every((r) => !left.has(r.id))}
                        onChange={(event) =>
                          flip(
                            rows.map((r) => r.id),
                            event.target.checked,
                          )
                        }
                      />
                    </th>
                  )}
                  <th>
                    <span className="sr-only">Selvedge</span>
                  </th>
                  <th>File</th>
                  <th>What it is</th>
                  <th>What becomes of it</th>
                </tr>
              </thead>
              <tbody>
                {folders.map(([folder, list]) => (
                  <Fragment key={folder}>
                    {folder && (
                      <tr>
                        <td colSpan={takes ? 5 : 4} className="!border-b-0 !pb-0 !pt-3 text-[12px] text-soft">
                          <span className="flex items-center gap-2 [overflow-wrap:anywhere]">
                            {takes && list.length > 1 && (
                              <input
                                type="checkbox"
                                aria-label={`All of the folder ${folder}`}
                                checked={list.every((r) => !left.has(r.id))}
                                onChange={(event) =>
                                  flip(
                                    list.map((r) => r.id),
                                    event.target.checked,
                                  )
                                }
                              />
                            )}
                            {folder}
                            {list.length > 1 && `, ${list.length} files`}
                          </span>
                        </td>
                      </tr>
                    )}
                    {list.map((entry) => (
                      <tr key={entry.id} data-entry={entry.path}>
                        {takes && (
                          <td>
                            {taken.includes(entry.outcome) && (
                              <input
                                type="checkbox"
                                aria-label={`Take ${entry.title}`}
                                checked={!left.has(entry.id)}
                                onChange={(x) => flip([entry.id], x.target.checked)}
                              />
                            )}
                          </td>
                        )}
                        <td>
                          <Selvedge
                            threads={entry.selvedge}
                            className={`h-[38px] w-[46px] ${entry.selvedge ? '' : 'opacity-40'}`}
                          />
                        </td>
                        <td className="[overflow-wrap:anywhere]">
                          <b className="font-medium">{entry.path.slice(folder.length ? folder.length + 1 : 0)}</b>
                          <span className="block text-[12px] text-soft">{(entry.size / 1000).toFixed(1)} kB</span>
                          {entry.mismatches.map((m) => (
                            <span key={m} className="block text-[12px] text-ochre">
                              {m}
                            </span>
                          ))}
                        </td>
                        <td>
                          {entry.kind && !['unknown', 'document'].includes(entry.kind) ? (
                            <>
                              <span className="font-serif text-[15px] [overflow-wrap:anywhere]">{entry.title}</span>
                              <span className="block text-[12px] text-soft">
                                {entry.kind === 'preset'
                                  ? entry.note
                                  : `${entry.kind.replace('-', ' ')}: ${entry.note}`}
                                {entry.headings.length ? `, under ${entry.headings.join(' / ')}` : ''}
                              </span>
                              <details className="text-[12px] text-soft">
                                <summary className="cursor-pointer">
                                  told with {Math.round(entry.confidence * 100)} % confidence
                                </summary>
                                {entry.evidence.map((x) => (
                                  <span key={x} className="block pl-3">
                                    {x}
                                  </span>
                                ))}
                              </details>
                            </>
                          ) : (
                            <span className="text-soft">{entry.kind || entry.outcome}</span>
                          )}
                        </td>
                        <td>
                          <State
                            of={
                              entry.itemId
                                ? 'accepted'
                                : entry.outcome === 'duplicate' && entry.likeness?.by === 'effect'
                                  ? 'same-effect'
                                  : entry.outcome
                            }
                          />
                          {entry.corrected && <span className="text-[12px] text-soft"> as you said</span>}
                          {entry.itemId ? (
                            <Link className="block text-[12px] underline" href={`/items/${entry.itemId}`}>
                              {entry.targetTitle ?? entry.title}
                            </Link>
                          ) : entry.targetItem ? (
                            <span className="block text-[12px] text-soft">
                              {entry.outcome === 'duplicate' ? 'the same as ' : 'of '}
                              <Link className="underline" href={`/items/${entry.targetItem}`}>
                                {entry.targetTitle}
                              </Link>
                              {entry.likeness ? `: ${entry.likeness.words}${figures(entry.likeness)}` : ''}
                            </span>
                          ) : entry.targetPath ? (
                            <span className="block text-[12px] text-soft">
                              {entry.likeness?.words}
                              {entry.likeness ? figures(entry.likeness) : ''}
                            </span>
                          ) : entry.problem ? (
                            <span className="block text-[12px]">
                              <span className="text-ink">{entry.problem.message}</span>{' '}
                              <span className="text-soft">
                                {entry.problem.where}. {entry.problem.remedy}
                              </span>
                            </span>
                          ) : ['document', 'unknown', 'ignored'].includes(entry.outcome) ? (
                            <span className="block text-[12px] text-soft">{entry.note}</span>
                          ) : null}
                          {entry.caution && <span className="block text-[12px] text-ochre">{entry.caution}</span>}
                          {entry.needs.map((n) => (
                            <span
                              key={n.name}
                              className={`block text-[12px] ${n.where === 'missing' ? 'text-ochre' : 'text-soft'}`}
                            >
                              needs the {n.kind.replace('-', ' ')} {n.name}, {n.where}
                            </span>
                          ))}
                          {correctable && entry.kind !== 'descriptor' && (
                            <select
                              aria-label={`${entry.title} becomes`}
                              className="field mt-1 block h-[26px] max-w-full text-[12.5px]"
                              value={entry.outcome === 'frame' ? 'frame' : entry.outcome}
                              disabled={busy}
                              onChange={(x) => choose({ entries: [entry.id], kind: entry.kind }, x.target.value, false)}
                            >
                              {entry.kind === 'frame' ? (
                                <>
                                  <option value="frame">a frame</option>
                                  <option value="document">nothing: leave it out</option>
                                </>
                              ) : (
                                becomes.map(([value, word]) => (
                                  <option key={value} value={value}>
                                    {word}
                                  </option>
                                ))
                              )}
                            </select>
                          )}
                        </td>
                      </tr>
                    ))}
                  </Fragment>
                ))}
              </tbody>
            </table>
            {count > rows.length && (
              <p className="mt-2">
                <Link className="button quiet" href={`/intake/${id}?group=${group}`} scroll={false}>
                  Show all {count.toLocaleString('en')}
                </Link>
              </p>
            )}
          </section>
        );
      })}
      {only && (
        <p className="mb-4">
          <Link className="button" href={`/intake/${id}`}>
            Back to the whole delivery
          </Link>
        </p>
      )}
      <Notice problem={problem} className="mb-3" />
      {status === 'failed' && may && (
        <button
          className="button"
          disabled={busy}
          onClick={() => void act(() => call(`/api/intakes/${id}`, 'DELETE'), '/intake')}
        >
          Discard the delivery
        </button>
      )}
      {status === 'accepted' && may && (
        <div className="mb-6">
          <button
            className="button"
            disabled={busy}
            onClick={() => void act(() => call(`/api/intakes/${id}?undo`, 'DELETE'))}
          >
            Put the delivery back
          </button>
          <span className="ml-3 text-soft">takes back all that it brought, as long as nothing depends on it</span>
        </div>
      )}
      {open && (
        <AcceptBar
          usual={usualShelf(shelves, name)}
          kinds={kinds}
          takeable={takeable}
          left={left.size}
          shelves={shelves}
          licences={licences}
          supplier={supplier}
          busy={busy}
          onAccept={(a) => void act(() => call(`/api/intakes/${id}`, 'POST', { ...a, except: [...left] }), '/shelves')}
          onDiscard={() => void act(() => call(`/api/intakes/${id}`, 'DELETE'), '/intake')}
        />
      )}
      <ItemPicker
        open={!!pick}
        kind={pick?.kind}
        title={pick?.outcome === 'variant' ? 'A variant of which item?' : 'A new version of which item?'}
        onClose={() => setPick(null)}
        onPick={(i) => {
          const p = pick!;
          setPick(null);
          void correct({ entries: p.entries, group: p.group, outcome: p.outcome, itemId: i.id });
        }}
      />
    </>
  );
}
