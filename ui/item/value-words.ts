/** Values that were read from files, in words. */

/** With three digits behind the point at most. */
export const rounded = (value: number): string => String(Math.round(value * 1000) / 1000);

export function valueText(value: unknown): string {
  if (typeof value === 'number') return rounded(value);
  if (typeof value === 'string') return value;
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (value === null || value === undefined) return 'none';
  if (Array.isArray(value)) {
    const numbers = value.every((one) => typeof one === 'number');
    return value.map(valueText).join(numbers ? ', ' : '; ');
  }
  return Object.entries(value as object)
    .map(([key, one]) => `${key} ${valueText(one)}`)
    .join(', ');
}

/** The name of a fact as it is kept ("colorMatrix", "web_statement") in words: "Color matrix". */
export const factName = (key: string): string => {
  const words = key
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .replaceAll('_', ' ')
    .toLowerCase();
  return words.replace(/^./, (first) => first.toUpperCase());
};
