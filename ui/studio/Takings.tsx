/** Kinds of items against editors: what goes where, by the descriptors. */
import { State } from '../kit/State';

interface Cell { editor: string; how: 'accepted' | 'after conversion' | 'impossible'; words: string }
const states: Record<Cell['how'], string> = { accepted: 'taken', 'after conversion': 'converted', impossible: 'impossible' };

export function Takings({ editors, rows }: { editors: { key: string; title: string }[]; rows: { name: string; cells: Cell[] }[] }) {
  return (
    <div className="mt-4 overflow-x-auto"><table className="list" aria-label="What goes where"><thead><tr><th>What goes where</th>{editors.map((e) => <th key={e.key}>{e.title}</th>)}</tr></thead><tbody>
      {rows.map((r) => <tr key={r.name}><th scope="row" className="!text-ink">{r.name.charAt(0).toUpperCase() + r.name.slice(1)}</th>{r.cells.map((c) => <td key={c.editor}><State of={states[c.how]} />{c.words && <span className="block text-[12px] text-soft">{c.words}</span>}</td>)}</tr>)}
    </tbody></table></div>
  );
}
