'use client';
/** A backup to take away, and one to restore from. */
import { useState } from 'react';
import { useAction } from '../kit/action';
import { send } from '../kit/call';
import { FileButton } from '../kit/FileButton';
import { Modal, ModalFoot } from '../kit/Modal';
import { Notice } from '../kit/Notice';
import { size } from '../kit/size';

export function Backup() {
  const [file, setFile] = useState<File | null>(null);
  return (
    <>
      <p className="mb-2 text-soft">
        Everything that Etagere holds, contents included, as one file; it is made while people work.
      </p>
      <div className="flex gap-2">
        <a className="button" href="/api/backup" download>
          Take a backup
        </a>
        <FileButton words="Restore from a file" label="Backup to restore" className="button danger" onFile={setFile} />
      </div>
      {file && <Restore file={file} onClose={() => setFile(null)} />}
    </>
  );
}

function Restore({ file, onClose }: { file: File; onClose: () => void }) {
  const { busy, problem, run } = useAction();
  const restore = () =>
    run(async () => {
      await send('POST /api/backup', file);
      location.assign('/sign-in');
    });
  return (
    <Modal title={`Restore ${file.name}?`} top="22vh" onClose={() => !busy && onClose()}>
      <p className="mb-3">
        All items, versions, contents, people and records become what they were in this file ({size(file.size)}). What
        is there now is kept beside it as a database of its own. Everyone has to sign in again; stations are not
        touched.
      </p>
      <Notice problem={problem} />
      <ModalFoot>
        <button className="button danger" disabled={busy} onClick={() => void restore()}>
          {busy ? 'Restoring' : 'Restore'}
        </button>
      </ModalFoot>
    </Modal>
  );
}
