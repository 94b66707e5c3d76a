'use client';
/** For a workstation without a way to the server: what waits there as a file, and the answer that comes back. */
import { useState } from 'react';
import { useAction } from '../kit/action';
import { askForFile, send } from '../kit/call';
import { CopyLine } from '../kit/CopyLine';
import { FileButton } from '../kit/FileButton';
import { Modal, ModalFoot } from '../kit/Modal';
import { Notice } from '../kit/Notice';
import { Said } from '../kit/Said';
import { Ago } from '../kit/time';
import { counted } from '../kit/words';
import { carryLine, type StationSystem } from './model/agent-lines';

export interface CarriedFile {
  /** ISO 8601 */ at: string;
  words: string;
  answered: string | null;
}
interface Props {
  station: { id: string; name: string; system: StationSystem };
  /** an agent is there, or a file that enrols it was made */ enrolled: boolean;
  /** those that were made last, the newest first */ carried: readonly CarriedFile[];
}

export function Carry(props: Props) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button className="button quiet" onClick={() => setOpen(true)}>
        Carry by hand
      </button>
      {open && <CarryDialog {...props} onClose={() => setOpen(false)} />}
    </>
  );
}

function CarryDialog({ station, enrolled, carried, onClose }: Props & { onClose: () => void }) {
  const { busy, problem, said, say, run, runAndRefresh } = useAction();
  const { id, name, system } = station;
  const [left, setLeft] = useState<readonly string[]>([]);
  const make = () => runAndRefresh(() => askForFile('POST /api/stations/:id/carried', { id }));
  const give = async (answer: File) => {
    setLeft([]);
    await run(async () => {
      const taken = await send('POST /api/stations/:id/answer', answer, { id });
      setLeft(taken.left);
      say(
        taken.operations
          ? `Taken: what became of ${counted(taken.operations, 'operation')} is known.`
          : 'Taken: how it is there is known.',
      );
    });
  };
  const line = carryLine(system, name);
  return (
    <Modal title={`Carry by hand to ${name}`} width={680} onClose={onClose}>
      <p className="mb-3">
        For a workstation that has no way to this server. The file holds what waits there, signed; its agent carries it
        out and writes an answer, which comes back here.
        {!enrolled &&
          ' No agent is enrolled there yet: the file enrols it, and holds its token until the first answer.'}
      </p>
      <ol className="ml-5 flex list-decimal flex-col gap-3">
        <li>
          <button className="button main" disabled={busy} onClick={() => void make()}>
            Make the file
          </button>
        </li>
        <li>
          At the workstation, {line.where}, in the folder of the file:
          <div className="mt-1">
            <CopyLine label="Carry it out" line={line.carry} />
          </div>
        </li>
        <li>
          <FileButton
            words="Give the answer"
            label="The answer that was carried back"
            accept=".zip"
            onFile={(answer) => void give(answer)}
          />
        </li>
      </ol>
      {carried.length > 0 && (
        <ul aria-label="Files made lately" className="mt-4 border-t border-line pt-2">
          {carried.map(({ at, words, answered }) => (
            <li key={at} className="flex flex-wrap gap-x-3">
              <Ago at={at} />
              <span>{words}</span>
              <span className="text-soft">{answered ? 'answered' : 'no answer yet'}</span>
            </li>
          ))}
        </ul>
      )}
      {left.length > 0 && (
        <ul className="mt-3 border-l-[3px] border-ochre pl-3">
          {left.map((words) => (
            <li key={words}>Not taken: {words}</li>
          ))}
        </ul>
      )}
      <Notice problem={problem} className="mt-3" />
      <Said words={said} />
      <ModalFoot cancel="Close" />
    </Modal>
  );
}
