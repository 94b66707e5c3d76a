/** Charts and their readings in words. */
import type { ReadingFigures } from '@/core/editor-chart/figures';
import type { SheetKind } from '@/core/editor-chart/steps';

export const kindWords: Record<SheetKind, string> = {
  '16 bits': 'rendered files, 16 bits',
  '8 bits': 'rendered files, 8 bits',
  'camera data': 'camera data (DNG)',
  plain: 'a plain Hald image, not checked',
};

/** Noise within patches, and how far patches of one color are apart. */
export function steadiness({ noise, spread }: Pick<ReadingFigures, 'noise' | 'spread'>): string {
  if (noise === null || spread === null) return 'not told';
  return `noise ${noise.toFixed(2)} of 255, spread ΔE00 ${spread.max.toFixed(2)} at most`;
}
