'use client';
/** Every editor's opening rules at every station beside the studio's: one row a rule, one column a setting. */
import type { Cell, MergedRow } from '@/core/opening/merge';
import { settings, settingNames, type Setting } from '@/core/opening/rule';
import type { EntryMark } from '@/core/sync/ordered-lists';
import Link from 'next/link';
import { PlanLists } from '../editor-lists/PlanLists';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Notice } from '../kit/Notice';
import { State } from '../kit/State';

export interface OpeningList {
  station: { id: string; name: string };
  editor: { id: string; version: string; title: string };
  path: string;
  state: string;
  reason: string;
  rows: readonly MergedRow[];
  cannot: readonly { words: string; what: readonly string[] }[];
  theirOrder: boolean;
}
interface Props {
  lists: readonly OpeningList[];
  may: { plan: boolean; set: boolean };
}

const markWords: Record<EntryMark, string> = {
  both: '',
  ours: 'comes',
  theirs: 'their own',
  removed: 'goes',
  'taken-off': 'taken out there',
};

/** Settings of which some list or the studio says something: the others would be empty columns. */
const saidIn = (lists: readonly OpeningList[]): Setting[] =>
  settingNames.filter((name) => lists.some(({ rows }) => rows.some(({ cells }) => cells[name])));

export function OpeningMatrix({ lists, may }: Props) {
  const columns = saidIn(lists);
  return (
    <div className="relative overflow-x-auto">
      <table className="list">
        <thead>
          <tr>
            <th>Station and editor</th>
            <th>For</th>
            {columns.map((name) => (
              <th key={name}>{settings[name].label}</th>
            ))}
          </tr>
        </thead>
        {lists.map((list) => (
          <ListRows key={`${list.station.id} ${list.path}`} list={list} columns={columns} may={may} />
        ))}
      </table>
    </div>
  );
}

interface ListProps {
  list: OpeningList;
  columns: readonly Setting[];
  may: Props['may'];
}

function ListRows({ list, columns, may }: ListProps) {
  const rows = list.rows.length ? list.rows : [null];
  return (
    <tbody data-list={`${list.station.name} ${list.editor.title}`}>
      {rows.map((row, n) => (
        <tr key={row ? `${n} ${row.mark} ${row.words}` : 'none'}>
          {n === 0 && (
            <td rowSpan={rows.length} className="w-[230px] min-w-[190px]">
              <ListHead list={list} may={may} />
            </td>
          )}
          {row ? (
            <RuleCells list={list} row={row} columns={columns} may={may} />
          ) : (
            <td colSpan={columns.length + 1} className="text-soft">
              {list.reason || 'no rule: each photo is begun in the editor’s own way'}
            </td>
          )}
        </tr>
      ))}
    </tbody>
  );
}

function ListHead({ list, may }: { list: OpeningList; may: Props['may'] }) {
  const { station, editor, state, cannot, rows } = list;
  const place = { station: station.id, editor: editor.id, version: editor.version };
  const where = `${station.name}, ${editor.title}`;
  const differs = rows.some(
    ({ mark, cells }) => mark === 'taken-off' || (mark === 'both' && Object.values(cells).some(isTheirs)),
  );
  return (
    <>
      <Link className="font-serif text-[15px] hover:underline" href={`/stations/${station.id}`}>
        {station.name}
      </Link>
      <span className="block">{editor.title}</span>
      <State of={state} />
      {list.theirOrder && <span className="block text-[12px] text-soft">in the order that they gave it</span>}
      {cannot.length > 0 && (
        <span className="block max-w-[230px] text-[12px] text-soft">
          has no words for {cannot.flatMap(({ what }) => what).join(', ')}
        </span>
      )}
      {may.plan && (
        <span className="flex flex-wrap gap-x-3">
          {state === 'update-due' && (
            <PlanLists what="opening" places={[place]} words="Bring in step" label={`Bring in step: ${where}`} />
          )}
          {differs && (
            <PlanLists
              what="opening"
              over
              places={[place]}
              words="Put the studio’s over theirs"
              label={`Put the studio’s over theirs: ${where}`}
            />
          )}
        </span>
      )}
    </>
  );
}

/** Somebody there has it otherwise than the studio, and it stays so. */
const isTheirs = ({ is, should, will }: Cell): boolean => is === will && should !== null && should !== will;

interface RuleProps extends ListProps {
  row: MergedRow;
}

function RuleCells({ list, row, columns, may }: RuleProps) {
  return (
    <>
      <td>
        {row.words} {markWords[row.mark] && <span className="block text-[12px] text-soft">{markWords[row.mark]}</span>}
        {row.unknown.length > 0 && (
          <span className="block text-[12px] text-soft">and what is not known here: {row.unknown.join(', ')}</span>
        )}
        {may.set && row.mark === 'theirs' && row.isWhole && Object.keys(row.cells).length > 0 && (
          <TakeRule list={list} row={row} />
        )}
      </td>
      {columns.map((name) => (
        <td key={name}>
          <CellWords cell={row.cells[name]} mark={row.mark} />
        </td>
      ))}
    </>
  );
}

function CellWords({ cell, mark }: { cell: Cell | undefined; mark: EntryMark }) {
  if (!cell) return null;
  const { is, should, will } = cell;
  if (mark === 'taken-off') return <span className="text-ochre">the studio’s: {should}</span>;
  if (is !== will)
    return (
      <span className="text-verd">
        {is !== null && (
          <>
            <s className="text-soft">{is}</s>{' '}
          </>
        )}
        {will ?? 'the editor’s own way'}
      </span>
    );
  if (isTheirs(cell))
    return (
      <>
        {is ?? 'the editor’s own way'} <span className="block text-[12px] text-ochre">the studio’s: {should}</span>
      </>
    );
  return <>{is}</>;
}

/** A rule of theirs becomes the studio's, so that it comes to other stations too. */
function TakeRule({ list: { station, editor }, row }: { list: OpeningList; row: MergedRow }) {
  const { busy, problem, runAndRefresh } = useAction();
  const take = () =>
    void runAndRefresh(() =>
      call('POST /api/opening/take', {
        body: { station: station.id, editor: editor.id, version: editor.version, rule: row.words },
      }),
    );
  return (
    <>
      <button
        className="underline"
        disabled={busy}
        aria-label={`Make it the studio’s: ${row.words} at ${station.name}, ${editor.title}`}
        onClick={take}
      >
        Make it the studio’s
      </button>
      <Notice problem={problem} className="mt-1" />
    </>
  );
}
