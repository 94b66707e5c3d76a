/** How near a rendition is to its source, in words. */
export function fidelity(residual: { maxDeltaE: number; meanDeltaE: number } | null): string {
  if (!residual) return '';
  return residual.maxDeltaE < 0.005
    ? ', as the source'
    : `, ΔE00 mean ${residual.meanDeltaE.toFixed(2)}, at most ${residual.maxDeltaE.toFixed(2)}`;
}
