/** A photo that a person has at hand, as its file says it; read in the browser, and not sent. */
import type { PhotoAsked } from '@/core/api/items';
import { hasColor, LOOKED_AT_WIDTH } from '@/core/color/has-color';
import { frameFacts, type FrameFacts } from '@/core/frame/metadata';

/** The directory of a photo's file stands within so much of it nearly always. */
const HEAD_BYTES = 4 << 20;
const MOST_BYTES = 256 << 20;

async function factsOf(file: File): Promise<FrameFacts | null> {
  for (const most of [HEAD_BYTES, MOST_BYTES]) {
    try {
      const facts = frameFacts(new Uint8Array(await file.slice(0, most).arrayBuffer()));
      if (facts) return facts;
    } catch {
      /* cut off */
    }
    if (file.size <= most) return null;
  }
  return null;
}

/** Whether there is any color in it; null where the browser cannot show it. */
async function resultOf(file: File): Promise<PhotoAsked['result']> {
  const bitmap = await createImageBitmap(file, { resizeWidth: LOOKED_AT_WIDTH }).catch(() => null);
  if (!bitmap) return null;
  const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
  const context = canvas.getContext('2d');
  if (!context) return null;
  context.drawImage(bitmap, 0, 0);
  bitmap.close();
  return hasColor(context.getImageData(0, 0, canvas.width, canvas.height).data) ? 'color' : 'monochrome';
}

/** Null for a file that is no photo that is read here. */
export async function photoAskedOf(file: File): Promise<PhotoAsked | null> {
  const facts = await factsOf(file);
  if (!facts) return null;
  const isCameraData = facts.format === 'dng' || facts.format === 'raw';
  return {
    name: file.name.slice(-300),
    maker: facts.maker.slice(0, 120),
    camera: (facts.uniqueModel || facts.camera).slice(0, 200),
    serial: facts.serial.slice(0, 120),
    kind: isCameraData ? 'camera data' : 'rendered',
    range: null,
    result: isCameraData ? null : await resultOf(file),
  };
}

/** A photo in a few words. */
export const photoWords = ({ camera, kind, result }: PhotoAsked): string =>
  [camera || 'no camera named', kind, result === 'monochrome' ? 'without color' : ''].filter(Boolean).join(', ');
