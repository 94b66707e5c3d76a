import Link from 'next/link';
import { Ago } from '@/ui/kit/time';
import { itemOfRequest, placementsOfRequest } from '../request';

/** At which stations the item is placed, and where there. */
export async function Placement({ id }: { id: string }) {
  const { newest } = await itemOfRequest(id);
  const placements = await placementsOfRequest(id);
  if (!placements.length) {
    const next =
      newest.status === 'approved'
        ? 'It is approved and can be rolled out.'
        : 'It has to be approved before it is rolled out.';
    return <p className="border-t border-line py-2 text-soft">It is not placed at any station. {next}</p>;
  }
  return (
    <table className="list">
      <thead>
        <tr>
          <th>Station</th>
          <th>Editor</th>
          <th>File</th>
          <th>Placed</th>
        </tr>
      </thead>
      <tbody>
        {placements.map((placement) => (
          <tr key={placement.station_id + placement.path}>
            <td>
              <Link className="underline" href={`/stations/${placement.station_id}`}>
                {placement.station}
              </Link>
            </td>
            <td>
              {placement.editor_id} {placement.editor_version}
            </td>
            <td className="text-[12px] [overflow-wrap:anywhere]">{placement.path}</td>
            <td className="whitespace-nowrap text-soft">
              <Ago at={placement.placed_at.toISOString()} />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
