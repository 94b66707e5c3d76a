'use client';
/** The editors that Etagere knows, each told by a descriptor; brought in, revised and sent out as JSON. */
import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
import type { ProblemText } from '../kit/call';
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
  const router = useRouter();
  const input = useRef<HTMLInputElement>(null);
  const [problem, setProblem] = useState<ProblemText | null>(null);
  const [said, setSaid] = useState('');
  const bring = async (file: File) => {
    setProblem(null);
    setSaid('');
    const response = await fetch('/api/editors', { method: 'POST', body: await file.text() });
    const answer = (await response.json().catch(() => ({}))) as {
      error?: ProblemText;
      editor?: string;
      version?: string;
    };
    if (response.ok) {
      setSaid(`${answer.editor} ${answer.version} is known now.`);
      router.refresh();
    } else
      setProblem(
        answer.error ?? {
          code: 'bug',
          message: `The server answered ${response.status}.`,
          where: file.name,
          remedy: 'Try again.',
        },
      );
  };
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
              <td>
                <a
                  className="button"
                  href={`/api/editors/${encodeURIComponent(editor.key)}`}
                  download
                  aria-label={`Descriptor of ${editor.title} as JSON`}
                >
                  JSON
                </a>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {may && (
        <div className="mt-2 flex items-center gap-3">
          <button className="button" onClick={() => input.current?.click()}>
            Bring in a descriptor
          </button>
          <input
            ref={input}
            type="file"
            accept=".json,application/json"
            className="sr-only"
            aria-label="Descriptor to bring in"
            tabIndex={-1}
            onChange={(event) => {
              const file = event.target.files?.[0];
              event.target.value = '';
              if (file) void bring(file);
            }}
          />
          <span role="status" className="text-soft">
            {said}
          </span>
        </div>
      )}
      <Notice problem={problem} className="mt-2" />
    </>
  );
}
