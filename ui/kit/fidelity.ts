/** How near a rendition is to its source, in words. */
export function fidelity(r: { maxDeltaE: number; meanDeltaE: number } | null): string {
  if (!r) return '';
  return r.maxDeltaE < 0.005
    ? ', as the source'
    : `, ΔE00 mean ${r.meanDeltaE.toFixed(2)}, at most ${r.maxDeltaE.toFixed(2)}`;
}
