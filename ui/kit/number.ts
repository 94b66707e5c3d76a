/** Numbers as people type them. */

export interface Bounds {
  min: number;
  max: number;
  /** no fractions */ whole?: boolean;
}
export type ReadNumber = { value: number; problem: null } | { value: null; problem: string };

const plain = (n: number): string => n.toLocaleString('en', { maximumFractionDigits: 6 });

/**
 * What was typed as a number within bounds, or why it is none. Takes a comma for a point ("0,85"), commas between
 * thousands ("4,500" where that is within the bounds), a minus sign as printed, and spaces.
 */
export function readNumber(text: string, { min, max, whole = false }: Bounds): ReadNumber {
  const typed = text.replace(/\s/g, '').replace(/^[−–]/, '-');
  const candidates = [typed.replace(/,(?=\d{3}(\D|$))/g, ''), typed.replace(',', '.')].filter((one) =>
    /^[-+]?(\d+\.?\d*|\.\d+)$/.test(one),
  );
  if (!candidates.length) return { value: null, problem: 'Not a number' };
  const numbers = candidates.map(Number);
  const within = numbers.find((n) => n >= min && n <= max);
  if (within === undefined) return { value: null, problem: `From ${plain(min)} to ${plain(max)}` };
  if (whole && !Number.isInteger(within)) return { value: null, problem: 'Whole numbers only' };
  return { value: within, problem: null };
}

/** The next value that is a multiple of the step away, within the bounds and without the dust of binary fractions. */
export function stepped(value: number, by: number, { min, max }: Bounds): number {
  const next = Math.min(max, Math.max(min, value + by));
  return Number(next.toFixed(6));
}
