/** One editor's part of a sheet: what is done in order, and boxes to tick, on paper too. */
import type { EditorSheet, FolderSteps } from '@/core/sheets/sheet';
import type { ReactNode } from 'react';
import { CopyLine } from '../kit/CopyLine';

export function SheetOfEditor({ sheet }: { sheet: EditorSheet }) {
  const { title, before, folders, after, checks, cannot, notes } = sheet;
  return (
    <section aria-label={title} className="mb-8 break-inside-avoid">
      <h2 className="mb-2 text-[17px]">{title}</h2>
      <ol className="flex list-decimal flex-col gap-3 pl-6">
        {before && <li>{before}</li>}
        {folders.map((folder) => (
          <FolderItem key={folder.folder} folder={folder} />
        ))}
        {after.map((words) => (
          <li key={words}>{words}</li>
        ))}
      </ol>
      {checks.length > 0 && (
        <Group title="Look whether">
          {checks.map((words) => (
            <li key={words}>
              <label className="flex gap-2">
                <input type="checkbox" /> {words}
              </label>
            </li>
          ))}
        </Group>
      )}
      {cannot.length > 0 && (
        <Group title="Not by hand">
          {cannot.map((words) => (
            <li key={words}>{words}.</li>
          ))}
        </Group>
      )}
      {notes && <p className="mt-3 text-soft">{notes}</p>}
    </section>
  );
}

function Group({ title, children }: { title: string; children: ReactNode }) {
  return (
    <>
      <h3 className="mb-1 mt-3 text-[13.5px] font-medium">{title}</h3>
      <ul className="flex flex-col gap-1">{children}</ul>
    </>
  );
}

function FolderItem({ folder: { folder, reach, put, remove } }: { folder: FolderSteps }) {
  return (
    <li>
      Open this folder. {reach}
      <div className="my-1">
        <CopyLine line={folder} label={`Path of ${folder}`} />
      </div>
      {put.length > 0 && (
        <>
          Copy into it:
          <ul className="list-disc pl-5">
            {put.map(({ name, over }) => (
              <li key={name}>
                <span className="font-mono text-[12.5px]">{name}</span>
                {over && <span className="text-soft"> in the place of the one that is there</span>}
              </li>
            ))}
          </ul>
        </>
      )}
      {remove.length > 0 && (
        <>
          Take out of it:
          <ul className="list-disc pl-5">
            {remove.map((name) => (
              <li key={name} className="font-mono text-[12.5px]">
                {name}
              </li>
            ))}
          </ul>
        </>
      )}
    </li>
  );
}
