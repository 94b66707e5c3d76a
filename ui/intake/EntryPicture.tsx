/* eslint-disable @next/next/no-img-element -- made by the server, at the width that they have */
'use client';
/** What a file does to a frame, small in its row; at a click, larger and beside the frame as it is. */
import { useState } from 'react';
import { Modal, ModalFoot } from '../kit/Modal';
import { notShownWords } from '../kit/NotShown';
import { Selvedge } from '../kit/Selvedge';
import type { Entry } from './model/entry';

interface Props {
  arrival: string;
  entry: Entry;
  frame: string;
}

const seenOnFrames = new Set(['look', 'preset', 'frame']);
const kept = (entry: Entry): boolean => entry.outcome !== 'refused' && seenOnFrames.has(entry.kind);

const addressOf = (arrival: string, entry: number, frame: string, width: number): string =>
  `/api/arrivals/${arrival}/picture?entry=${entry}&frame=${frame}&w=${width}`;

export function EntryPicture({ arrival, entry, frame }: Props) {
  const [large, setLarge] = useState(false);
  const [broken, setBroken] = useState(false);
  if (!kept(entry) || !frame || broken)
    return entry.selvedge && <Selvedge threads={entry.selvedge} className="h-[44px] w-[66px]" />;
  return (
    <>
      <button
        type="button"
        className="relative block h-[44px] w-[66px] overflow-hidden border border-line"
        aria-label={`See ${entry.title} larger`}
        onClick={() => setLarge(true)}
      >
        {/* made by the server, one by one as they come into sight */}
        <img
          src={addressOf(arrival, entry.id, frame, 320)}
          alt=""
          loading="lazy"
          decoding="async"
          width={66}
          height={44}
          className="block h-full w-full bg-press object-cover"
          onError={() => setBroken(true)}
        />
        <Selvedge threads={entry.selvedge} className="absolute bottom-0 left-0 h-[7px] w-full" />
      </button>
      {large && <Larger arrival={arrival} entry={entry} frame={frame} onClose={() => setLarge(false)} />}
    </>
  );
}

function Larger({ arrival, entry, frame, onClose }: Props & { onClose: () => void }) {
  const isFrame = entry.kind === 'frame';
  const pictures = [
    ...(isFrame ? [] : [{ words: 'the frame as it is', address: `/api/frames/${frame}?w=900` }]),
    { words: isFrame ? 'the picture' : entry.title, address: addressOf(arrival, entry.id, frame, 900) },
  ];
  return (
    <Modal title={entry.title} width={pictures.length > 1 ? 1080 : 760} top="8vh" onClose={onClose}>
      <div className={`grid gap-3 ${pictures.length > 1 ? 'grid-cols-2' : ''}`}>
        {pictures.map(({ words, address }) => (
          <figure key={words}>
            <img src={address} alt={words} className="block w-full bg-press" />
            <figcaption className="mt-1 text-[12px] text-soft [overflow-wrap:anywhere]">{words}</figcaption>
          </figure>
        ))}
      </div>
      {entry.notShown.length > 0 && (
        <p className="mt-1 text-[12px] text-soft">{notShownWords({ notShown: entry.notShown, missing: [] })}</p>
      )}
      <ModalFoot cancel="Close" />
    </Modal>
  );
}
