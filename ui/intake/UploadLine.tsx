'use client';
import { Notice } from '../kit/Notice';
import { nounFor } from '../kit/words';
import type { Arriving } from './hooks/uploads';

interface Props {
  arriving: Arriving;
  onRetry: () => void;
  onCancel: () => void;
}

const megabytes = (bytes: number): string => (bytes / 1e6).toFixed(1);

/** What is being sent, how far it has come, and how it goes on where it stopped. */
export function UploadLine({ arriving, onRetry, onCancel }: Props) {
  const { arrival, name, uploads, files, problem } = arriving;
  const size = uploads.reduce((sum, upload) => sum + upload.size, 0);
  const received = uploads.reduce((sum, upload) => sum + upload.received, 0);
  const done = uploads.filter((upload) => upload.received === upload.size).length;
  const share = size ? Math.round((100 * received) / size) : 0;
  return (
    <li data-upload={arrival} className="border-b border-line py-2.5">
      <div className="flex items-center gap-3">
        <span className="min-w-0 truncate font-medium">{name}</span>
        {uploads.length > 1 && (
          <span className="whitespace-nowrap text-soft">
            {done} of {uploads.length} files
          </span>
        )}
        <span className="ml-auto whitespace-nowrap text-soft">
          {megabytes(received)} of {megabytes(size)} MB
        </span>
        <button className="button quiet" onClick={onCancel}>
          Cancel upload
        </button>
      </div>
      <div
        role="progressbar"
        aria-label={`Upload of ${name}`}
        aria-valuenow={share}
        aria-valuemin={0}
        aria-valuemax={100}
        className="mt-1 h-[3px] bg-line"
      >
        <div className="h-full bg-verd" style={{ width: `${share}%` }} />
      </div>
      {!files && !problem && (
        <p className="mt-1 text-ochre">
          Interrupted at {share} %. Choose or drop the same {nounFor(uploads.length, 'file')} again, and it goes on from
          there.
        </p>
      )}
      {problem && files && uploads.length > 0 && (
        <button className="button mt-2" onClick={onRetry}>
          Try again from there
        </button>
      )}
      <Notice problem={problem} className="mt-2" />
    </li>
  );
}
