import { State } from '../kit/State';
import { Ago } from '../kit/time';

export interface VerdictOnItem {
  id: number;
  version: number;
  frame: string | null;
  camera: string;
  light: string;
  strength: number;
  stages: string[] | null;
  beside: string;
  words: string;
  chosen: boolean;
  as_meant: boolean | null;
  display: { gamut?: string };
  provisional: boolean;
  person: string | null;
  at: string;
}

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
        {verdicts.map((v) => (
          <tr key={v.id}>
            <td className="whitespace-nowrap">
              <State of={v.chosen ? 'approved' : 'retired'} word={v.chosen ? 'chosen' : 'not chosen'} />
              {v.as_meant !== null && (
                <span className={`block text-[12px] ${v.as_meant ? 'text-soft' : 'text-ochre'}`}>
                  {v.as_meant ? 'as meant' : 'not as meant'}
                </span>
              )}
              {v.provisional && <span className="block text-[12px] text-ochre">provisional</span>}
            </td>
            <td>
              {v.frame ?? 'a frame that is gone'}
              <span className="block text-[12px] text-soft">{[v.camera, v.light].filter(Boolean).join(', ')}</span>
            </td>
            <td className="whitespace-nowrap">
              version {v.version}
              {v.stages ? (
                <span className="block text-[12px] text-soft">
                  {v.stages.length === 4 ? 'every rung' : v.stages.join(', ') || 'matrices alone'}
                </span>
              ) : (
                `, ${v.strength} %`
              )}
            </td>
            <td className="[overflow-wrap:anywhere]">
              {v.words || <span className="text-soft">none</span>}
              {v.beside && <span className="block text-[12px] text-soft">{v.beside}</span>}
            </td>
            <td>
              {v.person ?? 'nobody here any more'}
              <span className="block whitespace-nowrap text-[12px] text-soft">
                <Ago at={v.at} />
              </span>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
