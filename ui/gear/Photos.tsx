'use client';
/** A folder of photos that looks empty in an editor: why, and what would cure it. Photos are read here and not sent. */
import { FolderSearch } from 'lucide-react';
import { useState } from 'react';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import type { Dropped } from '../kit/collect';
import { DropTarget } from '../kit/DropTarget';
import { Notice } from '../kit/Notice';
import { readPhotos } from './photo-facts';
import { PhotoGroup, type Group } from './PhotoGroup';

interface Result {
  groups: Group[];
  unread: number;
  n: number;
}
interface Reading {
  done: number;
  n: number;
}

export function Photos() {
  const [reading, setReading] = useState<Reading | null>(null);
  const [result, setResult] = useState<Result | null>(null);
  const { problem, run } = useAction();
  const explain = async (files: File[]) => {
    const count = files.length;
    setReading({ done: 0, n: count });
    const { said, unread } = await readPhotos(files, (done) => setReading({ done, n: count }));
    const groups = said.length ? (await call('POST /api/gear/photos', { body: { photos: said } })).groups : [];
    setResult({ groups, unread, n: count });
  };
  const take = async (dropped: readonly Dropped[]) => {
    setResult(null);
    await run(() => explain(dropped.flatMap(({ files }) => files.map(({ file }) => file))));
    setReading(null);
  };
  return (
    <>
      <DropTarget
        icon={<FolderSearch aria-hidden size={24} strokeWidth={1.4} className="text-soft" />}
        title="Drop the folder that looks empty"
        note="Its photos are read here for their camera; none is sent or kept."
        folder={{ words: 'Choose a folder', label: 'Folder to explain' }}
        files={{ words: 'Choose photos', label: 'Photos to explain' }}
        onFiles={(dropped) => void take(dropped)}
      />
      <div role="status" className="mt-2">
        {reading && (
          <span className="text-soft">
            Read {reading.done} of {reading.n} files …
          </span>
        )}
        {result && <span>{readWords(result)}</span>}
      </div>
      <Notice problem={problem} className="mt-2" />
      {result?.groups.map((group) => (
        <PhotoGroup key={group.camera + group.kind} group={group} />
      ))}
    </>
  );
}

function readWords({ n: count, unread }: Result): string {
  const none = unread ? `; ${unread} ${unread === 1 ? 'is' : 'are'} none, or of a kind that is not read here` : '';
  return `${count - unread} of ${count} files are photos that say what they are${none}.`;
}
