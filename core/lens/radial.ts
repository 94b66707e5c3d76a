/** Functions of the radius, turned round and tabulated. */
export type Radial = (r: number) => number;

const HALVINGS = 60;

/**
 * The radius at which a function that rises has a value, by halving.
 * @param most nothing is looked for beyond it
 * @returns null where the function does not come to that value up to there
 */
export function radiusOf(rising: Radial, value: number, most: number): number | null {
  if (value <= 0) return 0;
  if (!(rising(most) >= value)) return null;
  let low = 0;
  let high = most;
  for (let n = 0; n < HALVINGS; n++) {
    const middle = (low + high) / 2;
    if (rising(middle) < value) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

const STEPS = 2048;

/**
 * The radius up to which a function has to be followed so that both it and its values reach the corner.
 * @returns null where it turns back before, which would show one place twice, or does not come so far up to `most`
 */
export function reachOf(radial: Radial, corner: number, most: number): number | null {
  let before = radial(0);
  for (let n = 1; n <= STEPS; n++) {
    const r = (n / STEPS) * most;
    const now = radial(r);
    if (!(now > before)) return null;
    if (r >= corner && now >= corner) return r;
    before = now;
  }
  return null;
}

/** Whether it rises all the way from 0 to `most`. */
export function rises(radial: Radial, most: number): boolean {
  let before = radial(0);
  for (let n = 1; n <= STEPS; n++) {
    const now = radial((n / STEPS) * most);
    if (!(now > before)) return false;
    before = now;
  }
  return true;
}

/** The same function out of a table, for loops over pixels; past `most` it goes on as a straight line. */
export function tabulated(radial: Radial, most: number): Radial {
  const values = Float64Array.from({ length: STEPS + 1 }, (_, n) => radial((n / STEPS) * most));
  return (r) => {
    const place = (r / most) * STEPS;
    const below = Math.max(0, Math.min(STEPS - 1, Math.floor(place)));
    const from = values[below] ?? 0;
    return from + ((values[below + 1] ?? from) - from) * (place - below);
  };
}
