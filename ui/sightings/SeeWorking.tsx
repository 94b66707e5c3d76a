'use client';
/** Asks for pictures with files of ours on: of the editor itself, or, for one file, of a person who exports one there. */
import { useState } from 'react';
import type { AnswerOf } from '@/core/api';
import { useAction } from '../kit/action';
import { call, send } from '../kit/call';
import { Field } from '../kit/Field';
import { FileButton } from '../kit/FileButton';
import { Modal, ModalFoot } from '../kit/Modal';
import { Notice } from '../kit/Notice';
import { Said } from '../kit/Said';
import { counted } from '../kit/words';

export interface FrameChoice {
  id: string;
  name: string;
}
interface Props {
  station: { id: string; name: string };
  files: readonly { path: string; title: string; editor: string }[];
  frames: readonly FrameChoice[];
  /** of one file among others, which its name tells apart */ one?: boolean;
  /** before the button */ words?: string;
}
type Asked = AnswerOf<'POST /api/stations/:id/sightings'>;

/** Nothing where there is no file; an open dialog stays, since what it asks for makes its files fewer. */
export function SeeWorking({ station, files, frames, one = false, words }: Props) {
  const [opened, setOpened] = useState<Pick<Props, 'files' | 'frames'> | null>(null);
  const [first] = files;
  return (
    <>
      {first && frames.length > 0 && (
        <>
          {words && <span>{words}</span>}
          <button
            className="underline"
            {...(one ? { 'aria-label': `See it working: ${first.path}` } : {})}
            onClick={() => setOpened({ files, frames })}
          >
            {one ? 'See it working' : 'See them working'}
          </button>
        </>
      )}
      {opened && <Dialog station={station} one={one} {...opened} onClose={() => setOpened(null)} />}
    </>
  );
}

function Dialog({ station, files, frames, one = false, onClose }: Omit<Props, 'words'> & { onClose: () => void }) {
  const { busy, problem, said, say, runAndRefresh } = useAction();
  const [frame, setFrame] = useState(frames[0]?.id ?? '');
  const [left, setLeft] = useState<Asked['left']>([]);
  const [byHand, setByHand] = useState<string | null>(null);
  const title = one ? `See ${files[0]?.title} working` : `See ${counted(files.length, 'file')} working`;
  const ask = (by: 'editor' | 'person') =>
    runAndRefresh(async () => {
      setLeft([]);
      const body = { paths: files.map(({ path }) => path), frame, by };
      const answer = await call('POST /api/stations/:id/sightings', { id: station.id, body });
      setLeft(answer.left);
      setByHand(by === 'person' ? (answer.asked[0]?.id ?? null) : null);
      if (by === 'editor' && answer.asked.length)
        say(`${counted(answer.asked.length, 'picture')} asked for. What comes of it is told beside each file.`);
    });
  return (
    <Modal title={title} onClose={onClose} width={560}>
      <p className="mb-3 text-soft">
        That an editor lists an item does not say that it does what it should. Here a frame is given to the editor at{' '}
        {station.name}, and its picture with the item on is held against ours, within the studio’s limits.
      </p>
      {byHand ? (
        <ByHand id={byHand} file={files[0]} frame={frames.find(({ id }) => id === frame)} />
      ) : (
        <>
          <Field label="Frame">
            {(attributes) => (
              <select {...attributes} value={frame} onChange={(event) => setFrame(event.target.value)}>
                {frames.map(({ id, name }) => (
                  <option key={id} value={id}>
                    {name}
                  </option>
                ))}
              </select>
            )}
          </Field>
          {/* eslint-disable-next-line @next/next/no-img-element -- a frame, as the bench shows it */}
          <img className="mt-2 block h-[180px] bg-sheet object-contain" alt="" src={`/api/frames/${frame}?w=320`} />
        </>
      )}
      {left.length > 0 && (
        <ul className="mt-3 border-l-[3px] border-ochre pl-3">
          {left.map(({ path, title: name, reason }) => (
            <li key={path}>
              {name || path}: {reason}.
            </li>
          ))}
        </ul>
      )}
      <Notice problem={problem} className="mt-3" />
      <Said words={said} />
      <ModalFoot
        cancel="Close"
        apart={
          one &&
          !byHand && (
            <button className="button" disabled={busy} onClick={() => void ask('person')}>
              Export it by hand
            </button>
          )
        }
      >
        {!byHand && (
          <button className="button main" disabled={busy} onClick={() => void ask('editor')}>
            {one ? 'Ask the editor' : 'Ask the editors'}
          </button>
        )}
      </ModalFoot>
    </Modal>
  );
}

interface ByHandProps {
  id: string;
  file: Props['files'][number] | undefined;
  frame: FrameChoice | undefined;
}

/** For editors that cannot be asked, and where no agent is. */
function ByHand({ id, file, frame }: ByHandProps) {
  const { busy, problem, said, say, runAndRefresh } = useAction();
  const give = (picture: File) =>
    runAndRefresh(async () => {
      const { reason } = await send('POST /api/sightings/:id/result', picture, { id });
      say(reason.charAt(0).toUpperCase() + reason.slice(1) + '.');
    });
  return (
    <>
      <ol className="ml-5 list-decimal">
        <li>
          <a className="underline" href={`/api/sightings/${id}/picture?of=given`} download={`${frame?.name}.png`}>
            Save the picture
          </a>
          , and open it in {file?.editor}.
        </li>
        <li>Reset all of its settings, and put {file?.title} on: that alone, at its full strength.</li>
        <li>Export the whole picture at its own size in sRGB, as PNG or as JPEG of the best quality.</li>
        <li className="pt-1">
          <FileButton
            words="Give the export"
            label="The exported picture"
            accept="image/png,image/jpeg"
            onFile={(picture) => void give(picture)}
          />
        </li>
      </ol>
      {busy && <p role="status">Comparing</p>}
      <Notice problem={problem} className="mt-2" />
      <Said words={said} />
    </>
  );
}
