/** How items stand against what an editor or a card asks: check by check, with what is to be done. */
import Link from 'next/link';
import { checkNames, checkWords, type Checked, type CheckedThing } from '@/core/editor/checklist';
import { State } from '../kit/State';

const states: Readonly<Record<Checked['is'], { of: string; word: string }>> = {
  passed: { of: 'done', word: 'passed' },
  'on-the-way': { of: 'converted', word: 'on the way' },
  'to-change': { of: 'conflict', word: 'to change' },
};

export function Checklist({ things, target }: { things: readonly CheckedThing[]; target: string }) {
  return (
    <div className="relative overflow-x-auto">
      <table className="list" aria-label={`Checklist for ${target}`}>
        <thead>
          <tr>
            <th>Item</th>
            {checkNames.map((name) => (
              <th key={name}>{checkWords[name]}</th>
            ))}
          </tr>
        </thead>
        <tbody>
          {things.map(({ id, title, checks }) => (
            <tr key={id} data-row={title}>
              <th
                scope="row"
                className="min-w-[150px] !border-line !py-2 align-top !text-[13.5px] !text-ink [overflow-wrap:anywhere]"
              >
                <Link prefetch={false} className="font-serif text-[15px] hover:underline" href={`/items/${id}`}>
                  {title}
                </Link>
              </th>
              {checkNames.map((name) => (
                <td key={name} className="min-w-[92px] align-top [overflow-wrap:anywhere]">
                  <Answer checked={checks[name]} />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Answer({ checked }: { checked: Checked | null }) {
  if (!checked) return <span className="text-soft">not asked</span>;
  const { of, word } = states[checked.is];
  return (
    <>
      <State of={of} word={word} />
      {checked.words && <span className="block text-[12px] text-soft">{checked.words}</span>}
    </>
  );
}
