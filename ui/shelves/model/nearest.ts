/** Where an arrow leads among things that lie in rows on a page. */
export interface Lying {
  top: number;
  left: number;
}

/**
 * The nearest in the next row up or down.
 * @param gap two that differ by less in height stand in one row, in pixels
 */
export function nearestInRow<T>(
  here: Lying,
  all: readonly { at: T; box: Lying }[],
  direction: 'up' | 'down',
  gap: number,
): T | undefined {
  const beyond = all.filter(({ box }) => (direction === 'down' ? box.top > here.top + gap : box.top < here.top - gap));
  const away = (box: Lying): [number, number] => [Math.abs(box.top - here.top), Math.abs(box.left - here.left)];
  const sorted = [...beyond].sort((one, other) => {
    const [downA, acrossA] = away(one.box);
    const [downB, acrossB] = away(other.box);
    return downA - downB || acrossA - acrossB;
  });
  return sorted[0]?.at;
}
