/** What photos say of their camera, read in the browser: the files stay where they are. */
import { frameFacts, type FrameFacts } from '@/core/frame/metadata';

export interface Said {
  maker: string;
  camera: string;
  unique: string;
  kind: 'camera data' | 'rendered';
  n: number;
}
export interface Read {
  said: Said[];
  /** that are no pictures, or say nothing that we read */ unread: number;
}

const HEAD = 512 << 10;
const MOST = 256 << 20;

/** The beginning of a file tells it nearly always; a directory that stands at its end needs the whole. */
async function factsOf(file: File): Promise<FrameFacts | null> {
  try {
    return frameFacts(new Uint8Array(await file.slice(0, HEAD).arrayBuffer()));
  } catch {
    /* cut off */
  }
  if (file.size <= HEAD || file.size > MOST) return null;
  try {
    return frameFacts(new Uint8Array(await file.arrayBuffer()));
  } catch {
    return null;
  }
}

export async function readPhotos(files: readonly File[], progress: (done: number) => void): Promise<Read> {
  const said = new Map<string, Said>();
  let unread = 0;
  let done = 0;
  for (const file of files) {
    const frameFacts = await factsOf(file);
    if (!frameFacts) unread++;
    else {
      const line: Omit<Said, 'n'> = {
        maker: frameFacts.maker.slice(0, 120),
        camera: frameFacts.camera.slice(0, 120),
        unique: frameFacts.uniqueModel.slice(0, 120),
        kind: frameFacts.format === 'dng' || frameFacts.format === 'raw' ? 'camera data' : 'rendered',
      };
      const key = JSON.stringify(line);
      const had = said.get(key);
      if (had) had.n++;
      else said.set(key, { ...line, n: 1 });
    }
    if (++done % 25 === 0) progress(done);
  }
  return { said: [...said.values()], unread };
}
