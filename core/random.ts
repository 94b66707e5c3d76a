/**
 * Numbers that look random and are the same for a seed, for tests, benchmarks and made-up libraries: 32 bits of state
 * moved on by a constant and mixed by two multiplications (public-domain "mulberry32"). Not for secrets.
 * @returns a function that answers with the next number, 0 ≤ x < 1
 */
export function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = state;
    mixed = Math.imul(mixed ^ (mixed >>> 15), mixed | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  };
}
