/** Which parts of a picture at full size a window shows. Sizes in pixels of the picture, but for the window's. */
import type { Rect } from '@/core/frame/orient';

export const PART = 512;

/** `left`, `top`: where the picture's corner lies in the window (0 or less where it is larger); `scale`: window's pixels a pixel of the picture. Nearest to the middle first. */
export function partsInView(
  whole: { width: number; height: number },
  room: { width: number; height: number },
  left: number,
  top: number,
  scale: number,
): Rect[] {
  const from = (at: number): number => Math.max(0, Math.floor(-at / scale / PART));
  const to = (at: number, space: number, size: number): number =>
    Math.min(Math.ceil(size / PART), Math.ceil((space - at) / scale / PART));
  const out: Rect[] = [];
  for (let j = from(top); j < to(top, room.height, whole.height); j++)
    for (let i = from(left); i < to(left, room.width, whole.width); i++)
      out.push({
        x: i * PART,
        y: j * PART,
        w: Math.min(PART, whole.width - i * PART),
        h: Math.min(PART, whole.height - j * PART),
      });
  const far = (rect: Rect): number =>
    Math.hypot(
      left + (rect.x + rect.w / 2) * scale - room.width / 2,
      top + (rect.y + rect.h / 2) * scale - room.height / 2,
    );
  return out.sort((a, b) => far(a) - far(b));
}
