'use client';
/** Drop files here: each is sent in parts, goes on after a reload from where it stood, and becomes an arrival. */
import { Inbox } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState, type DragEvent } from 'react';
import { call, problemOf, type ProblemText } from '../kit/call';
import { Notice } from '../kit/Notice';

const PART = 4 << 20;
interface Upload { id: string; name: string; size: number; received: number; file: File | null; problem: ProblemText | null }

export function DropZone({ waiting }: { waiting: { id: string; name: string; size: number; received: number }[] }) {
  const router = useRouter(), input = useRef<HTMLInputElement>(null), [over, setOver] = useState(false);
  const [uploads, setUploads] = useState<Upload[]>(waiting.map((u) => ({ ...u, file: null, problem: null })));
  const change = (id: string, by: Partial<Upload>) => setUploads((all) => all.map((u) => (u.id === id ? { ...u, ...by } : u)));

  const send = async (u: Upload, file: File) => {
    change(u.id, { file, problem: null });
    try {
      let { received } = await call<{ received: number }>(`/api/uploads/${u.id}`);
      for (let tries = 0; received < file.size; ) {
        try {
          const r = await fetch(`/api/uploads/${u.id}?offset=${received}`, { method: 'PUT', body: file.slice(received, received + PART) });
          if (!r.ok) throw Object.assign(new Error('refused'), { problem: ((await r.json()) as { error: ProblemText }).error });
          received = ((await r.json()) as { received: number }).received;
          tries = 0;
        } catch (e) { // a broken connection is tried again, a refusal is not
          if ((e as { problem?: ProblemText }).problem || ++tries > 6) throw e;
          await new Promise((done) => setTimeout(done, 400 * 2 ** tries));
        }
        change(u.id, { received });
      }
      const { intake } = await call<{ intake: string }>(`/api/uploads/${u.id}`, 'POST');
      setUploads((all) => all.filter((x) => x.id !== u.id));
      if (document.querySelectorAll('[data-upload]').length <= 1) router.push(`/intake/${intake}`); else router.refresh();
    } catch (e) { change(u.id, { problem: (e as { problem?: ProblemText }).problem ?? problemOf(e) }); }
  };

  const take = async (files: File[]) => {
    for (const file of files) {
      // the same file again continues what a reload interrupted
      const open = uploads.find((u) => !u.file && u.name === file.name && u.size === file.size);
      if (open) { void send(open, file); continue; }
      try {
        const { id } = await call<{ id: string }>('/api/uploads', 'POST', { name: file.name, size: file.size }), u: Upload = { id, name: file.name, size: file.size, received: 0, file, problem: null };
        setUploads((all) => [...all, u]);
        void send(u, file);
      } catch (e) { setUploads((all) => [...all, { id: `bad-${file.name}`, name: file.name, size: file.size, received: 0, file: null, problem: problemOf(e) }]); }
    }
  };
  const drop = async (u: Upload) => { await call(`/api/uploads/${u.id}`, 'DELETE').catch(() => {}); setUploads((all) => all.filter((x) => x.id !== u.id)); };
  const onDrop = (e: DragEvent) => { e.preventDefault(); setOver(false); void take([...e.dataTransfer.files]); };

  useEffect(() => { // a file that misses the zone must not replace the page
    const stop = (e: globalThis.DragEvent) => e.preventDefault();
    window.addEventListener('dragover', stop); window.addEventListener('drop', stop);
    return () => { window.removeEventListener('dragover', stop); window.removeEventListener('drop', stop); };
  }, []);

  return (
    <>
      <div onDragOver={(e) => { e.preventDefault(); setOver(true); }} onDragLeave={() => setOver(false)} onDrop={onDrop} className={`flex items-center gap-5 border border-dashed px-6 py-6 ${over ? 'border-verd bg-verd-wash' : 'border-line-strong bg-sheet'}`}>
        <Inbox aria-hidden size={26} strokeWidth={1.4} className="text-soft" />
        <div><p className="font-serif text-[17px]">Drop a delivery here</p><p className="text-soft">A zip with folders in folders, or single files. Nothing is kept before you accept it.</p></div>
        <button className="button ml-auto" onClick={() => input.current?.click()}>Choose files</button>
        <input ref={input} type="file" multiple className="sr-only" aria-label="Files to take in" tabIndex={-1} onChange={(e) => { void take([...(e.target.files ?? [])]); e.target.value = ''; }} />
      </div>
      {uploads.length > 0 && (
        <ul className="mt-3" aria-label="Uploads">
          {uploads.map((u) => (
            <li key={u.id} data-upload={u.id} className="border-b border-line py-2.5">
              <div className="flex items-center gap-3"><span className="min-w-0 truncate font-medium">{u.name}</span><span className="ml-auto whitespace-nowrap text-soft">{(u.received / 1e6).toFixed(1)} of {(u.size / 1e6).toFixed(1)} MB</span><button className="button quiet" onClick={() => void drop(u)}>Drop it</button></div>
              <div role="progressbar" aria-label={`Upload of ${u.name}`} aria-valuenow={Math.round((100 * u.received) / u.size)} aria-valuemin={0} aria-valuemax={100} className="mt-1 h-[3px] bg-line"><div className="h-full bg-verd" style={{ width: `${(100 * u.received) / u.size}%` }} /></div>
              {!u.file && !u.problem && <p className="mt-1 text-ochre">Interrupted at {Math.round((100 * u.received) / u.size)} %. Choose or drop the same file again, and it goes on from there.</p>}
              <Notice problem={u.problem} className="mt-2" />
            </li>
          ))}
        </ul>
      )}
    </>
  );
}
