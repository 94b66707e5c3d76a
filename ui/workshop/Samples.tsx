'use client';
/** Sample presets: files from this computer, or those of the language that the library holds. They stay in the browser. */
import { useRef } from 'react';
import type { Sample } from '@/core/preset/workshop/samples';
import { useAction } from '../kit/action';
import { CallError } from '../kit/call';
import { Notice } from '../kit/Notice';
import { counted } from '../kit/words';

export interface HeldSample {
  versionId: string;
  fileName: string;
}
interface Props {
  samples: readonly Sample[];
  held: readonly HeldSample[];
  onAdd: (samples: readonly Sample[]) => void;
  onDrop: (name: string) => void;
}

async function fetched({ versionId, fileName }: HeldSample): Promise<Sample> {
  const response = await fetch(`/api/versions/${versionId}/file`).catch(() => null);
  if (!response?.ok)
    throw new CallError({
      code: 'sample-fetch',
      message: `${fileName} could not be fetched.`,
      where: 'the library',
      remedy: 'Check the network, then try again.',
    });
  return { name: fileName, bytes: new Uint8Array(await response.arrayBuffer()) };
}

export function Samples({ samples, held, onAdd, onDrop }: Props) {
  const input = useRef<HTMLInputElement>(null);
  const action = useAction();
  const take = async (files: readonly File[]) =>
    onAdd(
      await Promise.all(
        files.map(async (file) => ({ name: file.name, bytes: new Uint8Array(await file.arrayBuffer()) })),
      ),
    );
  return (
    <>
      <p className="mb-2 max-w-[700px] text-soft">
        Five or ten presets of one version of an editor, as different as you have them: the more they say, the better
        their properties are known. The files stay in this browser.
      </p>
      <div className="mb-2 flex flex-wrap gap-2">
        <button className="button" onClick={() => input.current?.click()}>
          Choose files
        </button>
        <input
          ref={input}
          type="file"
          multiple
          className="sr-only"
          aria-label="Sample presets"
          tabIndex={-1}
          onChange={(event) => {
            const files = [...(event.target.files ?? [])];
            event.target.value = '';
            void action.run(() => take(files));
          }}
        />
        {held.length > 0 && (
          <button
            className="button"
            disabled={action.busy}
            onClick={() => void action.run(async () => onAdd(await Promise.all(held.map(fetched))))}
          >
            Take {counted(held.length, 'preset')} of the library
          </button>
        )}
      </div>
      <Notice problem={action.problem} className="mb-2" />
      {samples.length > 0 && (
        <ul aria-label="Samples" className="flex flex-wrap gap-2">
          {samples.map(({ name }) => (
            <li key={name} className="flex items-center gap-1 border border-line px-2 py-0.5 [overflow-wrap:anywhere]">
              {name}
              <button
                className="px-1 text-soft hover:text-ink"
                aria-label={`Leave ${name} out`}
                onClick={() => onDrop(name)}
              >
                ×
              </button>
            </li>
          ))}
        </ul>
      )}
    </>
  );
}
