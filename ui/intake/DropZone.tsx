'use client';
/** Drop files, folders and ZIPs here: they are sent in parts, go on after a reload from where they stood, and become arrivals. */
import { Inbox } from 'lucide-react';
import { useEffect, useRef, useState, type ChangeEvent, type DragEvent } from 'react';
import { useUploads, type Waiting } from './hooks/uploads';
import { fromDrop, fromInput } from './model/collect';
import { UploadLine } from './UploadLine';

export function DropZone({ waiting }: { waiting: Waiting[] }) {
  const { arriving, take, retry, cancel } = useUploads(waiting);
  const files = useRef<HTMLInputElement>(null);
  const folder = useRef<HTMLInputElement>(null);
  const [over, setOver] = useState(false);
  useEffect(keepPage, []);
  const onDrop = (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    void fromDrop(event.dataTransfer.items, event.dataTransfer.files).then(take);
  };
  const onChoose = (event: ChangeEvent<HTMLInputElement>) => {
    if (event.target.files) void take(fromInput(event.target.files));
    event.target.value = '';
  };
  const chosen = { type: 'file', multiple: true, className: 'sr-only', tabIndex: -1, onChange: onChoose };
  return (
    <>
      <div
        onDragOver={(event) => {
          event.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={onDrop}
        className={`flex items-center gap-5 border border-dashed px-6 py-6 ${over ? 'border-verd bg-verd-wash' : 'border-line-strong bg-sheet'}`}
      >
        <Inbox aria-hidden size={26} strokeWidth={1.4} className="text-soft" />
        <div>
          <p className="font-serif text-[17px]">Drop files here</p>
          <p className="text-soft">
            A zip, a folder with its folders, or single files. Nothing is kept before you accept it.
          </p>
        </div>
        <button className="button ml-auto" onClick={() => folder.current?.click()}>
          Choose a folder
        </button>
        <button className="button" onClick={() => files.current?.click()}>
          Choose files
        </button>
        <input {...chosen} ref={files} aria-label="Files to take in" />
        <input
          {...chosen}
          ref={(input) => {
            folder.current = input;
            input?.setAttribute('webkitdirectory', '');
          }}
          aria-label="Folder to take in"
        />
      </div>
      {arriving.length > 0 && (
        <ul className="mt-3" aria-label="Uploads">
          {arriving.map((one) => (
            <UploadLine key={one.arrival} arriving={one} onRetry={() => retry(one)} onCancel={() => void cancel(one)} />
          ))}
        </ul>
      )}
    </>
  );
}

/** A file that misses the zone must not replace the page. */
function keepPage(): () => void {
  const stop = (event: globalThis.DragEvent) => event.preventDefault();
  window.addEventListener('dragover', stop);
  window.addEventListener('drop', stop);
  return () => {
    window.removeEventListener('dragover', stop);
    window.removeEventListener('drop', stop);
  };
}
