/** Photos and the files beside them, read in the browser for what is on them. */
import type { Descriptor } from '@/core/editor/descriptor';
import { frameFacts, type FrameFacts } from '@/core/frame/metadata';
import { photoNow, sidecarOf, type PhotoNow, type Untold } from '@/core/records/photo-now';

export interface PhotoRead {
  path: string;
  maker: string;
  camera: string;
  kind: 'camera data' | 'rendered';
  now: PhotoNow | Untold;
}

interface Given {
  path: string;
  file: File;
}

/** So many are told; a folder of a thousand is for the other question, by camera. */
export const MOST_PHOTOS = 100;
const HEAD_BYTES = 4 << 20;
const MOST_SIDECAR_BYTES = 2 << 20;

const bytesOf = async (file: Blob): Promise<Uint8Array> => new Uint8Array(await file.arrayBuffer());

function factsIn(bytes: Uint8Array): FrameFacts | null {
  try {
    return frameFacts(bytes);
  } catch {
    return null;
  }
}

/** The names of what is on a photo. */
export const namesOn = ({ now }: PhotoRead): string[] =>
  'why' in now ? [] : [now.preset, now.profile, ...now.looks.map((look) => look.name)].filter(Boolean);

/** Those of the files that are photos, with what is on them. */
export async function readPhotosNow(files: readonly Given[], descriptors: readonly Descriptor[]): Promise<PhotoRead[]> {
  const out: PhotoRead[] = [];
  for (const { path, file } of files) {
    if (out.length >= MOST_PHOTOS) break;
    const bytes = await bytesOf(file.slice(0, HEAD_BYTES));
    const facts = factsIn(bytes);
    if (!facts) continue;
    const beside = sidecarOf(path, files);
    const isSmall = beside !== null && beside.file.size <= MOST_SIDECAR_BYTES;
    const sidecar = isSmall ? { path: beside.path, bytes: await bytesOf(beside.file) } : null;
    // a picture of the same name beside it, such as the camera's JPEG, is no sidecar
    const words = sidecar && !factsIn(sidecar.bytes) ? sidecar : null;
    out.push({
      path,
      maker: facts.maker,
      camera: facts.uniqueModel || facts.camera,
      kind: facts.format === 'dng' || facts.format === 'raw' ? 'camera data' : 'rendered',
      now: photoNow({ path, bytes }, words, descriptors),
    });
  }
  return out;
}
