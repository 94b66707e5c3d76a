'use client';
/** Drop files, folders and ZIPs here: they are sent in parts, go on after a reload from where they stood, and become arrivals. */
import { Inbox } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState, type DragEvent } from 'react';
import { call, problemOf, type ProblemText } from '../kit/call';
import { groupBy } from '../kit/group';
import { Notice } from '../kit/Notice';
import { fromDrop, fromInput, type Delivery } from './collect';

const PART = 4 << 20;
const AT_ONCE = 3;
interface Part {
  id: string;
  path: string;
  size: number;
  received: number;
}
interface Arriving {
  intake: string;
  name: string;
  parts: Part[];
  /** files at hand in this page; none after a reload */ files: Map<string, File> | null;
  problem: ProblemText | null;
}

const sum = (a: Arriving, of: (p: Part) => number): number => a.parts.reduce((n, p) => n + of(p), 0);

export function DropZone({
  waiting,
}: {
  waiting: { id: string; intake: string; name: string; path: string; size: number; received: number }[];
}) {
  const router = useRouter();
  const input = useRef<HTMLInputElement>(null);
  const folder = useRef<HTMLInputElement>(null);
  const [over, setOver] = useState(false);
  const [arrivals, setArrivals] = useState<Arriving[]>(() =>
    [...groupBy(waiting, (w) => w.intake)].map(([intake, parts]) => ({
      intake,
      name: parts[0]!.name,
      parts,
      files: null,
      problem: null,
    })),
  );
  const change = (intake: string, by: (a: Arriving) => Arriving) =>
    setArrivals((all) => all.map((a) => (a.intake === intake ? by(a) : a)));

  const send = async (a: Arriving, part: Part, file: File): Promise<void> => {
    let received = part.received;
    for (let tries = 0; received < file.size;) {
      try {
        const r = await fetch(`/api/uploads/${part.id}?offset=${received}`, {
          method: 'PUT',
          body: file.slice(received, received + PART),
        });
        if (!r.ok)
          throw Object.assign(new Error('refused'), { problem: ((await r.json()) as { error: ProblemText }).error });
        received = ((await r.json()) as { received: number }).received;
        tries = 0;
      } catch (e) {
        // a broken connection is tried again, a refusal is not
        if ((e as { problem?: ProblemText }).problem || ++tries > 6) throw e;
        await new Promise((done) => setTimeout(done, 400 * 2 ** tries));
      }
      change(a.intake, (x) => ({ ...x, parts: x.parts.map((p) => (p.id === part.id ? { ...p, received } : p)) }));
    }
    await call(`/api/uploads/${part.id}`, 'POST');
  };

  const run = async (a: Arriving, files: Map<string, File>): Promise<void> => {
    change(a.intake, (x) => ({ ...x, files, problem: null }));
    const queue = a.parts.filter((p) => files.has(p.path));
    try {
      await Promise.all(
        Array.from({ length: AT_ONCE }, async () => {
          for (let p = queue.shift(); p; p = queue.shift()) await send(a, p, files.get(p.path)!);
        }),
      );
      setArrivals((all) => all.filter((x) => x.intake !== a.intake));
      if (document.querySelectorAll('[data-upload]').length <= 1) router.push(`/intake/${a.intake}`);
      else router.refresh();
    } catch (e) {
      queue.length = 0;
      change(a.intake, (x) => ({ ...x, problem: (e as { problem?: ProblemText }).problem ?? problemOf(e) }));
    }
  };

  const take = async (deliveries: Delivery[]) => {
    for (const d of deliveries) {
      const files = new Map(d.files.map((f) => [f.path, f.file]));
      // the same files again continue what a reload interrupted
      const open = arrivals.find(
        (a) =>
          (!a.files || a.problem) && a.parts.length > 0 && a.parts.every((p) => files.get(p.path)?.size === p.size),
      );
      if (open) {
        void run(open, files);
        continue;
      }
      try {
        const made = await call<{ intake: string; files: Part[] }>('/api/uploads', 'POST', {
          name: d.name,
          files: d.files.map((f) => ({ path: f.path, size: f.file.size })),
        });
        const a: Arriving = { intake: made.intake, name: d.name, parts: made.files, files, problem: null };
        setArrivals((all) => [...all, a]);
        // the server may have cleaned a path: files are matched by their order
        void run(a, new Map(made.files.map((p, i) => [p.path, d.files[i]!.file])));
      } catch (e) {
        setArrivals((all) => [
          ...all,
          { intake: `bad-${d.name}-${all.length}`, name: d.name, parts: [], files, problem: problemOf(e) },
        ]);
      }
    }
  };
  const drop = async (a: Arriving) => {
    if (a.parts.length) await call(`/api/intakes/${a.intake}`, 'DELETE').catch(() => {});
    setArrivals((all) => all.filter((x) => x.intake !== a.intake));
  };
  const onDrop = (e: DragEvent) => {
    e.preventDefault();
    setOver(false);
    void fromDrop(e.dataTransfer.items, e.dataTransfer.files).then(take);
  };

  useEffect(() => {
    // a file that misses the zone must not replace the page
    const stop = (e: globalThis.DragEvent) => e.preventDefault();
    window.addEventListener('dragover', stop);
    window.addEventListener('drop', stop);
    return () => {
      window.removeEventListener('dragover', stop);
      window.removeEventListener('drop', stop);
    };
  }, []);

  return (
    <>
      <div
        onDragOver={(e) => {
          e.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={onDrop}
        className={`flex items-center gap-5 border border-dashed px-6 py-6 ${over ? 'border-verd bg-verd-wash' : 'border-line-strong bg-sheet'}`}
      >
        <Inbox aria-hidden size={26} strokeWidth={1.4} className="text-soft" />
        <div>
          <p className="font-serif text-[17px]">Drop a delivery here</p>
          <p className="text-soft">
            A zip, a folder with its folders, or single files. Nothing is kept before you accept it.
          </p>
        </div>
        <button className="button ml-auto" onClick={() => folder.current?.click()}>
          Choose a folder
        </button>
        <button className="button" onClick={() => input.current?.click()}>
          Choose files
        </button>
        <input
          ref={input}
          type="file"
          multiple
          className="sr-only"
          aria-label="Files to take in"
          tabIndex={-1}
          onChange={(e) => {
            void take(fromInput(e.target.files!));
            e.target.value = '';
          }}
        />
        <input
          ref={(x) => {
            folder.current = x;
            x?.setAttribute('webkitdirectory', '');
          }}
          type="file"
          multiple
          className="sr-only"
          aria-label="Folder to take in"
          tabIndex={-1}
          onChange={(e) => {
            void take(fromInput(e.target.files!));
            e.target.value = '';
          }}
        />
      </div>
      {arrivals.length > 0 && (
        <ul className="mt-3" aria-label="Uploads">
          {arrivals.map((a) => {
            const size = sum(a, (p) => p.size);
            const received = sum(a, (p) => p.received);
            const share = size ? Math.round((100 * received) / size) : 0;
            return (
              <li key={a.intake} data-upload={a.intake} className="border-b border-line py-2.5">
                <div className="flex items-center gap-3">
                  <span className="min-w-0 truncate font-medium">{a.name}</span>
                  {a.parts.length > 1 && (
                    <span className="whitespace-nowrap text-soft">
                      {a.parts.filter((p) => p.received === p.size).length} of {a.parts.length} files
                    </span>
                  )}
                  <span className="ml-auto whitespace-nowrap text-soft">
                    {(received / 1e6).toFixed(1)} of {(size / 1e6).toFixed(1)} MB
                  </span>
                  <button className="button quiet" onClick={() => void drop(a)}>
                    Drop it
                  </button>
                </div>
                <div
                  role="progressbar"
                  aria-label={`Upload of ${a.name}`}
                  aria-valuenow={share}
                  aria-valuemin={0}
                  aria-valuemax={100}
                  className="mt-1 h-[3px] bg-line"
                >
                  <div className="h-full bg-verd" style={{ width: `${share}%` }} />
                </div>
                {!a.files && !a.problem && (
                  <p className="mt-1 text-ochre">
                    Interrupted at {share} %. Choose or drop the same {a.parts.length > 1 ? 'files' : 'file'} again, and
                    it goes on from there.
                  </p>
                )}
                {a.problem && a.files && a.parts.length > 0 && (
                  <button className="button mt-2" onClick={() => void run(a, a.files!)}>
                    Try again from there
                  </button>
                )}
                <Notice problem={a.problem} className="mt-2" />
              </li>
            );
          })}
        </ul>
      )}
    </>
  );
}
