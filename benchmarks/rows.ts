/** A row of the bench: a figure beside its target and beside the reference measured in the same run. */
export interface Row {
  name: string;
  figure: number;
  unit: string;
  target: number;
  reference?: { name: string; figure: number; unit: string };
  note?: string;
}

export const ok = (r: Row): boolean => r.figure <= r.target;

export function print(rows: Row[]): string {
  const cells = rows.map((row) => [
    ok(row) ? 'ok' : 'OVER',
    row.name,
    `${round(row.figure)} ${row.unit}`,
    `≤ ${row.target} ${row.unit}`,
    row.reference ? `${row.reference.name}: ${round(row.reference.figure)} ${row.reference.unit}` : '',
    row.note ?? '',
  ]);
  const widths = [0, 1, 2, 3, 4].map((i) => Math.max(...cells.map((c) => c[i]!.length)));
  return cells
    .map((cells) =>
      cells
        .map((t, i) => (i < 5 ? t.padEnd(widths[i]!) : t))
        .join('  ')
        .trimEnd(),
    )
    .join('\n');
}
const round = (v: number): string => {
  if (v >= 100) return v.toFixed(0);
  if (v >= 10) return v.toFixed(1);
  return v.toFixed(2);
};

export const median = (v: number[]): number => [...v].sort((a, b) => a - b)[Math.floor(v.length / 2)]!;
