/** Headings on the edge of the board: at the beginning of each board, and wherever they change, for as far as they reach on it. */
export interface Label {
  words: string;
  reach: number;
}

/** A spine, or instead of it so many that are folded behind the first of them. */
export interface Standing<T> {
  spine: T;
  /** 0 for a spine by itself */ hidden: number;
}

/** Runs of spines with the same headings, each that is folded as its first spine alone. */
export function withFolded<T extends { headings: readonly string[] }>(
  spines: readonly T[],
  isFolded: (spine: T) => boolean,
): Standing<T>[] {
  const out: Standing<T>[] = [];
  let before = '';
  for (const spine of spines) {
    const words = spine.headings.join('\n');
    const last = out.at(-1);
    if (last?.hidden && words === before) last.hidden++;
    else out.push({ spine, hidden: isFolded(spine) ? 1 : 0 });
    before = words;
  }
  return out;
}

/** One label a spine, with words where they begin; null where nothing has headings. Spines not there yet (undefined) begin nothing. */
export function labelsOf(
  items: readonly ({ headings: readonly string[] } | undefined)[],
  columns: number,
): Label[] | null {
  const words = items.map((s) => s?.headings.join(' / '));
  const at = (i: number): boolean => i % columns === 0 || words[i] !== words[i - 1];
  if (!words.some(Boolean)) return null;
  return words.map((word, i) => {
    if (!word || !at(i)) return { words: '', reach: 0 };
    let reach = 1;
    while ((i + reach) % columns !== 0 && words[i + reach] === word) reach++;
    return { words: word, reach };
  });
}
