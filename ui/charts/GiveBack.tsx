'use client';
/** Takes what the editor exported, reads it, and says why where it cannot be read. */
import { useState } from 'react';
import { useAction } from '../kit/action';
import { send } from '../kit/call';
import { FileButton } from '../kit/FileButton';
import { Notice } from '../kit/Notice';
import { Said } from '../kit/Said';

export function GiveBack({ id }: { id: string }) {
  const { busy, problem, said, runAndRefresh } = useAction();
  const [name, setName] = useState('');
  const give = (file: File) => {
    setName(file.name);
    void runAndRefresh(
      () => send('POST /api/editor-charts/:id/readings', file, { id, query: { name: file.name } }),
      `${file.name} was read.`,
    );
  };
  return (
    <div className="flex flex-col items-start gap-2">
      {busy ? (
        <p role="status" className="text-soft">
          Reading {name}: every patch, and every check
        </p>
      ) : (
        <FileButton
          words="Give the chart back"
          label="The picture that the editor exported"
          className="button main"
          accept=".png,.tif,.tiff,.jpg,.jpeg,image/*"
          onFile={give}
        />
      )}
      <Notice problem={problem} />
      {!busy && <Said words={said} />}
    </div>
  );
}
