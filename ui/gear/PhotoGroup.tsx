/** Photos of one camera and kind: what each editor makes of them, why, and what would cure it. */
import type { AnswerOf } from '@/core/api';
import { State } from '../kit/State';

export type Group = AnswerOf<'POST /api/gear/photos'>['groups'][number];

export function PhotoGroup({ group }: { group: Group }) {
  const { camera, kind, n: count, answers } = group;
  return (
    <section className="mt-3" aria-label={`${camera || 'No camera named'}, ${kind}`}>
      <h3 className="mb-0.5 text-[15px]">
        {camera || 'No camera named'}{' '}
        <span className="font-sans text-[12.5px] text-soft">
          {count.toLocaleString('en')} × {kind}
        </span>
      </h3>
      <table className="list" aria-label={`Editors and the ${camera || 'unnamed camera'}, ${kind}`}>
        <thead>
          <tr>
            <th className="w-[150px]">Editor</th>
            <th className="w-[110px]">Shows them</th>
            <th>Because</th>
          </tr>
        </thead>
        <tbody>
          {answers.map(({ key, title, answer, reason, cures }) => (
            <tr key={key}>
              <td>{title}</td>
              <td>
                <State of={answer === 'unknown' ? 'not-said' : answer} />
              </td>
              <td>
                {reason}
                {cures.map((cure) => (
                  <span key={cure} className="block text-[12.5px] text-soft">
                    {cure}
                  </span>
                ))}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
