/** Encoded pictures as pixels, inside a worker. */
import { Fault } from './ask';

export interface Picture {
  width: number;
  height: number;
  /** RGBA */ data: Uint8ClampedArray;
}
interface Size {
  width: number;
  height: number;
}
/** The pixels of an encoded picture, its values as stored, or in sRGB; resized where a size is given. */
export async function pixelsOf(
  bytes: ArrayBuffer,
  size?: Size,
  colors: 'stored' | 'sRGB' = 'stored',
): Promise<Picture> {
  const bitmap = await createImageBitmap(new Blob([bytes]), {
    colorSpaceConversion: colors === 'stored' ? 'none' : 'default',
    premultiplyAlpha: 'none',
    ...(size ? { resizeWidth: size.width, resizeHeight: size.height, resizeQuality: 'high' } : {}),
  });
  const { width, height } = size ?? bitmap;
  const context = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true });
  if (!context) throw new Fault('This browser gave no canvas to draw on.', 'Close other tabs, then reload the page.');
  context.drawImage(bitmap, 0, 0);
  return { width, height, data: context.getImageData(0, 0, width, height).data };
}
