'use client';
/** The editors that Etagere knows, each told by a descriptor; brought in, revised and sent out as JSON. */
import Link from 'next/link';
import { useAction } from '../kit/action';
import { send } from '../kit/call';
import { FileButton } from '../kit/FileButton';
import { Notice } from '../kit/Notice';
import { Ago } from '../kit/time';

export interface EditorView {
  key: string;
  title: string;
  kind: string;
  systems: string[];
  takes: string[];
  revisions: number;
  changed: string | null;
  by: string | null;
  stations: number;
}

export function Editors({ editors, may }: { editors: EditorView[]; may: boolean }) {
  const { problem, said, runAndRefresh, say } = useAction();
  const bring = (file: File) =>
    runAndRefresh(async () => {
      say('');
      const { editor, version } = await send('POST /api/editors', await file.text());
      say(`${editor} ${version} is proposed above; the studio lead decides on it.`);
    });
  return (
    <>
      <table className="list" aria-label="Editors">
        <thead>
          <tr>
            <th>Editor</th>
            <th>Systems</th>
            <th>Takes</th>
            <th className="text-right">Stations</th>
            <th>Revision</th>
            <th>
              <span className="sr-only">Send out</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {editors.map((editor) => (
            <tr key={editor.key}>
              <td>
                <b className="font-serif text-[15px] font-medium">{editor.title}</b>
                <span className="block text-[12px] text-soft">
                  {editor.kind === 'card' ? 'card of a camera' : 'editor'}
                </span>
              </td>
              <td>{editor.systems.join(', ')}</td>
              <td className="[overflow-wrap:anywhere]">{editor.takes.join(', ')}</td>
              <td className="text-right">{editor.stations}</td>
              <td className="whitespace-nowrap">
                {editor.revisions}
                <span className="block text-[12px] text-soft">
                  <Ago at={editor.changed} />
                  {editor.by ? `, ${editor.by}` : ''}
                </span>
              </td>
              <td className="whitespace-nowrap">
                <a
                  className="button mr-1"
                  href={`/api/editors/${encodeURIComponent(editor.key)}`}
                  download
                  aria-label={`Descriptor of ${editor.title} as JSON`}
                >
                  JSON
                </a>
                {may && (
                  <>
                    <Link
                      className="button mr-1"
                      prefetch={false}
                      href={`/studio/describe?editor=${encodeURIComponent(editor.key)}`}
                      aria-label={`Describe ${editor.title}`}
                    >
                      Describe
                    </Link>
                    <Link
                      className="button"
                      prefetch={false}
                      href={`/studio/workshop?editor=${encodeURIComponent(editor.key)}`}
                      aria-label={`Map the presets of ${editor.title}`}
                    >
                      Mapping
                    </Link>
                  </>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {may && (
        <div className="mt-2 flex items-center gap-3">
          <FileButton
            words="Bring in a descriptor"
            label="Descriptor to bring in"
            accept=".json,application/json"
            onFile={(file) => void bring(file)}
          />
          <Link className="button" prefetch={false} href="/studio/describe">
            Describe an editor
          </Link>
          <Link className="button" prefetch={false} href="/studio/workshop">
            Describe an editor by its presets
          </Link>
          <span role="status" className="text-soft">
            {said}
          </span>
        </div>
      )}
      <Notice problem={problem} className="mt-2" />
    </>
  );
}
