import { errorWords } from '@/core/conversion/outcome';

/** How near a rendition is to its source, in words. */
export function fidelity(residual: Parameters<typeof errorWords>[0] | null): string {
  if (!residual) return '';
  return residual.maxDeltaE < 0.005 ? ', as the source' : `, ΔE00 ${errorWords(residual)}`;
}
