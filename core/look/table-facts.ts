/** What is kept with a table that was computed here: nothing stands in its file that was not put there. */
import type { Look } from './look';

interface Computed {
  /** points an axis */ size: number;
  domain: Look['domain'];
  range: { min: number[]; max: number[] };
}

export const tableFacts = ({ size, domain, range }: Computed, title: string) => ({
  kind: '3d' as const,
  size,
  domain,
  range,
  fileTitle: title,
  comments: [],
  warnings: [],
});
