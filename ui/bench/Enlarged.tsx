'use client';
/** One to four cells large, side by side or under a wipe, with linked zoom and pan, histogram and readout. Holding shows the frame without a look. */
import { X } from 'lucide-react';
import { useEffect, useRef, useState, type PointerEvent } from 'react';
import { labOfSrgb } from '@/core/color/lab';
import type { CellSpec } from '@/workers/bench.worker';
import type { CellFault, Pool } from './pool';

interface Shown { spec: CellSpec; name: string }
interface Props { pool: Pool | null; title: string; shown: Shown[]; surround: 0 | 1 | 2; onSurround: (s: 0 | 1 | 2) => void; onClose: () => void }
interface View { zoom: number; x: number; y: number }
interface Picture { width: number; height: number; data: Uint8ClampedArray }

export const grays = ['#d6d6d6', '#777777', '#1f1f1f'] as const;
const grayWords = ['light', 'middle', 'dark'];

export function Enlarged({ pool, title, shown, surround, onSurround, onClose }: Props) {
  const [view, setView] = useState<View>({ zoom: 0, x: 0.5, y: 0.5 }), [wipe, setWipe] = useState(false), [split, setSplit] = useState(50), [original, setOriginal] = useState(false), [readout, setReadout] = useState<{ name: string; rgb: number[] }[] | null>(null), frame = useRef<HTMLDivElement>(null), pictures = useRef(new Map<number, Picture>());
  useEffect(() => { frame.current?.focus(); }, []);
  const zoomWords = view.zoom === 0 ? 'whole' : `${view.zoom}:1`;
  const at = (x: number, y: number) => setReadout(shown.map((s, i) => { const p = pictures.current.get(i); if (!p) return { name: s.name, rgb: [] }; const px = Math.max(0, Math.min(p.width - 1, Math.floor(x * p.width))), py = Math.max(0, Math.min(p.height - 1, Math.floor(y * p.height))), o = (py * p.width + px) * 4; return { name: s.name, rgb: [p.data[o]!, p.data[o + 1]!, p.data[o + 2]!] }; }));
  const both = wipe && shown.length === 2;
  return (
    <div ref={frame} role="dialog" aria-modal="true" aria-label={title} tabIndex={-1} className="fixed inset-0 z-40 flex flex-col outline-none" style={{ background: grays[surround] }}
      onKeyDown={(e) => { if (e.key === 'Escape') { e.preventDefault(); onClose(); } else if (e.key === ' ' && (e.target as HTMLElement).tagName !== 'BUTTON') { e.preventDefault(); setOriginal(true); } else if (e.key === '1') setView({ ...view, zoom: 1 }); else if (e.key === '0') setView({ zoom: 0, x: 0.5, y: 0.5 }); else if (e.key === 'w' && shown.length === 2) setWipe(!wipe); else if (e.key.startsWith('Arrow') && view.zoom && (e.target as HTMLElement).tagName !== 'INPUT') { e.preventDefault(); const d = 0.05; setView({ ...view, x: view.x + (e.key === 'ArrowRight' ? d : e.key === 'ArrowLeft' ? -d : 0), y: view.y + (e.key === 'ArrowDown' ? d : e.key === 'ArrowUp' ? -d : 0) }); } }} onKeyUp={(e) => { if (e.key === ' ') setOriginal(false); }}>
      <div className="flex flex-wrap items-center gap-2 border-b border-line bg-sheet px-4 py-2">
        <h2 className="mr-2 text-[17px]">{title}</h2>
        <span className="inline-flex" role="group" aria-label="Zoom">{[0, 1, 2].map((z) => <button key={z} className={`chip ${z === 0 ? '!rounded-r-none' : z === 1 ? '!rounded-none !border-x-0' : '!rounded-l-none'}`} aria-pressed={view.zoom === z} onClick={() => setView(z ? { ...view, zoom: z } : { zoom: 0, x: 0.5, y: 0.5 })}>{z ? `${z}:1` : 'whole'}</button>)}</span>
        {shown.length === 2 && <button className="chip" aria-pressed={wipe} onClick={() => setWipe(!wipe)}>Wipe</button>}
        {both && <label className="flex items-center gap-2 text-[12px] text-soft">edge<input type="range" min={0} max={100} value={split} onChange={(e) => setSplit(Number(e.target.value))} aria-label="Edge of the wipe" className="accent-[var(--verd)]" /></label>}
        <button className="chip" aria-pressed={original} onPointerDown={() => setOriginal(true)} onPointerUp={() => setOriginal(false)} onPointerLeave={() => setOriginal(false)} onKeyDown={(e) => { if (e.key === ' ' || e.key === 'Enter') setOriginal(true); }} onKeyUp={() => setOriginal(false)}>Hold for the original</button>
        <span className="inline-flex items-center gap-1 text-[12px] text-soft" role="group" aria-label="Surround">{grays.map((g, i) => <button key={g} aria-label={`${grayWords[i]} surround`} aria-pressed={surround === i} className={`h-[22px] w-[22px] border ${surround === i ? 'outline outline-2 outline-verd' : 'border-line-strong'}`} style={{ background: g }} onClick={() => onSurround(i as 0 | 1 | 2)} />)}</span>
        <p className="min-w-0 flex-1 truncate text-right text-[12px] text-soft" aria-live="off">{readout ? readout.map((r) => (r.rgb.length ? `${r.name}: ${r.rgb.join(' ')}, ${labWords(r.rgb)}${r.rgb.some((v) => v === 255 || v === 0) ? ', clipped' : ''}` : '')).filter(Boolean).join('   ') : `${zoomWords}. The pointer reads values.`}</p>
        <button className="button" onClick={onClose}><X aria-hidden size={14} />Close</button>
      </div>
      <div className={`grid min-h-0 flex-1 gap-2 p-3 ${shown.length > 2 ? 'grid-cols-2 grid-rows-2' : ''}`} style={shown.length === 2 && !both ? { gridTemplateColumns: '1fr 1fr' } : undefined}>
        {shown.map((s, i) => <div key={i} className="relative min-h-0 min-w-0" style={both ? { gridArea: '1 / 1', clipPath: i === 1 ? `inset(0 0 0 ${split}%)` : undefined, pointerEvents: i === 1 ? 'none' : undefined } : undefined}>
          <Large pool={pool} spec={original ? { ...s.spec, stack: [], trim: null, range: null, profile: s.spec.camera ? 'plain' : s.spec.profile, stages: null, anchor: null } : s.spec} name={s.name} view={view} onView={setView} onAt={at} onPicture={(p) => pictures.current.set(i, p)} light={surround === 2} left={both ? i === 0 : true} />
        </div>)}
      </div>
    </div>
  );
}

