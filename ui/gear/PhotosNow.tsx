'use client';
/** What photos have on them now, and what editors will offer for them. They are read here; only names are asked about. */
import { Images } from 'lucide-react';
import Link from 'next/link';
import { useState } from 'react';
import type { AnswerOf } from '@/core/api';
import type { Descriptor } from '@/core/editor/descriptor';
import { groupBy } from '@/core/lists';
import { must } from '@/core/must';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import type { Dropped } from '../kit/collect';
import { DropTarget } from '../kit/DropTarget';
import { Notice } from '../kit/Notice';
import { counted } from '../kit/words';
import { namesOn, readPhotosNow, type PhotoRead } from './photos-now';

type Offered = AnswerOf<'POST /api/gear/offered'>;
interface Told {
  photo: PhotoRead;
  offered: Offered | null;
}

/** As the server takes them at most. */
const MOST_NAMES = 400;
const MOST_PATH = 300;

const likeOf = ({ camera, kind }: PhotoRead): string => `${kind} ${camera}`;

export function PhotosNow({ descriptors }: { descriptors: readonly Descriptor[] }) {
  const [reading, setReading] = useState(false);
  const [told, setTold] = useState<{ photos: Told[]; files: number } | null>(null);
  const { problem, run } = useAction();
  const tell = async (files: { path: string; file: File }[]) => {
    const photos = await readPhotosNow(files, descriptors);
    const answers = new Map<string, Offered>();
    // what is offered goes by camera and kind alone: each is asked about once
    for (const [key, alike] of groupBy(photos, likeOf)) {
      const { maker, camera, kind, path } = must(alike[0]);
      const names = [...new Set(alike.flatMap(namesOn))].slice(0, MOST_NAMES);
      const body = { name: path.slice(-MOST_PATH), maker, camera, kind, names };
      answers.set(key, await call('POST /api/gear/offered', { body }));
    }
    const out = photos.map((photo): Told => ({ photo, offered: answers.get(likeOf(photo)) ?? null }));
    setTold({ photos: out, files: files.length });
  };
  const take = async (dropped: readonly Dropped[]) => {
    setTold(null);
    setReading(true);
    await run(() => tell(dropped.flatMap(({ files }) => files)));
    setReading(false);
  };
  return (
    <>
      <DropTarget
        icon={<Images aria-hidden size={24} strokeWidth={1.4} className="text-soft" />}
        title="Drop photos with their sidecars"
        note="What is written in them is read here; the photos are neither sent nor kept."
        folder={{ words: 'Choose a folder', label: 'Folder of photos to read' }}
        files={{ words: 'Choose files', label: 'Photos to read' }}
        onFiles={(dropped) => void take(dropped)}
      />
      <p role="status" className="mt-2 text-soft">
        {reading && 'Reading.'}
        {told && `${counted(told.photos.length, 'photo')} read of ${counted(told.files, 'file')}.`}
      </p>
      <Notice problem={problem} className="mt-2" />
      {told && told.photos.length > 0 && (
        <table className="list" aria-label="What photos have now">
          <thead>
            <tr>
              <th>Photo</th>
              <th>Has on it</th>
              <th>Will be offered, of the approved</th>
            </tr>
          </thead>
          <tbody>
            {told.photos.map(({ photo, offered }) => (
              <tr key={photo.path} data-photo={photo.path}>
                <td className="[overflow-wrap:anywhere]">
                  {photo.path}
                  <span className="block text-[12px] text-soft">
                    {[photo.camera || 'no camera named', photo.kind].join(', ')}
                  </span>
                </td>
                <td>
                  <Now photo={photo} held={offered?.held ?? []} />
                </td>
                <td>{offered && <Offers editors={offered.editors} />}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </>
  );
}

function Now({ photo: { now }, held }: { photo: PhotoRead; held: Offered['held'] }) {
  if ('why' in now) return <span className="text-soft">Nothing could be read: {now.why}.</span>;
  const named = (name: string) => {
    const item = held.find((one) => one.name === name);
    return item ? (
      <Link className="underline" href={`/items/${item.id}`}>
        {name}
      </Link>
    ) : (
      <>
        {name} <span className="text-ochre">not held</span>
      </>
    );
  };
  return (
    <>
      {now.preset && <span className="block">Preset {named(now.preset)}</span>}
      {now.profile && <span className="block">Profile {named(now.profile)}</span>}
      {now.looks.map(({ name, strength }) => (
        <span key={name} className="block">
          Look {named(name)}
          {strength === null ? '' : ` at ${strength} %`}
        </span>
      ))}
      {now.settings.length > 0 && <span className="block">{now.settings.join(', ')}</span>}
      <span className="block text-[12px] text-soft">
        in the words of {now.editor}, {now.from === 'sidecar' ? 'from its sidecar' : 'in the file itself'}
        {now.unknown > 0 && `; ${counted(now.unknown, 'property', 'properties')} that no mapping knows`}
      </span>
    </>
  );
}

function Offers({ editors }: { editors: Offered['editors'] }) {
  return editors.map(({ editor, title, shown, of, titles }) => (
    <details key={editor}>
      <summary className="cursor-pointer">
        {title}: {shown} of {of}
      </summary>
      <p className="pl-4 text-[12.5px] text-soft">
        {titles.join(', ') || 'nothing'}
        {shown > titles.length && `, and ${shown - titles.length} more`}
      </p>
    </details>
  ));
}
