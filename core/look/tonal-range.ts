/**
 * The tonal range of a look: up to which light it says what becomes of a color, in stops around middle gray (0.18 of what
 * display white is). The sRGB curve is the shaper, continued beyond 1: a table whose domain reaches further in code values
 * reaches further in light. Its dark end is black, so that nothing is cut off below.
 */
import { decodeSrgb, encodeSrgb } from '../color/transfer';

const MIDDLE_GRAY = 0.18;

/** Where display white is, in stops above middle gray. */
export const WHITE_EV = Math.log2(1 / MIDDLE_GRAY);
/** The least and the furthest that can be asked for. */
export const LEAST_EV = 2.5;
export const MOST_EV = 8;

/** The domain of a table that reaches so many stops above middle gray; to display white without. */
export function domainUpTo(above: number | null): { min: number[]; max: number[] } {
  const top = above === null ? 1 : encodeSrgb(MIDDLE_GRAY * 2 ** above);
  return { min: [0, 0, 0], max: [top, top, top] };
}

/** Up to how many stops above middle gray a table of sRGB values reaches, by the channel that ends first. */
export const reachOf = ({ max }: { max: readonly number[] }): number =>
  Math.log2(decodeSrgb(Math.min(...max)) / MIDDLE_GRAY);

/** "from black to +4 EV above middle gray". */
export function reachWords(domain: { max: readonly number[] }): string {
  const reach = Math.round(reachOf(domain) * 10) / 10;
  const white = Math.abs(reach - WHITE_EV) < 0.05 ? ', display white' : '';
  return `from black to ${reach > 0 ? '+' : ''}${reach} EV around middle gray${white}`;
}