function labWords([r, g, b]: number[]): string { const l = new Float64Array(3); labOfSrgb(r! / 255, g! / 255, b! / 255, l); return `L* ${l[0]!.toFixed(0)} a* ${l[1]!.toFixed(0)} b* ${l[2]!.toFixed(0)}`; }

function Large({ pool, spec, name, view, onView, onAt, onPicture, light, left }: { pool: Pool | null; spec: CellSpec; name: string; view: View; onView: (v: View) => void; onAt: (x: number, y: number) => void; onPicture: (p: Picture) => void; light: boolean; left: boolean }) {
  const canvas = useRef<HTMLCanvasElement>(null), bars = useRef<HTMLCanvasElement>(null), box = useRef<HTMLDivElement>(null), drag = useRef<{ x: number; y: number; v: View } | null>(null), seq = useRef(0), told = useRef(onPicture), [fault, setFault] = useState<CellFault | null>(null), [size, setSize] = useState({ w: 1, h: 1 }), [room, setRoom] = useState({ w: 1, h: 1 });
  useEffect(() => { told.current = onPicture; });
  useEffect(() => { const o = new ResizeObserver(([e]) => { if (e) setRoom({ w: e.contentRect.width, h: e.contentRect.height }); }); if (box.current) o.observe(box.current); return () => o.disconnect(); }, []);
  const key = JSON.stringify(spec);
  useEffect(() => {
    if (!pool) return;
    const n = ++seq.current;
    void pool.ask(`large ${name}`, true, (id) => ({ id, cell: { ...spec, width: 1500 }, against: null })).then((a) => {
      if (n !== seq.current || !canvas.current) return;
      if ('error' in a) { setFault(a.error); return; }
      if (!('pixels' in a)) return;
      const c = canvas.current, data = new Uint8ClampedArray(a.pixels);
      c.width = a.width; c.height = a.height;
      c.getContext('2d')!.putImageData(new ImageData(data, a.width, a.height), 0, 0);
      c.dataset.shown = String(Number(c.dataset.shown ?? 0) + 1);
      setSize({ w: a.width, h: a.height }); setFault(null);
      told.current({ width: a.width, height: a.height, data });
      if (bars.current) histogram(bars.current, data);
    });
  }, [pool, key]); // eslint-disable-line react-hooks/exhaustive-deps
  const fit = Math.min(room.w / size.w, room.h / size.h), k = view.zoom || fit, w = size.w * k, h = size.h * k;
  const x = w <= room.w ? (room.w - w) / 2 : Math.min(0, Math.max(room.w - w, room.w / 2 - view.x * w)), y = h <= room.h ? (room.h - h) / 2 : Math.min(0, Math.max(room.h - h, room.h / 2 - view.y * h));
  const move = (e: PointerEvent) => {
    const r = canvas.current!.getBoundingClientRect();
    onAt((e.clientX - r.left) / r.width, (e.clientY - r.top) / r.height);
    if (drag.current && view.zoom) onView({ ...view, x: Math.min(1, Math.max(0, drag.current.v.x - (e.clientX - drag.current.x) / w)), y: Math.min(1, Math.max(0, drag.current.v.y - (e.clientY - drag.current.y) / h)) });
  };
  return (
    <div ref={box} className="absolute inset-0 overflow-hidden" style={{ cursor: view.zoom ? 'grab' : 'default', touchAction: 'none' }} onPointerDown={(e) => { drag.current = { x: e.clientX, y: e.clientY, v: view }; e.currentTarget.setPointerCapture(e.pointerId); }} onPointerUp={() => { drag.current = null; }} onPointerMove={move}>
      <canvas ref={canvas} role="img" aria-label={name} className="absolute left-0 top-0 origin-top-left" style={{ transform: `translate(${x}px, ${y}px) scale(${k})`, imageRendering: view.zoom > 1 ? 'pixelated' : 'auto' }} />
      {fault && <p role="alert" className="absolute inset-0 grid place-items-center px-6 text-center">{fault.message} {fault.remedy}</p>}
      <p className={`absolute top-1 bg-paper px-2 py-0.5 text-[12px] text-ink ${left ? 'left-1' : 'right-1'}`}>{name}</p>
      <canvas ref={bars} aria-hidden width={128} height={48} className={`absolute bottom-1 ${left ? 'left-1' : 'right-1'} border ${light ? 'border-[#555]' : 'border-line-strong'} bg-[#2b2b2b]`} />
    </div>
  );
}

function histogram(c: HTMLCanvasElement, p: Uint8ClampedArray): void {
  const n = [0, 1, 2].map(() => new Float64Array(128)), g = c.getContext('2d')!;
  for (let i = 0; i < p.length; i += 4) for (let k = 0; k < 3; k++) n[k]![p[i + k]! >> 1]!++;
  const top = Math.max(...n.map((a) => a.slice(1, 127).reduce((x, y) => Math.max(x, y), 1)));
  g.clearRect(0, 0, 128, 48);
  g.globalCompositeOperation = 'lighter';
  n.forEach((a, k) => { g.fillStyle = ['#a03030', '#308030', '#3050b0'][k]!; a.forEach((v, x) => { const h = Math.min(48, (46 * v) / top); g.fillRect(x, 48 - h, 1, h); }); });
  g.globalCompositeOperation = 'source-over';
}
