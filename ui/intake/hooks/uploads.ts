'use client';
/** Files on their way to the server: in parts, several at a time, tried again where the connection breaks, and going on after a reload. */
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { call, CallError, OFFLINE, problemOf, type ProblemText, send } from '../../kit/call';
import { groupBy } from '@/core/lists';
import type { Dropped } from '../../kit/collect';

const PART_BYTES = 4 << 20;
const AT_ONCE = 3;
const TRIES = 6;

export interface Upload {
  id: string;
  path: string;
  size: number;
  received: number;
}
export interface Arriving {
  arrival: string;
  name: string;
  uploads: readonly Upload[];
  /** files at hand in this page; none after a reload */ files: ReadonlyMap<string, File> | null;
  problem: ProblemText | null;
}
/** What did not come to its end before the page was loaded. */
export interface Waiting extends Upload {
  arrival: string;
  name: string;
}

const resumed = (waiting: readonly Waiting[]): Arriving[] =>
  [...groupBy(waiting, (one) => one.arrival)].map(([arrival, uploads]) => ({
    arrival,
    name: uploads[0]?.name ?? '',
    uploads,
    files: null,
    problem: null,
  }));

/** Whether these files are the ones that an interrupted arrival waits for. */
export const goesOn = (arriving: Arriving, files: ReadonlyMap<string, File>): boolean =>
  (!arriving.files || arriving.problem !== null) &&
  arriving.uploads.length > 0 &&
  arriving.uploads.every((upload) => files.get(upload.path)?.size === upload.size);

/** Sends a part; says how much of the file is there then. Throws a CallError where it is refused. */
async function sendPart(upload: Upload, file: File, offset: number): Promise<number> {
  const part = file.slice(offset, offset + PART_BYTES);
  const { received } = await send('PUT /api/uploads/:id', part, { id: upload.id, query: { offset: String(offset) } });
  return received;
}

async function sendFile(upload: Upload, file: File, onReceived: (received: number) => void): Promise<void> {
  let { received } = upload;
  let tries = 0;
  while (received < file.size) {
    try {
      received = await sendPart(upload, file, received);
      tries = 0;
    } catch (error) {
      // a broken connection is tried again, a refusal is not
      const isRefusal = error instanceof CallError && error.problem.code !== OFFLINE;
      if (isRefusal || ++tries > TRIES) throw error;
      await new Promise((done) => setTimeout(done, 400 * 2 ** tries));
    }
    onReceived(received);
  }
  await call('POST /api/uploads/:id', { id: upload.id });
}

export interface Uploads {
  arriving: readonly Arriving[];
  take: (dropped: readonly Dropped[]) => Promise<void>;
  retry: (arriving: Arriving) => void;
  cancel: (arriving: Arriving) => Promise<void>;
}

export function useUploads(waiting: readonly Waiting[]): Uploads {
  const router = useRouter();
  const [all, setAll] = useState<readonly Arriving[]>(() => resumed(waiting));
  const change = (arrival: string, by: (arriving: Arriving) => Arriving) =>
    setAll((list) => list.map((one) => (one.arrival === arrival ? by(one) : one)));
  const forget = (arrival: string) => setAll((list) => list.filter((one) => one.arrival !== arrival));

  const run = async (arriving: Arriving, files: ReadonlyMap<string, File>): Promise<void> => {
    const { arrival } = arriving;
    change(arrival, (one) => ({ ...one, files, problem: null }));
    const queue = arriving.uploads.filter((upload) => files.has(upload.path));
    const sendNext = async () => {
      for (let upload = queue.shift(); upload; upload = queue.shift()) {
        const { id, path } = upload;
        const file = files.get(path);
        if (!file) continue;
        await sendFile(upload, file, (received) =>
          change(arrival, (one) => ({
            ...one,
            uploads: one.uploads.map((other) => (other.id === id ? { ...other, received } : other)),
          })),
        );
      }
    };
    try {
      await Promise.all(Array.from({ length: AT_ONCE }, sendNext));
      forget(arrival);
      if (document.querySelectorAll('[data-upload]').length <= 1) router.push(`/intake/${arrival}`);
      else router.refresh();
    } catch (error) {
      queue.length = 0;
      change(arrival, (one) => ({ ...one, problem: problemOf(error) }));
    }
  };

  const begin = async ({ name, files: list }: Dropped): Promise<void> => {
    const files = new Map(list.map(({ path, file }) => [path, file]));
    // the same files again continue what a reload interrupted
    const open = all.find((one) => goesOn(one, files));
    if (open) {
      void run(open, files);
      return;
    }
    try {
      const announced = list.map(({ path, file }) => ({ path, size: file.size }));
      const made = await call('POST /api/uploads', { body: { name, files: announced } });
      const arriving: Arriving = { arrival: made.arrival, name, uploads: made.files, files, problem: null };
      setAll((before) => [...before, arriving]);
      // the server may have cleaned a path: files are matched by their order
      const cleaned = made.files.flatMap(({ path }, i): [string, File][] => {
        const file = list[i]?.file;
        return file ? [[path, file]] : [];
      });
      void run(arriving, new Map(cleaned));
    } catch (error) {
      setAll((before) => [
        ...before,
        { arrival: `bad-${name}-${before.length}`, name, uploads: [], files, problem: problemOf(error) },
      ]);
    }
  };

  return {
    arriving: all,
    take: async (all) => {
      for (const dropped of all) await begin(dropped);
    },
    retry: (arriving) => {
      if (arriving.files) void run(arriving, arriving.files);
    },
    cancel: async (arriving) => {
      if (arriving.uploads.length) await call('DELETE /api/arrivals/:id', { id: arriving.arrival }).catch(() => {});
      forget(arriving.arrival);
    },
  };
}
