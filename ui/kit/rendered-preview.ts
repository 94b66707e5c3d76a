'use client';
/** Renders a frame under a look into a canvas, in a worker of its own; what comes too late is not drawn. */
import { useEffect, useRef, useState, type RefObject } from 'react';
import { must } from '@/core/must';
import type { PreviewAhead, PreviewAnswer, PreviewRequest } from '@/browser-workers/preview.worker';

export interface Preview {
  frame: string;
  /** null for the frame as it is */ version: string | null;
  /** in percent */ strength: number;
  width: 320 | 900 | 1500;
  /** a smaller table, for small pictures that follow the pointer */ points?: number;
  /** versions that may be shown next */ ahead?: string[];
}

type Drawn = Exclude<PreviewAnswer, { error: string }>;

/** @param askedAt when it was asked for; the canvas says how long it took, which is measured */
function draw(canvas: HTMLCanvasElement, answer: Drawn, askedAt: number): void {
  const { id, width, height, pixels, ms } = answer;
  if (canvas.width !== width || canvas.height !== height) {
    canvas.width = width;
    canvas.height = height;
  }
  must(canvas.getContext('2d')).putImageData(new ImageData(new Uint8ClampedArray(pixels), width, height), 0, 0);
  canvas.dataset.shown = String(id);
  canvas.dataset.ms = ms.toFixed(1);
  canvas.dataset.repaint = (performance.now() - askedAt).toFixed(1);
}

export function useRenderedPreview(canvas: RefObject<HTMLCanvasElement | null>, preview: Preview) {
  const { frame, version, strength, width, points, ahead } = preview;
  const worker = useRef<Worker | null>(null);
  const next = useRef(0);
  const asked = useRef(0);
  const [ready, setReady] = useState(false);
  const [fault, setFault] = useState<string | null>(null);

  useEffect(() => {
    const started = new Worker(new URL('../../browser-workers/preview.worker.ts', import.meta.url), {
      type: 'module',
      name: 'preview',
    });
    worker.current = started;
    started.onmessage = ({ data: answer }: MessageEvent<PreviewAnswer>) => {
      if (answer.id !== next.current || !canvas.current) return;
      if ('error' in answer) {
        if (answer.error !== 'superseded') setFault(answer.error);
        return;
      }
      draw(canvas.current, answer, asked.current);
      setReady(true);
      setFault(null);
    };
    started.onerror = () => setFault('the preview could not be started');
    return () => {
      started.terminate();
      worker.current = null;
    };
  }, [canvas]);

  useEffect(() => {
    asked.current = performance.now();
    const request: PreviewRequest = { id: ++next.current, frame, width, version, strength, points };
    worker.current?.postMessage(request);
  }, [frame, version, strength, width, points]);

  const soon = ahead?.join() ?? '';
  useEffect(() => {
    // as soon as the first picture stands, so that a pointer that comes next finds its look already there
    if (!soon || !points || !ready) return;
    worker.current?.postMessage({ ahead: soon.split(','), points } satisfies PreviewAhead);
  }, [soon, points, ready]);

  return { ready, fault };
}
