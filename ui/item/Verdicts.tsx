import type { Verdict } from '@/core/bench/verdict';
import { State } from '../kit/State';
import { Ago } from '../kit/time';

export type VerdictOnItem = Verdict & { at: string };

/** What was found of the item on the bench, newest first. */
export function Verdicts({ verdicts }: { verdicts: VerdictOnItem[] }) {
  if (!verdicts.length)
    return <p className="border-t border-line py-2 text-soft">Nobody has judged it on the bench yet.</p>;
  return (
    <table className="list" aria-label="Verdicts">
      <thead>
        <tr>
          <th>Verdict</th>
          <th>On</th>
          <th>As</th>
          <th>In words</th>
          <th>By</th>
        </tr>
      </thead>
      <tbody>
        {verdicts.map((verdictOnItem) => (
          <tr key={verdictOnItem.id}>
            <td className="whitespace-nowrap">
              <State
                of={verdictOnItem.chosen ? 'approved' : 'retired'}
                word={verdictOnItem.chosen ? 'chosen' : 'not chosen'}
              />
              {verdictOnItem.as_meant !== null && (
                <span className={`block text-[12px] ${verdictOnItem.as_meant ? 'text-soft' : 'text-ochre'}`}>
                  {verdictOnItem.as_meant ? 'as meant' : 'not as meant'}
                </span>
              )}
              {verdictOnItem.blind && <span className="block text-[12px] text-soft">judged blind</span>}
              {verdictOnItem.provisional && <span className="block text-[12px] text-ochre">provisional</span>}
            </td>
            <td>
              {verdictOnItem.frame ?? 'a frame that is gone'}
              <span className="block text-[12px] text-soft">
                {[verdictOnItem.camera, verdictOnItem.light].filter(Boolean).join(', ')}
              </span>
            </td>
            <td className="whitespace-nowrap">
              version {verdictOnItem.version}
              {verdictOnItem.stages ? (
                <span className="block text-[12px] text-soft">
                  {verdictOnItem.stages.length === 4
                    ? 'every rung'
                    : verdictOnItem.stages.join(', ') || 'matrices alone'}
                </span>
              ) : (
                `, ${verdictOnItem.strength} %`
              )}
            </td>
            <td className="[overflow-wrap:anywhere]">
              {verdictOnItem.words || <span className="text-soft">none</span>}
              {verdictOnItem.beside && <span className="block text-[12px] text-soft">{verdictOnItem.beside}</span>}
            </td>
            <td>
              {verdictOnItem.person ?? 'nobody here any more'}
              <span className="block whitespace-nowrap text-[12px] text-soft">
                <Ago at={verdictOnItem.at} />
              </span>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
