'use client';
/** Drop files, folders and ZIPs here: they are sent in parts, go on after a reload from where they stood, and become arrivals. */
import { Inbox } from 'lucide-react';
import { useEffect } from 'react';
import { DropTarget } from '../kit/DropTarget';
import { useUploads, type Waiting } from './hooks/uploads';
import { UploadLine } from './UploadLine';

export function DropZone({ waiting }: { waiting: Waiting[] }) {
  const { arriving, take, retry, cancel } = useUploads(waiting);
  useEffect(keepPage, []);
  return (
    <>
      <DropTarget
        icon={<Inbox aria-hidden size={26} strokeWidth={1.4} className="text-soft" />}
        title="Drop files here"
        note="A zip, a folder with its folders, or single files. Nothing is kept before you accept it."
        folder={{ words: 'Choose a folder', label: 'Folder to take in' }}
        files={{ words: 'Choose files', label: 'Files to take in' }}
        onFiles={(dropped) => void take(dropped)}
      />
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
