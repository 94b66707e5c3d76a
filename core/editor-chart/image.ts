/** A picture as a chart is read from it. */

export interface ChartImage {
  width: number;
  height: number;
  /** samples a pixel: 3, or 4 with alpha, which is passed over */ channels: 3 | 4;
  data: Uint8Array | Uint8ClampedArray | Uint16Array;
  /** full scale */ top: number;
  /** the picture was compressed with loss, as JPEG is */ lossy: boolean;
}

interface Luma {
  width: number;
  height: number;
  values: Float32Array;
}

const known = new WeakMap<ChartImage, Luma>();

/** Weighted as JPEG weighs brightness (ITU-R BT.601), so that what was done to its color alone leaves it as it was. 0…1. */
export function lumaOf(image: ChartImage): Luma {
  const held = known.get(image);
  if (held) return held;
  const { width, height, channels, data, top } = image;
  const values = new Float32Array(width * height);
  const [r, g, b] = [0.299 / top, 0.587 / top, 0.114 / top] as const;
  for (let p = 0, i = 0; p < values.length; p++, i += channels)
    values[p] = r * data[i]! + g * data[i + 1]! + b * data[i + 2]!;
  const luma = { width, height, values };
  known.set(image, luma);
  return luma;
}
