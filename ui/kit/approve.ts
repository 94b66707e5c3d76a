'use client';
/** Approves items, says how many and which not, and offers to take it back. */
import type { LeftOut } from '@/core/api/items';
import type { Action } from './action';
import { call } from './call';
import { useToast } from './toast';
import { counted } from './words';

/** " 2 were not approved: Kiln Night (its encoding is only assumed) and 1 more."; empty where nothing is left. */
export function leftWords(left: readonly LeftOut[]): string {
  const [first] = left;
  if (!first) return '';
  const more = left.length > 1 ? ` and ${left.length - 1} more` : '';
  return ` ${left.length} ${left.length === 1 ? 'was' : 'were'} not approved: ${first.title} (${first.why})${more}.`;
}

/** Resolves to whether it went well. */
export function useApprove(action: Action): (items: readonly string[]) => Promise<boolean> {
  const tell = useToast();
  return (items) =>
    action.runAndRefresh(async () => {
      const { versions, left } = await call('POST /api/items/approve', { body: { items } });
      const undo = () => call('POST /api/items/approve/undo', { body: { versions } });
      tell({
        words: `${counted(versions.length, 'version')} approved.${leftWords(left)}`,
        ...(versions.length ? { undo } : {}),
      });
    });
}
