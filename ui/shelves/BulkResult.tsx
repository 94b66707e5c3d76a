/** What a change of many items would come to, item by item. */
import type { BulkRow } from '@/core/api/items';

const MOST_SHOWN = 200;

export function BulkResult({ rows }: { rows: BulkRow[] }) {
  return (
    <div className="min-h-[120px] overflow-auto border-t border-line">
      <table className="list" aria-label="What results">
        <thead>
          <tr>
            <th>Title now</th>
            <th>Title then</th>
            <th>File names then</th>
          </tr>
        </thead>
        <tbody>
          {rows.slice(0, MOST_SHOWN).map((row) => (
            <tr key={row.id}>
              <td className="[overflow-wrap:anywhere]">{row.before}</td>
              <td className="[overflow-wrap:anywhere]">
                <TitleThen row={row} />
                {row.changes.length > 0 && (
                  <span className="block text-[12px] text-soft">and other {row.changes.join(', ')}</span>
                )}
              </td>
              <td className="text-[12px] [overflow-wrap:anywhere]">
                <FilesThen files={row.files} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {rows.length > MOST_SHOWN && <p className="py-2 text-soft">and {rows.length - MOST_SHOWN} more</p>}
    </div>
  );
}

function TitleThen({ row }: { row: BulkRow }) {
  if (row.problem) return <span className="text-madder">{row.problem}</span>;
  if (row.after === row.before) return <span className="text-soft">the same</span>;
  return <b className="font-medium">{row.after}</b>;
}

function FilesThen({ files }: { files: BulkRow['files'] }) {
  if (!files.length) return <span className="text-soft">no editor takes it</span>;
  return files.map(({ editor, name, altered }) => (
    <span key={editor} className="block">
      <span className="text-soft">{editor}: </span>
      {name}
      {altered && <span className="text-ochre"> (fitted to what it takes)</span>}
    </span>
  ));
}
