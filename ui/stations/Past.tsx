/** What lay at a station on a day, and the rollouts that changed it. */
import Link from 'next/link';
import { Ago } from '../kit/time';
import { counted } from '../kit/words';
import { ReadingLine, type ReadingShown } from '../rollouts/Readings';

interface LayThere {
  path: string;
  editor: string;
  title: string | null;
  item_id: string | null;
  number: number | null;
  placed_at: Date;
  gone_at: Date | null;
  rollout_id: string | null;
  rollout: string | null;
}

export function PastFiles({ files }: { files: readonly LayThere[] }) {
  return (
    <table className="list table-fixed">
      <colgroup>
        <col className="w-[220px]" />
        <col className="w-[120px]" />
        <col />
        <col className="w-[230px]" />
      </colgroup>
      <thead>
        <tr>
          <th>Item</th>
          <th>Editor</th>
          <th>File</th>
          <th>From when to when</th>
        </tr>
      </thead>
      <tbody>
        {files.map((file) => (
          <tr key={file.path} data-path={file.path}>
            <td className="[overflow-wrap:anywhere]">
              <ItemThen file={file} />
            </td>
            <td>{file.editor}</td>
            <td className="text-[12px] [overflow-wrap:anywhere]">{file.path}</td>
            <td className="text-[12px]">
              <Span file={file} />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function ItemThen({ file: { title, item_id: item, number } }: { file: LayThere }) {
  if (title === null) return <span className="text-soft">theirs, put back</span>;
  const words = number === null ? title : `${title}, version ${number}`;
  return item ? (
    <Link className="font-serif text-[15px] hover:underline" href={`/items/${item}`}>
      {words}
    </Link>
  ) : (
    <>
      {words} <span className="text-soft">(held no more)</span>
    </>
  );
}

function Span({ file: { placed_at: from, gone_at: until, rollout_id: id, rollout } }: { file: LayThere }) {
  return (
    <>
      <Ago at={from.toISOString()} />
      {until ? (
        <>
          {' to '}
          <Ago at={until.toISOString()} />
        </>
      ) : (
        ', and lies there still'
      )}
      {id && (
        <Link className="block text-soft hover:underline" href={`/rollouts/${id}`}>
          {rollout}
        </Link>
      )}
    </>
  );
}

interface Change {
  rollout_id: string;
  title: string;
  at: Date;
  put: number;
  removed: number;
  undoes: boolean;
  person: string;
}

const changeWords = ({ put, removed }: Change): string =>
  [put && `${counted(put, 'file')} written`, removed && `${removed} taken away`].filter(Boolean).join(', ');

/** @param address of the page that tells of a day */
export function PastChanges({ changes, address }: { changes: readonly Change[]; address: string }) {
  if (!changes.length) return <p className="border-t border-line py-2 text-soft">No rollout has written here yet.</p>;
  return (
    <ul className="border-t border-line">
      {changes.map((change) => {
        const day = change.at.toISOString().slice(0, 10);
        return (
          <li
            key={change.rollout_id}
            className="grid grid-cols-[90px_minmax(200px,2fr)_3fr] items-baseline gap-x-4 border-b border-line py-1.5 [overflow-wrap:anywhere]"
          >
            <Link className="underline" href={`${address}?on=${day}`} title="What lay there that evening">
              {day}
            </Link>
            <Link className="hover:underline" href={`/rollouts/${change.rollout_id}`}>
              {change.title}
            </Link>
            <span className="text-soft">
              {changeWords(change)}
              {change.undoes && ', taking another back'}, by {change.person}
            </span>
          </li>
        );
      })}
    </ul>
  );
}

interface ListThere extends Omit<ReadingShown, 'editor' | 'version' | 'waiting'> {
  told_at: Date;
}

/** How editors' own lists changed, the newest first. */
export function PastLists({ lists }: { lists: readonly ListThere[] }) {
  if (!lists.length)
    return (
      <p className="border-t border-line py-2 text-soft">
        No list has gained or lost anything since changes of them are kept.
      </p>
    );
  return (
    <ul className="border-t border-line">
      {lists.map((one) => (
        <li key={one.told_at.toISOString() + one.title} className="border-b border-line py-1.5">
          <span className="mr-2 text-[12px] text-soft">
            <Ago at={one.told_at.toISOString()} />
          </span>
          <ReadingLine reading={{ ...one, editor: '', version: '', waiting: 0 }} />
        </li>
      ))}
    </ul>
  );
}
