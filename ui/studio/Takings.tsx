/** Kinds of items against editors: what goes where, by the descriptors. */
import { State } from '../kit/State';

interface Cell {
  editor: string;
  how: 'accepted' | 'after conversion' | 'impossible';
  words: string;
}
const states: Record<Cell['how'], string> = {
  accepted: 'taken',
  'after conversion': 'converted',
  impossible: 'not supported',
};

export function Takings({
  editors,
  rows,
}: {
  editors: { key: string; title: string }[];
  rows: { name: string; cells: Cell[] }[];
}) {
  return (
    <>
      <h3 className="mb-1 mt-6 text-[15px]">What goes where</h3>
      <div className="relative overflow-x-auto">
        <table className="list" aria-label="What goes where">
          <thead>
            <tr>
              <th>Kind</th>
              {editors.map((entry) => (
                <th key={entry.key}>{entry.title}</th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <tr key={row.name}>
                <th scope="row" className="w-[190px] !border-line !py-2 align-top !text-[13.5px] !text-ink">
                  {row.name.charAt(0).toUpperCase() + row.name.slice(1)}
                </th>
                {row.cells.map((cell) => (
                  <td key={cell.editor}>
                    <State of={states[cell.how]} />
                    {cell.words && <span className="block text-[12px] text-soft">{cell.words}</span>}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </>
  );
}
