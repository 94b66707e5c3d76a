'use client';
/** A frame under a look, rendered in a worker of its own. Holding the pointer or the space bar on it shows the original. */
import { useRef, useState } from 'react';
import { useRenderedPreview, type Preview } from './rendered-preview';

interface Props extends Preview {
  /** of the picture, width by height */ ratio?: number;
  label: string;
  hold?: boolean;
}

export function FramePreview({ ratio = 1.5, label, hold = true, version, settings, ...preview }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [original, setOriginal] = useState(false);
  const { ready, fault } = useRenderedPreview(canvas, {
    ...preview,
    version: original ? null : version,
    settings: original ? undefined : settings,
  });
  const show = (on: boolean) => () => hold && setOriginal(on);
  return (
    <div className="relative bg-press" style={{ aspectRatio: ratio }}>
      <canvas
        ref={canvas}
        role="img"
        aria-label={label}
        tabIndex={hold ? 0 : -1}
        className="block h-full w-full select-none"
        style={{ touchAction: 'none' }}
        onPointerDown={show(true)}
        onPointerUp={show(false)}
        onPointerLeave={show(false)}
        onKeyDown={(event) => {
          if (event.key === ' ' && hold) {
            event.preventDefault();
            setOriginal(true);
          }
        }}
        onKeyUp={(event) => {
          if (event.key === ' ') setOriginal(false);
        }}
        onBlur={show(false)}
      />
      {!ready && !fault && <p className="absolute inset-0 grid place-items-center text-soft">Rendering</p>}
      {fault && (
        <p role="alert" className="absolute inset-0 grid place-items-center px-4 text-center text-madder">
          No preview: {fault}.
        </p>
      )}
      {original && <p className="absolute left-2 top-2 bg-[#1a1a1a] px-2 py-0.5 text-[12px] text-white">original</p>}
    </div>
  );
}
