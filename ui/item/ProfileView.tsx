/* eslint-disable @next/next/no-img-element -- made by the server, at the width that it has */
'use client';
/** What a camera profile makes of a frame of its camera. Holding the pointer or the space bar shows the camera's own picture. */
import Link from 'next/link';
import { useState } from 'react';

interface Frame {
  id: string;
  name: string;
  light: string;
}

interface Props {
  title: string;
  versionId: string;
  /** of the cameras that the profile is for */ frames: Frame[];
  frame: string;
  /** the address of the bench with the profile */ bench: string;
}

export function ProfileView({ title, versionId, frames, frame: first, bench }: Props) {
  const [chosen, setChosen] = useState(first);
  const [original, setOriginal] = useState(false);
  const [fault, setFault] = useState(false);
  const frame = frames.find(({ id }) => id === chosen) ?? frames[0];
  if (!frame) return null;
  const address = original ? `/api/frames/${frame.id}?w=900` : `/api/versions/${versionId}/picture?frame=${frame.id}`;
  const hold = (on: boolean) => () => setOriginal(on);
  return (
    <div>
      <div className="mb-2.5 flex items-end justify-between gap-6">
        <label className="flex flex-col gap-0.5 text-[12px] text-soft">
          Frame
          <select
            className="field max-w-[320px] text-[13.5px] text-ink"
            value={frame.id}
            onChange={(event) => {
              setFault(false);
              setChosen(event.target.value);
            }}
          >
            {frames.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </label>
        <Link prefetch={false} className="button" href={bench}>
          On the bench
        </Link>
      </div>
      <button
        type="button"
        className="relative block w-full cursor-default select-none bg-press"
        style={{ aspectRatio: 1.5, touchAction: 'none' }}
        aria-label={`${title} on ${frame.name}: hold to see the camera’s own picture`}
        onPointerDown={hold(true)}
        onPointerUp={hold(false)}
        onPointerLeave={hold(false)}
        onKeyDown={(event) => {
          if (event.key !== ' ') return;
          event.preventDefault();
          setOriginal(true);
        }}
        onKeyUp={hold(false)}
        onBlur={hold(false)}
      >
        {fault ? (
          <span role="alert" className="absolute inset-0 grid place-items-center px-4 text-madder">
            This frame could not be developed by the profile. Choose another frame.
          </span>
        ) : (
          <img
            src={address}
            alt={original ? frame.name : `${title} on ${frame.name}`}
            className="block h-full w-full object-contain"
            draggable={false}
            onError={() => setFault(true)}
          />
        )}
        {original && (
          <span className="absolute left-2 top-2 bg-[#1a1a1a] px-2 py-0.5 text-[12px] text-white">
            the camera’s own picture
          </span>
        )}
      </button>
      <p className="mt-1.5 text-[12px] text-soft">
        Etagere’s rendering of the camera data of {frame.name}
        {frame.light && ` (${frame.light})`}, white as shot. Hold the pointer or the space bar on the picture to see the
        camera’s own.
      </p>
    </div>
  );
}
