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

  const send = async (arriving: Arriving, part: Part, file: File): Promise<void> => {
    let received = part.received;
    for (let tries = 0; received < file.size;) {
      try {
        const response = await fetch(`/api/uploads/${part.id}?offset=${received}`, {
          method: 'PUT',
          body: file.slice(received, received + PART),
        });
        if (!response.ok)
          throw Object.assign(new Error('refused'), {
            problem: ((await response.json()) as { error: ProblemText }).error,
          });
        received = ((await response.json()) as { received: number }).received;
        tries = 0;
      } catch (error) {
        // a broken connection is tried again, a refusal is not
        if ((error as { problem?: ProblemText }).problem || ++tries > 6) throw error;
        await new Promise((done) => setTimeout(done, 400 * 2 ** tries));
      }
      change(arriving.intake, (x) => ({
        ...x,
        parts: x.parts.map((p) => (p.id === part.id ? { ...p, received } : p)),
      }));
    }
    await call(`/api/uploads/${part.id}`, 'POST');
  };

  const run = async (arriving: Arriving, files: Map<string, File>): Promise<void> => {
    change(arriving.intake, (x) => ({ ...x, files, problem: null }));
    const queue = arriving.parts.filter((p) => files.has(p.path));
    try {
      await Promise.all(
        Array.from({ length: AT_ONCE }, async () => {
          for (let p = queue.shift(); p; p = queue.shift()) await send(arriving, p, files.get(p.path)!);
        }),
      );
      setArrivals((all) => all.filter((x) => x.intake !== arriving.intake));
      if (document.querySelectorAll('[data-upload]').length <= 1) router.push(`/intake/${arriving.intake}`);
      else router.refresh();
    } catch (error) {
      queue.length = 0;
      change(arriving.intake, (x) => ({
        ...x,
        problem: (error as { problem?: ProblemText }).problem ?? problemOf(error),
      }));
    }
  };

  const take = async (deliveries: Delivery[]) => {
    for (const delivery of deliveries) {
      const files = new Map(delivery.files.map((f) => [f.path, f.file]));
      // the same files again continue what a reload interrupted
      const open = arrivals.find(
        (arriving) =>
          (!arriving.files || arriving.problem) &&
          arriving.parts.length > 0 &&
          arriving.parts.every((p) => files.get(p.path)?.size === p.size),
      );
      if (open) {
        void run(open, files);
        continue;
      }
      try {
        const made = await call<{ intake: string; files: Part[] }>('/api/uploads', 'POST', {
          name: delivery.name,
          files: delivery.files.map((f) => ({ path: f.path, size: f.file.size })),
        });
        const arriving: Arriving = {
          intake: made.intake,
          name: delivery.name,
          parts: made.files,
          files,
          problem: null,
        };
        setArrivals((all) => [...all, arriving]);
        // the server may have cleaned a path: files are matched by their order
        void run(arriving, new Map(made.files.map((p, i) => [p.path, delivery.files[i]!.file])));
      } catch (error) {
        setArrivals((all) => [
          ...all,
          {
            intake: `bad-${delivery.name}-${all.length}`,
            name: delivery.name,
            parts: [],
            files,
            problem: problemOf(error),
          },
        ]);
      }
    }
  };
  const drop = async (arriving: Arriving) => {
    if (arriving.parts.length) await call(`/api/intakes/${arriving.intake}`, 'DELETE').catch(() => {});
    setArrivals((all) => all.filter((x) => x.intake !== arriving.intake));
  };
  const onDrop = (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    void fromDrop(event.dataTransfer.items, event.dataTransfer.files).then(take);
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
        onDragOver={(event) => {
          event.preventDefault();
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
          onChange={(event) => {
            void take(fromInput(event.target.files!));
            event.target.value = '';
          }}
        />
        <input
          ref={(input) => {
            folder.current = input;
            input?.setAttribute('webkitdirectory', '');
          }}
          type="file"
          multiple
          className="sr-only"
          aria-label="Folder to take in"
          tabIndex={-1}
          onChange={(event) => {
            void take(fromInput(event.target.files!));
            event.target.value = '';
          }}
        />
      </div>
      {arrivals.length > 0 && (
        <ul className="mt-3" aria-label="Uploads">
          {arrivals.map((arriving) => {
            const size = sum(arriving, (p) => p.size);
            const received = sum(arriving, (p) => p.received);
            const share = size ? Math.round((100 * received) / size) : 0;
            return (
              <li key={arriving.intake} data-upload={arriving.intake} className="border-b border-line py-2.5">
                <div className="flex items-center gap-3">
                  <span className="min-w-0 truncate font-medium">{arriving.name}</span>
                  {arriving.parts.length > 1 && (
                    <span className="whitespace-nowrap text-soft">
                      {arriving.parts.filter((p) => p.received === p.size).length} of {arriving.parts.length} files
                    </span>
                  )}
                  <span className="ml-auto whitespace-nowrap text-soft">
                    {(received / 1e6).toFixed(1)} of {(size / 1e6).toFixed(1)} MB
                  </span>
                  <button className="button quiet" onClick={() => void drop(arriving)}>
                    Drop it
                  </button>
                </div>
                <div
                  role="progressbar"
                  aria-label={`Upload of ${arriving.name}`}
                  aria-valuenow={share}
                  aria-valuemin={0}
                  aria-valuemax={100}
                  className="mt-1 h-[3px] bg-line"
                >
                  <div className="h-full bg-verd" style={{ width: `${share}%` }} />
                </div>
                {!arriving.files && !arriving.problem && (
                  <p className="mt-1 text-ochre">
                    Interrupted at {share} %. Choose or drop the same {arriving.parts.length > 1 ? 'files' : 'file'}{' '}
                    again, and it goes on from there.
                  </p>
                )}
                {arriving.problem && arriving.files && arriving.parts.length > 0 && (
                  <button className="button mt-2" onClick={() => void run(arriving, arriving.files!)}>
                    Try again from there
                  </button>
                )}
                <Notice problem={arriving.problem} className="mt-2" />
              </li>
            );
          })}
        </ul>
      )}
    </>
  );
}
