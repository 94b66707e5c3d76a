/** Who has what: a row an item, a column a station, and in each cell how it stands there. */
import Link from 'next/link';
import { State, states } from '../kit/State';

export interface MatrixProps {
  stations: readonly { id: string; name: string }[];
  rows: readonly {
    item: string;
    version: string;
    title: string;
    number: number;
    cells: Record<string, { is: string; editors: readonly { editor: string; is: string }[] }>;
    due: readonly string[];
  }[];
  /** titles of editors, by id@version */ titles: Record<string, string>;
  mayPlan: boolean;
}

export function MatrixTable({ stations, rows, titles, mayPlan }: MatrixProps) {
  return (
    <div className="relative overflow-x-auto">
      <table className="list">
        <thead>
          <tr>
            <th>Item</th>
            {stations.map(({ id, name }) => (
              <th key={id}>
                <Link className="hover:underline" href={`/stations/${id}`}>
                  {name}
                </Link>
              </th>
            ))}
            {mayPlan && (
              <th>
                <span className="sr-only">Roll out</span>
              </th>
            )}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.version}>
              <td>
                <Link className="font-serif text-[15px] hover:underline" href={`/items/${row.item}`}>
                  {row.title}
                </Link>{' '}
                <span className="font-mono text-[11.5px] text-soft">v{row.number}</span>
              </td>
              {stations.map(({ id }) => (
                <td key={id}>
                  <Cell cell={row.cells[id]} titles={titles} />
                </td>
              ))}
              {mayPlan && (
                <td className="whitespace-nowrap">
                  {row.due.length > 0 && (
                    <Link
                      className="underline"
                      href={`/rollouts/new?versions=${row.version}&stations=${row.due.join(',')}`}
                      aria-label={`Roll out ${row.title} where it is due`}
                    >
                      Roll out
                    </Link>
                  )}
                </td>
              )}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

interface CellProps {
  cell: MatrixProps['rows'][number]['cells'][string] | undefined;
  titles: Record<string, string>;
}

/** Where the editors at a station differ, those that lack something are named. */
function Cell({ cell, titles }: CellProps) {
  if (!cell) return <span className="text-soft">no editor takes it</span>;
  const lacking = cell.editors.filter(({ is }) => is !== 'in-step');
  const isMixed = lacking.length > 0 && cell.editors.length > 1;
  return (
    <>
      <State of={cell.is} />
      {isMixed && (
        <span className="block text-[12px] text-soft">
          {lacking.map(({ editor, is }) => `${titles[editor] ?? editor}: ${states[is]?.word ?? is}`).join('; ')}
        </span>
      )}
    </>
  );
}
