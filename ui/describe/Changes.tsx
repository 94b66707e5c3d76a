/** What a descriptor says otherwise than what is known of the editor. */
import type { Descriptor } from '@/core/editor/descriptor';
import { differences } from '@/core/editor/differences';
import { counted } from '../kit/words';

/** So many are shown; the lead sees all of them. */
const SHOWN = 40;

export function Changes({ before, after }: { before: Descriptor | null; after: Descriptor }) {
  const isAnother = before !== null && (before.editor !== after.editor || before.version !== after.version);
  if (!before || isAnother)
    return (
      <p className="mb-2">
        {after.title} is described as {isAnother ? 'another editor or version' : 'an editor that is new here'}:{' '}
        {after.editor}@{after.version}.
      </p>
    );
  const all = differences(before, after);
  return (
    <table className="list mb-3 max-w-[980px]" aria-label={`${counted(all.length, 'difference')} from what is known`}>
      <thead>
        <tr>
          <th>Where</th>
          <th>Known</th>
          <th>Proposed</th>
        </tr>
      </thead>
      <tbody>
        {all.slice(0, SHOWN).map(({ at, before: was, after: is }) => (
          <tr key={at}>
            <td>{at}</td>
            <td className="[overflow-wrap:anywhere]">{was || '–'}</td>
            <td className="[overflow-wrap:anywhere]">{is || '–'}</td>
          </tr>
        ))}
        {all.length > SHOWN && (
          <tr>
            <td colSpan={3}>and {all.length - SHOWN} more</td>
          </tr>
        )}
      </tbody>
    </table>
  );
}
