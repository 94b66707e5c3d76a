'use client';
/** One cell, large: as a whole, or at 1:1 and 2:1 in parts that are developed as they come into view. */
import { useCallback, useEffect, useMemo, useRef, useState, type PointerEvent } from 'react';
import type { CellSpec } from '@/workers/bench.worker';
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
    const o = new ResizeObserver(([e]) => {
      if (e) setRoom({ w: e.contentRect.width, h: e.contentRect.height });
    });
    if (box.current) o.observe(box.current);
    return () => o.disconnect();
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
      .then((a) => {
        if (n !== seq.current || !canvas.current) return;
        if ('error' in a) {
          setFault(a.error);
          return;
        }
        if (!('figures' in a)) return;
        const c = canvas.current;
        const data = new ImageData(new Uint8ClampedArray(a.pixels), a.width, a.height);
        c.width = a.width;
        c.height = a.height;
        c.getContext('2d')!.putImageData(data, 0, 0);
        c.dataset.shown = String(Number(c.dataset.shown ?? 0) + 1);
        preview.current = data;
        setSize({ w: a.width, h: a.height });
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
    const c = sharp.current;
    if (!c || !detailed || !pool) return;
    const list = partsInView(whole, room, x, y, scale);
    const wanted = new Set(list.map((r) => `${r.x},${r.y}`));
    const n = seq.current;
    const held = parts.current;
    const cw = Math.round(room.w * ratio);
    const ch = Math.round(room.h * ratio);
    const g = c.getContext('2d')!;
    if (c.width !== cw || c.height !== ch) {
      c.width = cw;
      c.height = ch;
    } else g.clearRect(0, 0, cw, ch);
    g.imageSmoothingEnabled = false;
    let drawn = 0;
    pool.drop((k) => k.startsWith(`part ${slot} `) && !wanted.has(k.slice(`part ${slot} `.length)));
    for (const k of asked.current) if (!wanted.has(k) && !held.has(k)) asked.current.delete(k);
    for (const r of list) {
      const k = `${r.x},${r.y}`;
      const got = held.get(k);
      if (got) {
        held.delete(k);
        held.set(k, got);
        g.drawImage(
          got,
          Math.round((x + r.x * scale) * ratio),
          Math.round((y + r.y * scale) * ratio),
          Math.round(r.w * scale * ratio),
          Math.round(r.h * scale * ratio),
        );
        drawn++;
        continue;
      }
      if (asked.current.has(k)) continue;
      asked.current.add(k);
      void pool
        .ask(`part ${slot} ${k}`, true, (id) => ({ id, part: { ...spec, width: 1500 }, at: r, whole }))
        .then((a) => {
          if (n !== seq.current) return;
          asked.current.delete(k);
          if ('error' in a) {
            setFault(a.error);
            return;
          }
          if (!('at' in a)) return;
          const tile = document.createElement('canvas');
          tile.width = r.w;
          tile.height = r.h;
          tile
            .getContext('2d', { willReadFrequently: true })!
            .putImageData(new ImageData(new Uint8ClampedArray(a.pixels), r.w, r.h), 0, 0);
          held.set(k, tile);
          for (const old of held.keys()) {
            if (held.size <= MOST_PARTS) break;
            held.delete(old);
          }
          setCome((i) => i + 1);
        });
    }
    c.dataset.drawn = String(drawn);
    c.dataset.missing = String(list.length - drawn);
  }, [pool, detailed, whole, room, x, y, scale, ratio, key, come]); // eslint-disable-line react-hooks/exhaustive-deps
  const read = useCallback<Reader>(
    (u, v) => {
      if (detailed && whole) {
        const px = Math.min(whole.width - 1, Math.max(0, Math.floor(u * whole.width)));
        const py = Math.min(whole.height - 1, Math.max(0, Math.floor(v * whole.height)));
        const tile = parts.current.get(`${px - (px % PART)},${py - (py % PART)}`);
        if (tile) {
          const d = tile.getContext('2d', { willReadFrequently: true })!.getImageData(px % PART, py % PART, 1, 1).data;
          return [d[0]!, d[1]!, d[2]!];
        }
      }
      const p = preview.current;
      if (!p) return null;
      const o =
        (Math.min(p.height - 1, Math.max(0, Math.floor(v * p.height))) * p.width +
          Math.min(p.width - 1, Math.max(0, Math.floor(u * p.width)))) *
        4;
      return [p.data[o]!, p.data[o + 1]!, p.data[o + 2]!];
    },
    [detailed, whole],
  );
  useEffect(() => {
    tell.current(read);
  }, [read]);
  const move = (e: PointerEvent) => {
    const r = box.current!.getBoundingClientRect();
    onAt((e.clientX - r.left - x) / w, (e.clientY - r.top - y) / h);
    if (drag.current && view.zoom)
      onView({
        ...view,
        x: Math.min(1, Math.max(0, drag.current.v.x - (e.clientX - drag.current.x) / w)),
        y: Math.min(1, Math.max(0, drag.current.v.y - (e.clientY - drag.current.y) / h)),
      });
  };
  return (
    <div
      ref={box}
      data-large
      className="absolute inset-0 overflow-hidden"
      style={{ cursor: view.zoom ? 'grab' : 'default', touchAction: 'none' }}
      onPointerDown={(e) => {
        drag.current = { x: e.clientX, y: e.clientY, v: view };
        e.currentTarget.setPointerCapture(e.pointerId);
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

function histogram(c: HTMLCanvasElement, p: Uint8ClampedArray): void {
  const n = [0, 1, 2].map(() => new Float64Array(128));
  const g = c.getContext('2d')!;
  for (let i = 0; i < p.length; i += 4) for (let k = 0; k < 3; k++) n[k]![p[i + k]! >> 1]!++;
  const top = Math.max(...n.map((a) => a.slice(1, 127).reduce((x, y) => Math.max(x, y), 1)));
  g.clearRect(0, 0, 128, 48);
  g.globalCompositeOperation = 'lighter';
  n.forEach((a, k) => {
    g.fillStyle = ['#a03030', '#308030', '#3050b0'][k]!;
    a.forEach((v, x) => {
      const h = Math.min(48, (46 * v) / top);
      g.fillRect(x, 48 - h, 1, h);
    });
  });
  g.globalCompositeOperation = 'source-over';
}
