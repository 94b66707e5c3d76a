/** Pictures turned and mirrored as TIFF's Orientation (274) says: 1 as stored, 2 mirrored, 3 half turned, 4 upside down, 5 transposed, 6 to be turned right, 7 transposed across, 8 to be turned left. */
export interface Rect {
  x: number;
  y: number;
  w: number;
  h: number;
}

const swaps = (o: number): boolean => o >= 5 && o <= 8;
/** Width and height as shown. */
export const shownSize = (w: number, h: number, o: number): [number, number] => (swaps(o) ? [h, w] : [w, h]);

/** Where in what is stored (w × h) a place as shown lies. */
function storedAt(x: number, y: number, w: number, h: number, o: number): [number, number] {
  switch (o) {
    case 2:
      return [w - 1 - x, y];
    case 3:
      return [w - 1 - x, h - 1 - y];
    case 4:
      return [x, h - 1 - y];
    case 5:
      return [y, x];
    case 6:
      return [y, h - 1 - x];
    case 7:
      return [w - 1 - y, h - 1 - x];
    case 8:
      return [w - 1 - y, x];
    default:
      return [x, y];
  }
}

/** The part of what is stored that a part as shown is made of. */
export function storedRect(rect: Rect, w: number, h: number, o: number): Rect {
  const [ax, ay] = storedAt(rect.x, rect.y, w, h, o);
  const [bx, by] = storedAt(rect.x + rect.w - 1, rect.y + rect.h - 1, w, h, o);
  const x = Math.min(ax, bx);
  const y = Math.min(ay, by);
  return { x, y, w: Math.abs(ax - bx) + 1, h: Math.abs(ay - by) + 1 };
}

/** Interleaved samples as stored (w × h) to as shown. */
export function oriented<T extends Uint8Array | Uint16Array>(
  data: T,
  w: number,
  h: number,
  channels: number,
  o: number,
): T {
  if (!(o >= 2 && o <= 8)) return data;
  const [sw, sh] = shownSize(w, h, o);
  const out = data.slice() as T;
  for (let y = 0, i = 0; y < sh; y++)
    for (let x = 0; x < sw; x++, i += channels) {
      const [px, py] = storedAt(x, y, w, h, o);
      const s = (py * w + px) * channels;
      for (let c = 0; c < channels; c++) out[i + c] = data[s + c]!;
    }
  return out;
}

/** A part of a part: `from` says what `data` holds, `to` lies within it. */
export function cropped<T extends Uint8ClampedArray | Uint16Array>(data: T, from: Rect, to: Rect, channels: number): T {
  const out = data.slice(0, to.w * to.h * channels) as T;
  for (let y = 0; y < to.h; y++) {
    const at = ((to.y - from.y + y) * from.w + to.x - from.x) * channels;
    out.set(data.subarray(at, at + to.w * channels), y * to.w * channels);
  }
  return out;
}
