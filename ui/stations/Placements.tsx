/** Files in the editors' folders of a station, and what became of each. */
import Link from 'next/link';
import type { ReactNode } from 'react';
import { fidelity } from '../kit/fidelity';
import { State } from '../kit/State';
import { PathThere, type Where } from './PathThere';

export interface PlacedFile {
  path: string;
  editor: string;
  /** null for a file that is not ours and that no editor names */ title: string | null;
  itemId: string | null;
  number: number | null;
  state: string;
  reason: string;
  /** what other editors there made of it, that read the same folder */ also?: readonly {
    editor: string;
    state: string;
    reason: string;
  }[];
  /** of a table that was made for the editor, on each axis */ points: number | null;
  residual: { maxDeltaE: number; meanDeltaE: number } | null;
}

interface Props<T> {
  rows: readonly T[];
  where: Where;
  /** its state as it is shown, where that is another than its own */ shownOf?: (
    file: T,
  ) => Pick<PlacedFile, 'state' | 'reason'>;
  /** what can be done about a file */ action?: (file: T) => ReactNode;
}

export function Placements<T extends PlacedFile>({ rows, where, shownOf = (file) => file, action }: Props<T>) {
  return (
    <table className="list table-fixed">
      <colgroup>
        <col className="w-[200px]" />
        <col className="w-[120px]" />
        <col />
        <col className="w-[280px]" />
      </colgroup>
      <thead>
        <tr>
          <th>Item</th>
          <th>Editor</th>
          <th>File</th>
          <th>State</th>
        </tr>
      </thead>
      <tbody>
        {rows
          .map((file) => ({ file, shown: shownOf(file) }))
          .map(({ file, shown }) => (
            <tr key={file.editor + file.path} data-path={file.path} data-state={shown.state}>
              <td className="[overflow-wrap:anywhere]">
                <ItemOf file={file} />
              </td>
              <td>
                {file.editor}
                {file.also?.map(({ editor }) => (
                  <span key={editor} className="block text-[12px] text-soft">
                    and {editor}
                  </span>
                ))}
              </td>
              <td className="text-[12px] [overflow-wrap:anywhere]">
                <PathThere where={where} path={file.path}>
                  {file.points && (
                    <span className="text-soft">
                      , {file.points} points{fidelity(file.residual)}
                    </span>
                  )}
                </PathThere>
              </td>
              <td>
                <State of={shown.state || 'theirs'} />
                <span className="block text-[12px] text-soft">{shown.reason}</span>
                <Others file={file} />
                {action && <span className="text-[12px]">{action(file)}</span>}
              </td>
            </tr>
          ))}
      </tbody>
    </table>
  );
}

/** Other editors that read the file, where they are not as far with it. */
function Others({ file: { also = [], state } }: { file: PlacedFile }) {
  return also
    .filter((other) => other.state && other.state !== state)
    .map(({ editor, state, reason }) => (
      <span key={editor} className="mt-1 block" data-also={editor}>
        <State of={state} />
        <span className="block text-[12px] text-soft">{reason || editor}</span>
      </span>
    ));
}

function ItemOf({ file: { itemId, title, number } }: { file: PlacedFile }) {
  return (
    <>
      {itemId ? (
        <Link className="font-serif text-[15px] underline" href={`/items/${itemId}`}>
          {title}
        </Link>
      ) : (
        <span className="text-soft">{title ?? '–'}</span>
      )}
      {number && <span className="text-soft"> v{number}</span>}
    </>
  );
}
