'use client';
/** Renders a frame under a look into a canvas, in the worker of previews; what comes too late is not drawn. */
import { useEffect, useRef, useState, type RefObject } from 'react';
import { must } from '@/core/must';
import type { Settings } from '@/core/preset/kinds';
import type { PreviewAnswer } from '@/browser-workers/preview.worker';
import { openChannel, type PreviewChannel } from './preview-worker';

export interface Preview {
  frame: string;
  /** null for the frame as it is */ version: string | null;
  /** of a preset that no version holds, point settings alone: in the place of a version */ settings?:
    Settings | undefined;
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
  const { frame, version, settings, strength, width, points, ahead } = preview;
  const said = settings ? JSON.stringify(settings) : undefined;
  const channel = useRef<PreviewChannel | null>(null);
  const next = useRef(0);
  const asked = useRef(0);
  const [ready, setReady] = useState(false);
  const [fault, setFault] = useState<string | null>(null);

  useEffect(() => {
    const opened = openChannel((answer) => {
      if (answer.id !== next.current || !canvas.current) return;
      if ('error' in answer) {
        if (answer.error !== 'superseded') setFault(answer.error);
        return;
      }
      draw(canvas.current, answer, asked.current);
      setReady(true);
      setFault(null);
    });
    channel.current = opened;
    return () => {
      opened.close();
      channel.current = null;
    };
  }, [canvas]);

  useEffect(() => {
    asked.current = performance.now();
    next.current += 1;
    channel.current?.ask({ id: next.current, frame, width, version, settings: said, strength, points });
  }, [frame, version, said, strength, width, points]);

  const soon = ahead?.join() ?? '';
  useEffect(() => {
    // as soon as the first picture stands, so that a pointer that comes next finds its look already there
    if (!soon || !points || !ready) return;
    channel.current?.askAhead({ ahead: soon.split(','), points });
  }, [soon, points, ready]);

  return { ready, fault };
}
