/** Stations that never had an agent are kept by hand: what lies there is what people said that they have put there. */
import type { StationRow } from './queries';

export const isKeptByHand = ({ enrolled, last_report_at }: Pick<StationRow, 'enrolled' | 'last_report_at'>): boolean =>
  !enrolled && last_report_at === null;

/** What lies at a station: as its agent told it, or as it was put there by hand. */
export const lyingAt = <File extends { path: string; sha: string }>(
  agent: Pick<StationRow, 'enrolled' | 'last_report_at'>,
  told: readonly File[],
  placed: readonly File[],
): readonly { path: string; sha: string }[] => (isKeptByHand(agent) ? placed : told);
