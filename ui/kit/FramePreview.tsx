'use client';
/** A frame under a look, rendered in a worker of its own. Holding the pointer or the space bar on it shows the original. */
import { must } from '@/core/must';
import { useEffect, useRef, useState } from 'react';
import type { PreviewAhead, PreviewAnswer, PreviewRequest } from '@/browser-workers/preview.worker';

interface Props {
  frame: string;
  version: string | null;
  strength: number;
  width: 320 | 900 | 1500;
  ratio?: number;
  label: string;
  hold?: boolean;
  /** a smaller table, for small pictures that follow the pointer */ points?: number;
  /** what may be shown next */ ahead?: string[];
}

export function FramePreview({
  frame,
  version,
  strength,
  width,
  ratio = 1.5,
  label,
  hold = true,
  points,
  ahead,
}: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const worker = useRef<Worker | null>(null);
  const next = useRef(0);
  const asked = useRef(0);
  const [original, setOriginal] = useState(false);
  const [fault, setFault] = useState<string | null>(null);
  const [ready, setReady] = useState(false);

  useEffect(() => {
    const started = new Worker(new URL('../../browser-workers/preview.worker.ts', import.meta.url), {
      type: 'module',
      name: 'preview',
    });
    worker.current = started;
    started.onmessage = (event: MessageEvent<PreviewAnswer>) => {
      if (event.data.id !== next.current) return;
      if ('error' in event.data) {
        if (event.data.error !== 'superseded') setFault(event.data.error);
        return;
      }
      const drawn = canvas.current;
      if (!drawn) return;
      if (drawn.width !== event.data.width || drawn.height !== event.data.height) {
        drawn.width = event.data.width;
        drawn.height = event.data.height;
      }
      must(drawn.getContext('2d')).putImageData(
        new ImageData(new Uint8ClampedArray(event.data.pixels), event.data.width, event.data.height),
        0,
        0,
      );
      drawn.dataset.shown = String(event.data.id);
      drawn.dataset.ms = event.data.ms.toFixed(1);
      drawn.dataset.repaint = (performance.now() - asked.current).toFixed(1);
      setReady(true);
      setFault(null);
    };
    started.onerror = () => setFault('the preview could not be started');
    return () => {
      started.terminate();
      worker.current = null;
    };
  }, []);

  useEffect(() => {
    asked.current = performance.now();
    worker.current?.postMessage({
      id: ++next.current,
      frame,
      width,
      version: original ? null : version,
      strength,
      points,
    } satisfies PreviewRequest);
  }, [frame, version, strength, width, original, points]);
  const soon = ahead?.join() ?? '';
  useEffect(() => {
    // as soon as the first picture stands, so that a pointer that comes next finds its look already there
    if (!soon || !points || !ready) return;
    worker.current?.postMessage({ ahead: soon.split(','), points } satisfies PreviewAhead);
  }, [soon, points, ready]);

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
