/** The editors of a station: whether they run, what they list, what they refuse. */
import { State } from '../kit/State';
import { Ago } from '../kit/time';
import { counted } from '../kit/words';
import { EditorSwitch } from './EditorSwitch';

export interface EditorOnStation {
  editor: string;
  version: string;
  title: string;
  /** when it sees new files */ sees: 'launch' | 'rescan';
  running: boolean;
  state: string;
  /** of ours, how many it does not list yet */ waiting: number;
  /** so many lie in its hand-off folder */ importing: number;
  /** and how many have a newer approved version */ updates: number;
  listed: number;
  refused: { path: string; reason: string }[];
  listedAt: string | null;
}

interface Props {
  station: string;
  editors: EditorOnStation[];
  /** start and quit them */ may: boolean;
}

const MOST_REFUSED = 6;

export function EditorStates({ station, editors, may }: Props) {
  return (
    <table className="list mb-8 table-fixed">
      <colgroup>
        <col className="w-[170px]" />
        <col className="w-[190px]" />
        <col />
        <col className="w-[200px]" />
      </colgroup>
      <thead>
        <tr>
          <th>Editor</th>
          <th>State</th>
          <th>What it says</th>
          <th>
            <span className="sr-only">Start and quit</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {editors.map((editor) => (
          <EditorRow key={keyOf(editor)} station={station} editor={editor} may={may} />
        ))}
      </tbody>
    </table>
  );
}

const keyOf = ({ editor, version }: EditorOnStation): string => `${editor}@${version}`;

function EditorRow({ station, editor, may }: { station: string; editor: EditorOnStation; may: boolean }) {
  return (
    <tr data-editor={keyOf(editor)}>
      <td className="font-serif text-[15.5px] font-medium">
        {editor.title}
        <span className="block font-sans text-[12px] font-normal text-soft">
          {editor.running ? 'running' : 'not running'}; sees new files{' '}
          {editor.sees === 'launch' ? 'at launch only' : 'when it rescans'}
        </span>
      </td>
      <td>
        <State of={editor.state} />
        {editor.waiting > 0 && <span className="block text-[12px] text-soft">{editor.waiting} not listed yet</span>}
        {editor.updates > 0 && (
          <span className="block text-[12px] text-soft">{counted(editor.updates, 'newer version')} approved</span>
        )}
      </td>
      <td>
        <Listing editor={editor} />
      </td>
      <td>
        {may && (
          <EditorSwitch
            stationId={station}
            editor={keyOf(editor)}
            running={editor.running}
            restart={editor.state === 'restart-due'}
            waits={editor.importing > 0}
          />
        )}
      </td>
    </tr>
  );
}

/** What the editor itself says of the files in its folders. */
function Listing({ editor: { listed, refused, listedAt } }: { editor: EditorOnStation }) {
  const more = refused.length - MOST_REFUSED;
  return (
    <>
      {listedAt ? (
        <>
          lists {listed}, refuses {refused.length}{' '}
          <span className="text-soft">
            (<Ago at={listedAt} />)
          </span>
        </>
      ) : (
        <span className="text-soft">not started since monitoring began</span>
      )}
      {refused.slice(0, MOST_REFUSED).map((file) => (
        <span key={file.path} className="block text-[12px]">
          <span className="text-madder">{file.path.split('/').pop()}</span>: {file.reason}
        </span>
      ))}
      {more > 0 && <span className="block text-[12px] text-soft">and {more} more</span>}
    </>
  );
}
