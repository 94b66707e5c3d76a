/** What came in a pack, item by item. */
import Link from 'next/link';
import { Selvedge } from '../kit/Selvedge';
import { State } from '../kit/State';
import { kindWords } from '../shelves/model/spine';

export interface Member {
  itemId: string;
  title: string;
  kind: string;
  /** in the pack; several where variants came */ paths: string[];
  /** of the version that came in it */ number: number;
  /** of the item today */ newest: number;
  status: string;
  shelf: string;
  archived: boolean;
  stations: number;
  selvedge: [string, string][] | null;
}

export function Members({ members }: { members: readonly Member[] }) {
  return (
    <table className="list max-w-[1180px]">
      <thead>
        <tr>
          <th>
            <span className="sr-only">Selvedge</span>
          </th>
          <th>Item</th>
          <th>Kind</th>
          <th>Version</th>
          <th>Status</th>
          <th>Shelf</th>
          <th className="text-right">On stations</th>
        </tr>
      </thead>
      <tbody>
        {members.map((member) => (
          <tr key={member.itemId} data-member={member.title}>
            <td className="w-[58px]">
              <Selvedge threads={member.selvedge} className="h-[30px] w-[42px]" />
            </td>
            <td className="[overflow-wrap:anywhere]">
              <Link className="font-serif text-[15px] hover:underline" href={`/items/${member.itemId}`}>
                {member.title}
              </Link>
              <span className="block text-[12px] text-soft">{member.paths.join('; ')}</span>
            </td>
            <td>{kindWords[member.kind] ?? member.kind}</td>
            <td>
              {member.number}
              {member.newest > member.number && (
                <span className="block text-[12px] text-ochre">version {member.newest} is newer</span>
              )}
            </td>
            <td>
              <State of={member.archived ? 'archived' : member.status} />
            </td>
            <td>{member.shelf}</td>
            <td className="text-right">{member.stations || <span className="text-soft">–</span>}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
