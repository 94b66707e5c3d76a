'use client';
/** One cell, large: as a whole, or at 1:1 and 2:1 in parts that are developed as they come into view. */
import { useCallback, useEffect, useMemo, useRef, useState, type PointerEvent } from 'react';
import type { CellSpec } from '@/browser-workers/bench.worker';
import { call } from '../kit/call';
import { PART, partsInView } from './parts';
import type { CellFault, Pool } from './pool';

export interface View {
  /** 0: the whole, else pixels of the screen a pixel of the picture */ zoom: number;
  /** what is in the middle, 0…1 */ x: number;
  y: number;
}
/** The color at a place (0…1) of what is shown; null before there is something. */
export type Reader = (x: number, y: number) => [number, number, number] | null;
interface Props {
  pool: Pool | null;
  /** tells this one from those beside it */ slot: number;
  spec: CellSpec;
  name: string;
  view: View;
  onView: (v: View) => void;
  onAt: (x: number, y: number) => void;
  onReader: (r: Reader) => void;
  light: boolean;
  left: boolean;
}

const MOST_PARTS = 60;

export function Large({ pool, slot, spec, name, view, onView, onAt, onReader, light, left }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const sharp = useRef<HTMLCanvasElement>(null);
  const bars = useRef<HTMLCanvasElement>(null);
  const box = useRef<HTMLDivElement>(null);
  const drag = useRef<{ x: number; y: number; v: View } | null>(null);
  const seq = useRef(0);
  const tell = useRef(onReader);
  const parts = useRef(new Map<string, HTMLCanvasElement>());
  const asked = useRef(new Set<string>());
  const [fault, setFault] = useState<CellFault | null>(null);
  const [size, setSize] = useState({ w: 1, h: 1 });
  const [room, setRoom] = useState({ w: 1, h: 1 });
  const [whole, setWhole] = useState<{ width: number; height: number } | null>(null);
  const [come, setCome] = useState(0);
  const preview = useRef<ImageData | null>(null);
  useEffect(() => {
    tell.current = onReader;
  });
  useEffect(() => {
    const resizeObserver = new ResizeObserver(([resizeObserverEntry]) => {
      if (resizeObserverEntry)
        setRoom({ w: resizeObserverEntry.contentRect.width, h: resizeObserverEntry.contentRect.height });
    });
    if (box.current) resizeObserver.observe(box.current);
    return () => resizeObserver.disconnect();
  }, []);
  const key = JSON.stringify(spec);
  const inParts = !(spec.camera && spec.profile === 'jpeg') && spec.export === null;
  useEffect(() => {
    // unpacks the frame for the parts that may be asked for next
    let live = true;
    if (inParts)
      call<{ width: number; height: number }>(`/api/frames/${spec.frame}/full`)
        .then((w) => {
          if (live) setWhole(w);
        })
        .catch(() => {
          /* what cannot be unpacked shows its fault as a whole */
        });
    return () => {
      live = false;
    };
  }, [spec.frame, inParts]);
  useEffect(() => {
    if (!pool) return;
    const n = ++seq.current;
    const held = parts.current;
    held.clear();
    asked.current.clear();
    pool.drop((k) => k.startsWith(`part ${slot} `));
    void pool
      .ask(`large ${slot}`, true, (id) => ({ id, cell: { ...spec, width: 1500 }, against: null }))
      .then((answer) => {
        if (n !== seq.current || !canvas.current) return;
        if ('error' in answer) {
          setFault(answer.error);
          return;
        }
        if (!('figures' in answer)) return;
        const c = canvas.current;
        const data = new ImageData(new Uint8ClampedArray(answer.pixels), answer.width, answer.height);
        c.width = answer.width;
        c.height = answer.height;
        c.getContext('2d')!.putImageData(data, 0, 0);
        c.dataset.shown = String(Number(c.dataset.shown ?? 0) + 1);
        preview.current = data;
        setSize({ w: answer.width, h: answer.height });
        setFault(null);
        if (bars.current) histogram(bars.current, data.data);
      });
  }, [pool, key]); // eslint-disable-line react-hooks/exhaustive-deps
  // 1:1 is a pixel of the picture on a pixel of the screen, also where the page's own pixels are larger
  const ratio = typeof window === 'undefined' ? 1 : window.devicePixelRatio || 1;
  const full = useMemo(() => whole ?? { width: size.w, height: size.h }, [whole, size]);
  const scale = view.zoom ? view.zoom / ratio : Math.min(room.w / full.width, room.h / full.height);
  const w = full.width * scale;
  const h = full.height * scale;
  const x = w <= room.w ? (room.w - w) / 2 : Math.min(0, Math.max(room.w - w, room.w / 2 - view.x * w));
  const y = h <= room.h ? (room.h - h) / 2 : Math.min(0, Math.max(room.h - h, room.h / 2 - view.y * h));
  const detailed = !!pool && !!whole && view.zoom > 0 && !fault && inParts;
  useEffect(() => {
    const canvas = sharp.current;
    if (!canvas || !detailed || !pool) return;
    const list = partsInView(whole, room, x, y, scale);
    const wanted = new Set(list.map((r) => `${r.x},${r.y}`));
    const n = seq.current;
    const held = parts.current;
    const cw = Math.round(room.w * ratio);
    const ch = Math.round(room.h * ratio);
    const context = canvas.getContext('2d')!;
    if (canvas.width !== cw || canvas.height !== ch) {
      canvas.width = cw;
      canvas.height = ch;
    } else context.clearRect(0, 0, cw, ch);
    context.imageSmoothingEnabled = false;
    let drawn = 0;
    pool.drop((k) => k.startsWith(`part ${slot} `) && !wanted.has(k.slice(`part ${slot} `.length)));
    for (const k of asked.current) if (!wanted.has(k) && !held.has(k)) asked.current.delete(k);
    for (const rect of list) {
      const key = `${rect.x},${rect.y}`;
      const got = held.get(key);
      if (got) {
        held.delete(key);
        held.set(key, got);
        context.drawImage(
          got,
          Math.round((x + rect.x * scale) * ratio),
          Math.round((y + rect.y * scale) * ratio),
          Math.round(rect.w * scale * ratio),
          Math.round(rect.h * scale * ratio),
        );
        drawn++;
        continue;
      }
      if (asked.current.has(key)) continue;
      asked.current.add(key);
      void pool
        .ask(`part ${slot} ${key}`, true, (id) => ({ id, part: { ...spec, width: 1500 }, at: rect, whole }))
        .then((answer) => {
          if (n !== seq.current) return;
          asked.current.delete(key);
          if ('error' in answer) {
            setFault(answer.error);
            return;
          }
          if (!('at' in answer)) return;
          const tile = document.createElement('canvas');
          tile.width = rect.w;
          tile.height = rect.h;
          tile
            .getContext('2d', { willReadFrequently: true })!
            .putImageData(new ImageData(new Uint8ClampedArray(answer.pixels), rect.w, rect.h), 0, 0);
          held.set(key, tile);
          for (const old of held.keys()) {
            if (held.size <= MOST_PARTS) break;
            held.delete(old);
          }
          setCome((i) => i + 1);
        });
    }
    canvas.dataset.drawn = String(drawn);
    canvas.dataset.missing = String(list.length - drawn);
  }, [pool, detailed, whole, room, x, y, scale, ratio, key, come]); // eslint-disable-line react-hooks/exhaustive-deps
  const read = useCallback<Reader>(
    (u, v) => {
      if (detailed && whole) {
        const px = Math.min(whole.width - 1, Math.max(0, Math.floor(u * whole.width)));
        const py = Math.min(whole.height - 1, Math.max(0, Math.floor(v * whole.height)));
        const tile = parts.current.get(`${px - (px % PART)},${py - (py % PART)}`);
        if (tile) {
          const pixels = tile
            .getContext('2d', { willReadFrequently: true })!
            .getImageData(px % PART, py % PART, 1, 1).data;
          return [pixels[0]!, pixels[1]!, pixels[2]!];
        }
      }
      const imageData = preview.current;
      if (!imageData) return null;
      const o =
        (Math.min(imageData.height - 1, Math.max(0, Math.floor(v * imageData.height))) * imageData.width +
          Math.min(imageData.width - 1, Math.max(0, Math.floor(u * imageData.width)))) *
        4;
      return [imageData.data[o]!, imageData.data[o + 1]!, imageData.data[o + 2]!];
    },
    [detailed, whole],
  );
  useEffect(() => {
    tell.current(read);
  }, [read]);
  const move = (event: PointerEvent) => {
    const r = box.current!.getBoundingClientRect();
    onAt((event.clientX - r.left - x) / w, (event.clientY - r.top - y) / h);
    if (drag.current && view.zoom)
      onView({
        ...view,
        x: Math.min(1, Math.max(0, drag.current.v.x - (event.clientX - drag.current.x) / w)),
        y: Math.min(1, Math.max(0, drag.current.v.y - (event.clientY - drag.current.y) / h)),
      });
  };
  return (
    <div
      ref={box}
      data-large
      className="absolute inset-0 overflow-hidden"
      style={{ cursor: view.zoom ? 'grab' : 'default', touchAction: 'none' }}
      onPointerDown={(event) => {
        drag.current = { x: event.clientX, y: event.clientY, v: view };
        event.currentTarget.setPointerCapture(event.pointerId);
      }}
      onPointerUp={() => {
        drag.current = null;
      }}
      onPointerMove={move}
    >
      <canvas
        ref={canvas}
        role="img"
        aria-label={name}
        className="absolute left-0 top-0 origin-top-left"
        style={{ transform: `translate(${x}px, ${y}px) scale(${w / size.w}, ${h / size.h})` }}
      />
      {detailed && <canvas ref={sharp} aria-hidden data-sharp className="absolute left-0 top-0 h-full w-full" />}
      {fault && (
        <p role="alert" className="absolute inset-0 grid place-items-center px-6 text-center">
          {fault.message} {fault.remedy}
        </p>
      )}
      <p className={`absolute top-1 bg-paper px-2 py-0.5 text-[12px] text-ink ${left ? 'left-1' : 'right-1'}`}>
        {name}
        {view.zoom > 0 && !inParts ? ', enlarged from its picture' : ''}
      </p>
      <canvas
        ref={bars}
        aria-hidden
        width={128}
        height={48}
        className={`absolute bottom-1 ${left ? 'left-1' : 'right-1'} border ${light ? 'border-[#555]' : 'border-line-strong'} bg-[#2b2b2b]`}
      />
    </div>
  );
}

function histogram(canvas: HTMLCanvasElement, pixels: Uint8ClampedArray): void {
  const valueses = [0, 1, 2].map(() => new Float64Array(128));
  const context = canvas.getContext('2d')!;
  for (let i = 0; i < pixels.length; i += 4) for (let k = 0; k < 3; k++) valueses[k]![pixels[i + k]! >> 1]!++;
  const top = Math.max(...valueses.map((a) => a.slice(1, 127).reduce((x, y) => Math.max(x, y), 1)));
  context.clearRect(0, 0, 128, 48);
  context.globalCompositeOperation = 'lighter';
  valueses.forEach((first, k) => {
    context.fillStyle = ['#a03030', '#308030', '#3050b0'][k]!;
    first.forEach((v, x) => {
      const h = Math.min(48, (46 * v) / top);
      context.fillRect(x, 48 - h, 1, h);
    });
  });
  context.globalCompositeOperation = 'source-over';
}
