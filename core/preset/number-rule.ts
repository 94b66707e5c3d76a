/** How a property's number becomes a setting's and back: scale and offset, a table, a logarithm, a range and whole multiples. */

export interface NumberRule {
  scale?: number;
  offset?: number;
  /** property → setting, piecewise linear, held at its ends; in the place of scale and offset */
  table?: [number, number][];
  log2?: boolean;
  exp2?: boolean;
  /** what the property may be, at least and at most */ range?: [number, number];
  /** what the property is a multiple of, where it is no free number */ multipleOf?: number;
}

/** Between the numbers of a table, in straight lines; held at its ends. */
function throughTable(table: readonly (readonly [number, number])[], x: number): number {
  const up = table.findIndex((point) => point[0] >= x);
  if (up === 0) return table[0]![1];
  if (up < 0) return table.at(-1)![1];
  const below = table[up - 1]!;
  const above = table[up]!;
  return below[1] + ((above[1] - below[1]) * (x - below[0])) / (above[0] - below[0]);
}

/** Settings are kept to nine decimals, so that scales such as 1/255 leave no dust. */
const settled = (value: number): number => Math.round(value * 1e9) / 1e9;

/** A property's number as its setting's. */
export function through(rule: NumberRule, x: number): number {
  const scaled = rule.table ? throughTable(rule.table, x) : x * (rule.scale ?? 1) + (rule.offset ?? 0);
  if (rule.log2) return settled(Math.log2(scaled));
  return settled(rule.exp2 ? 2 ** scaled : scaled);
}

/** Why a rule cannot be turned round; null where it can. */
export function faultOfRule(rule: NumberRule): string | null {
  if (rule.scale === 0) return 'has a scale of 0, so that every value gives the same';
  if (rule.log2 && rule.exp2) return 'takes a logarithm and a power of two at once';
  if (rule.range && !(rule.range[0] < rule.range[1])) return 'has a range whose first number is not below its second';
  if (rule.multipleOf !== undefined && !(rule.multipleOf > 0)) return 'has a multiple that is not above 0';
  const { table } = rule;
  if (!table) return null;
  if (table.length < 2) return 'has a table of less than two points';
  if (table.some((point, index) => index > 0 && point[0] <= table[index - 1]![0]))
    return 'has a table whose property values do not rise';
  const rises = table[1]![1] > table[0]![1];
  const turns = table.some(
    (point, index) => index > 0 && (rises ? point[1] <= table[index - 1]![1] : point[1] >= table[index - 1]![1]),
  );
  return turns ? 'has a table that takes the same value twice, so that it cannot be turned round' : null;
}

/** The property's number that gives a setting's, without range and multiples; null where there is none. */
function turnedRound(rule: NumberRule, value: number): number | null {
  let scaled = value;
  if (rule.exp2) {
    if (value <= 0) return null;
    scaled = Math.log2(value);
  } else if (rule.log2) scaled = 2 ** value;
  const { table } = rule;
  if (!table) return (scaled - (rule.offset ?? 0)) / (rule.scale ?? 1);
  const turned = table.map(([x, y]): [number, number] => [y, x]);
  if (turned[0]![0] > turned.at(-1)![0]) turned.reverse();
  return throughTable(turned, scaled);
}

/** The shortest decimal that gives the same setting as the number itself. */
function shortest(rule: NumberRule, x: number): number {
  const meant = through(rule, x);
  for (let digits = 1; digits <= 15; digits++) {
    const short = Number(x.toPrecision(digits));
    if (through(rule, short) === meant) return short;
  }
  return x;
}

export interface TurnedNumber {
  /** what the file says */ property: number;
  /** the setting's value that this is read as */ reads: number;
}

/** The property's number for a setting's, as near as its range and multiples allow; null where no number gives it. */
export function back(rule: NumberRule, value: number): TurnedNumber | null {
  if (faultOfRule(rule)) return null;
  const exact = turnedRound(rule, value);
  if (exact === null || !Number.isFinite(exact)) return null;
  const [low, high] = rule.range ?? [-Infinity, Infinity];
  let x = Math.min(high, Math.max(low, exact));
  if (rule.multipleOf) x = Math.min(high, Math.max(low, settled(Math.round(x / rule.multipleOf) * rule.multipleOf)));
  const property = shortest(rule, x);
  return { property, reads: through(rule, property) };
}
